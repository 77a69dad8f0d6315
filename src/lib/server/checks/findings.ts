import type { PoolConnection } from 'mysql2/promise';
import { checkOf } from '$core/checks';
import type { ManyCheck, Noted } from '$core/checks/check';
import { findAmong } from '$core/checks/many';
import { ruleOf } from '$core/reports/rules';
import { log } from '../log';
import { checkRules } from '../courses/kept';
import { run } from '../db/pool';
import { reportColumns } from '../questions/columns';

const batch = 500;

/** A snag as a row: course, question, rule, severity, message, words, place, line. */
export type SnagRow = (string | number | null)[];

/** Writes snags of a course down, but for those of checks that are off in it. */
export async function writeSnags(
	connection: PoolConnection,
	courseId: number,
	found: readonly SnagRow[]
): Promise<void> {
	if (!found.length) return;
	const { off, severities } = await checkRules(connection, courseId);
	const snags = found
		.filter(([, , rule]) => !off.has(String(rule)))
		.map(([course, question, rule, severity, ...rest]): SnagRow => [
			course!,
			question!,
			rule!,
			severities.get(String(rule)) ?? severity!,
			...rest
		]);
	for (let at = 0; at < snags.length; at += batch)
		await run(
			connection,
			'INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line) VALUES ?',
			[snags.slice(at, at + batch)]
		);
}

/** What a check over many finds among questions, as snags; one that fails finds nothing, and the log says so. */
export function snagsAmong(courseId: number, rule: string, noted: readonly Noted<unknown>[]): SnagRow[] {
	const check = checkOf(rule) as ManyCheck | undefined;
	if (!check) return [];
	try {
		return findAmong(check, noted).map(({ id, message, words }) => [
			courseId,
			id,
			...reportColumns({ rule: ruleOf(check), severity: check.severity, message, words })
		]);
	} catch (error) {
		log.error({ rule, error }, 'a check over many could not be carried out');
		return [];
	}
}
