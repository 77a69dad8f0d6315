// One measurement in a process of its own, so that its memory is its own: pass.js (bare|read|write) FILE [FORMAT COUNT].
// What is held alive is looked at only where node is given --expose-gc, for looking costs time.
import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { SaxesParser } from 'saxes';
import { codec } from '../src/lib/server/files/codec';
import { openFile } from '../cli/open';
import type { Container } from '../core/container/container';
import type { Entry } from '../core/container/entry';
import { writtenFormat } from '../core/formats';
import { readPackage } from '../core/formats/package/read';
import { madeBank } from './questions';

/** What a measurement gives: seconds, the most memory of the process and the most that was held alive, both in MB. */
export interface Measured {
	seconds: number;
	peak: number;
	held: number;
	questions: number;
}

const whole = 16 * 2 ** 20;

/** The bytes of a file, by the machine's own zlib where they can be held at once, which is the fastest that there is. */
async function* piecesOf(container: Container, { path, size }: Entry): AsyncGenerator<Uint8Array> {
	if (size <= whole) yield await container.bytes(path);
	else yield* container.stream(path);
}

/** Unzips, decodes, and passes over XML and JSON with nothing done: the raw limit over the same bytes. */
export async function bare(path: string): Promise<void> {
	const { container, close } = await openFile(path);
	for (const entry of container.files) {
		if (/\.xml$/.test(entry.path)) {
			const parser = new SaxesParser({ position: false });
			parser.on('opentag', () => undefined);
			parser.on('text', () => undefined);
			const decoder = new TextDecoder();
			for await (const piece of piecesOf(container, entry)) parser.write(decoder.decode(piece, { stream: true }));
			parser.close();
		} else if (/\.json$/.test(entry.path)) JSON.parse(new TextDecoder().decode(await container.bytes(entry.path)));
		else {
			const decoder = new TextDecoder();
			let rest = '';
			for await (const piece of piecesOf(container, entry)) {
				const lines = (rest + decoder.decode(piece, { stream: true })).split('\n');
				rest = lines.pop()!;
				if (/\.jsonl$/.test(entry.path)) for (const line of lines) JSON.parse(line);
			}
		}
	}
	await close();
}

/** What is held alive, in bytes: objects, and the bytes that they hold outside of the heap. */
const alive = () => {
	const { heapUsed, arrayBuffers } = process.memoryUsage();
	return heapUsed + arrayBuffers;
};
const megabytes = (bytes: number) => Math.round((bytes / 2 ** 20) * 10) / 10;
const looks = 8;

async function measure(): Promise<Measured> {
	const [what, path, format, count] = process.argv.slice(2) as [string, string, string, string];
	const before = alive();
	let held = 0;
	let seen = 0;
	const expected = Number(count);
	const look = () => {
		seen += 1;
		if (!globalThis.gc || seen % Math.ceil(expected / looks)) return;
		globalThis.gc();
		held = Math.max(held, alive() - before);
	};
	const bank = what === 'write' ? await madeBank(join(process.cwd(), 'core/test-support/samples')) : null;
	const from = performance.now();
	if (what === 'bare') await bare(path);
	else if (bank) {
		const written = writtenFormat(format)!.write({
			identifier: 'BENCH',
			title: 'Bench',
			count: expected,
			question: (at) => {
				look();
				return bank.question(at);
			},
			quizzes: [],
			media: bank.media,
			codec
		});
		await pipeline(Readable.from(written), createWriteStream(path));
	} else {
		const { container, close } = await openFile(path);
		for await (const event of readPackage(container, codec)) if (event.type === 'question') look();
		await close();
	}
	return {
		seconds: (performance.now() - from) / 1000,
		peak: Math.round(process.resourceUsage().maxRSS / 1024),
		held: megabytes(held),
		questions: seen
	};
}

process.stdout.write(JSON.stringify(await measure()));
