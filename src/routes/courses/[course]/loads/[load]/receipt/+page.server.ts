import { error, fail, redirect } from '@sveltejs/kit';
import { number, object, string } from 'yup';
import { kinds } from '$core/kinds';
import type { Outcome } from '$core/take-in/planned-question';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { compareElsewhere, keepTold } from '$lib/server/loads/elsewhere';
import { loadOf, loadsOf } from '$lib/server/loads/loads';
import { receipt, receiptHead, receiptQuestions, receiptSnags } from '$lib/server/loads/receipt';
import { outcomeNames } from '$lib/server/loads/receipt-file';
import { keyIn, plainFormOf } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import { fileReports } from '$lib/server/loads/review';
import { undo, undoPreview } from '$lib/server/loads/undo';

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const taken = await loadOf(db, course.id, keyOf(params.load));
	if (!taken) error(404, 'There is no such load in this course.');
	if (taken.state !== 'taken') redirect(303, `/courses/${course.id}/loads/${taken.id}`);
	const asked = url.searchParams.get('outcome') ?? '';
	const outcome = Object.hasOwn(outcomeNames, asked) ? (asked as Outcome) : null;
	const category = url.searchParams.get('category');
	const kind = kinds.find((name) => name === url.searchParams.get('kind')) ?? null;
	const other = keyIn(url, 'against');
	const listed = url.searchParams.has('outcome') || category !== null || kind !== null;
	const [lines, snags, head, questions, back, reports, loads, elsewhere] = await Promise.all([
		receipt(db, taken.id),
		receiptSnags(db, taken.id),
		receiptHead(db, taken.id),
		listed ? receiptQuestions(db, taken.id, outcome, category, kind) : [],
		undoPreview(db, taken.id),
		fileReports(db, taken.id),
		loadsOf(db, course.id),
		other ? compareElsewhere(db, course.id, taken.id, other) : null
	]);
	return {
		taken,
		lines,
		snags,
		head,
		questions,
		back,
		reports,
		outcome,
		category,
		kind,
		listed,
		elsewhere,
		others: loads
			.filter((load) => load.id !== taken.id && ['review', 'undone', 'taken'].includes(load.state))
			.map(({ id, file_name }) => ({ id, file_name }))
	};
};

const undoShape = object({ changed: string().max(10).default('') });
const toldShape = object({ told: string().max(2000).default('') });

export const actions = {
	undo: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		const keep = (await plainFormOf(request, undoShape)).changed === 'keep';
		try {
			await undo(database(), course.id, keyOf(params.load), person.id, keep);
		} catch (cause) {
			if (cause instanceof Refused) return fail(409, { refused: cause.message });
			throw cause;
		}
		redirect(303, `/courses/${course.id}/loads/${params.load}`);
	},
	told: async ({ locals, params, request }) => {
		const { course } = await courseAt(locals, params, 'work');
		// what is pasted may be a sentence with the number in it
		const text = (await plainFormOf(request, toldShape)).told;
		const found = /\d[\d.,\s]*/.exec(text)?.[0].replace(/[^\d]/g, '') ?? '';
		const told = found === '' ? null : Number(found);
		if (told !== null && !number().integer().min(0).max(10_000_000).isValidSync(told))
			return fail(400, { refused: 'That is no number of questions.' });
		await keepTold(database(), course.id, keyOf(params.load), told);
		return undefined;
	}
};
