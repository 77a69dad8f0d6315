import type { PoolConnection } from 'mysql2/promise';
import type { Question } from '$core/kinds';
import type { Report } from '$core/reports/report';
import { ruleOf } from '$core/reports/rules';
import { exactDuplicate, sameAs } from '$core/checks/exact-duplicate';
import { rows, run, type Database } from '../db/pool';
import type { StoredReport } from '../loads/review';

/** The check that says of a question that it is there twice. */
export const twinRule = exactDuplicate.id;

/** The questions `x` of a course that say the same as a question `q`: as the check has noted them, or to the letter where it has not yet. */
export const twinsOf = `(SELECT o.question_id AS id, n.question_id AS of FROM check_notes n JOIN check_notes o ON o.course_id = n.course_id AND o.rule = n.rule AND o.group_hash = n.group_hash AND o.question_id <> n.question_id WHERE n.rule = '${twinRule}' AND n.question_id IN (?)
	UNION SELECT x.id, q.id AS of FROM questions q JOIN questions x ON x.course_id = q.course_id AND x.fingerprint = q.fingerprint AND x.id <> q.id WHERE q.id IN (?))`;

/** A condition for the snags `s` of questions `q`: where one is said to be there twice, another of it is still there. */
export const stillTwin = `(s.rule <> '${twinRule}' OR EXISTS (SELECT 1 FROM questions x WHERE x.course_id = q.course_id AND x.fingerprint = q.fingerprint AND x.id <> q.id)
	OR EXISTS (SELECT 1 FROM check_notes n JOIN check_notes o ON o.course_id = n.course_id AND o.rule = n.rule AND o.group_hash = n.group_hash AND o.question_id <> n.question_id WHERE n.rule = '${twinRule}' AND n.question_id = q.id AND n.course_id = q.course_id))`;

/** What is said of a staged question that is there twice; which other it is, is worked out when it is shown. */
export function twinReport({ source }: Question): Report {
	return {
		rule: ruleOf(exactDuplicate),
		severity: exactDuplicate.severity,
		...sameAs(['another question']),
		...(source ? { place: { file: source.file, line: source.line } } : {})
	};
}

/** Takes away what is said of questions that were there twice and are not any more. */
export async function dropLoneTwins(connection: PoolConnection, courseId: number): Promise<void> {
	// by_rule, then by_fingerprint
	await run(
		connection,
		`DELETE s FROM snags s JOIN questions q ON q.id = s.question_id WHERE s.course_id = ? AND s.rule = '${twinRule}' AND NOT ${stillTwin}`,
		[courseId]
	);
}

/** What is said of a question with the twins that it has now: nothing of twins where it has none. */
function withTwins<Said extends Pick<StoredReport, 'rule' | 'message'>>(
	reports: Said[],
	names: string[]
): (Said & { twins: number })[] {
	return reports.flatMap((report) => {
		if (report.rule !== twinRule) return [{ ...report, twins: 0 }];
		return names.length ? [{ ...report, ...sameAs(names), twins: names.length }] : [];
	});
}

/** The reports on a question of a load, with where its twins are: in the file, or in the course. */
export async function withStagedTwins(
	db: Database,
	loadId: number,
	stagedId: number,
	reports: StoredReport[]
): Promise<StoredReport[]> {
	if (!reports.some((report) => report.rule === twinRule)) return reports;
	// by_fingerprint of the load, and of the course
	const found = await rows<{ name: string }>(
		db,
		`(SELECT CONCAT('question ', x.number, ' of this file, “', x.title, '”') AS name FROM staged_questions s JOIN staged_questions x ON x.load_id = s.load_id AND x.fingerprint = s.fingerprint AND x.id <> s.id WHERE s.id = ? AND s.load_id = ? ORDER BY x.number)
		UNION ALL (SELECT CONCAT('“', q.title, '” in the bank ', b.name) FROM staged_questions s JOIN loads l ON l.id = s.load_id JOIN questions q ON q.course_id = l.course_id AND q.fingerprint = s.fingerprint AND NOT (q.staged_id <=> s.id) JOIN banks b ON b.id = q.bank_id WHERE s.id = ? AND s.load_id = ? ORDER BY q.id)`,
		[stagedId, loadId, stagedId, loadId]
	);
	return withTwins(
		reports,
		found.map((one) => one.name)
	);
}

/** The findings on questions of a course, with where the twins of each are now, and how many there are. */
export async function withBankTwins<Said extends { rule: string; message: string; questionId: number }>(
	db: Database,
	courseId: number,
	findings: Said[]
): Promise<(Said & { twins: number })[]> {
	const ids = [...new Set(findings.filter((one) => one.rule === twinRule).map((one) => one.questionId))];
	if (!ids.length) return findings.map((one) => ({ ...one, twins: 0 }));
	// by_group, or by_fingerprint
	const found = await rows<{ id: number; name: string }>(
		db,
		`SELECT t.of AS id, CONCAT('“', x.title, '” in ', IF(x.bank_id = q.bank_id, 'this bank', CONCAT('the bank ', b.name)), IF(c.id IS NULL, '', CONCAT(', ', c.name))) AS name
		FROM ${twinsOf} t JOIN questions q ON q.id = t.of AND q.course_id = ? JOIN questions x ON x.id = t.id AND x.course_id = q.course_id JOIN banks b ON b.id = x.bank_id LEFT JOIN categories c ON c.id = x.category_id ORDER BY x.id`,
		[ids, ids, courseId]
	);
	const byQuestion = new Map<number, string[]>();
	for (const { id, name } of found) byQuestion.set(id, [...(byQuestion.get(id) ?? []), name]);
	return findings.flatMap((one) => withTwins([one], byQuestion.get(one.questionId) ?? []));
}
