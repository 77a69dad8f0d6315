// Measures the review page with many rows against the page with few: node --import tsx bench/review.ts [COUNT]; wants a build
import { execFileSync, fork } from 'node:child_process';
import { createReadStream, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoSignIn, fillDemo } from '../demo/fill';
import { Visitor } from '../e2e/browser';
import { startMariadb } from '../scripts/database/mariadb';
import { migrate } from '../src/lib/server/db/migrate';
import { makePool, row, run } from '../src/lib/server/db/pool';
import { unhindered } from '../src/lib/server/jobs/control';
import { receive } from '../src/lib/server/loads/loads';
import { readLoad } from '../src/lib/server/loads/read';

const count = Number(process.argv[2]) || 10_000;
const root = process.cwd();
const folder = mkdtempSync(join(tmpdir(), 'barrow-review-'));
const database = await startMariadb(join(folder, 'mariadb'));
// what reads its settings from the environment reads those of this database
process.env.DATABASE_URL = database.url;
const table: Record<string, string | number>[] = [];
try {
	await migrate(database.url, join(root, 'db/migrations'));
	await fillDemo(database.url);
	const pool = makePool(database.url, 4);
	const { course_id: course, person_id: person } = (await row<{ course_id: number; person_id: number }>(
		pool,
		"SELECT course_id, person_id FROM memberships WHERE role = 'manage' ORDER BY course_id LIMIT 1"
	))!;
	const path = join(folder, 'big.zip');
	execFileSync('node', [join(root, 'bench/big.mjs'), String(count), path, 'qti21']);
	const big = await receive(pool, course, person, 'big.zip', statSync(path).size, createReadStream(path));
	await readLoad(pool, big, unhindered);
	// read here, and not once more by the application
	await run(pool, "UPDATE jobs SET state = 'done'");
	const small = (await row<{ id: number }>(
		pool,
		"SELECT id FROM loads WHERE file_name = 'autumn-charts.zip' AND course_id = ?",
		[course]
	))!.id;
	const child = fork(join(root, 'test-support/serve-for-tests.ts'), {
		execArgv: ['--import', 'tsx'],
		env: { ...process.env, DATABASE_URL: database.url },
		stdio: ['ignore', 'ignore', 'inherit', 'ipc']
	});
	const address = await new Promise<string>((resolve) => child.on('message', (words) => resolve(String(words))));
	const visitor = await Visitor.open(address);
	try {
		await visitor.driver.manage().setTimeouts({ script: 180_000 });
		await visitor.signIn(demoSignIn.email, demoSignIn.password);
		const firstRow = async (load: number) => {
			let best = Infinity;
			for (let time = 0; time < 3; time += 1) {
				const from = performance.now();
				await visitor.driver.get(`${address}/courses/${course}/loads/${load}`);
				await visitor.find('[data-row]');
				best = Math.min(best, performance.now() - from);
			}
			return best / 1000;
		};
		const few = await firstRow(small);
		const many = await firstRow(big);
		table.push({
			what: 'to the first row',
			rows: count,
			'few rows s': few.toFixed(2),
			'ours s': many.toFixed(2),
			ratio: (many / few).toFixed(2)
		});
		// some pages of rows at a time to the end, more of a longer list; what counts is the longest time in which nothing is drawn
		const pages = Math.max(1, Math.round(count / 10_000));
		const scrolled = await visitor.driver.executeAsyncScript<{
			seconds: number;
			longest: number;
			frames: number;
			rows: number;
		}>(`
			const done = arguments[arguments.length - 1];
			const list = document.querySelector('[role=rowgroup]');
			let last = performance.now(), longest = 0, frames = 0;
			const from = last;
			function step(now) {
				longest = Math.max(longest, now - last); last = now; frames += 1;
				list.scrollTop += list.clientHeight * ${pages};
				if (list.scrollTop + list.clientHeight >= list.scrollHeight - 1) requestAnimationFrame(() => done({ seconds: (performance.now() - from) / 1000, longest, frames, rows: list.querySelectorAll('[data-row]').length }));
				else requestAnimationFrame(step);
			}
			requestAnimationFrame(step);
		`);
		table.push({
			what: `to the end in ${scrolled.frames} frames`,
			rows: count,
			'few rows s': '',
			'ours s': scrolled.seconds.toFixed(2),
			ratio: `longest frame ${Math.round(scrolled.longest)} ms, ${scrolled.rows} rows drawn`
		});
	} finally {
		await visitor.close();
		child.kill('SIGTERM');
		await pool.end();
	}
} finally {
	await database.stop();
	rmSync(folder, { recursive: true, force: true });
}
console.table(table);
