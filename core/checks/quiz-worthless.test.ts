import { describe, expect, it } from 'vitest';
import { quizWorthless } from './quiz-worthless';

const quiz = (...parts: [pointsEach: number | null, ...points: (number | null)[]][]) => ({
	title: 'Harbour check',
	parts: parts.map(([pointsEach, ...points], at) => ({
		title: `Part ${at + 1}`,
		draw: null,
		pointsEach,
		pool: points.map((own, number) => ({ number, points: own })),
		shufflesOptions: false,
		lost: []
	}))
});

describe('a quiz without points', () => {
	it.each([
		['one whose questions have points', quiz([null, 1, 2])],
		['one whose part gives points', quiz([1, 0, 0])],
		['questions that do not say their points', quiz([null, null, null])],
		['a quiz without questions', quiz([null])],
		['two parts with points', quiz([null, 1], [2, 0])],
		['a half point', quiz([0.5, 0])]
	])('passes over %s', (_, given) => {
		expect(quizWorthless.find(given)).toEqual([]);
	});
	it.each([
		['nothing at all', quiz([null, 0, 0]), 'No question of the quiz “Harbour check” is worth'],
		['a part that gives nothing', quiz([0, 3, 2]), 'No question of the quiz'],
		['one question of a part', quiz([null, 1, 0, 2]), 'One question of 3 in the part “Part 1” is worth no points'],
		['several of a part', quiz([null, 0, 0, 2]), '2 questions of 3'],
		['a part among others', quiz([1, 2], [0, 2, 3]), '2 questions of 2 in the part “Part 2”'],
		['one beside one that says nothing', quiz([null, 0, null]), 'One question of 2']
	])('finds %s', (_, given, says) => {
		expect(quizWorthless.find(given).map(({ message }) => message)).toEqual([expect.stringContaining(says)]);
	});
});
