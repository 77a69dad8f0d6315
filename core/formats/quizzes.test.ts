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
import type { PartToWrite, QuizToWrite } from '../model/quiz';
import { countedAttempts, shownThings, shownTimes, type QuizSettings } from '../model/quiz-settings';
import { keyStates, partOrders, type CarriedPart, type CarriedQuota } from '../model/sheet';
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

const anyText = fc.constantFrom('', 'No phones.', ' Take  a pencil \n\n\nand <paper> & more. ', 'Ü\nÄ\r\nÖ');

const anySettings: fc.Arbitrary<Partial<QuizSettings>> = fc.record(
	{
		description: anyText,
		instructions: anyText,
		minutes: fc.constantFrom(null, 1, 45, 12.5, 90),
		attempts: fc.constantFrom(null, 1, 3),
		counted: fc.constantFrom(...countedAttempts),
		opens: fc.constantFrom(null, '2027-01-11T09:00'),
		closes: fc.constantFrom(null, '2027-01-12T17:30'),
		shown: fc.subarray([...shownThings]),
		shownWhen: fc.constantFrom(...shownTimes),
		pass: fc.constantFrom(null, 0, 60, 33.3, 100),
		gradeName: fc.constantFrom('', 'Term mark'),
		gradePoints: fc.constantFrom(null, 10)
	},
	{ requiredKeys: [] }
);

const anyQuota: fc.Arbitrary<CarriedQuota> = fc
	.record({
		what: fc.constantFrom<Pick<CarriedQuota, 'by' | 'values'>>(
			{ by: 'category', values: [{ category: ['Tides', 'Springs / neaps'] }, { category: ['Lights'] }] },
			{ by: 'kind', values: [{ name: 'numeric' }] },
			{ by: 'tag', values: [{ name: 'a <b>' }] },
			{ by: 'difficulty', values: [{ range: [0, 0.5] }] }
		),
		much: fc.constantFrom(
			{ spread: 'equal' as const, least: null, most: null },
			{ spread: null, least: 1, most: null },
			{ spread: null, least: null, most: 3 }
		)
	})
	.map(({ what, much }) => ({ ...what, ...much }));

const anySheet = (questions: number[]): fc.Arbitrary<CarriedPart<number>> =>
	fc.record({
		order: fc.constantFrom(...partOrders),
		shuffleOptions: fc.boolean(),
		pool: fc.option(
			fc.record({
				categories: fc.subarray([[], ['Tides'], ['Lights', 'Sectors & arcs']]),
				withUnder: fc.boolean(),
				conditions: fc.record({
					tags: fc.record({
						any: fc.subarray(['sums', 'x']),
						all: fc.constant<string[]>([]),
						none: fc.subarray(['old'])
					}),
					kinds: fc.subarray(['numeric']),
					difficulty: fc.constantFrom(null, [0.2, 0.8]),
					key: fc.constantFrom(null, ...keyStates),
					unbroken: fc.boolean(),
					since: fc.constantFrom(null, '2026-11-29')
				}),
				include: fc.subarray(questions),
				exclude: fc.subarray(questions)
			})
		),
		quotas: fc.array(anyQuota, { maxLength: 2 })
	});

const anyPart = (count: number): fc.Arbitrary<PartToWrite> =>
	fc
		.record({
			title: fc.constantFrom(...titles),
			questions: fc.uniqueArray(fc.nat({ max: count - 1 }), { minLength: 1, maxLength: count }),
			share: fc.constantFrom(null, 0.4, 1),
			pointsEach: fc.constantFrom(null, 1, 2, 0.5),
			shuffle: fc.boolean()
		})
		.chain(({ share, ...part }) =>
			fc.option(anySheet(part.questions), { nil: undefined }).map((sheet) => ({
				...part,
				draw: share === null ? null : Math.max(1, Math.floor(part.questions.length * share)),
				...(sheet ? { sheet, shuffle: sheet.order === 'shuffled' } : {})
			}))
		);

const anyQuizzes = (count: number): fc.Arbitrary<QuizToWrite[]> => {
	const some = fc.uniqueArray(fc.nat({ max: count - 1 }), { minLength: 2, maxLength: 2 });
	return fc.array(
		fc.record(
			{
				identifier: fc.constantFrom('Z1', 'Z 2', ''),
				title: fc.constantFrom(...titles),
				parts: fc.array(anyPart(count), { minLength: 1, maxLength: 3 }),
				settings: anySettings,
				points: fc.constantFrom(null, 20, 7.5),
				rules: fc.record({
					never: fc.array(some, { maxLength: 2 }),
					together: fc.constantFrom(
						[],
						[[0, 1]],
						[[1, 0]],
						[[2, 0]],
						[
							[0, 1],
							[2, 3]
						],
						[
							[3, 1],
							[2, 0]
						],
						[[0, 1, 2]]
					),
					partsShuffled: fc.boolean(),
					fixedOptions: fc.subarray([0, 1])
				})
			},
			{ requiredKeys: ['identifier', 'title', 'parts'] }
		),
		{ minLength: 1, maxLength: 2 }
	);
};

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
			{ numRuns: 40, seed: 5 }
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

