import { poolOf } from '$core/draws/pool';
import { rows, type Database } from '../db/pool';
import { poolSource } from './pools';
import type { DrawnQuiz } from './sheet';

/** The checks that find options which name one another by place or letter. */
export const boundRules = ['option-place', 'option-letters'];

/** The questions of the parts that shuffle options whose options must not be, with what the check says of each. */
export async function boundIn(
	db: Database,
	courseId: number,
	{ parts }: DrawnQuiz
): Promise<{ id: number; reason: string }[]> {
	const shuffling = parts.filter((part) => part.shuffleOptions);
	const source = await poolSource(db, courseId, shuffling);
	const drawn = new Set(shuffling.flatMap((part) => poolOf(part, source)));
	// by_rule; a question that forbids shuffling is shuffled nowhere
	const found = await rows<{ id: number; reason: string }>(
		db,
		'SELECT s.question_id AS id, MIN(s.message) AS reason FROM snags s JOIN questions q ON q.id = s.question_id WHERE s.course_id = ? AND s.rule IN (?) AND NOT (q.shuffle <=> 0) GROUP BY s.question_id',
		[courseId, boundRules]
	);
	return found.filter(({ id }) => drawn.has(id));
}
