import { describe, expect, it } from 'vitest';
import { blankQuestion } from '../kinds/blank';
import { isChoice, type Question } from '../kinds';
import { checkQuestion } from '../checks/one';
import { bestCredit } from './score';
import { keyAsks, withKey } from './set-key';

const credits = (question: Question) => (isChoice(question) ? question.options.map(({ credit }) => credit) : []);
const keyless = (kind: 'multiple-choice' | 'multiple-response'): Question => {
	const question = blankQuestion(kind, 1, '');
	return isChoice(question)
		? { ...question, lostKeys: ['Z'], options: question.options.map((option) => ({ ...option, credit: 0 })) }
		: question;
};

describe('an option that is made the key', () => {
	it('is the only one where one is chosen', () => {
		const first = withKey(keyless('multiple-choice'), 'B');
		expect(credits(first)).toEqual([0, 1, 0, 0]);
		expect(credits(withKey(first, 'C'))).toEqual([0, 0, 1, 0]);
		expect(checkQuestion(first).map(({ rule }) => rule)).not.toContain('no-key');
		expect(checkQuestion(first).map(({ rule }) => rule)).not.toContain('lost-key');
	});
	it('shares the credit with others where several are, and is taken back by a second time', () => {
		let question = keyless('multiple-response');
		for (const key of ['A', 'B', 'C']) question = withKey(question, key);
		expect(bestCredit(question)).toBe(1);
		expect(credits(withKey(question, 'B'))).toEqual([0.5, 0, 0.5, 0]);
		expect(credits(withKey(blankQuestion('multiple-response', 1, ''), 'A'))).toEqual([-1, 1, -1, -1]);
	});
	it('is nothing where there are no options', () => {
		const essay = blankQuestion('essay', 1, '');
		expect(withKey(essay, 'A')).toBe(essay);
	});
});

describe('what else can be made the key', () => {
	const rulesOf = (question: Question) => checkQuestion(question).map(({ rule }) => rule);
	const withAll = (question: Question) =>
		keyAsks(question).reduce((keyed, { choices }, at) => withKey(keyed, choices[0]!.identifier, at), question);
	const sides = ['a', 'b'].map((identifier) => ({ identifier, text: identifier, uses: null }));
	const targets = sides.map(({ identifier }, at) => ({
		identifier,
		uses: null,
		shape: 'rect' as const,
		coordinates: [at, at, at + 1, at + 1]
	}));
	const pairless = (kind: 'matching' | 'label-image') =>
		({
			...blankQuestion(kind, 1, ''),
			...(kind === 'matching' ? { left: sides, right: sides } : { labels: sides, targets }),
			pairs: []
		}) as unknown as Question;
	it.each(['matching', 'label-image'] as const)('is a partner for each thing of a %s, one after the other', (kind) => {
		const question = pairless(kind);
		const asks = keyAsks(question);
		expect(asks.length).toBeGreaterThan(0);
		expect(asks.every(({ choices }) => choices.every(({ isKey }) => !isKey))).toBe(true);
		const keyed = withAll(question);
		expect(bestCredit(keyed)).toBeCloseTo(1);
		expect(rulesOf(keyed)).not.toContain('no-key');
		expect(keyAsks(keyed).every(({ choices }) => choices[0]!.isKey)).toBe(true);
		// a second time takes it back, and another one takes its place
		const [first] = asks;
		expect(keyAsks(withKey(keyed, first!.choices[0]!.identifier, 0))[0]!.choices.some(({ isKey }) => isKey)).toBe(
			false
		);
	});
	it('is another partner in the place of the first', () => {
		const question = withAll(pairless('matching'));
		const [ask] = keyAsks(question);
		const other = withKey(question, ask!.choices[1]!.identifier, 0);
		expect(
			keyAsks(other)[0]!
				.choices.map(({ isKey }) => isKey)
				.slice(0, 2)
		).toEqual([false, true]);
		expect(bestCredit(other)).toBeCloseTo(1);
	});
	it('is a place of a picture', () => {
		const blank = blankQuestion('hotspot', 1, '');
		if (blank.kind !== 'hotspot') throw new Error('That is no hotspot.');
		const shape = { shape: 'rect' as const, coordinates: [0, 0, 10, 10], credit: 0 };
		const shapes = [
			{ ...shape, identifier: 'P' },
			{ ...shape, identifier: 'Q', coordinates: [20, 20, 30, 30] }
		];
		const one = withKey({ ...blank, shapes, picks: 1 }, 'Q');
		expect(keyAsks(one)[0]).toMatchObject({ isSeveral: false, choices: [{ isKey: false }, { isKey: true }] });
		const several = withKey(withKey({ ...blank, shapes, picks: 0 }, 'P'), 'Q');
		expect(several.kind === 'hotspot' && several.shapes.map(({ credit }) => credit)).toEqual([0.5, 0.5]);
	});
	it('is an entry of a list in a blank', () => {
		const blank = blankQuestion('fill-blanks', 1, '');
		if (blank.kind !== 'fill-blanks') throw new Error('That has no blanks.');
		const entries = ['a', 'b'].map((identifier) => ({ identifier, text: identifier, credit: 0 }));
		const list = { form: 'list' as const, share: 0.5, several: false, shuffle: null, entries };
		const question: Question = {
			...blank,
			blanks: [
				{ form: 'text', identifier: '1', share: 0, accepted: [] },
				{ ...list, identifier: '2' },
				{ ...list, identifier: '3' }
			]
		};
		expect(keyAsks(question).map(({ name }) => name)).toEqual(['Blank 2', 'Blank 3']);
		const keyed = withKey(question, 'b', 1);
		expect(keyAsks(keyed).map(({ choices }) => choices.map(({ isKey }) => isKey))).toEqual([
			[false, false],
			[false, true]
		]);
	});
	it.each(['essay', 'numeric', 'short-answer', 'ordering'] as const)('is nothing to choose in a %s', (kind) => {
		const question = blankQuestion(kind, 1, '');
		expect(keyAsks(question)).toEqual([]);
		expect(withKey(question, 'A')).toBe(question);
	});
});
