// Measures reading and taking in as ratios against a raw limit in the same run: npm run bench [-- QUESTIONS … [taking]];
// with the word “taking” nothing but what taking in needs is done, since the rest takes long with many questions
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SaxesParser } from 'saxes';
import { codec } from '../src/lib/server/files/codec';
import { openFile } from '../cli/open';
import { checkQuestion } from '../core/checks/one';
import { likeness, NearIndex, wordSet } from '../core/compare/near';
import { Generator } from '../core/numbers/generator';
import { readPackage } from '../core/formats/package/read';
import { plainRules } from '../core/take-in/decision';
import { startMariadb } from '../scripts/database/mariadb';
import { migrate } from '../src/lib/server/db/migrate';
import { makePool, rows, run } from '../src/lib/server/db/pool';
import { unhindered } from '../src/lib/server/jobs/control';
import { receive } from '../src/lib/server/loads/loads';
import { compareLoad, leastNear } from '../src/lib/server/loads/against';
import { readLoad } from '../src/lib/server/loads/read';
import { takeIn } from '../src/lib/server/loads/take-in';
import { undo } from '../src/lib/server/loads/undo';

const root = process.cwd();
const sizes = process.argv.slice(2).map(Number).filter(Boolean);
const onlyTaking = process.argv.includes('taking');
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
	for (const entry of container.files) {
		const bytes = await container.bytes(entry.path, Infinity);
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
	for await (const event of readPackage(container, codec))
		if (checked && event.type === 'question') checkQuestion(event.question);
	await close();
}

/** Near duplicates among many: how long it takes against passing over the words of all, and on a part whether any is missed. */
function nearDuplicates(count: number): void {
	const random = new Generator('near');
	const words = Array.from({ length: 4000 }, (_, at) => `word${at}`);
	const sentence = () =>
		Array.from({ length: 18 + random.below(20) }, () => words[Math.floor(random.below(4000) ** 2 / 4000)]!);
	const lists = Array.from({ length: count }, sentence);
	const changed = (list: string[]) => {
		const copy = [...list];
		for (let times = 1 + random.below(4); times > 0; times -= 1)
			copy[random.below(copy.length)] = `new${random.below(1e6)}`;
		return copy;
	};
	const asked = Array.from({ length: 2000 }, (_, at) =>
		wordSet((at % 2 ? changed(lists[(at * 37) % count]!) : sentence()).join(' '))
	);
	const from = performance.now();
	const sets = lists.map((list) => wordSet(list.join(' ')));
	const raw = (performance.now() - from) / 1000;
	const before = performance.now();
	const index = new NearIndex(sets, leastNear);
	const found = asked.map((set) => index.nearest(set));
	const ours = (performance.now() - before) / 1000;
	note(
		`near duplicates of ${asked.length.toLocaleString('en')}`,
		count,
		raw,
		ours,
		process.memoryUsage().rss / 2 ** 20,
		''
	);
	const part = new NearIndex(sets.slice(0, 5000), leastNear);
	let there = 0;
	let missed = 0;
	for (const set of asked.slice(0, 400)) {
		const best = Math.max(...sets.slice(0, 5000).map((other) => likeness(set, other)));
		if (best < leastNear) continue;
		there += 1;
		if (part.nearest(set)?.likeness !== best) missed += 1;
	}
	console.log(
		`near duplicates: ${found.filter(Boolean).length} found among ${count}; on 5,000 held against all pairs, ${there - missed} of ${there} found`
	);
}

const table: Record<string, string | number>[] = [];
const note = (what: string, count: number, raw: number, ours: number, memory: number, goal: string) => {
	console.error(`${what}, ${count.toLocaleString('en')} questions: ${raw.toFixed(2)} s raw, ${ours.toFixed(2)} s ours`);
	table.push({
		what,
		questions: count,
		'raw s': raw.toFixed(2),
		'ours s': ours.toFixed(2),
		ratio: (ours / raw).toFixed(2),
		goal,
		'peak MB': Math.round(memory)
	});
};

if (!onlyTaking) nearDuplicates(Math.max(5000, ...(sizes.length ? sizes : [10_000])));
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
		const raw = await timed(() => bare(path), onlyTaking ? 1 : repeats);
		if (!onlyTaking) {
			const reading = await timed(() => read(path, false));
			note('read a package', count, raw.seconds, reading.seconds, reading.memory, '4');
			const checking = await timed(() => read(path, true));
			note('read and check it', count, raw.seconds, checking.seconds, checking.memory, '');
		}

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
		const against = await timed(() => compareLoad(pool, load), 1);
		note('hold it against an empty course', count, raw.seconds, against.seconds, against.memory, '');
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
				quizBank: null,
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
