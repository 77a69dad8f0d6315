import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import { differences } from '../../compare/canonical';
import { hashAttachments } from '../../compare/hash';
import { proofLine } from '../../compare/proof';
import { memorySource, type Container } from '../../container/container';
import { openContainer } from '../../container/open';
import { openZip } from '../../container/zip';
import { markupOfHtml, markupOfText } from '../../markup/clean';
import { emptyCommon, type Feedback, type Question } from '../../model/question';
import { parseQuestion } from '../../model/schema';
import { choice, essay, numeric, option, short } from '../../test-support/questions';
import { readAll } from '../../test-support/packages';
import type { QuizToWrite } from '../format';
import { lossInQti21 } from './loss';
import { writeQti21 } from './write';

const picture = new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>');
const hash = createHash('sha256').update(picture).digest('hex');
const attachment = { name: 'pictures/low & high.svg', mediaType: 'image/svg+xml', hash, missing: false };
let folder = '';
beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'barrow-write-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function write(questions: Question[], quizzes: QuizToWrite[] = []): Promise<Uint8Array> {
	const pieces: Uint8Array[] = [];
	const media = async function* () {
		yield picture;
	};
	for await (const piece of writeQti21({
		identifier: 'P',
		title: 'Tides & charts',
		count: questions.length,
		question: async (at) => questions[at]!,
		quizzes,
		media
	}))
		pieces.push(piece);
	return Buffer.concat(pieces);
}

async function back(bytes: Uint8Array) {
	const container = await openZip(memorySource(bytes));
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

/** Unpacks a package and holds every XML of it against the schemas of the standards; gives what they complain of. */
async function complaints(container: Container): Promise<string> {
	const place = mkdtempSync(join(folder, 'p-'));
	const schemas = new URL('../../test-support/schemas/', import.meta.url).pathname;
	const items: string[] = [];
	for (const { path } of container.entries) {
		const file = join(place, path);
		mkdirSync(dirname(file), { recursive: true });
		writeFileSync(file, await container.bytes(path));
		if (path.endsWith('.xml') && path !== 'imsmanifest.xml') items.push(file);
	}
	const lint = (schema: string, files: string[]) => {
		try {
			execFileSync('xmllint', ['--noout', '--nonet', '--relaxng', join(schemas, schema), ...files], {
				stdio: ['ignore', 'pipe', 'pipe']
			});
			return '';
		} catch (error) {
			return String((error as { stderr: Buffer }).stderr).replace(/.* validates\n/g, '');
		}
	};
	const said =
		lint('cp-manifest.rng', [join(place, 'imsmanifest.xml')]) + (items.length ? lint('qti21.rng', items) : '');
	rmSync(place, { recursive: true });
	return said;
}

const words = fc.string({
	unit: fc.constantFrom('a', 'tide', ' ', 'é', '<', '&', '"', "'", '>', '🌊', '5', '.'),
	maxLength: 12
});
const richText = fc.oneof(
	words.map((text) => markupOfText(text)),
	fc
		.array(
			fc.constantFrom(
				'<p>',
				'</p>',
				'<b>',
				'</b>',
				'<ul><li>',
				'</li></ul>',
				'<table><tr><td>',
				'</td></tr></table>',
				'High water',
				' and ',
				'<br>',
				'<u>',
				'</u>',
				'<div>',
				'</div>',
				'<blockquote>',
				'</blockquote>',
				'<img src="data:image/png;base64,iVBORw0KGgo=">',
				'<math><mi>h</mi></math>',
				'<h3>',
				'</h3>',
				'<a href="#x">',
				'</a>',
				'&lt;'
			),
			{ maxLength: 10 }
		)
		.map((parts) => markupOfHtml(parts.join(''), { media: () => null, removed: () => undefined }))
);
const credit = fc.integer({ min: -100, max: 100 }).map((value) => value / 100);
const feedback: fc.Arbitrary<Feedback> = fc.record(
	{ general: richText, correct: richText, incorrect: richText, partly: richText },
	{ requiredKeys: [] }
);
const common = fc
	.record({
		title: words.map((text) => text.replace(/\s+/g, ' ').trim()),
		stem: richText,
		points: fc.option(fc.constantFrom(0, 0.5, 1, 2, 3, 10), { freq: 4 }),
		category: fc.array(fc.constantFrom('Tides', 'Springs & neaps', 'A/B', 'é'), { maxLength: 3 }),
		tags: fc.uniqueArray(fc.constantFrom('plotting', 'a & b', 'é'), { maxLength: 2 }),
		language: fc.option(fc.constantFrom('en', 'de-CH'), { freq: 2 }),
		feedback,
		hints: fc.array(
			words.filter((one) => one.trim() !== '').map((one) => markupOfText(one)),
			{ maxLength: 1 }
		),
		metadata: fc.array(fc.record({ name: fc.constant('shelf'), value: words }), { maxLength: 1 })
	})
	.map((parts) => ({ ...emptyCommon('GH', parts.title), ...parts }));
const options = fc
	.array(
		fc.record({
			text: richText,
			credit,
			feedback: fc.option(richText, { nil: undefined, freq: 3 }),
			pinned: fc.boolean()
		}),
		{ minLength: 1, maxLength: 6 }
	)
	.map((list) =>
		list.map((one, at) =>
			option(`O${at}`, one.text, one.credit, {
				pinned: one.pinned,
				...(one.feedback ? { feedback: one.feedback } : {})
			})
		)
	);
const range = fc
	.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: 1, max: 40 }), fc.boolean(), fc.boolean())
	.map(([low, width, includesMin, includesMax]) => ({
		min: low / 4,
		max: (low + width) / 4,
		includesMin,
		includesMax,
		credit: 1
	}));
