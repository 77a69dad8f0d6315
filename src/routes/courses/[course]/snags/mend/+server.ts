import { object, string } from 'yup';
import { courseAt } from '$lib/server/access';
import { following } from '$lib/server/answers';
import { jsonOf, key, wholeNumber } from '$lib/server/requests';
import { snagFilterShape } from '$lib/server/snags/filter';
import { threads } from '$lib/server/threads/ask';

const asked = object({
	check: string().max(60).required('The check is not named'),
	question: key('The question'),
	version: wholeNumber('The version'),
	within: snagFilterShape
});

/** Mends one question, or all that a filter finds; what takes longer tells how far it is and can be stopped. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { check, question, version, within } = await jsonOf(request, asked);
	return following(
		request,
		check === 'exact-duplicate' && !question
			? threads().begin('keepOneOfEach', course.id, person.id, within)
			: threads().begin('mend', course.id, person.id, check, question ?? null, version ?? null, within)
	);
};
