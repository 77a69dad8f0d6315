import type { Pool } from 'mysql2/promise';
import { letterAt } from '$core/paper/letters';
import { lookInto } from '$core/draws/sheets';
import { apart, type ApartSittings } from '$core/draws/sheets/apart';
import { sittingOf } from '$core/draws/sheets/sitting';
import { Generator } from '$core/numbers/generator';
import { Refused } from '../loads/refused';
import { row, rows, run, type Database } from '../db/pool';
import type { Changer } from '../banks/change';
import { quizOf } from './quiz';
import { sheetOf } from './sheet';
import { withTitles } from './titles';

/** One form: its letter, and the questions of each part in their order. */
export interface PaperForm {
	name: string;
	/** Names it for the order of options and for numbers. */
	seed: string;
	parts: number[][];
	/** The numbers of the parts as they are shown. */
	order: number[];
}

/** Forms as they were made: all that printing and marking need beside the questions themselves. */
export interface PaperForms {
	title: string;
	instructions: string;
	minutes: number | null;
	parts: { title: string; pointsEach: number | null; shuffleOptions: boolean }[];
	fixedOptions: number[];
	forms: PaperForm[];
	/** Whether all have the same questions, in other orders. */
	same: boolean;
	/** How many questions each two share, in all, and the least that was possible. */
	shared: number[][];
	reached: number;
	least: number;
	/** The version of each question when they were made, by its key. */
	versions: Record<number, number>;
}

/** The forms of a quiz, for a list. */
export interface FormsRow {
	id: number;
	made: Date;
	by: string | null;
	forms: PaperForms;
	/** How many of their questions have changed since, and how many are gone. */
	changed: number;
	gone: number;
}

/** How forms are asked for. */
export interface FormsAsked {
	count: number;
	same: boolean;
	seed: string;
}

/**
 * Makes forms of a quiz for paper, with as little in common as can be found or with the same questions in other orders;
 * gives their key. Throws Refused where the quiz cannot be filled.
 */
export async function makeForms(
	pool: Pool,
	{ courseId, personId }: Changer,
	quizId: number,
	{ count, same, seed }: FormsAsked
): Promise<number> {
	const quiz = await quizOf(pool, courseId, quizId);
	if (!quiz) throw new Refused('That quiz is gone meanwhile.');
	const sheet = await sheetOf(pool, courseId, quiz);
	const looked = lookInto(sheet.plan);
	if ('conflict' in looked)
		throw new Refused(await withTitles(pool, courseId, `No form can be drawn. ${looked.conflict.message}`));
	if ('unknown' in looked) throw new Refused(looked.unknown);
	const { plan, sampler } = looked;
	const made: ApartSittings = same ? inOtherOrders() : apart(plan, sampler, count, seed);
	function inOtherOrders(): ApartSittings {
		const filling = new Map(sampler.draw(new Generator(seed)));
		const sittings = Array.from({ length: count }, (_, at) => {
			const own = `${seed}/${at + 1}`;
			return sittingOf(plan, filling, own, new Generator(own));
		});
		const size = sittings[0]!.parts.flat().length;
		const shared = sittings.map((_, at) => Array.from({ length: count - at - 1 }, () => size));
		const all = (size * count * (count - 1)) / 2;
		return { sittings, shared, reached: all, least: all };
	}
	const forms = made.sittings.map(({ seed: own, parts, order }, at): PaperForm => {
		const keys = parts.map((list) => list.map((place) => sheet.ids[place]!));
		return { name: letterAt(at), seed: own, parts: keys, order: order ?? [...parts.keys()] };
	});
	const ids = [...new Set(forms.flatMap(({ parts }) => parts.flat()))];
	if (!ids.length) throw new Refused('The quiz gives no question yet. Choose what its parts draw from.');
	const versions = await rows<{ id: number; version: number }>(
		pool,
		'SELECT id, version FROM questions WHERE id IN (?)',
		[ids]
	);
	const document: PaperForms = {
		title: quiz.title,
		instructions: quiz.settings.instructions,
		minutes: quiz.settings.minutes,
		parts: quiz.parts.map(({ title, pointsEach, shuffleOptions }) => ({ title, pointsEach, shuffleOptions })),
		fixedOptions: quiz.rules.fixedOptions,
		forms,
		same,
		shared: made.shared,
		reached: made.reached,
		least: made.least,
		versions: Object.fromEntries(versions.map(({ id, version }) => [id, version]))
	};
	const { id } = await run(pool, 'INSERT INTO quiz_forms (quiz_id, made_by, document) VALUES (?, ?, ?)', [
		quizId,
		personId,
		JSON.stringify(document)
	]);
	return id;
}

