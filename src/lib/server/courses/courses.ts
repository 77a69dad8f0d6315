import type { Pool } from 'mysql2/promise';
import { row, rows, type Database } from '../db/pool';
import { countsOf, questionsIn, snagsIn } from './counts';

/** What a person may do in a course: look at it, work on it, or manage it and its people. */
export type Role = 'look' | 'work' | 'manage';

const ranks: Record<Role, number> = { look: 0, work: 1, manage: 2 };

/** Whether a role allows what another is asked for. */
export function mayDo(role: Role, asked: Role): boolean {
	return ranks[role] >= ranks[asked];
}

/** Whether a course is open, in the archive, where nothing is changed, or in the bin. */
export type CourseState = 'open' | 'archived' | 'binned';

/** A course as a person sees it. */
export interface Course {
	id: number;
	code: string;
	name: string;
	intake: string;
	state: CourseState;
	role: Role;
}

/** The courses `c` that a person belongs to, whom the first parameter names; who keeps the installation manages all. */
const belonging = `FROM people p JOIN courses c LEFT JOIN memberships m ON m.course_id = c.id AND m.person_id = p.id
	WHERE p.id = ? AND c.bin_of IS NULL AND (p.keeper = 1 OR m.role IS NOT NULL)`;
const columns = "c.id, c.code, c.name, c.intake, c.state, IF(p.keeper = 1, 'manage', m.role) AS role";

/** A course on the first page, with what waits in it. */
export interface CourseLine extends Course {
	questions: number;
	/** Loads to review, snags that break a question, quizzes in draft. */
	loads: number;
	broken: number;
	quizzes: number;
	/** When it went to the archive or to the bin. */
	settled: Date | null;
}

/** All courses of a person, by name, with what waits in them; those in the bin for those alone who manage them. */
export async function coursesOf(pool: Pool, personId: number): Promise<CourseLine[]> {
	const found = await rows<Omit<CourseLine, 'questions' | 'broken'>>(
		pool,
		`SELECT ${columns}, c.settled,
			(SELECT COUNT(*) FROM loads l WHERE l.course_id = c.id AND l.state = 'review') AS loads,
			(SELECT COUNT(*) FROM quizzes z WHERE z.course_id = c.id AND z.state = 'draft') AS quizzes
		${belonging} ORDER BY c.name, c.intake, c.id`,
		[personId]
	);
	const seen = found.filter(({ state, role }) => state !== 'binned' || role === 'manage');
	const counts = await Promise.all(seen.map(({ id }) => countsOf(pool, id)));
	return seen.map((course, at) => ({
		...course,
		questions: questionsIn(counts[at]!),
		broken: counts[at]!.snags.reduce((sum, { severity, snags }) => sum + (severity === 'broken' ? snags : 0), 0)
	}));
}

/** The courses of a person that are not in the bin, by name, to choose from. */
export async function courseNames(db: Database, personId: number): Promise<Course[]> {
	return rows(db, `SELECT ${columns} ${belonging} AND c.state <> 'binned' ORDER BY c.name, c.intake, c.id`, [personId]);
}

/** A course that is not in the bin, if the person belongs to it. */
export async function courseFor(db: Database, personId: number, courseId: number): Promise<Course | undefined> {
	return row(db, `SELECT ${columns} ${belonging} AND c.id = ? AND c.state <> 'binned'`, [personId, courseId]);
}

/** How much waits at each station of the thread. */
export interface Waiting {
	loads: number;
	banks: number;
	snags: number;
	quizzes: number;
	dispatch: number;
}

/** Counts what waits at each station: loads to review, questions, open snags, draft quizzes, dispatches that are not proved. */
export async function waitingIn(pool: Pool, courseId: number): Promise<Waiting> {
	const counts = await countsOf(pool, courseId);
	const waiting = (await row<Omit<Waiting, 'banks' | 'snags'>>(
		pool,
		`SELECT
			(SELECT COUNT(*) FROM loads WHERE course_id = ? AND state IN ('review', 'reading', 'waiting')) AS loads,
			(SELECT COUNT(*) FROM quizzes WHERE course_id = ? AND state = 'draft') AS quizzes,
			(SELECT COUNT(*) FROM dispatches WHERE course_id = ? AND state IN ('waiting', 'writing', 'proving')) AS dispatch`,
		Array(3).fill(courseId)
	))!;
	return { ...waiting, banks: questionsIn(counts), snags: snagsIn(counts) };
}
