import type { QuizCheck } from './check';

/** A quiz that is worth nothing, or draws questions that are. */
export const quizWorthless: QuizCheck = {
	id: 'quiz-worthless',
	version: 1,
	scope: 'quiz',
	title: 'Quiz or question without points',
	short: 'no points',
	severity: 'doubtful',
	why: 'Whoever gets a question that is worth nothing answers it for nothing; and a quiz that is worth nothing has no mark.',
	find(quiz) {
		const pools = quiz.parts.map(({ pool, pointsEach }) => pool.map(({ points }) => pointsEach ?? points));
		const all = pools.flat();
		if (!all.length) return [];
		if (all.every((points) => points === 0))
			return [{ message: `No question of the quiz “${quiz.title}” is worth any points. Give them some.` }];
		return quiz.parts.flatMap(({ title }, at) => {
			const worthless = pools[at]!.filter((points) => points === 0).length;
			return worthless
				? [
						{
							message: `${worthless === 1 ? 'One question' : `${worthless} questions`} of ${pools[at]!.length} in the part “${title}” ${worthless === 1 ? 'is' : 'are'} worth no points. Give the part points for each, or the questions points of their own.`
						}
					]
				: [];
		});
	}
};
