// Twenty people at work, while application and database are killed: node --import tsx bench/soak.ts [MINUTES]; wants a build
import { fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writtenFormat } from '../core/formats';
import { emptyCommon } from '../core/model/question';
import type { Question } from '../core/kinds';
import { startMariadb } from '../scripts/database/mariadb';
import { migrate } from '../src/lib/server/db/migrate';
import { makePool, row, run } from '../src/lib/server/db/pool';
import { hashPassword } from '../src/lib/server/people/passwords';

const minutes = Number(process.argv[2]) || 15;
const people = 20;
/** The application is killed so often, and the database as often between. */
const kills = Math.max(2, Math.round(minutes / 2.5));
const root = process.cwd();
const folder = mkdtempSync(join(tmpdir(), 'barrow-soak-'));
const until = Date.now() + minutes * 60_000;
const pause = (time: number) => new Promise((resolve) => setTimeout(resolve, time));
const database = await startMariadb(join(folder, 'mariadb'));
await migrate(database.url, join(root, 'db/migrations'));
const pool = makePool(database.url, 4);
let application!: ChildProcess;
let port = 0;
const counts = { loads: 0, questions: 0, takenBack: 0, thrownAway: 0, tries: 0, wrong: [] as string[] };

async function startApplication(): Promise<void> {
	application = fork(join(root, 'test-support/serve-for-tests.ts'), {
		execArgv: ['--import', 'tsx'],
		env: {
			...process.env,
			DATABASE_URL: database.url,
			JOB_LEASE_SECONDS: '5',
			LOG_LEVEL: 'fatal',
			...(port ? { PORT: String(port) } : {})
		},
		stdio: ['ignore', 'ignore', 'ignore', 'ipc']
	});
	const address = await new Promise<string>((resolve) => application.on('message', (words) => resolve(String(words))));
	port = Number(new URL(address).port);
}

