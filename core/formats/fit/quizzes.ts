import type { FittedQuiz, PartToWrite, QuizToWrite } from '../../model/quiz';
import { fitGroups } from './groups';
import { fitRules, plainParts } from './sheets';
import type { QuizLimits } from './quiz-limits';
import { fitSettings } from './settings';

const named = ({ title }: PartToWrite) => `The part “${title}”`;
const questions = (count: number) => `${count} ${count === 1 ? 'question' : 'questions'}`;

/** A part with what of it can be written; `written` says how many questions are written for the question of a place. */
function fitPart(
	part: PartToWrite,
	limits: QuizLimits,
	written: (at: number) => number,
	what: string[]
): PartToWrite | null {
	const held = part.questions.filter((at) => written(at) > 0);
	const behind = part.questions.length - held.length;
	// a pool in which nothing stands yet is a part all the same
	if (!part.questions.length && part.sheet) return part;
	if (!held.length) {
		what.push(`${named(part)} stays behind: none of its questions can be written.`);
		return null;
	}
	if (behind) what.push(`${named(part)} lacks ${questions(behind)} that ${behind === 1 ? 'stays' : 'stay'} behind.`);
	const count = held.reduce((sum, at) => sum + written(at), 0);
	let { draw, pointsEach, shuffle } = part;
	if (draw !== null && !limits.draws) {
		if (draw < count) what.push(`${named(part)} gives all of its ${questions(count)} instead of drawing ${draw}.`);
		draw = null;
	} else if (draw !== null && draw > count && !limits.overdraws) {
		what.push(`${named(part)} draws ${draw} of ${count}; ${count} is written, for more there are not.`);
		draw = count;
	}
	if (pointsEach !== null && !limits.points) {
		what.push(`${named(part)} does not give its ${pointsEach} points each: the questions keep their own.`);
		pointsEach = null;
	}
	if (shuffle && !limits.shuffles) {
		what.push(`${named(part)} keeps the order of the file instead of a random one.`);
		shuffle = false;
	}
	return { ...part, questions: held, draw, pointsEach, shuffle };
}

/** All parts as one, each question once. */
function together(quiz: QuizToWrite, parts: PartToWrite[], what: string[]): PartToWrite[] {
	if (parts.length < 2) return parts;
	what.push(`Its ${parts.length} parts become one.`);
	return [
		{
			title: quiz.title,
			questions: [...new Set(parts.flatMap((part) => part.questions))],
			draw: null,
			pointsEach: null,
			shuffle: false
		}
	];
}

/**
 * What becomes of quizzes in a format: writers write what it gives, and the proof expects it back. `written` says how many
 * questions are written for the question of a place, from 0.
 */
export function fitQuizzes(quizzes: QuizToWrite[], limits: QuizLimits, written: (at: number) => number): FittedQuiz[] {
	const taken = new Set<number>();
	return quizzes.map((quiz) => {
		if (!limits.carries)
			return { quiz: null, what: [`The quiz “${quiz.title}” stays behind: this format has none. Its questions go.`] };
		const what: string[] = [...(quiz.unsaid ?? [])];
		const grouped = limits.sheets
			? { parts: quiz.parts, together: [] }
			: fitGroups(plainParts(quiz.parts, what), quiz.rules?.together ?? [], limits, written, what);
		const rules = fitRules(quiz, grouped.together, limits, what);
		const plain = grouped.parts;
		const own = limits.shares
			? plain
			: plain.map((part) => ({ ...part, questions: part.questions.filter((at) => !taken.has(at)) }));
		const gone = quiz.parts.flatMap((part) => part.questions).filter((at) => taken.has(at)).length;
		if (gone && !limits.shares)
			what.push(`It lacks ${questions(gone)} that ${gone === 1 ? 'stands' : 'stand'} in another quiz already.`);
		const before = what.length;
		const fitted = own.flatMap((part) =>
			part.questions.length || limits.sheets ? (fitPart(part, limits, written, what) ?? []) : []
		);
		const parts = limits.parts ? fitted : together(quiz, fitted, what);
		// what a part lacks, or gives otherwise, is worth something else
		const points = what.length === before && !gone ? (quiz.points ?? null) : null;
		const settings = quiz.settings && fitSettings(quiz.settings, points, limits, what);
		if (!limits.shares) for (const part of parts) for (const at of part.questions) taken.add(at);
		const around = { ...(settings ? { settings, points } : {}), ...(rules ? { rules } : {}) };
		if (parts.length) return { quiz: { identifier: quiz.identifier, title: quiz.title, parts, ...around }, what };
		return { quiz: null, what: [`The quiz “${quiz.title}” stays behind: none of its questions can be written.`] };
	});
}
