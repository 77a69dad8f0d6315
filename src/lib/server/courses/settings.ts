import type { Pool } from 'mysql2/promise';
import type { CourseSettings } from '$lib/forms/course-settings';
import { checkSoon } from '../checks/course';
import { keptOf } from './kept';
import { row, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { rememberRules, rulesOf } from '../loads/rules';

/** What a course goes by: its own settings, and the rules that its loads begin with. */
export async function settingsOf(db: Database, courseId: number): Promise<CourseSettings> {
	const { creditSteps, creditOtherwise, errors, same, changed } = await rulesOf(db, courseId);
	return {
		...(await keptOf(db, courseId)),
		creditSteps,
		creditOtherwise: creditOtherwise === 'nearest' ? 'keep' : creditOtherwise,
		errors,
		same,
		changed
	};
}

/** Changes what a course goes by. A check that is turned off has no snags from then on; one that is turned on again finds them. */
export async function saveSettings(
	pool: Pool,
	courseId: number,
	personId: number,
	settings: CourseSettings
): Promise<void> {
	const { language, points, checksOff: off, severities, ...rules } = settings;
	await transaction(pool, async (connection) => {
		await row(connection, 'SELECT id FROM courses WHERE id = ? FOR UPDATE', [courseId]);
		const { checksOff: before, severities: graveBefore } = await keptOf(connection, courseId);
		await run(connection, 'UPDATE courses SET settings = ? WHERE id = ?', [
			JSON.stringify({ language, points, checksOff: off, severities }),
			courseId
		]);
		await rememberRules(connection, courseId, { ...(await rulesOf(connection, courseId)), ...rules });
		if (off.length)
			// by_rule
			await run(connection, 'DELETE FROM snags WHERE course_id = ? AND rule IN (?)', [courseId, off]);
		if (off.length)
			await run(connection, 'DELETE FROM waived_snags WHERE course_id = ? AND rule IN (?)', [courseId, off]);
		if (before.some((id) => !off.includes(id)) || [...graveBefore].sort().join() !== [...severities].sort().join())
			await run(connection, 'UPDATE questions SET checked = 0 WHERE course_id = ?', [courseId]);
		if (
			[...before].sort().join() !== [...off].sort().join() ||
			[...graveBefore].sort().join() !== [...severities].sort().join()
		)
			await checkSoon(connection, courseId);
		await record(connection, { courseId, personId, deed: 'changed the settings', subject: 'the course', questions: 0 });
	});
}
