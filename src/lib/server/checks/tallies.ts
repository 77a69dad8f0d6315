import type { PoolConnection } from 'mysql2/promise';
import type { ManyCheck, Noted } from '$core/checks/check';
import { ruleOf } from '$core/reports/rules';
import { checkRules } from '../courses/kept';
import { rows, run } from '../db/pool';
import { log } from '../log';
import { reportColumns } from '../questions/columns';

const atOnce = 200;

interface Tally {
	hash: Buffer;
	note: string;
	id: number;
	times: number;
}

/** A note of a group, with what is said of all questions that have it. */
type Said = [hash: Buffer, note: string, severity: string, message: string, words: string];

/** What a check finds in groups by how many questions have each note. */
function saidOf(check: ManyCheck, tallies: readonly Tally[], severity: string): Said[] {
	const groups = new Map<string, Tally[]>();
	for (const tally of tallies) {
		const key = tally.hash.toString('hex');
		const known = groups.get(key);
		if (known) known.push(tally);
		else groups.set(key, [tally]);
	}
	return [...groups.values()].flatMap((group) => {
		const byId = new Map(group.map((tally) => [tally.id, tally]));
		const noted = group.map(({ id, note, times }): Noted<unknown> => ({
			id,
			name: '',
			category: [],
			note: JSON.parse(note) as unknown,
			times: Number(times)
		}));
		try {
			return check.among(noted).map(({ id, message, words }): Said => {
				const { hash, note } = byId.get(id)!;
				const [, , told, lit] = reportColumns({ rule: ruleOf(check), severity: check.severity, message, words });
				return [hash, note, severity, told, lit];
			});
		} catch (error) {
			log.error({ rule: check.id, error }, 'a check over many could not be carried out');
			return [];
		}
	});
}

/**
 * Carries out a check that goes by how many questions have a note: in some groups, or in all of a course. The notes are
 * counted in the database, and what is found is written for all questions that have a note at once.
 */
export async function checkTallies(
	connection: PoolConnection,
	courseId: number,
	check: ManyCheck,
	groups: readonly Buffer[] | null
): Promise<void> {
	if (groups && !groups.length) return;
	const within = groups ? ' AND n.group_hash IN (?)' : '';
	const which = [courseId, check.id, ...(groups ? [groups] : [])];
	// by_group
	const tallies = await rows<Tally>(
		connection,
		`SELECT n.group_hash AS hash, n.note, MIN(n.question_id) AS id, COUNT(*) AS times FROM check_notes n WHERE n.course_id = ? AND n.rule = ?${within} GROUP BY n.group_hash, n.note`,
		which
	);
	for (const table of ['snags', 'waived_snags'])
		await run(
			connection,
			groups
				? `DELETE s FROM check_notes n JOIN ${table} s ON s.question_id = n.question_id AND s.rule = n.rule WHERE n.course_id = ? AND n.rule = ?${within}`
				: `DELETE FROM ${table} WHERE course_id = ? AND rule = ?`,
			which
		);
	const { off, severities } = await checkRules(connection, courseId);
	if (off.has(check.id)) return;
	const said = saidOf(check, tallies, severities.get(check.id) ?? check.severity);
	for (let at = 0; at < said.length; at += atOnce) {
		const some = said.slice(at, at + atOnce);
		// by_group
		await run(
			connection,
			`INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line)
			SELECT n.course_id, n.question_id, n.rule, f.severity, f.message, f.words, '', NULL FROM (${some.map(() => 'SELECT ? AS hash, ? AS note, ? AS severity, ? AS message, ? AS words').join(' UNION ALL ')}) f
			JOIN check_notes n ON n.course_id = ? AND n.rule = ? AND n.group_hash = f.hash AND n.note = f.note`,
			[...some.flat(), courseId, check.id]
		);
	}
}