const value = fc
	.tuple(fc.integer({ min: -50, max: 50 }), fc.constantFrom(0, 0.25, 1))
	.map(([number, tolerance]) => ({ value: number / 4, tolerance, credit: 1 }));
const anyQuestion: fc.Arbitrary<Question> = fc.oneof(
	fc
		.tuple(
			common,
			options,
			fc.constantFrom('multiple-choice' as const, 'multiple-response' as const),
			fc.option(fc.boolean()),
			fc.constantFrom('sum' as const, 'all' as const),
			fc.boolean()
		)
		.map(([parts, list, kind, shuffle, combination, bounded]) => ({
			...parts,
			kind,
			shuffle,
			options: list,
			combination: kind === 'multiple-response' ? combination : 'sum',
			bounds:
				kind === 'multiple-response' && combination === 'sum' && bounded
					? { lower: 0, upper: 1 }
					: { lower: null, upper: null },
			lostKeys: []
		})),
	fc
		.tuple(
			common,
			fc.uniqueArray(
				words.filter((one) => one.trim() !== '').map((one) => one.trim()),
				{ maxLength: 3, selector: (one) => one.toLowerCase() }
			)
		)
		.map(([parts, texts]) => ({
			...parts,
			kind: 'short-answer' as const,
			accepted: texts.map((text, at) => ({ text, credit: at ? 0.5 : 1, caseSensitive: at % 2 === 1 }))
		})),
	fc
		.tuple(common, fc.oneof(range, value), fc.boolean())
		.map(([parts, accepted, whole]) => ({ ...parts, kind: 'numeric' as const, whole, accepted: [accepted] })),
	common.map((parts) => ({ ...parts, kind: 'essay' as const })),
	common.map((parts) => ({ ...parts, kind: 'information' as const }))
);

