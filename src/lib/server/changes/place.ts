import type { PoolConnection } from 'mysql2/promise';
import { checkAround } from '../checks/around';
import { checkSoon } from '../checks/course';
import { lockGroups } from '../checks/notes';
import { touchCourse } from '../courses/counts';
import { rows, run } from '../db/pool';
import { findLost, rememberQuestions } from '../quizzes/lost';
import { notePlacings, placingBySlices, type Placing } from './choose';
import type { ByDeed } from '../questions/save';

/** So many questions are checked at once where they stand now; of more, the courses are checked in the background. */
const mostAtOnce = 1000;

/** What moves from one course to another: its snags go along, its notes are made anew, quizzes of the old course remember it. */
async function changeCourse(connection: PoolConnection, to: number): Promise<void> {
	const leaves = 'placing_now n ON n.id = q.id AND q.course_id <> ?';
	await rememberQuestions(connection, 'q.id IN (SELECT id FROM placing_now) AND q.course_id <> ?', [to]);
	await run(connection, `DELETE u FROM quiz_part_questions u JOIN questions q ON q.id = u.question_id JOIN ${leaves}`, [
		to
	]);
	await run(connection, `DELETE c FROM check_notes c JOIN questions q ON q.id = c.question_id JOIN ${leaves}`, [to]);
	await run(connection, `UPDATE snags s JOIN questions q ON q.id = s.question_id JOIN ${leaves} SET s.course_id = ?`, [
		to,
		to
	]);
}

async function writePlaces(
	connection: PoolConnection,
	to: number,
	placings: readonly Placing[],
	{ deedId, personId }: ByDeed
): Promise<number> {
	const elsewhere = 'NOT (q.bank_id = n.bank_id AND q.category_id <=> n.category_id AND q.course_id = ?)';
	await run(
		connection,
		`INSERT INTO changed_questions (deed_id, question_id, sort, course_before, bank_before, category_before, course_after, bank_after, category_after)
		SELECT ?, q.id, 'placed', q.course_id, q.bank_id, q.category_id, ?, n.bank_id, n.category_id FROM placing_now n JOIN questions q ON q.id = n.id
		WHERE ${elsewhere}
		ON DUPLICATE KEY UPDATE course_after = VALUES(course_after), bank_after = VALUES(bank_after), category_after = VALUES(category_after)`,
		[deedId, to, to]
	);
	await changeCourse(connection, to);
	let count = 0;
	await placingBySlices(placings, async (which, parameters) => {
		const placed = await run(
			connection,
			`UPDATE questions q JOIN placing_now n ON n.id = q.id SET q.course_id = ?, q.bank_id = n.bank_id, q.category_id = n.category_id, q.changed = NOW(3), q.changed_by = ?
			WHERE ${elsewhere} AND ${which}`,
			[to, personId, to, ...parameters]
		);
		count += placed.count;
	});
	return count;
}

/**
 * Puts questions of a course in other places, of it or of another course; gives how many stood elsewhere before. What is
 * held against others is checked again: at once, or in the background where they are many.
 */
export async function placeQuestions(
	connection: PoolConnection,
	from: number,
	to: number,
	placings: readonly Placing[],
	by: ByDeed
): Promise<number> {
	if (!placings.length) return 0;
	await notePlacings(connection, placings);
	const ids = placings.map(({ id }) => id);
	let count = 0;
	const move = async () => {
		count = await writePlaces(connection, to, placings, by);
	};
	if (ids.length <= mostAtOnce) {
		await checkAround(connection, from, ids, move);
		if (to !== from) await checkAround(connection, to, ids, () => Promise.resolve());
	} else {
		for (const courseId of [...new Set([from, to])].sort((a, b) => a - b)) await lockGroups(connection, courseId);
		await move();
		await run(connection, 'UPDATE questions q JOIN placing_now n ON n.id = q.id SET q.checked = 0');
		for (const courseId of new Set([from, to])) await checkSoon(connection, courseId);
	}
	if (to !== from) {
		await findLost(connection, to);
		await touchCourse(connection, to);
	}
	await touchCourse(connection, from);
	return count;
}

/** The same for all that stands in a bank, which goes with the bank to another course; its categories stay its own. */
export async function placeWithBank(
	connection: PoolConnection,
	from: number,
	to: number,
	bankId: number,
	by: ByDeed
): Promise<number> {
	const standing = await rows<{ id: number; categoryId: number | null }>(
		connection,
		'SELECT id, category_id AS categoryId FROM questions WHERE bank_id = ? ORDER BY id FOR UPDATE',
		[bankId]
	);
	return placeQuestions(
		connection,
		from,
		to,
		standing.map(({ id, categoryId }) => ({ id, bankId, categoryId })),
		by
	);
}
