import { error, fail, redirect } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { banksOf } from '$lib/server/banks/banks';
import { categoryTree } from '$lib/server/banks/tree';
import { database } from '$lib/server/db/pool';
import { loadOf, throwAway } from '$lib/server/loads/loads';
import { parseDecision } from '$core/take-in/decision';
import { reviewState } from '$lib/server/loads/decide';
import { formOf, jsonIn } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import {
	fileReports,
	foundOthers,
	foundQuizzes,
	likelyBank,
	sourcesOf,
	stagedRows,
	usedFiles
} from '$lib/server/loads/review';
import { ruleSets, rulesOf } from '$lib/server/loads/rules';
import { threads } from '$lib/server/threads/ask';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const one = await loadOf(db, course.id, keyOf(params.load));
	if (!one) error(404, 'There is no such load in this course.');
	if (one.state === 'taken') redirect(303, `/courses/${course.id}/loads/${one.id}/receipt`);
	if (['uploading', 'waiting', 'reading', 'stopped'].includes(one.state)) redirect(303, `/courses/${course.id}/loads`);
	await threads().ask('compareAgain', course.id, one.id);
	const [questions, now, remembered, saved, reports, quizzes, others, sources, used, banks] = await Promise.all([
		stagedRows(db, course.id, one.id),
		reviewState(db, one.id),
		rulesOf(db, course.id),
		ruleSets(db, course.id),
		fileReports(db, one.id),
		foundQuizzes(db, one.id),
		foundOthers(db, one.id),
		sourcesOf(db, one.id),
		usedFiles(db, one.id),
		banksOf(db, course.id)
	]);
	const trees = await Promise.all(banks.map((bank) => categoryTree(db, bank.id)));
	const withPaths = banks.map((bank, at) => ({ ...bank, paths: trees[at]!.map((node) => node.key) }));
	return {
		likely: await likelyBank(db, one.id, withPaths),
		one,
		questions,
		now: now!,
		remembered,
		saved,
		reports,
		quizzes,
		others,
		sources,
		used,
		banks: withPaths
	};
};

const shape = object({ decision: string().required('Nothing was decided.') });

export const actions = {
	take: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'change');
		try {
			const decision = parseDecision(jsonIn((await formOf(request, shape)).decision));
			await threads().ask('takeIn', course.id, keyOf(params.load), person.id, decision);
		} catch (cause) {
			if (cause instanceof Refused || cause instanceof ValidationError) return fail(409, { refused: cause.message });
			throw cause;
		}
		redirect(303, `/courses/${course.id}/loads/${params.load}/receipt`);
	},
	away: async ({ locals, params }) => {
		const { course } = await courseAt(locals, params, 'change');
		const one = await loadOf(database(), course.id, keyOf(params.load));
		if (one && !(await throwAway(database(), one.id)))
			return fail(409, {
				refused: 'This load is in the course or is being worked on, so it cannot be thrown away now.'
			});
		redirect(303, `/courses/${course.id}/loads`);
	}
};
