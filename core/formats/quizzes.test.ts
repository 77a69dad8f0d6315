import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placesOfFitted, proveQuizzes } from '../compare/quizzes';
import { fitQuizzes } from './fit/quizzes';
import { emptyCommon } from '../model/question';
import type { Question } from '../kinds';
import { opened, readAll, type Found } from '../test-support/packages';
import { partsFound } from '../test-support/quizzes';
import { back, complaints, schemasOf, written } from '../test-support/written';
import { writtenFormats } from '.';
import type { QuizToWrite } from '../model/quiz';
import { QuestionPlaces } from './question-places';

const titles = ['Week 6', 'Tides & charts', 'Knots <and> ropes', '“Lights”', 'Übung – 1', 'A'];

/** A question of which only the identifier and the title matter. */
const question = (identifier: string, at: number): Question => ({
	...emptyCommon(identifier, `Question ${at}`),
	kind: 'multiple-choice',
	stem: `Which is number ${at}?`,
	points: 1,
	options: ['A', 'B'].map((letter, place) => ({
		identifier: letter,
		text: `${letter} ${at}`,
		credit: place ? 0 : 1,
		pinned: false
	})),
	shuffle: null,
	combination: 'sum',
	bounds: { lower: null, upper: null },
	lostKeys: []
});

const anyBank = fc
	.array(fc.constantFrom('', 'Q1', 'Q2', 'a b', '1', 'Ü', 'x-9'), { minLength: 4, maxLength: 8 })
	.map((identifiers) => identifiers.map(question));

const anyQuizzes = (count: number): fc.Arbitrary<QuizToWrite[]> =>
	fc.array(
		fc.record({
			identifier: fc.constantFrom('Z1', 'Z 2', ''),
			title: fc.constantFrom(...titles),
			parts: fc.array(
				fc
					.record({
						title: fc.constantFrom(...titles),
						questions: fc.uniqueArray(fc.nat({ max: count - 1 }), { minLength: 1, maxLength: count }),
						share: fc.constantFrom(null, 0.4, 1),
						pointsEach: fc.constantFrom(null, 1, 2, 0.5),
						shuffle: fc.boolean()
					})
					.map(({ share, ...part }) => ({
						...part,
						draw: share === null ? null : Math.max(1, Math.floor(part.questions.length * share))
					})),
				{ minLength: 1, maxLength: 3 }
			)
		}),
		{ minLength: 1, maxLength: 2 }
	);

describe.each(writtenFormats.map((format) => [format.name, format] as const))('%s', (name, format) => {
	it('brings quizzes back with the same questions', async () => {
		const some = anyBank.chain((bank) => fc.tuple(fc.constant(bank), anyQuizzes(bank.length)));
		await fc.assert(
			fc.asyncProperty(some, async ([bank, quizzes]) => {
				const { container, found } = await back(await written(format, bank, quizzes), `file${format.ending}`);
				const order = format.order?.(bank.length, quizzes) ?? [...bank.keys()];
				expect(found.questions.map((one) => one.stem)).toEqual(order.map((at) => bank[at]!.stem));
				if (schemasOf[name]) expect(await complaints(container, schemasOf[name])).toBe('');
				const places = new QuestionPlaces();
				for (const one of found.questions) places.add(one);
				const fitted = fitQuizzes(quizzes, format.quizLimits, () => 1);
				const proof = proveQuizzes(fitted, found.quizzes, {
					sent: placesOfFitted(
						bank.map(() => 1),
						order
					),
					found: (one) => places.find(one)
				});
				// what is lost was said beforehand, and nothing else is
				expect({ name, told: proof.otherwise }).toEqual({ name, told: [] });
				expect(found.quizzes).toHaveLength(proof.sent);
				if (!format.quizLimits.carries) expect(proof.leftBehind).toBe(quizzes.length);
			}),
			{ numRuns: 20, seed: 5 }
		);
	});
});

const itemsOf = (found: Found) => partsFound(found).map((quiz) => quiz.map((part) => part.items));
const quiz: QuizToWrite = {
	identifier: 'Z',
	title: 'Week 6',
	parts: [{ title: 'One', questions: [1, 2], draw: null, pointsEach: null, shuffle: false }]
};
const bank = ['', '', ''].map(question);
const formatOf = (name: string) => writtenFormats.find((format) => format.name === name)!;

describe('a quiz', () => {
	it.each([
		['json', '"kind": "', '"kind": multiple'],
		['xml', '<stem>', '<stem><']
	])('in a damaged file of ours (%s) refers to what is left of its questions', async (name, from, to) => {
		const text = Buffer.from(await written(formatOf(name), bank, [quiz])).toString();
		const { found } = await back(Buffer.from(text.replace(from, to)), `a.${name}`);
		const titles = [1, 2].map((at) => bank[at]!.title);
		expect(found.questions.map((one) => one.kind)).toEqual(['unreadable', ...bank.slice(1).map((one) => one.kind)]);
		expect(itemsOf(found)[0]![0]!.slice(-2)).toEqual(titles);
	});
	it.each(['qti12', 'qti21', 'qti30', 'cc13', 'archive'])(
		'in a package in the package (%s) refers to the questions that stand beside it',
		async (name) => {
			const inner = await written(formatOf(name), bank, [quiz]);
			const found = await readAll(await opened({ 'courses/one.zip': inner, 'courses/two.zip': inner }));
			const titles = [1, 2].map((at) => bank[at]!.title);
			expect(itemsOf(found)).toEqual([[titles], [titles]]);
			expect(found.quizzes[0]!.source.file).toMatch(/^courses\/one\.zip!\//);
		}
	);
});
