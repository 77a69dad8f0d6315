import { kindName, kinds } from '$core/kinds';
import type { Pool } from 'mysql2/promise';
import { rows } from '../db/pool';
import { lackNames, lacks } from '$lib/forms/lacks';
import { lackConditions } from './lacks';
import { memory } from '../db/memory';
import type { CategoryNode } from './tree';

/** What a weave can have across. */
export const weaveAcross = ['kind', 'tag', 'difficulty', 'points', 'lack'] as const;

/** One of those. */
export type Across = (typeof weaveAcross)[number];

/** What an address asks to have across; kinds where it asks for nothing that there is. */
export function weaveBy(text: string | null): Across {
	return weaveAcross.find((across) => across === text) ?? 'kind';
}

/** A cell: how many questions, and how many of them have each thing that makes them whole. */
export interface WeaveCell {
	categoryId: number | null;
	column: string;
	questions: number;
	/** Without a snag that breaks them or makes them doubtful. */
	clean: number;
	verified: number;
	feedback: number;
	/** Clean, verified and with feedback. */
	whole: number;
	/** Those that a snag breaks. */
	broken: number;
}

/** A weave: the categories of a bank down, in the order of its tree, something across, and what is in each cell. */
export interface Weave {
	bank: { id: number; name: string };
	columns: { value: string; name: string }[];
	cells: WeaveCell[];
}

/** So many tags, difficulties or points are shown across: those with the most questions. */
const mostColumns = 14;

const columnOf: Record<Across, { sql: string; join: string }> = {
	kind: { sql: 'q.kind', join: '' },
	tag: {
		sql: 't.tag',
		join: 'JOIN question_tags t ON t.question_id = q.id'
	},
	difficulty: { sql: 'q.difficulty', join: '' },
	points: { sql: "COALESCE(CAST(q.points AS CHAR), '')", join: '' },
	lack: {
		sql: 'l.lack',
		join: `JOIN (${lacks.map((lack) => `SELECT '${lack}' AS lack`).join(' UNION ALL ')}) l ON ${lacks.map((lack) => `(l.lack = '${lack}' AND ${lackConditions[lack]})`).join(' OR ')}`
	}
};

/** The cells of weaves as they were counted. */
const cellsOf = memory<Promise<WeaveCell[]>>(60);

/**
 * The weave of a bank. A question with several tags is in the column of each, and one that lacks several things in that of
 * each. For a `state` of the course what was counted is remembered.
 */
export async function weaveOf(
	pool: Pool,
	bank: { id: number; name: string },
	by: Across,
	tree: readonly CategoryNode[],
	state?: string
): Promise<Weave> {
	const name = state === undefined ? null : JSON.stringify([state, bank.id, by]);
	const cells = await cellsOf(pool, name, () => countedCells(pool, bank.id, by));
	const here = new Set(tree.map(({ id }) => id));
	return {
		bank,
		columns: columnsOf(by, cells),
		cells: cells.filter(({ categoryId }) => categoryId === null || here.has(categoryId))
	};
}

const keyed = "(q.verified IS NOT NULL OR q.kind IN ('information', 'unreadable'))";

const sameLetters = new Intl.Collator('en', { sensitivity: 'base' });

/** What is counted of a cell as if no snag were there, and of those of its questions that are broken or doubtful. */
interface Counted {
	categoryId: number | null;
	column: string;
	questions: number;
	verified: string;
	feedback: string;
	both: string;
}

async function countedCells(pool: Pool, bankId: number, by: Across): Promise<WeaveCell[]> {
	const { sql, join } = columnOf[by];
	const sums = `q.category_id AS categoryId, ${sql} AS \`column\`, COUNT(*) AS questions, SUM(${keyed}) AS verified, SUM(q.has_feedback) AS feedback, SUM(${keyed} AND q.has_feedback) AS \`both\``;
	const groups = `GROUP BY q.category_id, ${sql}`;
	const [all, troubled] = await Promise.all([
		// by_filters, in which all stands that is counted
		rows<Counted>(
			pool,
			`SELECT ${sums} FROM questions q FORCE INDEX (by_filters) ${join} WHERE q.bank_id = ? ${groups}`,
			[bankId]
		),
		// by_severity of snags, few of which are doubtful or worse
		rows<Counted & { broken: string }>(
			pool,
			`SELECT ${sums}, SUM(g.broken) AS broken FROM (SELECT s.question_id, MAX(s.severity = 'broken') AS broken FROM snags s WHERE s.course_id = (SELECT course_id FROM banks WHERE id = ?) AND s.severity IN ('broken', 'doubtful') GROUP BY s.question_id) g
			JOIN questions q ON q.id = g.question_id ${join} WHERE q.bank_id = ? ${groups}`,
			[bankId, bankId]
		)
	]);
	const placeOf = ({ categoryId, column }: Counted) => `${categoryId ?? ''} ${column}`;
	const troubles = new Map(troubled.map((cell) => [placeOf(cell), cell]));
	// a difficulty that is written with large and small letters is one, and may be named by either
	const alike =
		by === 'difficulty' ? troubled.filter((cell) => !all.some((one) => placeOf(one) === placeOf(cell))) : [];
	const troubleOf = (cell: Counted) =>
		troubles.get(placeOf(cell)) ??
		alike.find(
			({ categoryId, column }) => categoryId === cell.categoryId && sameLetters.compare(column, cell.column) === 0
		);
	return all.map((cell) => {
		const trouble = troubleOf(cell);
		return {
			categoryId: cell.categoryId,
			column: cell.column,
			questions: cell.questions,
			clean: cell.questions - (trouble?.questions ?? 0),
			verified: Number(cell.verified),
			feedback: Number(cell.feedback),
			whole: Number(cell.both) - Number(trouble?.both ?? 0),
			broken: Number(trouble?.broken ?? 0)
		};
	});
}

/** The columns that some cell has: kinds in their order, all else with the most questions first, then by what they say. */
function columnsOf(by: Across, cells: readonly WeaveCell[]): { value: string; name: string }[] {
	const held = new Map<string, number>();
	for (const { column, questions } of cells) held.set(column, (held.get(column) ?? 0) + questions);
	if (by === 'kind')
		return kinds.filter((kind) => held.has(kind)).map((kind) => ({ value: kind, name: kindName(kind) }));
	if (by === 'lack') return lacks.map((lack) => ({ value: lack, name: lackNames[lack] }));
	const compare = new Intl.Collator('en', { numeric: true }).compare;
	const most = [...held].sort((a, b) => b[1] - a[1]).slice(0, mostColumns);
	return most
		.map(([value]) => value)
		.sort(compare)
		.map((value) => ({
			value,
			name: value === '' ? 'none' : by === 'points' ? `${value} ${value === '1' ? 'point' : 'points'}` : value
		}));
}
