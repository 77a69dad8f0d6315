import { inherited, parseRules, plainRules, type Rules } from '$core/take-in/decision';
import { row, rows, run, type Database } from '../db/pool';

/** Rules that were saved by name. */
export interface RuleSet {
	name: string;
	rules: Rules;
}

/** The rules that a course remembers from the last load that was taken in, or the plain ones; none that changes questions. */
export async function rulesOf(db: Database, courseId: number): Promise<Rules> {
	// by_name
	const found = await row<{ document: string }>(
		db,
		"SELECT document FROM rule_sets WHERE course_id = ? AND name = ''",
		[courseId]
	);
	if (!found) return plainRules;
	try {
		return inherited(parseRules({ ...plainRules, ...(JSON.parse(found.document) as object) }));
	} catch {
		// rules of an older make that no longer fit
		return plainRules;
	}
}

/** The rules of a course that were saved by name. */
export async function ruleSets(db: Database, courseId: number): Promise<RuleSet[]> {
	const found = await rows<{ name: string; document: string }>(
		db,
		"SELECT name, document FROM rule_sets WHERE course_id = ? AND name <> '' ORDER BY name",
		[courseId]
	);
	return found.map(({ name, document }) => ({ name, rules: { ...plainRules, ...(JSON.parse(document) as Rules) } }));
}

/** Keeps rules by name; one of the same name is written over. */
export async function saveRules(db: Database, courseId: number, name: string, rules: Rules): Promise<void> {
	await run(
		db,
		'INSERT INTO rule_sets (course_id, name, document) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE document = VALUES(document)',
		[courseId, name, JSON.stringify(parseRules(rules))]
	);
}

/** Keeps the rules of a decision as those that the course begins with the next time. */
export function rememberRules(db: Database, courseId: number, rules: Rules): Promise<void> {
	return saveRules(db, courseId, '', inherited(rules));
}
