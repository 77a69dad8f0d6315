import { exactParts } from '$core/draws/sheets/exact-parts';
import type { QuizToWrite } from '$core/model/quiz';
import type { QuizSettings } from '$lib/forms/quiz';
import type { Database } from '../db/pool';
import { quizOf, type Part, type Quiz } from '../quizzes/quiz';
import { sheetOf, type QuizSheet } from '../quizzes/sheet';
import { told } from '../told';

const named = ({ title }: Part) => `The part “${title}”`;

/** What is around a quiz and no format here has a place for, in a sentence; nothing where nothing is. */
function unsaidSettings(settings: QuizSettings): string[] {
	const { minutes, attempts, opens, due, closes, description, instructions, pass, gradeName, gradePoints } = settings;
	const said = [
		...(description ? ['its description'] : []),
		...(instructions ? ['its instructions'] : []),
		...(minutes === null ? [] : [`the time limit of ${minutes} minutes`]),
		...(attempts === null
			? []
			: [attempts === 1 ? 'that there is one attempt' : `that there are ${attempts} attempts`]),
		...(opens || due || closes ? ['its dates'] : []),
		...(pass === null ? [] : [`the pass mark of ${pass} %`]),
		...(gradeName || gradePoints !== null ? ['its grade'] : [])
	];
	if (!said.length) return [];
	const list = said.length === 1 ? said[0]! : `${said.slice(0, -1).join(', ')} and ${said.at(-1)!}`;
	return [`What is around it is not written: ${list}. Set it where the quiz is taught.`];
}

/** What holds for a whole quiz and no format has a place for. */
function unsaidRules({ rules, parts, settings }: Quiz): string[] {
	const { never, together, partsShuffled, fixedOptions } = rules;
	return [
		...(never.length
			? [`${told(never.length, 'pair')} that never ${never.length === 1 ? 'comes' : 'come'} together may do so there.`]
			: []),
		...(together.length
			? [`${told(together.length, 'group')} that ${together.length === 1 ? 'comes' : 'come'} whole may be torn there.`]
			: []),
		...(partsShuffled ? ['Its parts are given in their order, not in a random one.'] : []),
		...(fixedOptions.length || parts.some((part) => !part.shuffleOptions)
			? ['Options are shuffled as each question says, whatever the quiz says of them.']
			: []),
		...unsaidSettings(settings)
	];
}

type WrittenPart = QuizToWrite['parts'][number];

/** A part as it can be written, without what no format has a place for, which is noted. */
function writtenParts(
	sheet: QuizSheet,
	part: Part,
	at: number,
	placeOf: (ids: number[]) => number[],
	unsaid: string[]
): WrittenPart[] {
	const { plan, ids, pools } = sheet;
	const { pointsEach, order, draw, title } = part;
	if (order === 'easy first')
		unsaid.push(`${named(part)} is given in the order of the file, not with the easy ones first.`);
	const same = { pointsEach, shuffle: order === 'shuffled' };
	if (!part.quotas.length) return [{ ...same, title, draw, questions: placeOf(pools[at]!) }];
	const exact = exactParts(plan, plan.parts[at]!);
	if (!exact) {
		unsaid.push(
			`${named(part)} draws from its whole pool, without its quotas. Balance it equally by numbers that come out even, and it is written as parts that are exactly the same.`
		);
		return [{ ...same, title, draw, questions: placeOf(pools[at]!) }];
	}
	unsaid.push(`${named(part)} becomes ${told(exact.length, 'part')}, which give exactly the same by its quotas.`);
	return exact.map((own) => ({
		...same,
		title: own.title,
		draw: own.draw,
		questions: placeOf(own.questions.map((place) => ids[place]!))
	}));
}

/** A quiz as it is to be written, with what no format says of it; `ids` are the questions of the consignment in their order. */
export async function quizToWrite(
	db: Database,
	courseId: number,
	quizId: number,
	ids: number[]
): Promise<QuizToWrite[]> {
	const quiz = await quizOf(db, courseId, quizId);
	if (!quiz) return [];
	const sheet = await sheetOf(db, courseId, quiz);
	const place = new Map(ids.map((id, at) => [id, at]));
	const placeOf = (keys: number[]) => keys.flatMap((id) => place.get(id) ?? []);
	const unsaid: string[] = [];
	const parts = quiz.parts.flatMap((part, at) => writtenParts(sheet, part, at, placeOf, unsaid));
	return [{ identifier: `QUIZ-${quizId}`, title: quiz.title, parts, unsaid: [...unsaid, ...unsaidRules(quiz)] }];
}
