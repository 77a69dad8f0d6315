import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isChoice } from '../../model/question';
import { short } from '../../test-support/short';
import { anyHabits, anyMeant, shortOf, typed } from '../../test-support/typed-lists';
import { readMarkedText } from './grammar';
import { linesOf } from './lines';

// TYPED_RUNS makes it long, TYPED_SEED another
const numRuns = Number(process.env.TYPED_RUNS ?? 300);
const seed = Number(process.env.TYPED_SEED ?? 20_261_128);

describe('a list of questions typed with any mixture of habits', () => {
	it('is read as it was meant', () => {
		fc.assert(
			fc.property(anyMeant, anyHabits, (meant, habits) => {
				const text = typed(meant, habits);
				const { questions } = readMarkedText(linesOf(text), 'a.txt', 'text');
				expect({ text, read: questions.map(({ question }) => short(question)) }).toEqual({
					text,
					read: meant.map(shortOf)
				});
				const said = {
					title: habits.titled ? 'Of the harbour' : '',
					category: habits.heading ? [habits.heading.replace(/^#+ /, '')] : [],
					points: habits.pointsForm === 'none' ? null : 2,
					tags: habits.tags ? ['harbour', 'autumn'] : [],
					feedback: habits.feedback ? { general: 'See the handbook of the school.' } : {}
				};
				questions.forEach(({ question }, at) => {
					const { title, category, points, tags, feedback } = question;
					expect({ text, at, title, category, points, tags, feedback }).toEqual({ text, at, ...said });
					if (isChoice(question) && habits.optionFeedback && ('options' in meant[at]! || habits.truth === 'options'))
						expect({ text, notes: question.options.map((option) => option.feedback) }).toEqual({
							text,
							notes: question.options.map((_, place) => `Note ${place + 1}.`)
						});
				});
			}),
			{ numRuns, seed }
		);
	});
});
