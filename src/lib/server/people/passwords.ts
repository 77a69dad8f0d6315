import { randomBytes, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { Worker } from 'node:worker_threads';

// RFC 7914; cost as OWASP's password storage advice has it: N = 2^17, r = 8, p = 1
const cost = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 2 ** 20 };
const keyLength = 32;

/** So many hashes are made at once, each with 128 MB of memory, and so many more may wait for their turn. */
const atOnce = 2;
const mostWaiting = 40;

/** More want to sign in at this moment than can be served. */
export class Busy extends Error {
	constructor() {
		super('Very many sign in at this moment. Try again in half a minute.');
	}
}

interface Task {
	password: string;
	salt: Buffer;
	options: ScryptOptions;
	done: (key: Buffer) => void;
	failed: (error: Error) => void;
}

/** What a thread does that makes hashes: it has no part of the pool by which the process reads files and looks up names. */
const script = `
	const { parentPort } = require('node:worker_threads');
	const { scryptSync } = require('node:crypto');
	parentPort.on('message', ({ password, salt, length, options }) => {
		try { parentPort.postMessage({ key: scryptSync(password, salt, length, options) }); }
		catch (error) { parentPort.postMessage({ error: String(error) }); }
	});
`;

const waiting: Task[] = [];
const idle: Worker[] = [];
let threads = 0;

function give(worker: Worker, { password, salt, options, done, failed }: Task): void {
	const answered = (answer: { key?: Uint8Array; error?: string }) => {
		worker.off('error', broke);
		worker.unref();
		if (answer.key) done(Buffer.from(answer.key));
		else failed(new Error(answer.error));
		const next = waiting.shift();
		if (next) give(worker, next);
		else idle.push(worker);
	};
	const broke = (error: Error) => {
		threads -= 1;
		failed(error);
		const next = waiting.shift();
		if (next) begin(next);
	};
	worker.ref();
	worker.once('message', answered);
	worker.once('error', broke);
	worker.postMessage({ password, salt, length: keyLength, options });
}

function begin(task: Task): void {
	const worker = idle.pop();
	if (worker) {
		give(worker, task);
		return;
	}
	if (threads < atOnce) {
		threads += 1;
		give(new Worker(script, { eval: true, execArgv: [] }), task);
		return;
	}
	if (waiting.length >= mostWaiting) {
		task.failed(new Busy());
		return;
	}
	waiting.push(task);
}

const derive = (password: string, salt: Buffer, options: ScryptOptions) =>
	new Promise<Buffer>((done, failed) => begin({ password: password.normalize('NFKC'), salt, options, done, failed }));

/** A password as it is stored: the algorithm, its cost, the salt and the key, with dollar signs between. Throws Busy. */
export async function hashPassword(password: string): Promise<string> {
	const salt = randomBytes(16);
	return [
		'scrypt',
		cost.N,
		cost.r,
		cost.p,
		salt.toString('base64'),
		(await derive(password, salt, cost)).toString('base64')
	].join('$');
}

/** What stands for the hash of somebody whom nobody knows: looking at it takes as long as at any other. */
export const hashOfNobody = ['scrypt', cost.N, cost.r, cost.p, 'bm9ib2R5IG5vYm9keSBubw==', `${'A'.repeat(43)}=`].join(
	'$'
);

/** Whether a password is the one that was stored. Takes as long where it is not. Throws Busy. */
export async function passwordIs(password: string, stored: string): Promise<boolean> {
	const [name, N, r, p, salt, key] = stored.split('$');
	if (name !== 'scrypt' || !salt || !key) return false;
	const wanted = Buffer.from(key, 'base64');
	const found = await derive(password, Buffer.from(salt, 'base64'), {
		N: Number(N),
		r: Number(r),
		p: Number(p),
		maxmem: cost.maxmem
	});
	return wanted.length === found.length && timingSafeEqual(wanted, found);
}