/** The memory of the application that it holds itself, in MB. */
function memory(): number {
	const found = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${application.pid}/status`, 'utf8'));
	return Number(found?.[1] ?? 0) / 1024;
}

/** A package of so many questions that no other load has. */
async function packageOf(mark: string, count: number): Promise<Buffer> {
	const pieces: Uint8Array[] = [];
	const stream = writtenFormat('qti21')!.write({
		identifier: mark,
		title: mark,
		count,
		question: async (at): Promise<Question> => ({
			...emptyCommon(`${mark}-${at}`, `Line ${mark}-${at}`),
			kind: 'short-answer',
			stem: `How long is line ${mark}-${at}?`,
			accepted: [{ text: `${at} m`, credit: 1, caseSensitive: false }]
		}),
		quizzes: [],
		media: async function* () {
			// none has a picture
		}
	});
	for await (const piece of stream) pieces.push(piece);
	return Buffer.concat(pieces);
}

/** One person of one course, who does again what did not get through, as people and pages do. */
class Worker {
	#cookie = '';
	constructor(
		readonly email: string,
		readonly course: number
	) {}

	async #ask(path: string, options: RequestInit = {}): Promise<Response> {
		for (;;) {
			try {
				const answer = await fetch(`http://127.0.0.1:${port}${path}`, {
					redirect: 'manual',
					signal: AbortSignal.timeout(60_000),
					...options,
					headers: {
						cookie: this.#cookie,
						origin: `http://127.0.0.1:${port}`,
						Accept: 'application/json',
						...options.headers
					}
				});
				if (![500, 502, 503, 504].includes(answer.status)) return answer;
			} catch {
				// the application is being started again
			}
			counts.tries += 1;
			await pause(300 + Math.random() * 700);
		}
	}

	async signIn(): Promise<void> {
		const answer = await this.#ask('/signin', {
			method: 'POST',
			body: new URLSearchParams({ email: this.email, password: 'anchor-watch' }),
			headers: { Accept: 'text/html' }
		});
		this.#cookie = answer.headers.get('set-cookie')!.split(';')[0]!;
	}

	async #upload(name: string, bytes: Buffer): Promise<number> {
		const path = `/courses/${this.course}/loads/upload`;
		for (;;) {
			const begun = await this.#ask(path, {
				method: 'POST',
				body: JSON.stringify({ name, size: bytes.length, mark: name }),
				headers: { 'Content-Type': 'application/json' }
			});
			const { id, received } = (await begun.json()) as { id: number; received: number };
			if (received >= bytes.length) return id;
			const put = await this.#ask(`${path}?id=${id}&offset=${received}`, {
				method: 'PUT',
				body: new Uint8Array(bytes.subarray(received)),
				headers: { 'Content-Type': 'application/octet-stream' }
			});
			if (put.ok && ((await put.json()) as { received: number }).received >= bytes.length) return id;
			const state = await this.#state(id);
			if (state && state !== 'uploading') return id;
		}
	}

	async #state(id: number): Promise<string | undefined> {
		const answer = await this.#ask(`/courses/${this.course}/loads/status`);
		const { loads } = (await answer.json()) as { loads: { id: number; state: string }[] };
		return loads.find((load) => load.id === id)?.state;
	}

	async #act(path: string, fields: Record<string, string>): Promise<void> {
		await this.#ask(`/courses/${this.course}/${path}`, {
			method: 'POST',
			body: new URLSearchParams(fields),
			headers: { Accept: 'text/html' }
		});
	}

	/** Brings a load from the tray into the course, or back out; notes where a number does not add up. */
	async round(mark: string): Promise<void> {
		const count = 20 + Math.floor(Math.random() * 200);
		const id = await this.#upload(`${mark}.zip`, await packageOf(mark, count));
		for (let state = await this.#state(id); state !== 'review'; state = await this.#state(id)) {
			if (state === 'failed' || state === undefined) return void counts.wrong.push(`${mark} is ${state}`);
			await pause(400);
		}
		await this.#ask(`/courses/${this.course}/loads/${id}`, { headers: { Accept: 'text/html' } });
		const what = Math.random();
		if (what < 0.15) {
			await this.#act(`loads/${id}?/away`, {});
			if ((await this.#state(id)) !== undefined) counts.wrong.push(`${mark} was not thrown away`);
			counts.thrownAway += 1;
			return;
		}
		const decision = {
			categories: 'keep',
			oneCategory: '',
			errors: 'aside',
			against: 'nothing',
			same: 'skip',
			changed: 'beside',
			near: 'beside',
			creditSteps: [],
			creditOtherwise: 'keep',
			points: null,
			shuffle: 'keep',
			tags: [],
			bankId: null,
			bankName: mark,
			quizBank: null,
			leftOut: [],
			landings: {}
		};
		await this.#act(`loads/${id}?/take`, { decision: JSON.stringify(decision) });
		const held = async () =>
			(await row<{ n: number }>(pool, 'SELECT COUNT(*) AS n FROM questions WHERE load_id = ?', [id]))!.n;
		if ((await held()) !== count) counts.wrong.push(`${mark}: ${await held()} of ${count} are in the course`);
		counts.loads += 1;
		if (what > 0.85) {
			await this.#act(`loads/${id}/receipt?/undo`, { changed: '' });
			if (await held()) counts.wrong.push(`${mark}: ${await held()} were left by the undo`);
			counts.takenBack += 1;
			return;
		}
		counts.questions += count;
	}
}

const memories: { life: number; at: number; mb: number }[] = [];
try {
	const hash = await hashPassword('anchor-watch');
	const workers: Worker[] = [];
	for (let number = 0; number < people; number += 1) {
		const email = `soak-${number}@gullhaven.example`;
		const person = await run(pool, 'INSERT INTO people (name, email, password_hash) VALUES (?, ?, ?)', [
			email,
			email,
			hash
		]);
		const course = await run(pool, 'INSERT INTO courses (code, name) VALUES (?, ?)', [`S-${number}`, `Soak ${number}`]);
		await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'manage')", [
			person.id,
			course.id
		]);
		workers.push(new Worker(email, course.id));
	}
	await startApplication();
	let life = 0;
	let begun = Date.now();
	const watch = setInterval(() => {
		if (Date.now() - begun > 15_000)
			memories.push({ life, at: Math.round((Date.now() - begun) / 1000), mb: Math.round(memory()) });
	}, 5000);
	const work = Promise.all(
		workers.map(async (worker, number) => {
			await worker.signIn();
			for (let round = 0; Date.now() < until; round += 1) await worker.round(`P${number}R${round}`);
		})
	);
	for (let kill = 0; kill < 2 * kills; kill += 1) {
		await pause((minutes * 60_000) / (2 * kills + 2));
		if (kill % 2) process.kill(Number(readFileSync(join(folder, 'mariadb/pid'), 'utf8')), 'SIGKILL');
		else {
			const gone = new Promise((resolve) => application.on('exit', resolve));
			application.kill('SIGKILL');
			await gone;
			life += 1;
			begun = Date.now();
			await startApplication();
		}
	}
	await work;
	clearInterval(watch);
	const inCourse = (await row<{ n: number }>(pool, 'SELECT COUNT(*) AS n FROM questions'))!.n;
	if (inCourse !== counts.questions)
		counts.wrong.push(`${inCourse} questions are in the courses, and ${counts.questions} were taken in`);
	const lives = [...new Set(memories.map((one) => one.life))].map((one) => {
		const held = memories.filter((other) => other.life === one);
		return {
			life: one,
			seconds: held.at(-1)!.at,
			'MB at first': held[0]!.mb,
			'MB at last': held.at(-1)!.mb,
			'most MB': Math.max(...held.map((other) => other.mb))
		};
	});
	console.table(lives);
	console.log(
		`${people} people, ${minutes} minutes, ${kills} kills of each: ${counts.loads} loads taken in, ${counts.takenBack} taken back, ${counts.thrownAway} thrown away; ${counts.questions} questions in the courses; ${counts.tries} tries went to a process that was gone`
	);
	console.log(counts.wrong.length ? `WRONG:\n${counts.wrong.join('\n')}` : 'Every question is accounted for.');
	process.exitCode = counts.wrong.length ? 1 : 0;
} finally {
	application.kill('SIGTERM');
	await pause(2500);
	await pool.end();
	await database.stop();
	rmSync(folder, { recursive: true, force: true });
}
