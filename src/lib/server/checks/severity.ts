import type { PoolConnection } from 'mysql2/promise';
import type { Severity } from '$core/reports/report';
import { run } from '../db/pool';

/** Gives the open snags of a course the severities that it takes some checks for, where they came by others. */
export async function setSeverities(
	connection: PoolConnection,
	courseId: number,
	severities: ReadonlyMap<string, Severity>
): Promise<void> {
	if (!severities.size) return;
	const rules = [...severities];
	// by_rule
	await run(
		connection,
		`UPDATE snags s SET s.severity = CASE s.rule ${rules.map(() => 'WHEN ? THEN ?').join(' ')} ELSE s.severity END WHERE s.course_id = ? AND s.rule IN (?)`,
		[...rules.flat(), courseId, rules.map(([rule]) => rule)]
	);
}
