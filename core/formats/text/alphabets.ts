import { escapeText } from '../../xml/serialise';
import type { Line } from './lines';

/** The letters that options are told by in alphabets other than the Latin one, in their order. */
const alphabets = ['абвгдежзик', 'αβγδεζηθικ', 'אבגדהוזחטי'];
const letters = alphabets.join('');
const label = new RegExp(`^(\\*?\\s*[([]?)([${letters}])([.)\\]])(?=\\s|$)`, 'iu');
const answer = new RegExp(
	`^(\\p{L}[\\p{L} ]{1,24}\\s*[:=]\\s*|\\d{1,4}\\s*[.):-]\\s*)([${letters}](?:\\s*[,;/ ]\\s*[${letters}])*)[.)]?$`,
	'iu'
);

/** The Latin letter in the same place of its alphabet, in the same size. */
function latin(letter: string): string {
	const lower = letter.toLowerCase();
	const alphabet = alphabets.find((known) => known.includes(lower));
	if (!alphabet) return letter;
	const found = String.fromCharCode(97 + [...alphabet].indexOf(lower));
	return letter === lower ? found : found.toUpperCase();
}

const changed = (line: Line, text: string): Line => ({ ...line, text, markup: escapeText(text) });

/** Whether options are told by letters of another alphabet: one is by its first letter, and the next that is labelled so by its second. */
function hasLabels(lines: Line[]): boolean {
	let last = '';
	for (const { text } of lines) {
		const found = label.exec(text)?.[2];
		if (!found) continue;
		const here = latin(found).toLowerCase();
		if (here === 'b' && last === 'a') return true;
		last = here;
	}
	return false;
}

/** Lines whose options are told by letters of another alphabet ("а) … б) …", "Ответ: б"), with the Latin letters in their place. */
export function withLatinLabels(lines: Line[]): Line[] {
	if (!hasLabels(lines)) return lines;
	return lines.map((line) => {
		// rich text would have to be changed as well, and stands in what a word processor has numbered itself
		if (escapeText(line.text) !== line.markup) return line;
		const labelled = line.text.replace(
			label,
			(_, front: string, letter: string, sign: string) => front + latin(letter) + sign
		);
		if (labelled !== line.text) return changed(line, labelled);
		const said = answer.exec(line.text);
		return said ? changed(line, said[1]! + [...said[2]!].map(latin).join('')) : line;
	});
}
