import { mapMarkup, markupOf, type Question } from '../kinds';
import { plainText } from '../markup/text';
import type { OneCheck } from './check';
import { quoted } from './saying';

/** The letters that Windows-1252 has where ISO 8859-1 has control characters, by their bytes from 0x80 on. */
const windows = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';
const byteOf = new Map([...windows].map((sign, at) => [sign, 0x80 + at]));
// some readers leave the control characters of ISO 8859-1 where Windows has letters
for (let code = 0x80; code <= 0xff; code += 1) byteOf.set(String.fromCharCode(code), code);

const signs = `[${windows.replace(/[\\\]^-]/g, '\\$&')}\u0080-\u00bf]`;
/** A letter of UTF-8 whose bytes were read as letters of Windows-1252, two to four of them. */
const misread = new RegExp(`[\u00c2-\u00df]${signs}|[\u00e0-\u00ef]${signs}{2}|[\u00f0-\u00f4]${signs}{3}`, 'gu');
const lost = '\ufffd';

/** The letter that bytes stand for; null where they are none of UTF-8. */
function decoded(found: string): string | null {
	const bytes = [...found].map((sign) => byteOf.get(sign) ?? 0);
	try {
		return new TextDecoder('utf-8', { fatal: true }).decode(Uint8Array.from(bytes));
	} catch {
		return null;
	}
}

/** Whether two such letters may stand in a word as they are: “Ã” and “Â” with a stop behind them are hardly ever meant. */
const isLikely = (found: string, letter: string) => /^[ÃÂâð]/.test(found) || /\p{L}|\p{P}|\p{S}|\s/u.test(letter);

function repaired(markup: string): string {
	return markup.replace(misread, (found) => {
		const letter = decoded(found);
		return letter !== null && isLikely(found, letter) ? letter.replace(/[<>&]/g, found) : found;
	});
}

/** The words in which letters are misread, with what is around them. */
function wordsOf(text: string): string[] {
	return text.split(/\s+/).filter((word) => word.includes('\ufffd') || repaired(word) !== word);
}

const textsOf = (question: Question): string[] => {
	const accepted =
		'accepted' in question ? question.accepted.flatMap((entry) => ('text' in entry ? [entry.text] : [])) : [];
	return [question.title, ...markupOf(question).map(({ markup }) => plainText(markup)), ...accepted, ...question.tags];
};

/** The question with its letters read right, wherever that gives letters. */
function readRight(question: Question): Question {
	const right = mapMarkup(question, repaired);
	const common = { title: repaired(question.title), tags: question.tags.map(repaired) };
	return right.kind === 'short-answer'
		? { ...right, ...common, accepted: right.accepted.map((entry) => ({ ...entry, text: repaired(entry.text) })) }
		: { ...right, ...common };
}

/** Letters that were read in a wrong encoding. */
export const mojibake: OneCheck = {
	id: 'mojibake',
	version: 1,
	scope: 'one',
	title: 'Letters that were read in a wrong encoding',
	short: 'encoding',
	severity: 'doubtful',
	why: 'Somewhere on its way the text was read in another encoding than it was written in, so that students read signs in the place of letters.',
	find(question) {
		if (question.kind === 'unreadable') return [];
		const words = [...new Set(textsOf(question).flatMap(wordsOf))];
		if (!words.length) return [];
		const isLost = words.some((word) => repaired(word).includes('\ufffd'));
		return [
			{
				message: `${quoted(words)} ${words.length > 1 ? 'are' : 'is'} not as it was written. ${isLost ? 'Some letters are lost: write them anew.' : 'Read the letters in the encoding that makes words of them.'}`,
				words
			}
		];
	},
	mend: {
		title: 'Read the letters in the encoding in which they were written',
		// what is lost a person has to write
		fits: (question) =>
			question.kind !== 'unreadable' && !textsOf(readRight(question)).some((text) => text.includes(lost)),
		apply: (question) => {
			const right = readRight(question);
			return textsOf(right).some((text) => text.includes('\ufffd')) ? question : right;
		}
	}
};
