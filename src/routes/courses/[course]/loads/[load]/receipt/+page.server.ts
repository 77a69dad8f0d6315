import { error, fail, redirect } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { loadOf } from '$lib/server/loads/loads';
import { receipt, receiptQuestions } from '$lib/server/loads/receipt';
import { Refused, undo, undoPreview } from '$lib/server/loads/take-in';
import { fileReports } from '$lib/server/loads/review';

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const one = await loadOf(db, course.id, keyOf(params.load));
	if (!one) error(404, 'There is no such load in this course.');
	if (one.state !== 'taken') redirect(303, `/courses/${course.id}/loads/${one.id}`);
	const outcome =
		(['taken', 'aside', 'left'] as const).find((name) => name === url.searchParams.get('outcome')) ?? null;
	const category = url.searchParams.get('category');
	const listed = url.searchParams.has('outcome') || category !== null;
	const [lines, questions, back, reports] = await Promise.all([
		receipt(db, one.id),
		listed ? receiptQuestions(db, one.id, outcome, category) : [],
		undoPreview(db, one.id),
		fileReports(db, one.id)
	]);
	return { one, lines, questions, back, reports, outcome, category, listed };
};

export const actions = {
	undo: async ({ locals, params }) => {
		const { course, person } = await courseAt(locals, params, 'change');
		try {
			await undo(database(), course.id, keyOf(params.load), person.id);
		} catch (cause) {
			if (cause instanceof Refused) return fail(409, { refused: cause.message });
			throw cause;
		}
		redirect(303, `/courses/${course.id}/loads/${params.load}`);
	}
};
