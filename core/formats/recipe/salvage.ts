import { lookup } from '../../model/lookup';
const sign = /["[\]{}]/g;
const closing = lookup<string>({ '{': '}', '[': ']' });

/** The places behind whole entries of lists, each with what closes the text there, until it can be followed no further. */
function placesOf(text: string): { end: number; close: string }[] {
	const places: { end: number; close: string }[] = [];
	const open: string[] = [];
	sign.lastIndex = 0;
	for (let found = sign.exec(text); found; found = sign.exec(text)) {
		const [character] = found;
		if (character === '"') {
			const string = /"(?:[^"\\\n]|\\.)*"/y;
			string.lastIndex = found.index;
			if (!string.test(text)) break;
			sign.lastIndex = string.lastIndex;
		} else if (character === '{' || character === '[') open.push(closing[character]!);
		else if (open.pop() !== character) break;
		else if (open.at(-1) === ']') places.push({ end: sign.lastIndex, close: open.toReversed().join('') });
	}
	return places;
}

/**
 * As much of a damaged JSON text as stands in front of what is wrong with it: whole entries of its lists, with what is
 * around them closed, and the line on which it is given up. Null where not one entry is whole.
 */
export function salvageJson(text: string): { value: unknown; line: number } | null {
	const places = placesOf(text);
	let found: { value: unknown; end: number } | null = null;
	// what parses up to a place does so up to any place in front of it
	for (let [low, high] = [0, places.length - 1]; low <= high;) {
		const middle = (low + high) >> 1;
		const { end, close } = places[middle]!;
		try {
			found = { value: JSON.parse(text.slice(0, end) + close) as unknown, end };
			low = middle + 1;
		} catch {
			high = middle - 1;
		}
	}
	if (!found) return null;
	const { value, end } = found;
	return { value, line: text.slice(0, end).split('\n').length };
}
