import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { hashAttachments } from '../formats/hash';
import type { Container } from '../container/container';
import { memorySource } from '../container/container';
import { openContainer } from '../formats/open';
import type { Format } from '../formats/format';
import type { QuizToWrite } from '../model/quiz';
import type { Question } from '../kinds';
import { readAll, type Found } from './packages';

const picture = new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>');
const hash = createHash('sha256').update(picture).digest('hex');

/** A picture that writers of tests can hand over. */
export const attachment = { name: 'pictures/low & high.svg', mediaType: 'image/svg+xml', hash, missing: false };

/** What a format writes for questions. */
export async function written(
	format: Format,
	questions: Question[],
	quizzes: QuizToWrite[] = [],
	media: (hash: string) => AsyncIterable<Uint8Array> = async function* () {
		yield picture;
	},
	categories: string[][] = []
): Promise<Uint8Array> {
	const pieces: Uint8Array[] = [];
	const stream = format.write({
		identifier: 'P',
		title: 'Tides & charts',
		count: questions.length,
		question: async (at) => questions[at]!,
		quizzes,
		categories,
		media
	});
	for await (const piece of stream) pieces.push(piece);
	return Buffer.concat(pieces);
}

/** What is found in bytes, with the hashes of the files. */
export async function back(bytes: Uint8Array, name = 'package.zip'): Promise<{ container: Container; found: Found }> {
	const container = await openContainer(name, memorySource(bytes));
	const found = await readAll(container);
	for (const question of found.questions)
		await hashAttachments(
			question,
			container,
			async (pieces) => {
				const digest = createHash('sha256');
				for await (const piece of pieces) digest.update(piece);
				return digest.digest('hex');
			},
			new Map()
		);
	return { container, found };
}

const schemas = new URL('./schemas/', import.meta.url).pathname;

function lint(schema: string, files: string[]): string {
	if (!files.length) return '';
	try {
		execFileSync(
			'xmllint',
			['--noout', '--nonet', schema.endsWith('.xsd') ? '--schema' : '--relaxng', join(schemas, schema), ...files],
			{
				stdio: ['ignore', 'pipe', 'pipe']
			}
		);
		return '';
	} catch (error) {
		return String((error as { stderr: Buffer }).stderr).replace(/.* validates\n/g, '');
	}
}

/** The schemas for the manifest and for all other XML of a format. */
export interface Schemas {
	manifest: string | null;
	documents: string;
}

/** Unpacks a package and holds every XML of it against schemas; gives what they complain of. */
export async function complaints(container: Container, { manifest, documents }: Schemas): Promise<string> {
	const place = mkdtempSync(join(tmpdir(), 'barrow-lint-'));
	try {
		const files: string[] = [];
		const manifests: string[] = [];
		for (const { path } of container.files) {
			const file = join(place, path);
			mkdirSync(dirname(file), { recursive: true });
			writeFileSync(file, await container.bytes(path));
			if (path === 'imsmanifest.xml') manifests.push(file);
			else if (path.endsWith('.xml')) files.push(file);
		}
		return (manifest ? lint(manifest, manifests) : '') + lint(documents, files);
	} finally {
		rmSync(place, { recursive: true });
	}
}

/** The schemas of the formats that have one, by their names. */
export const schemasOf: Partial<Record<string, Schemas>> = {
	qti21: { manifest: 'cp-manifest.rng', documents: 'qti21.rng' },
	qti22: { manifest: 'cp-manifest.rng', documents: 'qti22.rng' },
	qti30: { manifest: 'cp-manifest.rng', documents: 'qti30.rng' },
	qti12: { manifest: 'cp-manifest.rng', documents: 'qti12.rng' },
	'qti12-xml': { manifest: null, documents: 'qti12.rng' },
	cc12: { manifest: 'cc-manifest.rng', documents: 'cc-qti.rng' },
	cc13: { manifest: 'cc-manifest.rng', documents: 'cc-qti.rng' },
	xml: { manifest: null, documents: '../../../docs/questions.xsd' }
};
