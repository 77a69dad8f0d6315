import type { QuizCheck } from './check';
import { quoted } from './saying';

/** A quiz draws from something that is gone. */
export const quizLostPool: QuizCheck = {
	id: 'quiz-lost-pool',
	version: 1,
	scope: 'quiz',
	title: 'Quiz that draws from what is gone',
	short: 'lost pool',
	severity: 'broken',
	why: 'A category, a bank or a question that the quiz draws from is not there any more, so that it gives less than was planned, or nothing.',
	find: ({ title, parts }) =>
		parts.some(({ lost }) => lost.length)
			? [
					{
						message: `“${title}” draws from ${quoted([...new Set(parts.flatMap(({ lost }) => lost))])}, which ${parts.flatMap(({ lost }) => lost).length > 1 ? 'are' : 'is'} gone. Choose what it is to draw from.`,
						words: [...new Set(parts.flatMap(({ lost }) => lost))]
					}
				]
			: []
};
