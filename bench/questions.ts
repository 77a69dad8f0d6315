import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { codec } from '../src/lib/server/files/codec';
import { openFile } from '../cli/open';
import { readPackage } from '../core/formats/package/read';
import type { Question } from '../core/kinds';

const samples = ['harbour-kinds.zip', 'tides-and-charts.zip', 'gullhaven-three.zip', 'chart-library.zip'];
const categories = 200;
const pictures = 50;

/** The bytes of one of the made-up pictures, by its number. */
const pictureOf = (number: number) =>
	new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg" width="${number + 1}"/>\n`.repeat(20));
const hashes = Array.from({ length: pictures }, (_, at) => createHash('sha256').update(pictureOf(at)).digest('hex'));

/** A bank of any size that takes no memory: the questions of the samples over and over, each with its own number. */
export interface MadeBank {
	question: (at: number) => Promise<Question>;
	media: (hash: string) => AsyncIterable<Uint8Array>;
}

/** Reads the samples in a folder, and gives a bank that is made of them. */
export async function madeBank(folder: string): Promise<MadeBank> {
	const found: Question[] = [];
	for (const name of readdirSync(folder).filter((one) => samples.includes(one))) {
		const { container, close } = await openFile(join(folder, name));
		for await (const event of readPackage(container, codec))
			if (event.type === 'question' && event.question.kind !== 'unreadable') found.push(event.question);
		await close();
	}
	return {
		async question(at) {
			const question = found[at % found.length]!;
			const group = at % categories;
			return {
				...question,
				identifier: `GH-${at + 1}`,
				title: `${question.title} ${at + 1}`,
				stem: `<p>Sheet ${at + 1} of the harbour school.</p>${question.stem}`,
				category: [`Part ${Math.floor(group / 20)}`, `Chapter ${group}`],
				attachments: question.attachments.map((one) => ({ ...one, hash: hashes[at % pictures]!, missing: false }))
			};
		},
		async *media(hash) {
			yield pictureOf(hashes.indexOf(hash));
		}
	};
}
