import { lookInto, totalOf } from '$core/draws/sheets';
import { exactParts } from '$core/draws/sheets/exact-parts';
import type { PartToWrite, QuizToWrite } from '$core/model/quiz';
import { renamedPart, renamedRules, type CarriedPart, type CarriedQuota } from '$core/model/sheet';
import type { Database } from '../db/pool';
import { rows } from '../db/pool';
import { formsById } from '../quizzes/forms';
import { quizOf, type Part, type Quiz } from '../quizzes/quiz';
import { pathsOf, sheetOf, type QuizSheet } from '../quizzes/sheet';
import { told } from '../told';
import type { Consignment } from './consignment';

const named = ({ title }: Part) => `The part “${title}”`;

/** How questions and categories of a sheet are called in a file. */
interface Names {
	/** The place of a question among those that are sent, from 0. */
	placeOf: (id: number) => number | undefined;
	/** The steps of a category below its bank; none for the bank itself, undefined where it is gone. */
	stepsOf: (category: number) => string[] | undefined;
	unsaid: string[];
}

/** The quotas of a part with their categories by name. What counts by whole banks has no meaning in a file of one bank. */
function carriedQuotas(part: Part, { stepsOf, unsaid }: Names): CarriedQuota[] {
	return part.quotas.flatMap((quota): CarriedQuota[] => {
		if (quota.by !== 'category') return [{ ...quota, values: quota.values.map(({ category: _, ...value }) => value) }];
		const steps = quota.values.map(({ category = 0 }) => stepsOf(category));
		if (steps.every((path) => path?.length))
			return [{ ...quota, values: steps.flatMap((category) => (category ? [{ category }] : [])) }];
		unsaid.push(
			`${named(part)} is balanced over whole banks, or over a category that is gone: in a file, which is one bank, that is not written.`
		);
		return [];
	});
}

/** What a part says of its pool, its quotas and its orders, as a file of ours carries it. */
function carriedPart(part: Part, names: Names): CarriedPart<number> {
	const { order, shuffleOptions, withUnder, conditions, include, exclude, questions } = part;
	const pool = {
		categories: part.categories.flatMap((category) => {
			const steps = names.stepsOf(category);
			return steps ? [steps] : [];
		}),
		withUnder,
		conditions,
		include,
		exclude
	};
	const sheet = { order, shuffleOptions, pool: questions.length ? null : pool, quotas: carriedQuotas(part, names) };
	return renamedPart(sheet, names.placeOf);
}

/** A part as it can be written: the questions that it can give, and what its sheet says beside. */
function partToWrite({ plan, ids, pools }: QuizSheet, part: Part, at: number, names: Names): PartToWrite {
	const places = (keys: readonly number[]) => keys.flatMap((id) => names.placeOf(id) ?? []);
	const planned = plan.parts[at]!;
	const given = planned.units.flatMap((unit) => plan.units[unit]!.counted.map((place) => ids[place]!));
	const exact = exactParts(plan, planned)?.map((own) => ({
		...own,
		questions: places(own.questions.map((place) => ids[place]!))
	}));
	return {
		title: part.title,
		draw: part.draw,
		pointsEach: part.pointsEach,
		shuffle: part.order === 'shuffled',
		questions: places(part.questions.length ? pools[at]! : given),
		sheet: carriedPart(part, names),
		...(exact ? { exact } : {})
	};
}

/** What every sitting is worth, where all are worth the same; asked only where a pass mark goes by it. */
function pointsOf(quiz: Quiz, { plan }: QuizSheet): number | null {
	if (quiz.settings.pass === null) return null;
	const looked = lookInto(plan);
	const total = 'sampler' in looked ? totalOf(plan, looked.sampler) : null;
	return total && total.most - total.least < 1e-9 ? total.most : null;
}

