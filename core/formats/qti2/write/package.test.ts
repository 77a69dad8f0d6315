import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { differences } from '../../../compare/canonical';
import { memorySource } from '../../../container/container';
import { openContainer } from '../../open';
import { emptyCommon } from '../../../model/question';
import type { Question } from '../../../kinds';
import { choice, essay, numeric, option, short } from '../../../test-support/questions';
import { attachment, back, complaints, written } from '../../../test-support/written';
import { writtenFormat } from '../..';
import type { QuizToWrite } from '../../../model/quiz';

const qti21 = writtenFormat('qti21')!;
const schemas = { manifest: 'cp-manifest.rng', documents: 'qti21.rng' };

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
		const { container, found } = await back(await written(qti21, questions));
		expect(found.reports.filter((report) => report.severity === 'broken')).toEqual([]);
		expect(found.questions.map((question, at) => differences(questions[at]!, question))).toEqual(
			questions.map(() => [])
		);
		expect(await complaints(container, schemas)).toBe('');
	});
	it('gives the same bytes for the same questions', async () => {
		expect(await written(qti21, [choice(), essay()])).toEqual(await written(qti21, [choice(), essay()]));
	});
	it('lists every file in its manifest, and each picture once', async () => {
		const withPicture = choice({
			stem: `<img src="media:pictures/low &amp; high.svg" alt=""/>`,
			attachments: [attachment]
		});
		const { container } = await back(await written(qti21, [withPicture, withPicture]));
		const manifest = new TextDecoder().decode(await container.bytes('imsmanifest.xml'));
		const listed = new Set(
			[...manifest.matchAll(/<file href="([^"]*)"/g)].map(([, href]) => decodeURIComponent(href!))
		);
		expect(
			[...container.files]
				.map((entry) => entry.path)
				.filter((path) => path !== 'imsmanifest.xml')
				.sort()
		).toEqual([...listed].sort());
		expect([...container.files].filter((entry) => entry.path.startsWith('media/'))).toHaveLength(1);
		expect([...container.files].every((entry) => /^[A-Za-z0-9._/-]+$/.test(entry.path))).toBe(true);
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
		const { container, found } = await back(await written(qti21, questions, [quiz]));
		expect(await complaints(container, schemas)).toBe('');
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
			readFileSync(new URL('../../../test-support/samples/harbour-kinds.zip', import.meta.url))
		);
		const container = await openContainer('harbour-kinds.zip', memorySource(bytes));
		const first = await back(bytes);
		const unreadable = first.found.questions.filter((question) => question.kind === 'unreadable');
		expect(unreadable.length).toBeGreaterThan(0);
		const names = new Map(unreadable.flatMap((question) => question.attachments.map((one) => [one.hash!, one.name])));
		const again = await written(qti21, unreadable, [], (one) => container.stream(names.get(one)!));
		const second = await back(again);
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
		expect(qti21.loss(other)).toMatchObject({ outcome: 'lost' });
		const { found } = await back(await written(qti21, [choice(), other, essay()]));
		expect(found.questions.map((question) => question.kind)).toEqual(['multiple-choice', 'essay']);
	});
});
