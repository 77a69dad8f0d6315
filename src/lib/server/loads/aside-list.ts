import { array, number, object, type InferType } from 'yup';
import type { Kind } from '$core/kinds';
import { row, rows, type Database } from '../db/pool';

/** A question that is kept out of the banks of a course until somebody deals with it. */
export interface AsideRow {
	id: number;
	loadId: number;
	fileName: string;
	number: number;
	title: string;
	kind: Kind;
	category: string;
	broken: boolean;
	/** Why it is kept out: the worst that is said of it. */
	why: string | null;
	settled: Date;
}

/** A load from which questions are set aside: how many, and how many of them are broken still. */
export interface AsideLoad {
	id: number;
	fileName: string;
	aside: number;
	broken: number;
}

/** How many of them are sent at once. */
export const asidePageSize = 100;
/** How many are named by their keys at the most. */
const mostNamed = 20_000;

const key = number().integer().min(1).max(Number.MAX_SAFE_INTEGER);

/** Which of them are meant: some by their keys, or all of a load (of all loads where none is named), but for some. */
export const asideChosen = object({
	ids: array(key.required()).max(mostNamed, 'So many are chosen as all that are listed.').default(undefined),
	load: key.nullable().default(null),
	except: array(key.required()).max(mostNamed).default([])
});

/** The same as a type. */
export type AsideChosen = InferType<typeof asideChosen>;

const standing =
	"FROM loads l JOIN staged_questions s ON s.load_id = l.id AND s.outcome = 'aside' WHERE l.course_id = ? AND l.state = 'taken'";

/** The loads of a course from which questions are set aside, the latest first. */
export async function asideLoads(db: Database, courseId: number): Promise<AsideLoad[]> {
	// by_course of loads, then by_outcome
	const found = await rows<{ id: number; fileName: string; aside: number; broken: string }>(
		db,
		`SELECT l.id, l.file_name AS fileName, COUNT(*) AS aside, SUM(s.broken) AS broken ${standing} GROUP BY l.id ORDER BY l.id DESC`,
		[courseId]
	);
	return found.map((load) => ({ ...load, broken: Number(load.broken) }));
}

/** How many questions are set aside in a course. */
export async function asideCount(db: Database, courseId: number): Promise<number> {
	return (await row<{ n: number }>(db, `SELECT COUNT(*) AS n ${standing}`, [courseId]))!.n;
}

/** A page of what is set aside in a course, or of one load of it, by load and in the order of its file, from a place on. */
export async function asidePage(
	db: Database,
	courseId: number,
	{ loadId, from }: { loadId: number | null; from: number }
): Promise<{ total: number; from: number; rows: AsideRow[] }> {
	const ofLoad = loadId === null ? { sql: '', values: [] } : { sql: ' AND l.id = ?', values: [loadId] };
	const first = Math.floor(from / asidePageSize) * asidePageSize;
	const [counted, found] = await Promise.all([
		row<{ n: number }>(db, `SELECT COUNT(*) AS n ${standing}${ofLoad.sql}`, [courseId, ...ofLoad.values]),
		// by_course of loads, then by_outcome
		rows<Omit<AsideRow, 'broken'> & { broken: number }>(
			db,
			`SELECT s.id, s.load_id AS loadId, l.file_name AS fileName, s.number, s.title, s.kind, COALESCE(s.placed_path, s.category_path) AS category, s.broken, l.settled,
			(SELECT r.message FROM staged_reports r WHERE r.staged_id = s.id ORDER BY r.severity, r.id LIMIT 1) AS why
		${standing}${ofLoad.sql} ORDER BY l.id DESC, s.number LIMIT ?, ?`,
			[courseId, ...ofLoad.values, first, asidePageSize]
		)
	]);
	return {
		total: counted!.n,
		from: first,
		rows: found.map((listed) => ({ ...listed, broken: Boolean(listed.broken) }))
	};
}

/** The keys of those that are meant and still set aside, by load. */
export async function asideByLoad(
	db: Database,
	courseId: number,
	{ ids, load, except }: AsideChosen
): Promise<Map<number, number[]>> {
	if (ids && !ids.length) return new Map();
	const which = ids
		? { sql: ' AND s.id IN (?)', values: [ids] }
		: load
			? { sql: ' AND l.id = ?', values: [load] }
			: { sql: '', values: [] };
	const found = await rows<{ id: number; loadId: number }>(
		db,
		`SELECT s.id, l.id AS loadId ${standing}${which.sql} ORDER BY l.id, s.number`,
		[courseId, ...which.values]
	);
	const left = new Set(ids ? [] : except);
	return byLoadOf(found.filter(({ id }) => !left.has(id)));
}

/** Keys of staged questions by their loads. */
export function byLoadOf(questions: readonly { id: number; loadId: number }[]): Map<number, number[]> {
	const byLoad = new Map<number, number[]>();
	for (const { id, loadId } of questions) {
		const known = byLoad.get(loadId);
		if (known) known.push(id);
		else byLoad.set(loadId, [id]);
	}
	return byLoad;
}
