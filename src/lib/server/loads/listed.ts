import type { Pool } from 'mysql2/promise';
import type { Severity } from '$core/reports/report';
import { kindName, kinds } from '$core/kinds';
import type { Match, Outcome, PlannedQuestion } from '$core/take-in/planned-question';
import { memory } from '../db/memory';
import { row, rows, type Database } from '../db/pool';
import { twinRule } from '../snags/twins';
import { plannedColumns, plannedOf, withCounterparts, type PlannedColumns } from './planned';

/** A question of a load as a list shows it. */
export interface ListedQuestion extends PlannedQuestion {
	id: number;
	number: number;
	/** The category that it was found in; `category` is the one that it is in now. */
	foundIn: string;
	title: string;
	outcome: 'waiting' | Outcome;
	/** How like its counterpart in the course it is, in percent. */
	likeness: number | null;
	verified: boolean;
	edited: boolean;
	/** The rules that speak of it, worst first, each with its severity. */
	marks: { rule: string; severity: Severity }[];
}

/** The orders in which the questions of a load are listed. */
export const listOrders = ['file', 'category', 'kind', 'snag'] as const;

/** Which questions of a load are listed. */
export interface ListFilter {
	/** Letters of the title, or nothing. */
	words: string;
	/** The rule that speaks of them, `any` for all with a snag, or nothing. */
	rule: string;
	kind: string;
	match: Match | '';
	/** The path of a category, with what is under it, or null for all. */
	category: string | null;
}

/** All questions of a load. */
export const wholeLoad: ListFilter = { words: '', rule: '', kind: '', match: '', category: null };

/** Questions of a load that something is done with: some by their keys, or all that a filter lists but for some. */
export type Chosen = { ids: number[] } | { filter: ListFilter; except: number[] };

/** A page of the questions of a load, from a place on, of so many that the filter lists. */
export interface ListPage {
	total: number;
	from: number;
	rows: ListedQuestion[];
}

/** How many questions are sent at once. */
export const listPageSize = 100;

interface Condition {
	sql: string;
	parameters: unknown[];
}

/** Reports `r` on a staged question `s` that still hold: what is said of twins does only while there is one. */
const holding = `(r.rule <> '${twinRule}' OR q.id IS NOT NULL OR EXISTS (SELECT 1 FROM staged_questions x WHERE x.load_id = s.load_id AND x.fingerprint = s.fingerprint AND x.id <> s.id))`;
const likeText = (words: string) => `%${words.replace(/[\\%_]/g, '\\$&')}%`;

/** The reports `r` on questions of a load that still hold; by_load, or by_rule where one is asked for. */
const reported = `staged_reports r JOIN staged_questions s ON s.id = r.staged_id LEFT JOIN questions q ON q.id = s.match_question_id AND q.course_id = ? WHERE r.load_id = ? AND ${holding}`;

/** What a filter asks of staged questions `s` of a load and their counterparts `q`. */
function conditionOf(courseId: number, loadId: number, { words, rule, kind, match, category }: ListFilter): Condition {
	const parts: Condition[] = [];
	const add = (sql: string, ...parameters: unknown[]) => parts.push({ sql, parameters });
	if (words.trim()) add('s.title LIKE ?', likeText(words.trim()));
	if (rule === 'any') add(`s.id IN (SELECT r.staged_id FROM ${reported})`, courseId, loadId);
	else if (rule) add(`s.id IN (SELECT r.staged_id FROM ${reported} AND r.rule = ?)`, courseId, loadId, rule);
	if (kind) add('s.kind = ?', kind);
	if (match) add("IF(q.id IS NULL, 'new', s.match_kind) = ?", match);
	if (category !== null) {
		const under = `${category}\n`;
		const here = 'COALESCE(s.placed_path, s.category_path)';
		if (category === '') add(`${here} = ''`);
		else add(`(${here} = ? OR LEFT(${here}, ?) = ?)`, category, [...under].length, under);
	}
	return {
		sql: parts.map((part) => ` AND ${part.sql}`).join(''),
		parameters: parts.flatMap((part) => part.parameters)
	};
}

