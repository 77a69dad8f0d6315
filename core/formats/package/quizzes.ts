import type { FoundQuestion, FoundQuiz } from '../../model/quiz';
import { renamedRules } from '../../model/sheet';
import type { Report } from '../../reports/report';
import type { DocumentContext, ReadEvent } from '../format';

const told = (report: Report): ReadEvent => ({ type: 'report', report });

/** A quiz once all banks are known, with a report for each part that draws more than there is. */
export function* finishedQuiz(
	quiz: FoundQuiz,
	banks: DocumentContext['banks'],
	points: Map<string, number | null>
): Generator<ReadEvent> {
	// an identifier alone says which question is meant only within its own package
	const known = (named: FoundQuestion): FoundQuestion =>
		named.file === null ? { ...named, ...banks.question(named.identifier) } : named;
	if (quiz.rules) quiz.rules = renamedRules(quiz.rules, known);
	for (const part of quiz.parts) {
		part.questions = part.questions.map(known);
		if (part.bank !== null) {
			const bank = banks.get(part.bank);
			if (bank) for (const one of bank) part.questions.push({ ...one, inBank: true });
			else
				yield told({
					rule: 'unknown-bank',
					severity: 'doubtful',
					message: `The part “${part.title}” of the quiz “${quiz.title}” draws from a bank “${part.bank}” that is not in the package. Choose its pool anew.`,
					place: quiz.source
				});
		}
		const worth = part.questions.map(({ file: path, weight }) =>
			weight ? Math.round(weight * (points.get(path ?? '') ?? 1) * 1e6) / 1e6 : null
		);
		if (worth.length && worth[0] !== null && worth.every((one) => one === worth[0])) part.pointsEach = worth[0]!;
		else if (part.questions.some(({ weight }) => weight !== undefined && weight !== null && weight !== 1))
			yield told({
				rule: 'different-points',
				severity: 'doubtful',
				message: `The part “${part.title}” of the quiz “${quiz.title}” gives its questions different points: ${part.questions.map((one, at) => `“${one.identifier}” ${worth[at] ?? points.get(one.file ?? '') ?? 'its own'}`).join(', ')}. A part here gives the same to each, or each its own; the questions kept their own points. Set them by hand.`,
				place: quiz.source
			});
		if (part.draw !== null && part.draw > part.questions.length)
			yield told({
				rule: 'draw-too-large',
				severity: 'doubtful',
				message: `The part “${part.title}” of the quiz “${quiz.title}” draws ${part.draw} questions and holds ${part.questions.length}. Draw fewer, or add questions to it.`,
				place: quiz.source
			});
	}
	yield { type: 'quiz', quiz };
}
