import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { choice } from '../test-support/questions';
import { adjusted, adjustsQuestions, partCredits } from './adjust';
import { parseDecision, plainRules, type Decision } from './decision';
import { landings, pathKey, pathOfKey, withAbove } from './paths';
import { creditsFit } from './effects';
import { needsEach, planTakeIn } from './plan';
import type { PlannedQuestion } from './planned-question';

const decision: Decision = { ...plainRules, bankId: 7, bankName: '', quizBank: null, leftOut: [], landings: {} };
const row = (category: string, more: Partial<PlannedQuestion> = {}): PlannedQuestion => ({
	category,
	broken: false,
	choice: null,
	match: 'new',
	twins: [{ id: 5, bankId: 7 }],
	matchRule: null,
	credits: [],
	quizOnly: false,
	kind: 'multiple-choice',
	points: 1,
	shuffle: null,
	tags: [],
	alone: [],
	orderBound: false,
	...more
});
const times = (count: number, one: PlannedQuestion) => Array.from({ length: count }, () => one);
const found = [
	...times(8, row('Tides\nSprings')),
	...times(2, row('Tides\nSprings', { broken: true })),
	...times(3, row('Tides')),
	row(''),
	row('', { broken: true }),
	...times(4, row('Old stock', { broken: true }))
];