const byName = [...kinds].sort((a, b) => (kindName(a) < kindName(b) ? -1 : 1));
const ordered: Record<(typeof listOrders)[number], string> = {
	file: 's.number',
	category: 'COALESCE(s.placed_path, s.category_path), s.number',
	kind: `FIELD(s.kind, ${byName.map((kind) => `'${kind}'`).join(', ')}), s.number`,
	snag: "COALESCE(w.worst, '9'), s.number"
};
/** The worst report `w` on each question of a load, for the order by snag. */
const withWorst = ` LEFT JOIN (SELECT r.staged_id, MIN(CONCAT(r.severity + 0, r.rule)) AS worst FROM ${reported} GROUP BY r.staged_id) w ON w.staged_id = s.id`;

const isWhole = (filter: ListFilter) =>
	!filter.words.trim() && !filter.rule && !filter.kind && !filter.match && filter.category === null;

const marksOf = (text: string | null): ListedQuestion['marks'] =>
	(text ?? '')
		.split(',')
		.filter(Boolean)
		.map((mark) => {
			const [severity, rule] = mark.split(':') as [Severity, string];
			return { rule, severity };
		});

/** Questions of a load as a list shows them, by their keys and in the order of those. */
async function listed(db: Database, courseId: number, ids: number[]): Promise<ListedQuestion[]> {
	if (!ids.length) return [];
	const found = await rows<
		PlannedColumns &
			Pick<ListedQuestion, 'id' | 'number' | 'foundIn' | 'title' | 'outcome' | 'likeness'> & {
				marks: string | null;
				verified: number;
				edited: number;
			}
	>(
		db,
		`SELECT s.id, s.number, s.category_path AS foundIn, s.title, s.outcome, s.match_likeness AS likeness, s.verified IS NOT NULL AS verified, s.original IS NOT NULL AS edited, ${plannedColumns},
			(SELECT GROUP_CONCAT(DISTINCT CONCAT(r.severity, ':', r.rule) ORDER BY r.severity SEPARATOR ',') FROM staged_reports r WHERE r.staged_id = s.id AND ${holding}) AS marks
		FROM ${withCounterparts} WHERE s.id IN (?)`,
		[courseId, ids]
	);
	const byId = new Map(
		found.map((stored): [number, ListedQuestion] => [
			stored.id,
			{
				...plannedOf(stored),
				id: stored.id,
				number: stored.number,
				foundIn: stored.foundIn,
				title: stored.title,
				outcome: stored.outcome,
				likeness: stored.likeness,
				verified: Boolean(stored.verified),
				edited: Boolean(stored.edited),
				marks: marksOf(stored.marks)
			}
		])
	);
	return ids.flatMap((id) => byId.get(id) ?? []);
}

/** Lists that were put in order otherwise than their files have them; few, since each names all of its questions. */
const ordersOf = memory<Promise<number[]>>(6);
/** How many questions lists have. */
const totalsOf = memory<Promise<number>>(200);

/** The name by which a list is remembered: what is asked for, of the load and its course as they are now; null while it is read or settled. */
async function nameOf(db: Database, courseId: number, loadId: number, asked: unknown): Promise<string | null> {
	const now = await row<{ state: string; version: number; compared: string | null; stamp: number }>(
		db,
		"SELECT l.state, l.review_version AS version, DATE_FORMAT(l.compared, '%Y%m%d%H%i%s%f') AS compared, c.stamp FROM loads l JOIN courses c ON c.id = l.course_id WHERE l.id = ? AND c.id = ?",
		[loadId, courseId]
	);
	return now && ['review', 'undone'].includes(now.state) ? JSON.stringify([loadId, now, asked]) : null;
}

const keysOf = (found: { id: number }[]) => found.map(({ id }) => id);

/** The keys of the questions in a window of a list. */
async function keysIn(
	pool: Pool,
	courseId: number,
	loadId: number,
	{ filter, order, name }: { filter: ListFilter; order: (typeof listOrders)[number]; name: string | null },
	{ from, size }: { from: number; size: number }
): Promise<number[]> {
	if (order === 'file' && isWhole(filter))
		// by_number: the numbers of a load are 1, 2, 3 and so on
		return keysOf(
			await rows<{ id: number }>(
				pool,
				'SELECT id FROM staged_questions WHERE load_id = ? AND number > ? ORDER BY number LIMIT ?',
				[loadId, from, size]
			)
		);
	const condition = conditionOf(courseId, loadId, filter);
	const found = async (limit: string, values: number[]) =>
		keysOf(
			await rows<{ id: number }>(
				pool,
				`SELECT s.id FROM ${withCounterparts}${order === 'snag' ? withWorst : ''} WHERE s.load_id = ?${condition.sql} ORDER BY ${ordered[order]}${limit}`,
				[courseId, ...(order === 'snag' ? [courseId, loadId] : []), loadId, ...condition.parameters, ...values]
			)
		);
	if (order === 'file' || name === null) return found(' LIMIT ?, ?', [from, size]);
	return (await ordersOf(pool, name, () => found('', []))).slice(from, from + size);
}

