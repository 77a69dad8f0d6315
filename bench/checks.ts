// Measures all checks over courses of different sizes: node --import tsx bench/checks.ts [COUNT …]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseQuestion } from '../core/kinds/schema';
import { startMariadb } from '../scripts/database/mariadb';
import { migrate } from '../src/lib/server/db/migrate';

const counts = process.argv.slice(2).map(Number).filter(Boolean);
const sizes = counts.length ? counts : [1_000, 10_000, 100_000];
const edits = 8;
const folder = mkdtempSync(join(tmpdir(), 'barrow-checks-'));
const database = await startMariadb(join(folder, 'mariadb'));
process.env.DATABASE_URL = database.url;
await migrate(database.url, 'db/migrations');
const { makePool, rows, run } = await import('../src/lib/server/db/pool');
const { fillCourse } = await import('../src/lib/server/test-support/fill');
const { checkCourse } = await import('../src/lib/server/checks/course');
const { storedQuestion } = await import('../src/lib/server/banks/banks');
const { editQuestion } = await import('../src/lib/server/questions/edit');
const { placeFindings } = await import('../src/lib/server/checks/places');
const { unhindered } = await import('../src/lib/server/jobs/control');
const pool = makePool(database.url, 4);
const { id: person } = await run(
	pool,
	"INSERT INTO people (name, email, password_hash, keeper) VALUES ('Bench', 'bench@gullhaven.example', 'x', 1)"
);

/** One pass over the documents of a course: read in batches and parsed, and nothing else. */
async function pass(courseId: number): Promise<number> {
	const begun = performance.now();
	for (let last = 0; ;) {
		const found = await rows<{ id: number; document: string }>(
			pool,
			'SELECT id, document FROM questions WHERE course_id = ? AND id > ? ORDER BY id LIMIT 300',
			[courseId, last]
		);
		for (const { document } of found) parseQuestion(JSON.parse(document));
		if (!found.length) break;
		last = found.at(-1)!.id;
	}
	return performance.now() - begun;
}

const middle = (times: number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;

console.log('questions  one pass  all checks  ratio  one edit (median, most)');
for (const size of sizes) {
	const course = await fillCourse(pool, person, size);
	await run(pool, 'UPDATE questions SET checked = 0 WHERE course_id = ?', [course.id]);
	const once = await pass(course.id);
	const begun = performance.now();
	await checkCourse(pool, course.id, unhindered);
	const all = performance.now() - begun;
	const some = await rows<{ id: number }>(
		pool,
		`SELECT id FROM questions WHERE course_id = ? ORDER BY id LIMIT ${edits}`,
		[course.id]
	);
	const times: number[] = [];
	for (const { id } of some) {
		const { question, version } = (await storedQuestion(pool, course.id, id))!;
		const from = performance.now();
		await editQuestion(pool, course.id, person, id, version, { ...question, stem: `${question.stem} Say it again.` });
		await placeFindings(pool, course.id);
		times.push(performance.now() - from);
	}
	console.log(
		`${String(size).padStart(9)} ${`${Math.round(once)} ms`.padStart(9)} ${`${Math.round(all)} ms`.padStart(11)} ${(all / once).toFixed(1).padStart(6)}  ${Math.round(middle(times))} ms, ${Math.round(Math.max(...times))} ms`
	);
}
await pool.end();
await database.stop();
rmSync(folder, { recursive: true, force: true });
