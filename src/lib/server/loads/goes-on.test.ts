import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { row, rows, run } from '../db/pool';
import { unhindered } from '../jobs/control';
import { arriving, makeCourse, testPool } from '../test-support/world';
import { receive } from './loads';
import { readLoad } from './read';

const pool = testPool();
const folder = mkdtempSync(join(tmpdir(), 'barrow-goes-on-'));
const root = new URL('../../../..', import.meta.url).pathname;
afterAll(async () => {
	await pool.end();
	rmSync(folder, { recursive: true, force: true });
});

/** What is staged of a load, with its order, its reports and its files. */
async function staged(loadId: number) {
	return {
		questions: await rows(
			pool,
			'SELECT number, identifier, category_path, kind, title, document, fingerprint, source, broken, quiz_only FROM staged_questions WHERE load_id = ? ORDER BY number',
			[loadId]
		),
		reports: await rows(
			pool,
			'SELECT s.number, r.rule, r.message, r.place, r.line FROM staged_reports r LEFT JOIN staged_questions s ON s.id = r.staged_id WHERE r.load_id = ? ORDER BY s.number, r.rule, r.message',
			[loadId]
		),
		files: await rows(pool, 'SELECT file_id, name, uses FROM load_files WHERE load_id = ? ORDER BY file_id', [loadId]),
		quizzes: await rows(pool, 'SELECT title, document FROM staged_quizzes WHERE load_id = ? ORDER BY title', [loadId]),
		load: await row(pool, 'SELECT state, questions_found, snags_found FROM loads WHERE id = ?', [loadId])
	};
}

describe('a reading whose process went down', () => {
	it.each([
		['qti21', [1100, 2200]],
		['qti12', [700, 1300]]
	] as const)(
		'goes on behind what was staged, and ends as one that was never broken off: %s',
		async (kind, looksBefore) => {
			const path = join(folder, `${kind}.zip`);
			execFileSync('node', [join(root, 'bench/big.mjs'), '1500', path, kind]);
			const bytes = new Uint8Array(readFileSync(path));
			const load = async () => {
				const course = await makeCourse(pool);
				const id = await receive(
					pool,
					course.courseId,
					course.personId,
					'big.zip',
					bytes.length,
					arriving(bytes, 1 << 16)
				);
				await run(pool, "UPDATE jobs SET state = 'done' WHERE subject_id = ? AND kind = 'read'", [id]);
				return id;
			};
			const [whole, broken] = [await load(), await load()];
			await readLoad(pool, whole, unhindered);
			const begun: number[] = [];
			for (const after of looksBefore) {
				let looks = 0;
				const goesDown = {
					check: () => {
						looks += 1;
						if (looks > after) throw new Error('the process is gone');
					}
				};
				await expect(readLoad(pool, broken, goesDown)).rejects.toThrow('is gone');
				begun.push((await rows(pool, 'SELECT id FROM staged_questions WHERE load_id = ?', [broken])).length);
			}
			expect(begun[0]).toBeGreaterThan(0);
			expect(begun[1]).toBeGreaterThanOrEqual(begun[0]!);
			const first = await row(pool, 'SELECT MIN(id) AS id FROM staged_questions WHERE load_id = ?', [broken]);
			await readLoad(pool, broken, unhindered);
			expect(await row(pool, 'SELECT MIN(id) AS id FROM staged_questions WHERE load_id = ?', [broken])).toEqual(first);
			expect(await staged(broken)).toEqual(await staged(whole));
		}
	);
});