/** So many sets of forms are listed. */
const mostListed = 20;

/** The forms that were made of a quiz, the latest first. */
export async function formsOf(db: Database, courseId: number, quizId: number): Promise<FormsRow[]> {
	// by_quiz
	const found = await rows<{ id: number; made: Date; by: string | null; document: string }>(
		db,
		'SELECT f.id, f.made, p.name AS `by`, f.document FROM quiz_forms f JOIN quizzes z ON z.id = f.quiz_id LEFT JOIN people p ON p.id = f.made_by WHERE z.course_id = ? AND f.quiz_id = ? ORDER BY f.id DESC LIMIT ?',
		[courseId, quizId, mostListed]
	);
	const sets = found.map(({ document, ...forms }) => ({ ...forms, forms: JSON.parse(document) as PaperForms }));
	const ids = [...new Set(sets.flatMap(({ forms }) => Object.keys(forms.versions)))];
	const now = ids.length
		? await rows<{ id: number; version: number }>(
				db,
				'SELECT id, version FROM questions WHERE course_id = ? AND id IN (?)',
				[courseId, ids]
			)
		: [];
	const versions = new Map(now.map(({ id, version }) => [id, version]));
	return sets.map((set) => {
		const kept = Object.entries(set.forms.versions).map(([id, version]) => ({
			version,
			now: versions.get(Number(id))
		}));
		return {
			...set,
			changed: kept.filter(({ version, now: is }) => is !== undefined && is !== version).length,
			gone: kept.filter(({ now: is }) => is === undefined).length
		};
	});
}

/** One set of forms of a quiz; undefined where there is none such. */
export async function formsAt(
	db: Database,
	courseId: number,
	quizId: number,
	id: number
): Promise<PaperForms | undefined> {
	const found = await row<{ document: string }>(
		db,
		'SELECT f.document FROM quiz_forms f JOIN quizzes z ON z.id = f.quiz_id WHERE z.course_id = ? AND f.quiz_id = ? AND f.id = ?',
		[courseId, quizId, id]
	);
	return found && (JSON.parse(found.document) as PaperForms);
}

/** A set of forms of a course by its key alone, with the quiz that it was made of; undefined where there is none such. */
export async function formsById(
	db: Database,
	courseId: number,
	id: number
): Promise<{ quizId: number; forms: PaperForms } | undefined> {
	const found = await row<{ quizId: number; document: string }>(
		db,
		'SELECT f.quiz_id AS quizId, f.document FROM quiz_forms f JOIN quizzes z ON z.id = f.quiz_id WHERE z.course_id = ? AND f.id = ?',
		[courseId, id]
	);
	return found && { quizId: found.quizId, forms: JSON.parse(found.document) as PaperForms };
}

/** Throws a set of forms away. */
export async function dropForms(db: Database, courseId: number, quizId: number, id: number): Promise<void> {
	await run(
		db,
		'DELETE f FROM quiz_forms f JOIN quizzes z ON z.id = f.quiz_id WHERE z.course_id = ? AND f.quiz_id = ? AND f.id = ?',
		[courseId, quizId, id]
	);
}
