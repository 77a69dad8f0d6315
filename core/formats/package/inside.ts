import { mapMarkup } from '../../kinds';
import type { FoundQuestion, FoundQuiz } from '../../model/quiz';
import { renamedPart, renamedRules } from '../../model/sheet';
import type { ReadEvent } from '../format';

/** A quiz of a package in the package, whose files have other names outside of it. */
function quizInside(quiz: FoundQuiz, name: (inner: string) => string): FoundQuiz {
	const renamed = (question: FoundQuestion): FoundQuestion =>
		question.file === null ? question : { ...question, file: name(question.file) };
	return {
		...quiz,
		...(quiz.rules ? { rules: renamedRules(quiz.rules, renamed) } : {}),
		source: { ...quiz.source, file: name(quiz.source.file) },
		parts: quiz.parts.map((part) => ({
			...part,
			questions: part.questions.map(renamed),
			...(part.sheet ? { sheet: renamedPart(part.sheet, renamed) } : {})
		}))
	};
}

/** The paths of a package in the package, told apart from those of the outer one. */
export async function* inside(path: string, events: AsyncGenerator<ReadEvent>): AsyncGenerator<ReadEvent> {
	const name = (inner: string) => (/^https?:/i.test(inner) ? inner : `${path}!/${inner}`);
	for await (const event of events) {
		if (event.type === 'question') {
			const { question } = event;
			if (question.source) question.source.file = name(question.source.file);
			for (const attachment of question.attachments) attachment.name = name(attachment.name);
			yield {
				...event,
				question: mapMarkup(question, (markup) =>
					markup.replace(/="media:([^"]*)"/g, (_, inner: string) => `="media:${name(inner)}"`)
				)
			};
		} else if (event.type === 'report' && event.report.place)
			yield {
				...event,
				report: { ...event.report, place: { ...event.report.place, file: name(event.report.place.file) } }
			};
		else if (event.type === 'quiz') yield { ...event, quiz: quizInside(event.quiz, name) };
		else if (event.type === 'other') yield { ...event, other: { ...event.other, path: name(event.other.path) } };
		else if (event.type !== 'progress') yield event;
	}
}
