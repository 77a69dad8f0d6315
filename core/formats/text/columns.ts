import { note, type Block } from './block';
import type { Line } from './lines';
import { cut } from './marks';

/** A thing to be matched, with a labelled one of the second column behind it: "Ebb        A. rises". */
const twoColumns = /^(.*?\S)\s{2,}([A-Za-z])[.)]\s+(?=\S)/;
/** A line of the second column alone. */
const secondColumn = /^([A-Za-z])[.)]\s+(?=\S)/;

/** A question while it is read, with the category it stands in. */
export interface Placed {
	block: Block;
	category: string[];
}

interface Row {
	left: Line;
	right: { label: string; line: Line }[];
}

function rowOf({ stem, options, pairs }: Block): Row | null {
	const [first, ...others] = stem.map((one) => one.line);
	const found = first && !options.length && !pairs.length ? twoColumns.exec(first.text) : null;
	if (!first || !found) return null;
	const alone = others.map((line) => secondColumn.exec(line.text));
	if (alone.includes(null)) return null;
	return {
		left: cut(first, 0, found[1]!.length),
		right: [
			{ label: found[2]!.toUpperCase(), line: cut(first, found[0].length) },
			...others.map((line, at) => ({ label: alone[at]![1]!.toUpperCase(), line: cut(line, alone[at]![0].length) }))
		]
	};
}

const counts = (rows: Row[]) =>
	rows.flatMap((row) => row.right).every(({ label }, at) => label === String.fromCharCode(65 + at));

function joined(run: Placed[], rows: Row[]): Placed {
	const { block, category } = run[0]!;
	const right = rows.flatMap((row) => row.right);
	const answers = run.map((one) => (one.block.answers[0]?.value ?? one.block.listed ?? '').toUpperCase());
	const keyed = answers.every((answer) => right.some((one) => one.label === answer));
	const chosen = keyed
		? answers.map((answer) => right.find((one) => one.label === answer)!)
		: rows.map((row) => row.right[0]!);
	const stem: Line = { ...rows[0]!.left, text: 'Match.', markup: 'Match.' };
	note(
		block,
		'joined-columns',
		`Questions ${block.number} to ${run.at(-1)!.block.number} stand in two columns, so they were read as one question of pairs. ${keyed ? 'Write its stem.' : 'No list says which belong together; those in one row were paired. Look at them, and write its stem.'}`,
		keyed ? 'untidy' : 'doubtful'
	);
	return {
		category,
		block: {
			...block,
			stem: [{ line: stem, gap: false }],
			pairs: rows.map((row, at) => [row.left, chosen[at]!.line]),
			draft: {
				...block.draft,
				kind: 'matching',
				distractors: right.filter((one) => !chosen.includes(one)).map((one) => one.line.markup)
			},
			answers: [],
			listed: null,
			to: run.at(-1)!.block.to
		}
	};
}

/** Questions of which each is one row of two columns to be matched, as tests on paper have them, as one question of pairs. */
export function joinColumns(placed: Placed[]): Placed[] {
	const out: Placed[] = [];
	for (let at = 0; at < placed.length;) {
		const rows: Row[] = [];
		for (let row = rowOf(placed[at]!.block); row && counts([...rows, row]);) {
			rows.push(row);
			const next = placed[at + rows.length];
			row = next ? rowOf(next.block) : null;
		}
		out.push(rows.length > 1 ? joined(placed.slice(at, at + rows.length), rows) : placed[at]!);
		at += Math.max(1, rows.length);
	}
	return out;
}
