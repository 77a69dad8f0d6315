import type { Schema } from 'yup';
import type { CarriedPart } from '$core/model/sheet';
import {
	conditionsShape,
	quizSettingsShape,
	quotaShape,
	sheetRulesShape,
	type KeptConditions,
	type KeptQuota,
	type KeptRules,
	type QuizSettings
} from '$lib/forms/quiz';
import { row, rows, type Database } from '../db/pool';
import { lostOf, type Lost } from './lost';

/** A part of a quiz as it is edited. It draws from categories, or from questions that are named. */
export interface Part {
	title: string;
	draw: number | null;
	pointsEach: number | null;
	/** How its questions are ordered: by chance, as the list or the bank has them, or by difficulty. */
	order: CarriedPart<number>['order'];
	shuffleOptions: boolean;
	withUnder: boolean;
	/** Keys of categories; a negative one is the bank of that key itself. */
	categories: number[];
	/** The questions that it names, in their order. */
	questions: number[];
	/** What it asks of the questions of its categories. */
	conditions: KeptConditions;
	/** Questions that were taken into its pool, or out of it, by hand. */
	include: number[];
	exclude: number[];
	quotas: KeptQuota[];
	/** What it drew from or named, and that is gone. */
	lost: Lost[];
}

/** A quiz as it is edited. */
export interface Quiz {
	id: number;
	title: string;
	state: 'draft' | 'ready' | 'sent';
	version: number;
	/** The number of the rule by which its sittings are drawn. */
	drawingRule: number;
	rules: KeptRules;
	settings: QuizSettings;
	parts: Part[];
}

/** What is kept as JSON, by its shape: what an earlier edition did not know is filled in. */
function kept<Value>(shape: Schema<Value>, text: string): Value {
	return shape.cast(JSON.parse(text), { assert: false });
}

/** Values by the key of the part that they belong to. */
function byPart<Linked extends { partId: number }, Value>(
	linked: Linked[],
	of: (one: Linked) => Value
): Map<number, Value[]> {
	const found = new Map<number, Value[]>();
	for (const link of linked) {
		const list = found.get(link.partId);
		if (list) list.push(of(link));
		else found.set(link.partId, [of(link)]);
	}
	return found;
}

/** The rules of a sheet as they are kept, as JSON. */
export const keptRules = (text: string): KeptRules => kept(sheetRulesShape, text);

/** The parts of quizzes, by the key of the quiz and in their order. */
export async function partsOf(db: Database, quizIds: readonly number[]): Promise<Map<number, Part[]>> {
	const found = new Map<number, Part[]>(quizIds.map((id) => [id, []]));
	if (!quizIds.length) return found;
	const parts = await rows<{
		id: number;
		quizId: number;
		title: string;
		draw: number | null;
		pointsEach: number | null;
		order: Part['order'];
		shuffleOptions: number;
		withUnder: number;
		conditions: string;
		quotas: string;
	}>(
		db,
		'SELECT id, quiz_id AS quizId, title, draw, points_each AS pointsEach, sequence AS `order`, shuffle_options AS shuffleOptions, with_under AS withUnder, conditions, quotas FROM quiz_parts WHERE quiz_id IN (?) ORDER BY position',
		[quizIds]
	);
	const linked = <Link extends { partId: number }>(columns: string, table: string, order = '') =>
		rows<Link>(
			db,
			`SELECT k.part_id AS partId, ${columns} FROM ${table} k JOIN quiz_parts p ON p.id = k.part_id WHERE p.quiz_id IN (?)${order}`,
			[quizIds]
		);
	const categories = byPart(
		await linked<{ partId: number; categoryId: number }>('k.category_id AS categoryId', 'quiz_part_categories'),
		({ categoryId }) => categoryId
	);
	const banks = byPart(
		await linked<{ partId: number; bankId: number }>('k.bank_id AS bankId', 'quiz_part_banks'),
		({ bankId }) => -bankId
	);
	const questions = byPart(
		await linked<{ partId: number; questionId: number; role: 'listed' | 'included' | 'excluded' }>(
			'k.question_id AS questionId, k.role',
			'quiz_part_questions',
			' ORDER BY k.part_id, k.position, k.question_id'
		),
		(link) => link
	);
	const lost = await lostOf(db, quizIds);
	for (const { id, quizId, shuffleOptions, withUnder, conditions, quotas, ...part } of parts) {
		const inRole = (role: string) =>
			(questions.get(id) ?? []).flatMap((link) => (link.role === role ? [link.questionId] : []));
		found.get(quizId)!.push({
			...part,
			shuffleOptions: Boolean(shuffleOptions),
			withUnder: Boolean(withUnder),
			categories: [...(banks.get(id) ?? []), ...(categories.get(id) ?? [])],
			questions: inRole('listed'),
			conditions: kept(conditionsShape, conditions),
			include: inRole('included'),
			exclude: inRole('excluded'),
			quotas: (JSON.parse(quotas) as object[]).map((quota) => kept(quotaShape, JSON.stringify(quota))),
			lost: lost.get(id) ?? []
		});
	}
	return found;
}

/** One quiz of a course. */
export async function quizOf(db: Database, courseId: number, quizId: number): Promise<Quiz | undefined> {
	const quiz = await row<Omit<Quiz, 'parts' | 'rules' | 'settings'> & { rules: string; settings: string }>(
		db,
		'SELECT id, title, state, version, drawing_rule AS drawingRule, rules, settings FROM quizzes WHERE id = ? AND course_id = ?',
		[quizId, courseId]
	);
	if (!quiz) return undefined;
	return {
		...quiz,
		rules: keptRules(quiz.rules),
		settings: kept(quizSettingsShape, quiz.settings),
		parts: (await partsOf(db, [quizId])).get(quizId)!
	};
}
