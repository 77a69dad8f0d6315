import type { Pool } from 'mysql2/promise';
import { ContainerError } from '$core/container/container';
import { openContainer } from '$core/formats/open';
import { readPackage } from '$core/formats/package/read';
import { parseRecipe } from '$core/formats/recipe/recipe';
import { settings } from '../config';
import { row, run } from '../db/pool';
import { fileSource } from '../files/files';
import { codec } from '../files/codec';
import { Stopped, type Control } from '../jobs/control';
import { checkRules } from '../courses/kept';
import { Reading } from './reading';

/**
 * Reads a load: every question is found, checked and staged; nothing goes into the course. A reading that broke off with
 * its process goes on behind the questions that were staged by then; the file is gone through again from its beginning,
 * since nothing but its reader knows where in it they stand. Throws Stopped when told to stop.
 */
export async function readLoad(pool: Pool, loadId: number, control: Control): Promise<void> {
	const load = await row<{
		course_id: number;
		file_id: number;
		size: number;
		file_name: string;
		recipe: string | null;
		state: string;
	}>(pool, 'SELECT course_id, file_id, size, file_name, recipe, state FROM loads WHERE id = ?', [loadId]);
	// a job that is done again, since its process went down right after the reading, must not undo what people decided
	if (!load || (load.state !== 'waiting' && load.state !== 'reading')) return;
	const goesOn = load.state === 'reading';
	if (goesOn) await clearFindings(pool, loadId);
	else await clear(pool, loadId);
	await run(
		pool,
		"UPDATE loads SET state = 'reading', bytes_read = 0, questions_found = 0, snags_found = 0, failure = '' WHERE id = ?",
		[loadId]
	);
	const reading = new Reading(pool, loadId, load.course_id, control, await checkRules(pool, load.course_id));
	try {
		if (goesOn) await reading.goOn();
		const container = await openContainer(load.file_name, fileSource(pool, load.file_id, load.size), codec);
		const recipe = load.recipe ? parseRecipe(JSON.parse(load.recipe)) : undefined;
		for await (const event of readPackage(container, codec, 0, recipe, settings().questionLimit)) {
			control.check();
			await reading.take(event, container);
		}
		await reading.end(Array.from(container.files, ({ path }) => path));
	} catch (error) {
		await reading.quiet();
		if (error instanceof Stopped) await stopLoad(pool, loadId);
		else if (error instanceof ContainerError) {
			await clear(pool, loadId);
			await run(pool, "UPDATE loads SET state = 'failed', failure = ? WHERE id = ?", [
				error.message.slice(0, 1000),
				loadId
			]);
			return;
		}
		throw error;
	}
}

/** Leaves a load whose reading was stopped: nothing of it is staged, and it can be read again. */
export async function stopLoad(pool: Pool, loadId: number): Promise<void> {
	const { count } = await run(
		pool,
		"UPDATE loads SET state = 'stopped' WHERE id = ? AND state IN ('waiting', 'reading')",
		[loadId]
	);
	if (count) await clear(pool, loadId);
}

async function clear(pool: Pool, loadId: number): Promise<void> {
	await clearFindings(pool, loadId);
	await run(pool, 'DELETE FROM staged_reports WHERE load_id = ?', [loadId]);
	await run(pool, 'DELETE FROM staged_questions WHERE load_id = ?', [loadId]);
	await run(pool, 'DELETE FROM load_files WHERE load_id = ?', [loadId]);
}

/** Takes out what was found beside the questions, which is found again when a file is gone through again. */
async function clearFindings(pool: Pool, loadId: number): Promise<void> {
	await run(pool, 'DELETE FROM staged_reports WHERE load_id = ? AND staged_id IS NULL', [loadId]);
	await run(pool, 'DELETE FROM staged_quizzes WHERE load_id = ?', [loadId]);
	await run(pool, 'DELETE FROM staged_others WHERE load_id = ?', [loadId]);
}