describe('a QTI 2.1 package', () => {
	it('brings every kind of question back as it was', async () => {
		const questions: Question[] = [
			choice({
				stem: '<p>Look at the chart.</p><p>Which low deepens?</p>',
				tags: ['weather'],
				category: ['Weather', 'Fronts'],
				language: 'en',
				feedback: { general: 'See page 3.', correct: '<p>Yes.</p><ul><li>It does.</li></ul>', incorrect: 'No.' }
			}),
			choice({
				points: 4,
				options: [
					option('A', 'Cirrus', 1, { feedback: 'Right.' }),
					option('B', 'Stratus', 0.25, { feedback: '<p>Later.</p><p>It rains.</p>' }),
					option('C', 'Fog', -0.5),
					option('D', 'None', 0, { pinned: true })
				]
			}),
			choice({ kind: 'true-false', options: [option('T', 'True', 0), option('F', 'False', 1)], shuffle: false }),
			choice({
				kind: 'multiple-response',
				points: 2,
				options: [option('A', 'Ebb', 0.5), option('B', 'Flood', 0.5), option('C', 'Gale', -0.5)],
				bounds: { lower: 0, upper: 1 }
			}),
			choice({
				kind: 'multiple-response',
				points: 3,
				combination: 'all',
				options: [option('A', 'Ebb', 0.5), option('B', 'Flood', 0.5), option('C', 'Gale', 0)]
			}),
			short(
				[
					{ text: 'isobar', credit: 1, caseSensitive: false },
					{ text: 'QNH', credit: 0.5, caseSensitive: true }
				],
				{ points: 2, feedback: { partly: 'Nearly.' } }
			),
			numeric(
				[
					{ value: 3.2, tolerance: 0.1, credit: 1 },
					{ min: 2.5, max: 4, includesMin: true, includesMax: false, credit: 0.5 }
				],
				{ points: 2 }
			),
			numeric([{ value: 16, tolerance: 0, credit: 1 }], { whole: true }),
			essay(),
			{ ...emptyCommon('I', 'Before you start'), kind: 'information', stem: 'Wear a lifejacket.' },
			choice({
				stem: `Which sign? <img src="media:${attachment.name.replace('&', '&amp;')}" alt="a sign"/>`,
				attachments: [attachment]
			}),
			choice({
				stem: 'Which? <img src="media:gone.png" alt=""/>',
				attachments: [{ name: 'gone.png', mediaType: 'image/png', hash: null, missing: true }]
			})
		];
		const { container, found } = await back(await write(questions));
		expect(found.reports.filter((report) => report.severity === 'broken')).toEqual([]);
		expect(found.questions.map((question, at) => differences(questions[at]!, question))).toEqual(
			questions.map(() => [])
		);
		expect(await complaints(container)).toBe('');
	});
	it('gives the same bytes for the same questions', async () => {
		expect(await write([choice(), essay()])).toEqual(await write([choice(), essay()]));
	});
	it('lists every file in its manifest, and each picture once', async () => {
		const withPicture = choice({
			stem: `<img src="media:pictures/low &amp; high.svg" alt=""/>`,
			attachments: [attachment]
		});
		const { container } = await back(await write([withPicture, withPicture]));
		const manifest = new TextDecoder().decode(await container.bytes('imsmanifest.xml'));
		const listed = new Set(
			[...manifest.matchAll(/<file href="([^"]*)"/g)].map(([, href]) => decodeURIComponent(href!))
		);
		expect(
			container.entries
				.map((entry) => entry.path)
				.filter((path) => path !== 'imsmanifest.xml')
				.sort()
		).toEqual([...listed].sort());
		expect(container.entries.filter((entry) => entry.path.startsWith('media/'))).toHaveLength(1);
		expect(container.entries.every((entry) => /^[A-Za-z0-9._/-]+$/.test(entry.path))).toBe(true);
	});
	it('carries a quiz with its draws, order and points', async () => {
		const questions = [
			choice({ title: 'One', points: 2 }),
			choice({ title: 'Two', points: 2 }),
			essay({ title: 'Three' })
		];
		const quiz: QuizToWrite = {
			identifier: 'QUIZ-1',
			title: 'Week 6 & 7',
			parts: [
				{ title: 'Warm-up', questions: [0, 1], draw: 1, pointsEach: 3, shuffle: true },
				{ title: 'To write', questions: [2], draw: null, pointsEach: null, shuffle: false }
			]
		};
		const { container, found } = await back(await write(questions, [quiz]));
		expect(await complaints(container)).toBe('');
		expect(found.quizzes).toMatchObject([
			{
				title: 'Week 6 & 7',
				parts: [
					{ title: 'Warm-up', draw: 1, pointsEach: 3, shuffle: true },
					{ title: 'To write', draw: null, pointsEach: null, shuffle: false }
				]
			}
		]);
		expect(found.quizzes[0]!.parts.map((part) => part.questions.length)).toEqual([2, 1]);
		// questions without a category stay without one, though they stand in a section of a test
		expect(found.questions.map((question) => question.category)).toEqual([[], [], []]);
	});
	it('carries on what it could not read, with its pictures', async () => {
		const bytes = new Uint8Array(
			readFileSync(new URL('../../test-support/samples/harbour-kinds.zip', import.meta.url))
		);
		const container = await openContainer('harbour-kinds.zip', memorySource(bytes));
		const first = await back(bytes);
		const unreadable = first.found.questions.filter((question) => question.kind === 'unreadable');
		expect(unreadable.length).toBeGreaterThan(8);
		const pieces: Uint8Array[] = [];
		const names = new Map(unreadable.flatMap((question) => question.attachments.map((one) => [one.hash!, one.name])));
		for await (const piece of writeQti21({
			identifier: 'P',
			title: 'x',
			count: unreadable.length,
			question: async (at) => unreadable[at]!,
			quizzes: [],
			media: (one) => container.stream(names.get(one)!)
		}))
			pieces.push(piece);
		const second = await back(Buffer.concat(pieces));
		expect(
			second.found.questions.map((question, at) =>
				differences(unreadable[at]!, { ...question, category: unreadable[at]!.category })
			)
		).toEqual(unreadable.map(() => []));
	});
	it('leaves behind what is unreadable in another format, and says so beforehand', async () => {
		const other: Question = {
			...emptyCommon('U', 'Plot'),
			kind: 'unreadable',
			reason: 'It is another kind.',
			fragment: '<item ident="a"/>'
		};
		expect(lossInQti21(other)).toMatchObject({ outcome: 'lost' });
		const { found } = await back(await write([choice(), other, essay()]));
		expect(found.questions.map((question) => question.kind)).toEqual(['multiple-choice', 'essay']);
	});
	it('is valid, and loses just what the loss table says, for any questions', async () => {
		await fc.assert(
			fc.asyncProperty(fc.array(anyQuestion, { minLength: 8, maxLength: 8 }), async (questions) => {
				for (const question of questions) expect(parseQuestion(JSON.parse(JSON.stringify(question)))).toBeDefined();
				const { container, found } = await back(await write(questions));
				expect(found.questions).toHaveLength(questions.length);
				questions.forEach((question, at) => {
					const line = proofLine(at, question, found.questions[at], lossInQti21(question));
					expect({
						outcome: line.outcome === 'changed-otherwise' ? line.differences : 'as foretold',
						question
					}).toMatchObject({ outcome: 'as foretold' });
				});
				expect(await complaints(container)).toBe('');
			}),
			{ numRuns: 40 }
		);
	});
});
