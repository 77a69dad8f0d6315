import { exactDuplicate } from '$core/checks/exact-duplicate';
import { sameStemOtherKey } from '$core/checks/same-stem-other-key';
import { poolOf } from '$core/draws/pool';
import { rows, type Database } from '../db/pool';
import { poolSource } from './pools';
import type { DrawnQuiz } from './sheet';

/** Two questions that ask the same or nearly the same, so that one student should not get both. */
export interface AlikePair {
	one: number;
	other: number;
	/** The check that found them alike. */
	rule: string;
}

/** So many pairs are proposed at the most. */
const mostPairs = 200;
/** The checks that find groups; the others have their pairs written down. */
const groupRules = [exactDuplicate.id, sameStemOtherKey.id];

/** Pairs of questions of a quiz's pools that the checks over many find alike, those with a snag that is still open. */
export async function alikePairs(db: Database, courseId: number, quiz: DrawnQuiz): Promise<AlikePair[]> {
	const source = await poolSource(db, courseId, quiz.parts);
	const inPools = new Set(quiz.parts.flatMap((part) => poolOf(part, source)));
	if (!inPools.size) return [];
	// the key of the pairs; by_rule of the snags, then by_group
	const found = await rows<AlikePair>(
		db,
		`SELECT p.question_id AS one, p.other_id AS other, p.rule FROM questions q JOIN check_pairs p ON p.question_id = q.id WHERE q.course_id = ? AND p.other_id > p.question_id
		UNION SELECT n.question_id, o.question_id, n.rule FROM snags s
			JOIN check_notes n ON n.course_id = s.course_id AND n.rule = s.rule AND n.question_id = s.question_id
			JOIN check_notes o ON o.course_id = n.course_id AND o.rule = n.rule AND o.group_hash = n.group_hash AND o.question_id > n.question_id
			JOIN snags t ON t.question_id = o.question_id AND t.rule = s.rule
		WHERE s.course_id = ? AND s.rule IN (?) LIMIT 20000`,
		[courseId, courseId, groupRules]
	);
	const pairs = new Map<string, AlikePair>();
	for (const pair of found)
		if (inPools.has(pair.one) && inPools.has(pair.other)) pairs.set(`${pair.one} ${pair.other}`, pair);
	return [...pairs.values()].slice(0, mostPairs);
}
