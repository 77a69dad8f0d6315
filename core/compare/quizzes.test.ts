import { describe, expect, it } from 'vitest';
import type { QuizToWrite } from '../model/quiz';
import type { FoundQuiz } from '../model/quiz';
import { placesOfFitted, quizDifferences, type Known } from './quizzes';

const sent: QuizToWrite = {
	identifier: 'Q',
	title: 'Week 6',
	parts: [{ title: 'Knots', questions: [0, 1, 2], draw: 2, pointsEach: 2, shuffle: true }]
};
const found = (change: Partial<FoundQuiz['parts'][number]> = {}): FoundQuiz => ({
	identifier: 'Q',
	title: 'Week 6',
	source: { file: 't.xml', line: 1 },
	parts: [
		{
			title: 'Knots',
			path: [],
			bank: null,
			questions: [0, 1, 2].map((at) => ({ identifier: `${at}`, file: null })),
			draw: 2,
			pointsEach: 2,
			shuffle: true,
			...change
		}
	]
});

const known: Known = { sent: (at) => [at + 1], found: ({ identifier }) => Number(identifier) + 1 };

describe('what became of a quiz', () => {
	it('is nothing where it came back as it was', () => {
		expect(quizDifferences([sent], [found()], known)).toEqual([]);
	});
	it('is told part by part', () => {
		expect(
			quizDifferences([sent], [found({ draw: null, pointsEach: null, questions: [], shuffle: null })], known)
		).toEqual([
			'Part “Knots” draws all instead of 2.',
			'Part “Knots” has 0 questions instead of 3.',
			'Part “Knots” keeps the order of the file instead of a random one.',
			'Part “Knots” gives each question its own points instead of 2.'
		]);
	});
	it('names the quiz where there are several, and one that is not there', () => {
		expect(quizDifferences([sent, { ...sent, title: 'Week 7' }], [found({ draw: 1 })], known)).toEqual([
			'“Week 6”: Part “Knots” draws 1 instead of 2.',
			'The quiz “Week 7” was not found in the file.'
		]);
	});
	it('is told where a part has other questions, though as many', () => {
		const others = found({ questions: ['0', '1', '7'].map((identifier) => ({ identifier, file: null })) });
		expect(quizDifferences([sent], [others], known)).toEqual([
			'Part “Knots” has other questions than those that were sent.'
		]);
	});
	it('counts what was written for each question, which may be several or none', () => {
		const places = placesOfFitted([1, 3, 0, 1]);
		expect([0, 1, 2, 3].map(places)).toEqual([[1], [2, 3, 4], [], [5]]);
		expect([0, 1].map(placesOfFitted([1, 2], [1, 0]))).toEqual([[3], [1, 2]]);
	});
});
