import { plainText } from '../core/markup/text';
import { kindOf, type Question } from '../core/kinds';
import type { FoundQuiz } from '../core/model/quiz';

/** A question in the plain form that belongs to no format. */
export function plainQuestion(question: Question): Record<string, unknown> {
	const out: Record<string, unknown> = {
		title: question.title || null,
		kind: question.kind,
		category: question.category,
		points: question.points,
		stem: [question.stimulus?.content ?? '', question.stem].map(plainText).filter(Boolean).join(' ')
	};
	Object.assign(out, kindOf(question).plain(question));
	const feedback = Object.entries(question.feedback).map(([part, markup]) => [part, plainText(markup)]);
	if (feedback.length) out.feedback = Object.fromEntries(feedback);
	const media = question.attachments.filter((attachment) => !attachment.missing).map((attachment) => attachment.name);
	if (media.length) out.media = media;
	return out;
}

/** A quiz in the plain form. */
export function plainQuiz(quiz: FoundQuiz): Record<string, unknown> {
	return {
		title: quiz.title,
		parts: quiz.parts.map((part) => ({
			title: part.title,
			...(part.draw === null ? {} : { draw: part.draw }),
			from: part.questions.length,
			...(part.pointsEach === null ? {} : { pointsEach: part.pointsEach }),
			...(part.shuffle === null ? {} : { shuffle: part.shuffle })
		}))
	};
}
