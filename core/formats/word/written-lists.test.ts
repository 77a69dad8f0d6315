import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runsOf } from '../../test-support/runs';
import { readAll } from '../../test-support/packages';
import { short } from '../../test-support/short';
import { anyMeant, shortOf } from '../../test-support/typed-lists';
import { anyWordHabits, written } from '../../test-support/word-lists';
import { wordDocument } from '../../test-support/word-parts';

const runs = runsOf('WRITTEN', 100);

describe('a list of questions written in a word processor with any mixture of habits', () => {
	it('is read as it was meant', () =>
		fc.assert(
			fc.asyncProperty(anyMeant, anyWordHabits, async (meant, habits) => {
				const { questions } = await readAll(await wordDocument(written(meant, habits)));
				expect(questions.map(short)).toEqual(meant.map(shortOf));
				for (const { category, points, feedback } of questions)
					expect({ category, points, feedback }).toEqual({
						category: habits.heading ? [habits.heading] : [],
						points: habits.points ? 2 : null,
						feedback: habits.feedback ? { general: 'See the handbook of the school.' } : {}
					});
			}),
			runs
		));
});