async function quizToWrite(db: Database, courseId: number, quizId: number, ids: number[]): Promise<QuizToWrite[]> {
	const quiz = await quizOf(db, courseId, quizId);
	if (!quiz) return [];
	const sheet = await sheetOf(db, courseId, quiz);
	const place = new Map(ids.map((id, at) => [id, at]));
	const paths = pathsOf(sheet.source);
	const names: Names = {
		placeOf: (id) => place.get(id),
		stepsOf: (category) => paths.get(category)?.slice(1),
		unsaid: []
	};
	const banks = new Set(
		quiz.parts.flatMap((part) => part.categories.map((category) => paths.get(category)?.[0] ?? ''))
	);
	if (banks.size > 1) names.unsaid.push(`Its pools draw from ${told(banks.size, 'bank')}, which are one in the file.`);
	const texts = new Set(sheet.source.texts);
	const drawn = new Set(sheet.pools.flat());
	const beside = quiz.rules.together.flat().filter((id) => texts.has(id) && !drawn.has(id)).length;
	if (beside)
		names.unsaid.push(
			`${told(beside, 'text')} that ${beside === 1 ? 'travels' : 'travel'} with a group ${beside === 1 ? 'is' : 'are'} in the file, and given with the group only where the format knows groups.`
		);
	const parts = quiz.parts.map((part, at) => partToWrite(sheet, part, at, names));
	return [
		{
			identifier: `QUIZ-${quizId}`,
			title: quiz.title,
			parts,
			settings: quiz.settings,
			rules: renamedRules(quiz.rules, names.placeOf),
			points: pointsOf(quiz, sheet),
			unsaid: names.unsaid
		}
	];
}

/** The forms of a quiz, each as a quiz whose questions are fixed, in the order of the form. */
async function formsToWrite(db: Database, courseId: number, formsId: number, ids: number[]): Promise<QuizToWrite[]> {
	const sent = await formsById(db, courseId, formsId);
	const quiz = sent && (await quizOf(db, courseId, sent.quizId));
	if (!sent || !quiz) return [];
	const place = new Map(ids.map((id, at) => [id, at]));
	const own = new Map(
		ids.length
			? (
					await rows<{ id: number; points: number | null }>(
						db,
						"SELECT id, IF(kind = 'information', 0, points) AS points FROM questions WHERE course_id = ? AND id IN (?)",
						[courseId, ids]
					)
				).map(({ id, points }) => [id, Number(points ?? 0)])
			: []
	);
	return sent.forms.forms.map(({ name, parts, order }): QuizToWrite => {
		const shown = order.flatMap((at) => {
			const { title = '', pointsEach = null } = sent.forms.parts[at] ?? {};
			const keys = (parts[at] ?? []).filter((id) => place.has(id));
			return keys.length ? [{ title, pointsEach, keys }] : [];
		});
		const points = shown.reduce(
			(sum, { pointsEach, keys }) => sum + keys.reduce((all, id) => all + (pointsEach ?? own.get(id) ?? 0), 0),
			0
		);
		return {
			identifier: `QUIZ-${sent.quizId}-${name}`,
			title: `${sent.forms.title}, form ${name}`,
			settings: { ...quiz.settings, instructions: sent.forms.instructions, minutes: sent.forms.minutes },
			points,
			parts: shown.map(({ title, pointsEach, keys }) => ({
				title,
				pointsEach,
				draw: null,
				shuffle: false,
				questions: keys.flatMap((id) => place.get(id) ?? [])
			}))
		};
	});
}

/**
 * The quizzes of a consignment as they are to be written; what no format says of them is said in each. `ids` are the
 * questions of the consignment in their order.
 */
export async function quizzesToWrite(
	db: Database,
	courseId: number,
	what: Consignment,
	ids: number[]
): Promise<QuizToWrite[]> {
	if ('quizId' in what) return quizToWrite(db, courseId, what.quizId, ids);
	if ('formsId' in what) return formsToWrite(db, courseId, what.formsId, ids);
	return [];
}
