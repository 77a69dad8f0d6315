import type { Markup } from '../../model/question';
import { escapeText } from '../../xml/serialise';
import type { Line } from './lines';

/** A line to write an answer on in front of a number is no emphasis. */
const answerBlank = /^(?!__\d+[.)]__|__[^_]+__\s*$)_{2,}\s*[A-Za-z]{0,5}\s*_*\s*#?\d{1,6}\s*[.)]/;
const keycap = /^(\d)\uFE0F?\u20E3[.)]?\s*/;
const escaped = /\\([_*#.\-+>)\]])/g;
/** Signs that stand for escaped ones while emphasis is looked for. */
const hidden = 0xe100;

/** Markdown's signs of emphasis (CommonMark 0.31, 6.2), strong first; a star before a label is a key, not emphasis. */
const emphases: [RegExp, string][] = [
	[/(?<!`)`(?=[^\s`])([^`]+?)(?<=[^\s`])`(?!`)/g, 'code'],
	[/(?<!\*)\*\*\*(?=[^\s*])(.+?)(?<=[^\s*])\*\*\*(?!\*)/g, 'b'],
	[/(?<!\*)\*\*(?=[^\s*])((?:(?!\*\*).)+?)(?<=[^\s*])\*\*(?!\*)/g, 'b'],
	[/(?<![\w_])__(?=[^\s_])(?!(?:T|F|true|false)__)((?:(?!__).)+?)(?<=[^\s_])__(?![\w_])/gi, 'b'],
	[/(?<![\w*])\*(?=[^\s*])(?!\(?(?:[a-z]|[ivx]{1,4}|\d{1,3})[.):\]])([^*]+?)(?<=[^\s*])\*(?![\w*])/gi, 'em'],
	[/(?<![\w_])_(?=[^\s_])([^_]+?)(?<=[^\s_])_(?![\w_])/g, 'em']
];

function emphasised(text: string): { text: string; markup: Markup } {
	let plain = text;
	let markup = escapeText(text);
	for (const [pattern, name] of emphases) {
		plain = plain.replace(pattern, '$1');
		markup = markup.replace(pattern, `<${name}>$1</${name}>`);
	}
	return { text: plain, markup };
}

const whole = /^<(b|em)>((?:(?!<\/\1>).)*)<\/\1>$/s;

/** Rich text that stands out as a whole, without what makes it stand out; null where it does not. */
export function withoutStress(markup: Markup): Markup | null {
	return whole.exec(markup.trim())?.[2] ?? null;
}

/** A line of plain text as people write it, with the signs of Markdown read: emphasis, escaped signs, numbers in boxes. */
export function readSigns(line: Line): Line {
	if (escapeText(line.text) !== line.markup) return line;
	if (answerBlank.test(line.text)) return line;
	const text = line.text
		.replace(keycap, '$1. ')
		.replace(/^\u{1F51F}\s*/u, '10. ')
		.replace(/^(?:>\s*)+(?=\s\S|$)/, '')
		.trimStart()
		.replace(escaped, (_, sign: string) => String.fromCharCode(hidden + sign.charCodeAt(0)));
	if (text === line.text && !/[*_`]/.test(text)) return line;
	const shown = (one: string) =>
		one.replace(/[\ue100-\ue17f]/g, (sign) => escapeText(String.fromCharCode(sign.charCodeAt(0) - hidden)));
	const read = emphasised(text);
	const bare = withoutStress(read.markup);
	return {
		...line,
		text: shown(read.text).trim(),
		markup: shown(bare ?? read.markup).trim(),
		stressed: line.stressed || (bare !== null && read.markup.startsWith('<b>'))
	};
}

const row = /^\|.*\|$/;
/** A number with its table right behind it. */
const behindNumber = /^(\d{1,6}[.)])\s+(\|.*\|)$/;
const rule = /^\|(?:\s*:?-{2,}:?\s*\|)+$/;
const cells = (line: Line) =>
	line.text
		.slice(1, -1)
		.split(/(?<!\\)\|/)
		.map((cell) => {
			const text = cell.replace(/\\\|/g, '|').trim();
			const { text: plain, markup } = readSigns({ ...line, text, markup: escapeText(text) });
			return { text: plain, markup };
		});

/** The rows of a table without a heading, whose cells people part by bars all the same; none where one line alone has them. */
function plainRows(lines: Line[], from: number): ReturnType<typeof cells>[] {
	const rows: ReturnType<typeof cells>[] = [];
	for (let at = from; at < lines.length && row.test(lines[at]!.text); at += 1) rows.push(cells(lines[at]!));
	const width = rows[0]?.length ?? 0;
	return rows.length > 1 && width > 1 && rows.every((own) => own.length === width) ? rows : [];
}

/** Lines with the signs of Markdown read, and its tables (a row, a rule of dashes, rows) put together into one line each. */
export function readMarkdown(lines: Line[]): Line[] {
	const out: Line[] = [];
	for (let at = 0; at < lines.length; at += 1) {
		const given = lines[at]!;
		const behind = rule.test(lines[at + 1]?.text ?? '') ? behindNumber.exec(given.text) : null;
		if (behind) out.push({ ...given, text: behind[1]!, markup: behind[1]! });
		const line = behind ? { ...given, text: behind[2]! } : given;
		if (!row.test(line.text) || !rule.test(lines[at + 1]?.text ?? '')) {
			const plain = plainRows(lines, at);
			if (plain.length) {
				out.push({ ...line, text: '', markup: '', table: plain });
				at += plain.length - 1;
			} else out.push(readSigns(line));
			continue;
		}
		const rows = [cells(line)];
		for (at += 2; at < lines.length && row.test(lines[at]!.text); at += 1) rows.push(cells(lines[at]!));
		at -= 1;
		out.push({ ...line, text: '', markup: '', table: rows, headed: true });
	}
	return out;
}

/** The line that begins or ends a block of code (CommonMark 0.31, 4.5). */
export const fence = /^(?:```|~~~)\s*[\w+-]*\s*$/;

const opening = /^<details\b[^>]*>/i;
const closing = /<\/details>\s*$/i;
const summary = /^<summary\b[^>]*>(.*?)<\/summary>/i;

/**
 * Lines without the fences of code, and without HTML's folds, in which answers are hidden on a page: what stands under a summary that speaks of the
 * answer becomes an answer line, and anything else stands where it stood.
 */
export function unfold(lines: Line[]): Line[] {
	const out: Line[] = [];
	let folded: { answer: boolean } | null = null;
	for (const line of lines) {
		let { text } = line;
		if (fence.test(text)) {
			out.push({ ...line, text: '', markup: '' });
			continue;
		}
		if (opening.test(text)) {
			folded = { answer: false };
			text = text.replace(opening, '').trim();
		}
		if (!folded) {
			out.push(line);
			continue;
		}
		const said = summary.exec(text);
		if (said) {
			folded.answer = /\b(?:answer|solution|key)\b/i.test(said[1]!);
			text = text.slice(said[0].length).trim();
		}
		const ends = closing.test(text);
		text = text.replace(closing, '').trim();
		if (text) {
			const shown =
				folded.answer && !/^[*_\s]*(?:correct\s+)?(?:answer|explanation|reason)\b/i.test(text)
					? `Answer: ${text}`
					: text;
			folded.answer = false;
			out.push({ ...line, text: shown, markup: escapeText(shown) });
		}
		if (ends) folded = null;
	}
	return out;
}
