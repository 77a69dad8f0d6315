import { array, boolean, number, object } from 'yup';
import { courseAt } from '$lib/server/access';
import { following } from '$lib/server/answers';
import { jsonOf, key } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

const shape = object({
	ids: array(number().integer().min(1).required()).max(20_000).default([]),
	bank: key('The bank').nullable().default(null)
});

/** Puts questions, or a bank, back out of the bin. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { ids, bank } = await jsonOf(request, shape);
	return following(
		request,
		bank
			? threads().begin('putBankBack', course.id, person.id, bank)
			: threads().begin('putBackFromBin', course.id, person.id, ids)
	);
};

const sure = object({ forGood: boolean().isTrue('Say that it is for good.').required('Say that it is for good.') });

/** Empties the bin for good. */
export const DELETE = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'manage');
	// in the archive nothing is changed, also by who manages
	await courseAt(locals, params, 'work');
	await jsonOf(request, sure);
	return following(request, threads().begin('emptyBin', course.id, person.id));
};
