import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyQuestion } from '../test-support/arbitrary';
import { choice } from '../test-support/questions';
import { presented } from './presented';

const seeds = Array.from({ length: 200 }, (_, at) => `gullhaven-${at}`);
const ordering = (items: number) => ({
	...choice(),
	kind: 'ordering' as const,
	options: undefined,
	items: Array.from({ length: items }, (_, at) => ({ identifier: `i${at}`, text: `Step ${at}` }))
});

describe('a question as a student gets it', () => {
	it('never has what is put in order in the right order', () => {
		for (const count of [2, 3, 5])
			for (const seed of seeds) {
				const { options: _, ...question } = ordering(count);
				const { question: shown } = presented(question as never, seed, 7, true);
				const order = (shown as unknown as { presented: string[] }).presented;
				expect([...order].sort()).toEqual(question.items.map(({ identifier }) => identifier));
				expect(order).not.toEqual(question.items.map(({ identifier }) => identifier));
			}
	});
	it('stays as it is where it is not to be shuffled', () => {
		const still = choice({ shuffle: false });
		expect(presented(still, 'x', 1, true)).toEqual({ question: still, order: undefined });
		expect(presented(choice(), 'x', 1, false).order).toBeUndefined();
	});
	it('is the same for the same seed, and loses nothing that can be chosen', () => {
		const things = (question: unknown) => JSON.stringify(question).replace(/\s/g, '').split('').sort().join('');
		fc.assert(
			fc.property(
				anyQuestion.filter(({ kind }) => kind !== 'calculated' && kind !== 'ordering'),
				fc.string(),
				(question, seed) => {
					const shown = presented(question, seed, 3, true);
					expect(presented(question, seed, 3, true)).toEqual(shown);
					expect(things(shown.question)).toBe(things(question));
					if (shown.order && 'options' in question)
						expect([...shown.order].sort((a, b) => a - b)).toEqual(question.options.map((_, at) => at));
				}
			),
			{ numRuns: 150 }
		);
	});
});
