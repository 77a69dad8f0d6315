import { nearestLine, type Line } from './lines';
import { fieldOf, numberMark, optionMark } from './marks';

/** So many things are chosen from at most. */
const mostOptions = 12;
const asks = /[?？…:]\W*$|_{2,}/;

/** Lines with numbers that follow one another, from the place of the first to that of the last. */
interface Run {
	from: number;
	to: number;
	texts: string[];
	/** The numbers count on from 1, without a gap. */
	counts: boolean;
}

function runsOf(lines: readonly Line[]): Run[] {
	const runs: Run[] = [];
	let open = false;
	for (const [at, line] of lines.entries()) {
		if (!line.text) continue;
		const marked = numberMark(line);
		const last = runs.at(-1);
		if (!marked || marked.style.startsWith('q')) open = false;
		else if (open && last && marked.number === last.texts.length + 1) {
			last.texts.push(marked.rest.text);
			last.to = at;
		} else {
			runs.push({ from: at, to: at, texts: [marked.rest.text], counts: marked.number === 1 });
			open = true;
		}
	}
	return runs;
}

/** Whether a line below a list names one of its entries as the answer. */
function namesOne(line: Line | undefined, { texts }: Run): boolean {
	const field = line && fieldOf(line);
	if (field?.name !== 'answer') return false;
	const value = field.value.text.replace(/^[([]|[)\].]+$/g, '').trim();
	return /^\d+$/.test(value) ? Number(value) >= 1 && Number(value) <= texts.length : texts.includes(value);
}

/**
 * Whether all numbers in a text are those of options, under questions that have none: each list begins anew below a line
 * that asks, nothing stands between its entries, and these do not ask themselves. Of a single list, its answer has to be
 * one of it, or options with letters stand above it, under a question that has no number either.
 */
export function numbersAreOptions(lines: readonly Line[]): boolean {
	const runs = runsOf(lines);
	if (!runs.length) return false;
	const areOptions = runs.every(({ from, texts, counts }) => {
		const above = nearestLine(lines, from, -1);
		const asked = above && !numberMark(above) && !optionMark(above) && !fieldOf(above) && asks.test(above.text);
		return (
			counts && asked && texts.length > 1 && texts.length <= mostOptions && !texts.some((text) => text.endsWith('?'))
		);
	});
	const [only] = runs;
	return (
		areOptions &&
		(runs.length > 1 ||
			namesOne(nearestLine(lines, only!.to, 1), only!) ||
			lines.slice(0, only!.from).some((line) => /^[a-z]$/i.test(optionMark(line)?.label ?? '')))
	);
}
