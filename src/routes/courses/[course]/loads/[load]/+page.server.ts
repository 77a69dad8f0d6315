import { error, fail, redirect } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { banksOf } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { isStale } from '$lib/server/loads/against';
import { loadOf, throwAway } from '$lib/server/loads/loads';
import { parseDecision } from '$core/take-in/decision';
import { reviewState } from '$lib/server/loads/decide';
import { quizTitles } from '$lib/server/loads/found-quizzes';
import { listPage, wholeLoad } from '$lib/server/loads/listed';
import { formOf, jsonIn } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import { fileReports, foundOthers } from '$lib/server/loads/review';
import { ruleSets } from '$lib/server/loads/rules';
import { keptSummary, nameOfLoad } from '$lib/server/loads/summary';
import { usedFiles } from '$lib/server/loads/used-files';
import { threads } from '$lib/server/threads/ask';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const found = await loadOf(db, course.id, keyOf(params.load));
	if (!found) error(404, 'There is no such load in this course.');
	if (found.state === 'taken') redirect(303, `/courses/${course.id}/loads/${found.id}/receipt`);
	if (['uploading', 'waiting', 'reading', 'stopped'].includes(found.state))
		redirect(303, `/courses/${course.id}/loads`);
	if (await isStale(db, course.id, found.id)) await threads().ask('compareAgain', course.id, found.id);
	const summary =
		(await keptSummary(db, course.id, found.id)) ?? (await threads().ask('reviewSummary', course.id, found.id));
	const [page, now, saved, reports, quizzes, others, used, banks] = await Promise.all([
		listPage(db, course.id, found.id, wholeLoad),
		reviewState(db, found.id),
		ruleSets(db, course.id),
		fileReports(db, found.id),
		quizTitles(db, found.id),
		foundOthers(db, found.id),
		usedFiles(db, found.id),
		banksOf(db, course.id)
	]);
	return {
		found,
		name: nameOfLoad('', found.file_name),
		page,
		summary: summary!,
		version: now!.version,
		saved,
		reports,
		quizzes,
		others: { count: others.length, first: others.slice(0, 12) },
		used,
		banks
	};
};

const shape = object({ decision: string().required('Nothing was decided.') });

export const actions = {
	take: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
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
		const { course } = await courseAt(locals, params, 'work');
		const found = await loadOf(database(), course.id, keyOf(params.load));
		if (found && !(await throwAway(database(), found.id)))
			return fail(409, {
				refused: 'This load is in the course or is being worked on, so it cannot be thrown away now.'
			});
		redirect(303, `/courses/${course.id}/loads`);
	}
};
