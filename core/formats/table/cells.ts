import { fold } from '../../markup/text';
import { truthOf } from '../drafts/words';

const mark = /^[x✓✔*]$/i;

/** Whether a cell says only that something is right or not: a word for it, 1 or 0, a tick, or nothing. */
export function isFlag(text: string): boolean {
	return text === '' || mark.test(text) || truthOf(text, true) !== null;
}

/** What a flag says. */
export function flagOf(text: string): boolean {
	return mark.test(text) || truthOf(text, true) === true;
}

/** A category path out of a text, by the first of some separators that stands in it. */
export function categoryOf(text: string, separators: string[]): string[] {
	const plain = fold(text);
	if (!plain) return [];
	let parts = [plain];
	for (const separator of separators) parts = parts.flatMap((part) => part.split(separator));
	return parts.map((part) => part.trim()).filter(Boolean);
}

/** The entries of a list with commas or semicolons between them. */
export function listOf(text: string): string[] {
	return [
		...new Set(
			text
				.split(/\s*[,;]\s*/)
				.map((one) => fold(one).replace(/^#(?=\w)/, ''))
				.filter(Boolean)
		)
	];
}

/** A text with labelled options one behind the other ("A) bowline B) sheet bend") in its parts, or as one where it is none. */
export function byLabels(text: string): string[] {
	const first = /^\s*(\(?)([Aa1])([.):])\s*(?=\S)/.exec(text);
	if (!first) return [text];
	const [whole, opening, label, sign] = first as unknown as [string, string, string, string];
	const parts: string[] = [];
	let rest = text.slice(whole.length);
	for (let code = label.charCodeAt(0) + 1; ; code += 1) {
		const next = new RegExp(`[\\s,;|/]+${opening ? '\\(' : ''}${String.fromCharCode(code)}\\${sign}\\s*(?=\\S)`).exec(
			rest
		);
		if (!next) break;
		parts.push(rest.slice(0, next.index));
		rest = rest.slice(next.index + next[0].length);
	}
	return parts.length ? [...parts, rest] : [text];
}

/** How many cells the widest of some rows has. */
export function widthOf(rows: { cells: unknown[] }[]): number {
	let most = 0;
	for (const { cells } of rows) most = Math.max(most, cells.length);
	return most;
}

const quoted = /"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)'/g;

/** The texts of a list as programs print it, `["a", "b"]` or `{'A': 'a', 'B': 'b'}`, without the names; null for any other text. */
export function listIn(text: string): string[] | null {
	const plain = text.trim();
	const named = /^\{.*\}$/s.test(plain);
	if (!named && !/^\[.*\]$/s.test(plain)) return null;
	const inner = plain.slice(1, -1);
	const found = [...inner.matchAll(quoted)].filter(
		(one) => !named || !/^\s*:/.test(inner.slice(one.index + one[0].length))
	);
	const rest = inner.replace(quoted, '').replace(/[\s,:]/g, '');
	return found.length && !rest ? found.map((one) => (one[1] ?? one[2] ?? '').replace(/\\(.)/g, '$1')) : null;
}
