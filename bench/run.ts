// Measures reading and taking in as ratios against a raw limit in the same run: npm run bench [-- QUESTIONS …]
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SaxesParser } from 'saxes';
import { openFile, unpack } from '../cli/open';
import { checkQuestion } from '../core/checks';
import { readPackage } from '../core/formats/package/read';
import { plainRules } from '../core/take-in/decision';
import { startMariadb } from '../scripts/mariadb';
import { migrate } from '../src/lib/server/db/migrate';
import { makePool, rows, run } from '../src/lib/server/db/pool';
import { unhindered } from '../src/lib/server/jobs/control';
import { receive } from '../src/lib/server/loads/loads';
import { readLoad } from '../src/lib/server/loads/read';
import { takeIn } from '../src/lib/server/loads/take-in';
import { undo } from '../src/lib/server/loads/undo';

const root = process.cwd();
const sizes = process.argv.slice(2).map(Number).filter(Boolean);
const repeats = 3;
const folder = mkdtempSync(join(tmpdir(), 'barrow-bench-'));
let peak = 0;
const sampler = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 20);

/** The best of a few runs, in seconds, and the greatest memory of the process during them, in MB. */
async function timed(work: () => Promise<void>, times = repeats): Promise<{ seconds: number; memory: number }> {
	let best = Infinity;
	globalThis.gc?.();
	peak = process.memoryUsage().rss;
	for (let n = 0; n < times; n += 1) {
		const from = performance.now();
		await work();
		best = Math.min(best, performance.now() - from);
	}
	return { seconds: best / 1000, memory: peak / 2 ** 20 };
}

/** Unzips every entry and passes over every XML with nothing done: the raw limit of reading. */
async function bare(path: string): Promise<void> {
	const { container, close } = await openFile(path);
	for (const entry of container.entries) {
		const bytes = await container.bytes(entry.path);
		if (!entry.path.endsWith('.xml')) continue;
		const parser = new SaxesParser({ position: false });
		parser.on('opentag', () => undefined);
		parser.on('text', () => undefined);
		parser.write(new TextDecoder().decode(bytes)).close();
	}
	await close();
}

async function read(path: string, checked: boolean): Promise<void> {
	const { container, close } = await openFile(path);
	for await (const event of readPackage(container, unpack))
		if (checked && event.type === 'question') checkQuestion(event.question, { duplicateOf: () => null });
	await close();
}

const table: Record<string, string | number>[] = [];
const note = (what: string, count: number, raw: number, ours: number, memory: number, goal: string) =>
	table.push({
		what,
		questions: count,
		'raw s': raw.toFixed(2),
		'ours s': ours.toFixed(2),
		ratio: (ours / raw).toFixed(2),
		goal,
		'peak MB': Math.round(memory)
	});

const database = await startMariadb(join(folder, 'mariadb'));
try {
	await migrate(database.url, join(root, 'db/migrations'));
	const pool = makePool(database.url, 4);
	const person = (
		await run(pool, "INSERT INTO people (name, email, password_hash) VALUES ('Bench', 'bench@gullhaven.example', 'x')")
	).id;
	const course = (await run(pool, "INSERT INTO courses (code, name) VALUES ('B', 'Bench')")).id;
	for (const count of sizes.length ? sizes : [1000, 10_000]) {
		const path = join(folder, `${count}.zip`);
		execFileSync('node', [join(root, 'bench/big.mjs'), String(count), path, 'qti21']);
		const raw = await timed(() => bare(path));
		const reading = await timed(() => read(path, false));
		note('read a package', count, raw.seconds, reading.seconds, reading.memory, '4');
		const checking = await timed(() => read(path, true));
		note('read and check it', count, raw.seconds, checking.seconds, checking.memory, '');

		const load = await receive(
			pool,
			course,
			person,
			`${count}.zip`,
			statSync(path).size,
			(async function* () {
				const { createReadStream } = await import('node:fs');
				yield* createReadStream(path);
			})()
		);
		const staging = await timed(() => readLoad(pool, load, unhindered), 1);
		note('read, check and stage it', count, raw.seconds, staging.seconds, staging.memory, '');
		// the same rows, inserted in batches in one transaction into the same table with the same indexes
		const staged = await rows<Record<string, unknown>>(
			pool,
			'SELECT id, kind, title, stem_text, points, document, fingerprint FROM staged_questions WHERE load_id = ? AND broken = 0',
			[load]
		);
		const bank = (await run(pool, 'INSERT INTO banks (course_id, name) VALUES (?, ?)', [course, `raw ${count}`])).id;
		let insert = Infinity;
		for (let n = 0; n < repeats; n += 1) {
			const connection = await pool.getConnection();
			const from = performance.now();
			await connection.beginTransaction();
			for (let at = 0; at < staged.length; at += 500)
				await connection.query(
					'INSERT INTO questions (course_id, bank_id, staged_id, kind, title, stem_text, points, document, fingerprint) VALUES ?',
					[
						staged
							.slice(at, at + 500)
							.map((one) => [
								course,
								bank,
								one.id,
								one.kind,
								one.title,
								one.stem_text,
								one.points,
								one.document,
								one.fingerprint
							])
					]
				);
			await connection.commit();
			insert = Math.min(insert, (performance.now() - from) / 1000);
			connection.release();
			await run(pool, 'DELETE FROM questions WHERE bank_id = ?', [bank]);
		}
		let taking = Infinity;
		for (let n = 0; n < repeats; n += 1) {
			const from = performance.now();
			await takeIn(pool, course, load, person, {
				...plainRules,
				same: 'beside',
				bankId: null,
				bankName: `taken ${count}`,
				leftOut: [],
				landings: {}
			});
			taking = Math.min(taking, (performance.now() - from) / 1000);
			await undo(pool, course, load, person);
		}
		note('take it in', count, insert, taking, peak / 2 ** 20, '2');
	}
	await pool.end();
} finally {
	clearInterval(sampler);
	await database.stop();
	rmSync(folder, { recursive: true, force: true });
}
console.table(table);
