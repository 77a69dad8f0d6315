import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mendTools } from '../formats/mend-tools';
import type { Question } from '../kinds';
import { languagesOf } from '../language/detect';
import { anyQuestion } from '../test-support/arbitrary';
import { choiceOf } from '../test-support/checked';
import { manyChecks, oneChecks } from '.';
import { Gathering } from './many';
import { mendAll } from './mend-all';

const tools = { ...mendTools, languagesOf };
const titled = (title: string, stem: string, more: object = {}) => ({
	...choiceOf(stem, ['Port|1', 'Starboard'], more),
	title
});

describe('mending a bank', () => {
	it('mends what is found by the checks that are named, and counts it', () => {
		const given: Question[] = [
			titled('One', 'Select one: Which is red?'),
			titled('Two', '3. Which is green?'),
			titled('Two', 'Which is white?')
		];
		const { questions, mended } = mendAll(given, ['boilerplate', 'typed-numbering', 'same-title'], tools);
		expect(questions.map(({ title, stem }) => [title, stem])).toEqual([
			['One', 'Which is red?'],
			['Two', 'Which is green?'],
			['Two (2)', 'Which is white?']
		]);
		expect([...mended]).toEqual([
			['boilerplate', 1],
			['typed-numbering', 1],
			['same-title', 1]
		]);
	});
	it('keeps one of repeats, which takes over what it lacks, and leaves what a quiz names', () => {
		const given: Question[] = [
			titled('Untitled', 'Which is red?', { points: null }),
			titled('Port', 'Which is red?', { points: 2, tags: ['lights'], category: ['Lights'] }),
			titled('Again', 'Which is red?')
		];
		const { questions } = mendAll(given, ['exact-duplicate'], tools);
		expect(questions).toMatchObject([{ title: 'Port', points: 2, tags: ['lights'], category: ['Lights'] }]);
		const named = mendAll(given, ['exact-duplicate'], tools, ({ title }) => title === 'Again');
		expect(named.questions.map(({ title }) => title)).toEqual(['Again']);
	});
	it('changes nothing by checks without a mend', () => {
		const given = [choiceOf('Which?', ['Port', 'Starboard'])];
		expect(mendAll(given, ['no-key', 'category-empty', 'quiz-totals'], tools).questions).toEqual(given);
	});
});

describe('the mend of any check over one question', () => {
	const mends = oneChecks.filter(({ mend }) => mend);
	it.each(mends.map((check) => [check.id, check] as const))(
		'%s: what is mended is found no more, twice is once, and the question that was given stays',
		(_, check) => {
			fc.assert(
				fc.property(anyQuestion, (question) => {
					const before = structuredClone(question);
					const found = check.find(question).length > 0;
					const fits = found && (check.mend!.fits?.(question) ?? true);
					const after = fits ? check.mend!.apply(question, tools) : question;
					expect(question).toEqual(before);
					if (!fits || JSON.stringify(after) === JSON.stringify(before)) return;
					expect(check.find(after)).toEqual([]);
					expect(check.mend!.apply(after, tools)).toEqual(after);
				}),
				{ numRuns: 150 }
			);
		}
	);
});

describe('the mend of any check among many', () => {
	/** Banks of up to seven questions whose titles, tags and keys come close to one another. */
	const anyBank = fc
		.array(
			fc.record({
				title: fc.constantFrom('Tides', 'tides', 'Tides 2', 'Lights'),
				tags: fc.subarray(['Sums', 'sums', 'su-ms', 'old']),
				category: fc.constantFrom<string[]>(['A'], ['A', 'B']),
				key: fc.nat(2)
			}),
			{ minLength: 1, maxLength: 24 }
		)
		.map((drafts) =>
			drafts.map(({ key, ...common }, at) => ({
				...choiceOf(`Which of them has the number ${at}?`, ['Port', 'Starboard', 'Ahead']),
				identifier: `q${at}`,
				options: ['Port', 'Starboard', 'Ahead'].map((text, place) => ({
					identifier: 'ABC'[place]!,
					text,
					credit: place === key % 2 ? 1 : 0,
					pinned: false
				})),
				shuffle: false,
				...common
			}))
		);
	const found = (id: string, questions: readonly Question[]) => {
		const check = manyChecks.find((each) => each.id === id)!;
		const gathering = new Gathering(tools, [check]);
		questions.forEach((question, at) => gathering.add(at, question, { bank: '', category: question.category }));
		return new Set([...gathering.findings()].map((finding) => finding.id));
	};
	it.each(manyChecks.filter(({ mend }) => mend).map(({ id }) => id))(
		'%s: what is mended is found no more, no other question changes, and the questions that were given stay',
		(id) => {
			fc.assert(
				fc.property(anyBank, (questions) => {
					const before = structuredClone(questions);
					const concerned = found(id, questions);
					const mended = mendAll(questions, [id], tools);
					expect(questions).toEqual(before);
					mended.questions.forEach((question, at) => {
						if (!concerned.has(at)) expect(question).toBe(questions[at]);
					});
					expect(found(id, mended.questions)).toEqual(new Set());
					expect(mendAll(mended.questions, [id], tools).questions).toEqual(mended.questions);
				}),
				{ numRuns: 150 }
			);
		}
	);
});