describe('groups that come whole', () => {
	const six = ['', '', '', '', '', ''].map(question);
	const grouped = (draw: number | null, together: number[][], shuffle = true): QuizToWrite => ({
		...quiz,
		parts: [
			{ title: 'Charts', questions: [0, 1, 2, 3, 4, 5], draw, pointsEach: null, shuffle },
			{ title: 'End', questions: [5], draw: null, pointsEach: null, shuffle: false }
		],
		rules: { never: [], together, partsShuffled: false, fixedOptions: [] }
	});
	const pairs = [
		[0, 1],
		[2, 3],
		[4, 5]
	];
	const travelled = async (name: string, sent: QuizToWrite) => {
		const format = formatOf(name);
		const { found } = await back(await written(format, six, [sent]), `a${format.ending}`);
		const places = new QuestionPlaces();
		for (const own of found.questions) places.add(own);
		const [came] = found.quizzes;
		return {
			draws: came!.parts.map(({ draw, questions: asked }) => [draw, asked.length]),
			together: (came!.rules?.together ?? []).map((group) => group.map((named) => (places.find(named) ?? 0) - 1)),
			what: fitQuizzes([sent], format.quizLimits, () => 1)[0]!.what.join(' '),
			reports: found.reports
		};
	};
	const formats = ['qti12', 'qti21', 'qti22', 'qti30', 'json', 'archive'];
	it.each(formats)('travel in %s where all that a part draws from are of one size', async (name) => {
		const came = await travelled(name, grouped(4, pairs));
		expect(came).toEqual({
			draws: [
				[4, 6],
				[null, 1]
			],
			together: pairs,
			what: '',
			reports: []
		});
	});
	it.each(formats)('travel in %s in a part that gives all in a random order, whatever their size', async (name) => {
		const groups = [
			[0, 1, 2],
			[4, 5]
		];
		const came = await travelled(name, grouped(null, groups));
		expect(came).toEqual({
			draws: [
				[null, 6],
				[null, 1]
			],
			together: groups,
			what: '',
			reports: []
		});
	});
	it.each(['qti12', 'qti21', 'qti30', 'cc13'])('are told to be torn in %s where it cannot hold them', async (name) => {
		const uneven = await travelled(name, grouped(4, [[0, 1]]));
		expect(uneven.what).toContain('1 group that comes whole may be torn there.');
		expect(uneven.together).toEqual([]);
		const odd = await travelled(name, grouped(3, pairs));
		expect(odd.what).toContain('3 groups that come whole may be torn there.');
	});
	it.each(['qti12', 'qti21', 'qti30', 'archive'])(
		'of a package in the package (%s) are of the questions beside it',
		async (name) => {
			const inner = await written(formatOf(name), six, [grouped(4, pairs)]);
			const found = await readAll(await opened({ 'courses/one.zip': inner, 'courses/two.zip': inner }));
			const places = new QuestionPlaces();
			for (const own of found.questions) places.add(own);
			const groups = found.quizzes.map(({ rules }) =>
				rules?.together.map((group) => group.map((named) => places.find(named)))
			);
			const from = (first: number) => pairs.map((pair) => pair.map((at) => at + first));
			expect(groups).toEqual([from(1), from(7)]);
		}
	);
	it.each(['qti12', 'qti21', 'cc13'])('of a part that gives all in its order need nothing in %s', async (name) => {
		expect((await travelled(name, grouped(null, pairs, false))).what).not.toContain('torn');
	});
});

describe('a quiz', () => {
	it('of ours that names a question twice in a part has it there once', async () => {
		const twice = { ...quiz, parts: [{ ...quiz.parts[0]!, questions: [1, 2, 1] }] };
		const { found } = await back(await written(formatOf('json'), bank, [twice]), 'a.json');
		expect(itemsOf(found)).toEqual([[[1, 2].map((at) => bank[at]!.title)]]);
	});
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
	it.each([
		['what is around it', '"minutes": 45', '"minutes": "long"', 'what is around it: '],
		['its rules', '"never": []', '"never": [[0, -1]]', 'its rules: '],
		['the sheet of a part', '"order": "kept"', '"order": "backwards"', 'what part 1 says of its sheet: '],
		['how many are drawn', '"draw": null', '"draw": -3', 'draw of part 1: ']
	])(
		'in a file of ours of which %s is not of the form is read without that, which is said',
		async (_, from, to, words) => {
			const sheet = { order: 'kept' as const, shuffleOptions: true, pool: null, quotas: [] };
			const rules = { never: [], together: [], partsShuffled: false, fixedOptions: [] };
			const whole = {
				...quiz,
				settings: { minutes: 45 },
				rules,
				parts: quiz.parts.map((part) => ({ ...part, sheet }))
			};
			const text = Buffer.from(await written(formatOf('json'), bank, [whole])).toString();
			const { found } = await back(Buffer.from(text.replace(from, to)), 'a.json');
			expect(itemsOf(found)).toEqual([[[1, 2].map((at) => bank[at]!.title)]]);
			const said = found.reports.filter(({ rule }) => rule === 'quiz-rules').map(({ message }) => message);
			expect(said).toHaveLength(1);
			expect(said[0]).toContain(words);
		}
	);
});
