import { eachLine, type Line } from './lines';

/** A part of a text: its lines, and some of those behind it, from the one with the number `until` on, to be looked at. */
export interface TextPart {
	lines: Line[];
	/** The number of the first line that is not of the part; infinite in the last one. */
	until: number;
}

/** Parts of so many lines, parted at the best place in so many more, with so many lines of the next one. */
export const partSizes = { lines: 8000, window: 2000, ahead: 100 };

const heading = /^#{1,6}\s/;
const card = /^q(?:uestion)?\s*:/i;
const numbered = /^(?:q(?:uestion)?\s*)?(\d{1,6})\s*[.):]/i;
/** No list within a question counts so far. */
const longestList = 30;

/** How well a text can be parted in front of a line: the more, the surer it is that a question or a heading begins there. */
function fitness(line: Line, gap: boolean): number {
	if (heading.test(line.text)) return 4;
	if (!gap) return 0;
	const number = Number(numbered.exec(line.text)?.[1] ?? 0);
	if (number > longestList || card.test(line.text)) return 3;
	return number ? 2 : line.text ? 1 : 0;
}

/** The place among the lines of a window at which a text is best parted; its end where no place is better than another. */
function bestPlace(lines: Line[], from: number): number {
	let [best, most] = [lines.length, 0];
	for (let at = Math.max(1, from); at < lines.length && most < 3; at += 1) {
		const fit = fitness(lines[at]!, !lines[at - 1]!.text);
		if (fit > most) [best, most] = [at, fit];
	}
	return best;
}

/** A text in parts that are read one at a time; a text that is not long is one part. */
export function* partsOf(text: string, sizes = partSizes): Generator<TextPart> {
	let lines: Line[] = [];
	for (const line of eachLine(text)) {
		lines.push(line);
		if (lines.length < sizes.lines + sizes.window + sizes.ahead) continue;
		const end = bestPlace(lines.slice(0, sizes.lines + sizes.window), sizes.lines);
		yield { lines: lines.slice(0, end + sizes.ahead), until: lines[end]!.number };
		lines = lines.slice(end);
	}
	yield { lines, until: Infinity };
}
