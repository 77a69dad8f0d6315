import type { Pool } from 'mysql2/promise';
import { drawSitting } from '$core/draws/sitting';
import { lookInto } from '$core/draws/sheets';
import { pointsOf, sittingOf } from '$core/draws/sheets/sitting';
import { Generator } from '$core/numbers/generator';
import { Refused } from '../loads/refused';
import { sheetOf, type DrawnQuiz, type QuizSheet } from './sheet';

/** One student's copy of a quiz: the keys of the questions of each part, in their order. */
export interface QuizSitting {
	seed: string;
	parts: number[][];
	/** The numbers of the parts as they are shown. */
	order: number[];
	points: number;
}

/** Draws by rule 1: part after part from what is left, as quizzes that are older than draw sheets have it. */
function byFirstRule({ plan, ids, pools }: QuizSheet, quiz: DrawnQuiz, seeds: readonly string[]): QuizSitting[] {
	const place = new Map(ids.map((id, at) => [id, at]));
	const parts = quiz.parts.map(({ draw, order }, at) => ({ pool: pools[at]!, draw, shuffle: order === 'shuffled' }));
	return seeds.flatMap((seed) => {
		const sitting = drawSitting(parts, seed);
		if (!sitting) return [];
		const points = pointsOf(
			plan,
			sitting.parts.map((list) => list.map((id) => place.get(id)!))
		);
		return [{ seed, parts: sitting.parts, order: [...parts.keys()], points }];
	});
}

/**
 * Sittings of a quiz by their seeds, by the rule that it has: the same quiz, banks and seed give the same. Throws Refused
 * where it cannot be filled, with the reason.
 */
export async function sittingsOf(
	db: Pool,
	courseId: number,
	quiz: DrawnQuiz & { drawingRule: number },
	seeds: readonly string[]
): Promise<QuizSitting[]> {
	const sheet = await sheetOf(db, courseId, quiz);
	if (quiz.drawingRule === 1) {
		const drawn = byFirstRule(sheet, quiz, seeds);
		if (drawn.length < seeds.length) throw new Refused('No sitting can be drawn as the sheet stands.');
		return drawn;
	}
	const looked = lookInto(sheet.plan);
	if ('conflict' in looked)
		throw new Refused(`No sitting can be drawn as the sheet stands. ${looked.conflict.message}`);
	if ('unknown' in looked) throw new Refused(looked.unknown);
	return seeds.map((seed) => {
		const generator = new Generator(seed);
		const { parts, order, points } = sittingOf(sheet.plan, looked.sampler.draw(generator), seed, generator);
		return {
			seed,
			parts: parts.map((list) => list.map((place) => sheet.ids[place]!)),
			order: order ?? [...parts.keys()],
			points
		};
	});
}
