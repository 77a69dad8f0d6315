import type { CheckedQuiz, QuizCheck } from './check';

const slack = 1e-6;

/** The least and the greatest that the questions of a part may be worth together, each part by itself. */
function rangeOf({ pool, draw, pointsEach }: CheckedQuiz['parts'][number]): [least: number, most: number] {
	const points = pool.map((question) => pointsEach ?? question.points ?? 0).sort((a, b) => a - b);
	const count = Math.min(draw ?? points.length, points.length);
	const sum = (some: readonly number[]) => some.reduce((total, one) => total + one, 0);
	return [sum(points.slice(0, count)), sum(points.slice(points.length - count))];
}

const figure = (value: number) => String(Math.round(value * 100) / 100);

/** Two students can get quizzes that are worth different points. */
export const quizTotals: QuizCheck = {
	id: 'quiz-totals',
	version: 2,
	scope: 'quiz',
	title: 'Total that is not the same for all',
	short: 'totals',
	severity: 'doubtful',
	why: 'Whoever is lucky can reach more points than whoever is not, with the same work.',
	find(quiz) {
		const uneven = quiz.parts
			.map((part, at) => ({ name: part.title ? `“${part.title}”` : `number ${at + 1}`, range: rangeOf(part) }))
			.filter(({ range: [least, most] }) => most - least > slack);
		const total = quiz.drawn?.total;
		if (!uneven.length || (total && total[1] - total[0] <= slack)) return [];
		const [least, most] = total ?? quiz.parts.map(rangeOf).reduce(([a, b], [c, d]) => [a + c, b + d], [0, 0]);
		return [
			{
				message: `In “${quiz.title}” one student can get ${figure(least)} points in all and another ${figure(most)}, by ${uneven.map(({ name }) => name).join(' and ')}. Give each question of ${uneven.length > 1 ? 'these parts' : 'this part'} the same points.`
			}
		];
	}
};