/** The questions of a load that a filter lists, in an order, from a place on. */
export async function listPage(
	pool: Pool,
	courseId: number,
	loadId: number,
	filter: ListFilter,
	order: (typeof listOrders)[number] = 'file',
	at: { from: number; size?: number } = { from: 0 }
): Promise<ListPage> {
	const condition = conditionOf(courseId, loadId, filter);
	const count = async () =>
		Number(
			(await row<{ n: number | string }>(
				pool,
				isWhole(filter)
					? // by_number: the numbers of a load are 1, 2, 3 and so on
						'SELECT COALESCE(MAX(number), 0) AS n FROM staged_questions WHERE load_id = ?'
					: `SELECT COUNT(*) AS n FROM ${withCounterparts} WHERE s.load_id = ?${condition.sql}`,
				[...(isWhole(filter) ? [] : [courseId]), loadId, ...condition.parameters]
			))!.n
		);
	const name = await nameOf(pool, courseId, loadId, [filter, order]);
	const window = { from: at.from, size: at.size ?? listPageSize };
	const [total, keys] = await Promise.all([
		isWhole(filter) ? count() : totalsOf(pool, name, count),
		keysIn(pool, courseId, loadId, { filter, order, name }, window)
	]);
	return { total, from: at.from, rows: await listed(pool, courseId, keys) };
}

/** One question of a load as a list shows it. */
export async function listedQuestion(
	db: Database,
	courseId: number,
	stagedId: number
): Promise<ListedQuestion | undefined> {
	return (await listed(db, courseId, [stagedId]))[0];
}

/** The first question of a load, in the order of its file, of which a rule speaks; the first of all where none does. */
export async function firstToLookAt(db: Database, courseId: number, loadId: number): Promise<number | null> {
	// by_number
	const found =
		(await row<{ id: number }>(db, `SELECT s.id FROM ${reported} ORDER BY s.broken DESC, s.number LIMIT 1`, [
			courseId,
			loadId
		])) ??
		(await row<{ id: number }>(db, 'SELECT id FROM staged_questions WHERE load_id = ? ORDER BY number LIMIT 1', [
			loadId
		]));
	return found?.id ?? null;
}

/** The keys of chosen questions of a load, as a list of its own that a statement can hold against `id`. */
export function keysOfChosen(courseId: number, loadId: number, chosen: Chosen): Condition {
	if ('ids' in chosen)
		return chosen.ids.length ? { sql: '(?)', parameters: [chosen.ids] } : { sql: '(NULL)', parameters: [] };
	const condition = conditionOf(courseId, loadId, chosen.filter);
	return {
		sql: `(SELECT id FROM (SELECT s.id FROM ${withCounterparts} WHERE s.load_id = ?${condition.sql}${chosen.except.length ? ' AND s.id NOT IN (?)' : ''}) chosen)`,
		parameters: [courseId, loadId, ...condition.parameters, ...(chosen.except.length ? [chosen.except] : [])]
	};
}

/** How many questions of a load each rule speaks of, the most first. */
export async function rulesIn(
	db: Database,
	courseId: number,
	loadId: number
): Promise<{ rule: string; severity: Severity; questions: number }[]> {
	// by_rule of the reports
	return rows(
		db,
		`SELECT r.rule, MIN(r.severity) AS severity, COUNT(DISTINCT r.staged_id) AS questions FROM staged_reports r
		WHERE r.load_id = ? AND r.staged_id IS NOT NULL AND r.rule <> '${twinRule}' GROUP BY r.rule
		UNION ALL SELECT r.rule, MIN(r.severity), COUNT(DISTINCT r.staged_id) FROM staged_reports r JOIN staged_questions s ON s.id = r.staged_id LEFT JOIN questions q ON q.id = s.match_question_id AND q.course_id = ?
		WHERE r.load_id = ? AND r.rule = '${twinRule}' AND ${holding} GROUP BY r.rule ORDER BY questions DESC, rule`,
		[loadId, courseId, loadId]
	);
}