describe('what taking in would do', () => {
	it('counts what is taken, set aside and left out', () => {
		expect(planTakeIn(found, decision, [])).toMatchObject({
			found: 19,
			taken: 12,
			aside: 7,
			left: 0,
			skipped: 0,
			replaced: 0,
			categories: ['Tides', 'Tides\nSprings'],
			newCategories: ['Tides', 'Tides\nSprings'],
			refusal: null
		});
	});
	it('counts no category that is there and only stands above those that questions land in', () => {
		const under = { ...decision, landings: { Tides: 'Sea\nTides' } };
		expect(planTakeIn(found, under, ['Sea'])).toMatchObject({
			categories: ['Sea\nTides', 'Sea\nTides\nSprings'],
			newCategories: ['Sea\nTides', 'Sea\nTides\nSprings']
		});
		expect(planTakeIn(found, under, []).categories[0]).toBe('Sea');
	});
	it('knows which categories are there already', () => {
		expect(planTakeIn(found, decision, ['Tides']).newCategories).toEqual(['Tides\nSprings']);
		expect(planTakeIn(found, decision, ['Tides', 'Tides\nSprings', 'Other']).newCategories).toEqual([]);
	});
	it('leaves out what is left out, broken or not, by its category or alone', () => {
		expect(planTakeIn(found, { ...decision, leftOut: ['Tides\nSprings', 'Old stock'] }, [])).toMatchObject({
			taken: 4,
			aside: 1,
			left: 14
		});
		expect(planTakeIn([row('', { choice: 'leave', broken: true }), row('')], decision, [])).toMatchObject({
			taken: 1,
			left: 1
		});
	});
	it('does with what is in the course already as the rules say, and as is said for one alone', () => {
		const rows = [
			row('', { match: 'same' }),
			row('', { match: 'changed', twins: [{ id: 7, bankId: 7 }] }),
			row('', { match: 'near' }),
			row('', { match: 'near', matchRule: 'skip' }),
			row('', { match: 'same', matchRule: 'replace', twins: [{ id: 6, bankId: 7 }] }),
			row('', { match: 'same', broken: true })
		];
		expect(planTakeIn(rows, decision, [])).toMatchObject({ taken: 2, skipped: 2, replaced: 1, aside: 1 });
		const other = { ...decision, same: 'beside', changed: 'replace', near: 'skip' } as const;
		expect(planTakeIn(rows, other, [])).toMatchObject({ taken: 1, skipped: 2, replaced: 2, aside: 1 });
	});
	it('puts one question in the place of another, and the next of the kind beside it', () => {
		const twice = [row('', { match: 'changed' }), row('', { match: 'changed' })];
		expect(planTakeIn(twice, { ...decision, changed: 'replace' }, []).outcomes).toEqual(['replaced', 'taken']);
	});
	it('keeps, moves or sets aside credit that the course does not allow', () => {
		const rows = [row('', { credits: [0.5] }), row('', { credits: [0.3333] }), row('')];
		const steps = { ...decision, creditSteps: [100, 50, 33.333, 0] };
		expect(planTakeIn(rows, steps, [])).toMatchObject({ taken: 3, effects: [] });
		const odd = [row('', { credits: [0.4] }), row('', { credits: [0.5] })];
		expect(planTakeIn(odd, { ...steps, creditOtherwise: 'nearest' }, [])).toMatchObject({
			taken: 2,
			effects: [{ rule: 'creditSteps', questions: 1 }]
		});
		expect(planTakeIn(odd, { ...steps, creditOtherwise: 'aside' }, [])).toMatchObject({ taken: 1, aside: 1 });
		expect(creditsFit([0.17], [])).toBe(true);
	});
	it.each([
		['a new bank without a name', { ...decision, bankId: null, bankName: '  ' }, 'Give the new bank a name.'],
		[
			'broken questions where nothing is to be taken then',
			{ ...decision, errors: 'nothing' as const },
			'7 questions are broken'
		],
		[
			'broken questions where each wants a decision',
			{ ...decision, errors: 'each' as const },
			'7 broken questions wait'
		],
		[
			'everything left out',
			{ ...decision, leftOut: ['Tides\nSprings', 'Tides', '', 'Old stock'] },
			'Nothing would be taken in'
		]
	])('refuses %s', (_, asked, words) => {
		expect(planTakeIn(found, asked, []).refusal).toContain(words);
	});
	it('is content once each broken question is decided on', () => {
		const rows = [row(''), row('', { broken: true, choice: 'aside' }), row('', { broken: true, choice: 'leave' })];
		expect(planTakeIn(rows, { ...decision, errors: 'each' }, [])).toMatchObject({ refusal: null, aside: 1, left: 1 });
	});
	it('says so where there is nothing', () => {
		expect(planTakeIn([], decision, []).refusal).toBe('There is nothing to take in.');
	});
	describe('by any decision', () => {
		const anyRow = fc.record({
			category: fc.constantFrom('', 'A', 'A\nB', 'C'),
			broken: fc.boolean(),
			choice: fc.constantFrom(null, 'leave' as const, 'aside' as const),
			twins: fc.array(fc.record({ id: fc.constantFrom(1, 2, 3), bankId: fc.constantFrom(7, 8) }), { maxLength: 2 }),
			match: fc.constantFrom('new' as const, 'same' as const, 'changed' as const, 'near' as const),
			matchRule: fc.constantFrom(null, 'skip' as const, 'beside' as const, 'replace' as const),
			credits: fc.array(fc.constantFrom(0.5, 0.4, -0.25), { maxLength: 2 }),
			quizOnly: fc.boolean()
		});
		const whole = (part: Partial<PlannedQuestion>): PlannedQuestion => row('', part);
		const anyDecision = fc.record({
			leftOut: fc.subarray(['', 'A', 'A\nB', 'C']),
			errors: fc.constantFrom('nothing' as const, 'aside' as const, 'each' as const),
			against: fc.constantFrom('course' as const, 'bank' as const, 'nothing' as const),
			same: fc.constantFrom('skip' as const, 'beside' as const, 'replace' as const),
			creditOtherwise: fc.constantFrom('keep' as const, 'nearest' as const, 'aside' as const),
			creditSteps: fc.constantFrom<number[]>([], [100, 50, 0]),
			quizBank: fc.constantFrom(null, { bankId: 8, bankName: '' })
		});
		it('adds up', () => {
			fc.assert(
				fc.property(fc.array(anyRow, { maxLength: 30 }), anyDecision, (rows, said) => {
					const plan = planTakeIn(rows.map(whole), { ...decision, ...said }, []);
					expect(plan.found).toBe(rows.length);
					expect(plan.taken + plan.replaced + plan.aside + plan.left + plan.skipped).toBe(plan.found);
					expect(plan.quizBank?.taken ?? 0).toBe(
						said.quizBank ? rows.filter((one, at) => one.quizOnly && plan.outcomes[at] === 'taken').length : 0
					);
				})
			);
		});
		it('is the same for questions that are alike, one by one and together', () => {
			fc.assert(
				fc.property(
					fc.array(fc.tuple(anyRow, fc.integer({ min: 1, max: 4 })), { maxLength: 12 }),
					anyDecision,
					(found, said) => {
						const plain = { ...decision, ...said, tags: ['spring'], points: 2 };
						const each = found.flatMap(([part, many]) => times(many, whole(part)));
						fc.pre(!needsEach(plain) && each.every(({ matchRule }) => matchRule !== 'replace'));
						const { outcomes: _one, targets: _two, ...oneByOne } = planTakeIn(each, plain, ['A'], [], 1);
						const {
							outcomes: _three,
							targets: _four,
							...together
						} = planTakeIn(
							found.map(([part, many]) => ({ ...whole(part), many })),
							plain,
							['A'],
							[],
							1
						);
						expect(together).toEqual(oneByOne);
					}
				)
			);
		});
	});
});

