import { escapeText } from '../../xml/serialise';
import { fieldOf, numberMark } from './marks';
import type { Line } from './lines';

const loneLabel = /^\(?([A-Ha-h])[.):]?\)?$/;
/** So many words behind a number are a question, and no answer of a list. */
const fewestWords = 3;
const bareNumber = /^(\d{1,4})\s{2,}(?=["'“(]?\p{L}\S*\s+\S)/u;

const withText = (line: Line, sign: string, rest: Line): Line => ({
	...line,
	text: `${sign} ${rest.text}`,
	markup: `${escapeText(sign)} ${rest.markup}`,
	stressed: rest.stressed
});

/**
 * Lines with the labels that stand alone put in front of what they label, as a page that was copied has them: "A" in one
 * line, the first option in the next. They have to run on from A, with one option below each.
 */
export function joinLabels(lines: Line[]): Line[] {
	const full = lines.flatMap((line, at) => (line.text ? [at] : []));
	const out = [...lines];
	const dropped = new Set<number>();
	const letterAt = (place: number) => {
		const line = lines[full[place] ?? -1];
		const found = line && !line.list ? loneLabel.exec(line.text) : null;
		return found ? found[1]!.toLowerCase().charCodeAt(0) - 97 : -1;
	};
	const holdsText = (place: number) => {
		const line = lines[full[place] ?? -1];
		return line !== undefined && letterAt(place) < 0 && !numberMark(line) && !fieldOf(line);
	};
	for (let place = 0; place < full.length; place += 1) {
		let count = 0;
		while (letterAt(place + 2 * count) === count && holdsText(place + 2 * count + 1)) count += 1;
		if (count < 2) continue;
		for (let which = 0; which < count; which += 1) {
			const [label, option] = [full[place + 2 * which]!, full[place + 2 * which + 1]!];
			out[label] = withText(lines[label]!, `${String.fromCharCode(65 + which)})`, lines[option]!);
			dropped.add(option);
			for (let between = label + 1; between < option; between += 1) dropped.add(between);
		}
		place += 2 * count - 1;
	}
	return out.filter((_, at) => !dropped.has(at));
}

/**
 * Lines whose number is parted from its question by a tab or many blanks alone, with the sign that it lacks: they have
 * to count on from 1, so that a table of numbers stays what it is, or from `after` in a later part of a text. `last` is the
 * number that the last of them has in front of the line with the number `until`.
 */
export function signNumbers(lines: Line[], after = 0, until = Infinity): { lines: Line[]; last: number } {
	const none = { lines, last: after };
	const numbers = lines.flatMap((line, at) => {
		const found = line.list || line.table ? null : bareNumber.exec(line.text);
		return found ? [{ at, number: Number(found[1]), length: found[0].length }] : [];
	});
	if (numbers.length < 2 || numbers.some(({ number }, at) => number !== after + at + 1)) return none;
	// where questions have signs, what lacks one is a list or a table within them
	if (lines.some((line) => (numberMark(line)?.rest.text.split(/\s+/).length ?? 0) >= fewestWords)) return none;
	const out = [...lines];
	for (const { at, number, length } of numbers) {
		const line = lines[at]!;
		const rest = line.text.slice(length);
		const markup = line.markup.replace(/^\d+\s+/, '');
		out[at] = { ...line, text: `${number}. ${rest}`, markup: `${number}. ${markup}` };
	}
	return { lines: out, last: numbers.findLast(({ at }) => lines[at]!.number < until)?.number ?? after };
}
