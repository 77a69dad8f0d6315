/** Signs of Unicode that are seen nowhere (Cf, fillers) or turn the direction of what follows (UAX 9). */
// each is a sign of its own here, and none joins the one in front of it
/* eslint-disable no-control-regex, no-misleading-character-class */
const unseen =
	/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\u00ad\u034f\u061c\u115f\u1160\u17b4\u17b5\u180b-\u180f\u200b-\u200f\u202a-\u202e\u2060-\u206f\u3164\ufe00-\ufe0e\ufeff\uffa0\ufff0-\ufffb]|[\u{e0000}-\u{e007f}]/gu;
/* eslint-enable no-control-regex, no-misleading-character-class */
const mayBeUnseen = /[^\u0020-\u007e\u00a0-\u00ac\u00ae-\u024f]/;
/** Letters that are written from right to left: among them marks of direction have their use. */
const fromTheRight = /[\p{sc=Arab}\p{sc=Hebr}\p{sc=Syrc}\p{sc=Thaa}\p{sc=Nkoo}]/u;
/** Marks of direction that turn nothing round but themselves. */
const directionMarks = new Set(['\u200e', '\u200f', '\u061c']);
const joiners = new Set(['\u200c', '\u200d']);
/** What a joiner has its use behind: a letter of a script that joins, or a picture. */
const joins =
	/[\p{sc=Arab}\p{sc=Deva}\p{sc=Beng}\p{sc=Taml}\p{sc=Telu}\p{sc=Knda}\p{sc=Mlym}\p{sc=Sinh}\p{sc=Mong}\p{M}\p{Extended_Pictographic}\ufe0f]$/u;

const named = (sign: string) => `\u27e8U+${sign.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}\u27e9`;

/**
 * A name, a title or a key as it is shown: signs that nobody sees, or that would turn the words round, stand there as
 * their number in Unicode, `⟨U+202E⟩`. What scripts need to be written well stays as it is.
 */
export function visible(text: string): string {
	if (!mayBeUnseen.test(text)) return text;
	return text.replace(unseen, (sign, at: number) => {
		if (directionMarks.has(sign) && fromTheRight.test(text)) return sign;
		if (joiners.has(sign) && joins.test(text.slice(Math.max(0, at - 2), at))) return sign;
		return named(sign);
	});
}