describe('questions that stand only in a quiz', () => {
	const rows = [row('Tides'), row('Part one', { quizOnly: true }), row('', { quizOnly: true, broken: true })];
	it('go with the others where nothing else is said', () => {
		expect(planTakeIn(rows, decision, [])).toMatchObject({
			taken: 2,
			categories: ['Tides', 'Part one'],
			quizBank: null
		});
	});
	it('go to a bank of their own, with its categories', () => {
		const plan = planTakeIn(rows, { ...decision, quizBank: { bankId: 9, bankName: '' } }, ['Tides'], ['Part one']);
		expect(plan).toMatchObject({
			taken: 2,
			aside: 1,
			categories: ['Tides'],
			newCategories: [],
			quizBank: { taken: 1, categories: ['Part one'], newCategories: [] },
			refusal: null
		});
	});
	it('want a name for a new bank, and none for the other where nothing goes there', () => {
		const own = { ...decision, bankId: null, bankName: '' };
		expect(planTakeIn(rows.slice(1), { ...own, quizBank: { bankId: null, bankName: ' ' } }, []).refusal).toContain(
			'for the questions of quizzes'
		);
		expect(planTakeIn(rows.slice(1), { ...own, quizBank: { bankId: null, bankName: 'Spring quiz' } }, []).refusal).toBe(
			null
		);
		expect(planTakeIn(rows, { ...own, quizBank: { bankId: null, bankName: 'Spring quiz' } }, []).refusal).toBe(
			'Give the new bank a name.'
		);
	});
});

describe('where a category lands', () => {
	it('is found for one that is called like what every object has', () => {
		for (const name of ['constructor', '__proto__', 'toString']) {
			expect(landings(decision, [])([name])).toEqual([name]);
			const put = { ...decision, landings: JSON.parse(JSON.stringify({ [name]: 'Tides' })) as Record<string, string> };
			expect(landings(put, [])([name])).toEqual(['Tides']);
		}
	});
	const existing = ['Chartwork', 'Archive', 'Archive\nTides', 'Archive\nLights', 'Lights'];
	const land = (more: Partial<Decision>, path: string[]) => landings({ ...decision, ...more }, existing)(path);
	it('is the one of the same path, or the only one of its name, or a new one', () => {
		expect(land({}, ['Chartwork'])).toEqual(['Chartwork']);
		expect(land({}, ['Tides'])).toEqual(['Archive', 'Tides']);
		expect(land({}, ['Tides', 'Springs'])).toEqual(['Archive', 'Tides', 'Springs']);
		expect(land({}, ['Lights'])).toEqual(['Lights']);
		expect(land({}, ['Knots'])).toEqual(['Knots']);
		expect(land({}, ['tides'])).toEqual(['tides']);
		expect(land({}, [])).toEqual([]);
	});
	it('is where a person put it, with all that is under it', () => {
		const said = { landings: { Tides: 'Chartwork\nHeights', 'Tides\nNeaps': '' } };
		expect(land(said, ['Tides', 'Springs'])).toEqual(['Chartwork', 'Heights', 'Springs']);
		expect(land(said, ['Tides', 'Neaps'])).toEqual([]);
	});
	it('is one for all, or the bank itself', () => {
		expect(land({ categories: 'one', oneCategory: ' Spring intake ' }, ['Tides'])).toEqual(['Spring intake']);
		expect(land({ categories: 'one' }, ['Tides'])).toEqual([]);
	});
	it('has a path that survives being made a key', () => {
		fc.assert(
			fc.property(fc.array(fc.string({ minLength: 1 }).filter((one) => !one.includes('\n'))), (path) => {
				expect(pathOfKey(pathKey(path))).toEqual(path);
			})
		);
		expect(withAbove([['A', 'B'], ['A']])).toEqual([['A'], ['A', 'B']]);
	});
});

describe('what the rules change in a question', () => {
	const half = choice({
		options: choice().options.map((one, at) => ({ ...one, credit: [1, 0.4, 0][at]! })),
		tags: ['knots']
	});
	it('is nothing where they say nothing', () => {
		expect(adjustsQuestions(plainRules)).toBe(false);
		expect(adjusted(half, plainRules)).toBe(half);
	});
	it('is its points, its shuffle, its tags and its credit', () => {
		const rules = {
			...plainRules,
			points: 3,
			shuffle: 'off' as const,
			tags: ['spring', 'knots'],
			creditSteps: [100, 50, 0],
			creditOtherwise: 'nearest' as const
		};
		expect(adjustsQuestions(rules)).toBe(true);
		const after = adjusted(half, rules);
		expect(after).toMatchObject({ points: 3, shuffle: false, tags: ['knots', 'spring'] });
		expect('options' in after && after.options.map((one) => one.credit)).toEqual([1, 0.5, 0]);
		expect(partCredits(half)).toEqual([0.4]);
	});
});

describe('a decision that arrives', () => {
	it('is taken as it is, or refused in words', () => {
		expect(parseDecision(JSON.parse(JSON.stringify(decision)))).toEqual(decision);
		for (const wrong of [
			null,
			{},
			{ ...decision, same: 'perhaps' },
			{ ...decision, points: -1 },
			{ ...decision, bankName: 'x'.repeat(200) }
		])
			expect(() => parseDecision(wrong)).toThrow();
	});
});
