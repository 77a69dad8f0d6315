import { kindName, kinds } from '$core/kinds';
import { rows, type Database } from '../db/pool';
import { lackNames, lacks } from '$lib/forms/lacks';
import { lackConditions } from './lacks';
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

/** The weave of a bank. A question with several tags is in the column of each, and one that lacks several things in that of each. */
export async function weaveOf(
	db: Database,
	bank: { id: number; name: string },
	by: Across,
	tree: readonly CategoryNode[]
): Promise<Weave> {
	const { sql, join } = columnOf[by];
	const clean = 'g.question_id IS NULL';
	const keyed = "(q.verified IS NOT NULL OR q.kind IN ('information', 'unreadable'))";
	const found = await rows<WeaveCell>(
		db,
		`SELECT q.category_id AS categoryId, ${sql} AS \`column\`, COUNT(*) AS questions, CAST(SUM(${clean}) AS INT) AS clean, CAST(SUM(${keyed}) AS INT) AS verified,
			CAST(SUM(q.has_feedback) AS INT) AS feedback, CAST(SUM(${clean} AND ${keyed} AND q.has_feedback) AS INT) AS whole, CAST(COALESCE(SUM(g.broken), 0) AS INT) AS broken
		FROM questions q ${join} LEFT JOIN (SELECT s.question_id, MAX(s.severity = 'broken') AS broken FROM snags s JOIN questions x ON x.id = s.question_id WHERE x.bank_id = ? AND s.severity IN ('broken', 'doubtful') GROUP BY s.question_id) g ON g.question_id = q.id
		WHERE q.bank_id = ? GROUP BY q.category_id, ${sql}`,
		[bank.id, bank.id]
	);
	const cells = found.map((cell) => ({
		...cell,
		...Object.fromEntries(
			(['clean', 'verified', 'feedback', 'whole', 'broken'] as const).map((name) => [name, Number(cell[name])])
		)
	}));
	const here = new Set(tree.map(({ id }) => id));
	return {
		bank,
		columns: columnsOf(by, cells),
		cells: cells.filter(({ categoryId }) => categoryId === null || here.has(categoryId))
	};
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
