import { QuestionPlaces } from '../formats/question-places';
import type { FoundPart } from '../model/quiz';
import type { Found } from './packages';

/** The parts of each quiz that was found, with the titles of the questions that they refer to. */
export function partsFound({ questions, quizzes }: Found): (Omit<FoundPart, 'questions'> & { items: string[] })[][] {
	const places = new QuestionPlaces();
	for (const question of questions) places.add(question);
	return quizzes.map((quiz) =>
		quiz.parts.map(({ questions: asked, ...part }) => ({
			...part,
			items: asked.map((one) => questions[(places.find(one) ?? 0) - 1]?.title ?? 'nothing')
		}))
	);
}
