import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { memorySource } from '../../container/container';
import { openContainer } from '../../container/open';
import { anyTableHabits, kept } from '../../test-support/kept-tables';
import { readAll } from '../../test-support/packages';
import { short } from '../../test-support/short';
import { anyMeant, shortOf } from '../../test-support/typed-lists';

// KEPT_RUNS makes it long, KEPT_SEED another
const numRuns = Number(process.env.KEPT_RUNS ?? 250);
const seed = Number(process.env.KEPT_SEED ?? 20_261_128);

describe('a table of questions kept with any mixture of habits', () => {
	it('is read as it was meant', () =>
		fc.assert(
			fc.asyncProperty(anyMeant, anyTableHabits, async (meant, habits) => {
				const text = kept(meant, habits);
				const name = habits.delimiter === '\t' ? 'a.tsv' : 'a.csv';
				const { questions } = await readAll(await openContainer(name, memorySource(new TextEncoder().encode(text))));
				expect({ text, read: questions.map(short) }).toEqual({ text, read: meant.map(shortOf) });
				for (const { category, points, feedback } of questions)
					expect({ text, category, points, feedback }).toEqual({
						text,
						category: habits.category ? ['Seamanship', 'Harbour'] : [],
						points: habits.points ? 2 : null,
						feedback: habits.feedback ? { general: 'See the handbook of the school.' } : {}
					});
			}),
			{ numRuns, seed }
		));
});
