import type { FittedQuiz, PartToWrite, QuizToWrite } from '../../model/quiz';
import { fitRules, plainParts } from './sheets';
import { fitSettings } from './settings';

/** How much of a quiz a format has a place for. */
export interface QuizLimits {
	/** Whether it has quizzes at all. */
	carries: boolean;
	/** Whether a quiz may have several parts; else all of them become one. */
	parts: boolean;
	/** Whether a part may draw so many of its questions. */
	draws: boolean;
	/** Whether a part may say that it draws more than it has; else all of them are drawn. */
	overdraws: boolean;
	/** Whether a part may give the points of its questions. */
	points: boolean;
	/** Whether the questions of a part may be put in a random order. */
	shuffles: boolean;
	/** Whether a question may stand in several quizzes; else it stands in the first. */
	shares: boolean;
	/** Whether it has pools, quotas, pairs, groups and orders, and all that is around a quiz. */
	sheets: boolean;
	/** Whether it has instructions, a time limit, also one that is not of whole minutes, and a number of attempts. */
	instructions: boolean;
	minutes: boolean;
	seconds: boolean;
	attempts: boolean;
	/** Whether it says that feedback and right answers are shown afterwards, and one's own answers. */
	review: boolean;
	ownAnswers: boolean;
	/** Whether it has a pass mark, of the points of the whole quiz. */
	pass: boolean;
}

/** What of a quiz a format may have no place for, as it is called in the documentation, and what becomes of it there. */
export const quizTraits: { name: keyof QuizLimits; title: string; otherwise: string }[] = [
	{ name: 'carries', title: 'quizzes', otherwise: 'quizzes stay behind, and their questions go' },
	{ name: 'parts', title: 'several parts', otherwise: 'all parts become one' },
	{ name: 'draws', title: 'draws', otherwise: 'a part gives all of its questions' },
	{ name: 'overdraws', title: 'a draw of more than there are', otherwise: 'as many are drawn as there are' },
	{ name: 'points', title: 'points of a part for each question', otherwise: 'questions keep their own points' },
	{ name: 'shuffles', title: 'random order of a part', otherwise: 'a part keeps the order of the file' },
	{ name: 'shares', title: 'a question in several quizzes', otherwise: 'it stands in the first' },
	{
		name: 'sheets',
		title: 'pools, quotas, pairs, groups, orders, dates, the grade, a description',
		otherwise:
			'they are not written; quotas whose numbers come out even become parts that give exactly the same, and drawn forms can be sent instead'
	},
	{ name: 'instructions', title: 'instructions', otherwise: 'they are not written' },
	{ name: 'minutes', title: 'a time limit', otherwise: 'it is not written' },
	{ name: 'seconds', title: 'a time limit in parts of a minute', otherwise: 'it is rounded up to minutes' },
	{ name: 'attempts', title: 'the number of attempts', otherwise: 'it is not written' },
	{ name: 'review', title: 'whether feedback and right answers are shown afterwards', otherwise: 'it is not written' },
	{
		name: 'ownAnswers',
		title: 'whether the student’s own answers are shown afterwards',
		otherwise: 'it is not written'
	},
	{
		name: 'pass',
		title: 'a pass mark, where every student gets the same points',
		otherwise: 'it is not written'
	}
];

/** A format that holds the parts of quizzes, and none of what is around them. */
export const wholeQuizzes: QuizLimits = {
	carries: true,
	parts: true,
	draws: true,
	overdraws: false,
	points: true,
	shuffles: true,
	shares: true,
	sheets: false,
	instructions: false,
	minutes: false,
	seconds: false,
	attempts: false,
	review: false,
	ownAnswers: false,
	pass: false
};

/** A format that holds them to the letter, also what cannot be drawn. */
export const exactQuizzes: QuizLimits = {
	carries: true,
	parts: true,
	draws: true,
	overdraws: true,
	points: true,
	shuffles: true,
	shares: true,
	sheets: true,
	instructions: true,
	minutes: true,
	seconds: true,
	attempts: true,
	review: true,
	ownAnswers: true,
	pass: true
};

/** A format that has no quizzes. */
export const noQuizzes: QuizLimits = { ...wholeQuizzes, carries: false };

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
		const rules = fitRules(quiz, limits, what);
		const plain = limits.sheets ? quiz.parts : plainParts(quiz.parts, what);
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
