import type { Question } from '../kinds';
import { saysNothing } from './no-title';

/** A question with what it lacks of title, points, tags, category, feedback and hints taken over from others that ask the same. */
export function takenOver(question: Question, others: readonly Question[]): Question {
	const titled = others.find((other) => !saysNothing(other));
	const tags = [...new Set([question, ...others].flatMap((one) => one.tags))];
	const feedback = others.reduce((known, other) => ({ ...other.feedback, ...known }), question.feedback);
	const after: Question = {
		...question,
		title: saysNothing(question) && titled ? titled.title : question.title,
		points: question.points ?? others.find(({ points }) => points !== null)?.points ?? null,
		category: question.category.length
			? question.category
			: (others.find(({ category }) => category.length)?.category ?? []),
		tags: tags.length > question.tags.length ? tags : question.tags,
		feedback,
		hints: question.hints.length ? question.hints : (others.find(({ hints }) => hints.length)?.hints ?? [])
	};
	return JSON.stringify(after) === JSON.stringify(question) ? question : after;
}
