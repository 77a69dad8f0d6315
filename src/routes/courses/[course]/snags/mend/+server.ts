import { json } from '@sveltejs/kit';
import { object, string } from 'yup';
import { courseAt } from '$lib/server/access';
import { following } from '$lib/server/answers';
import { jsonOf, key, wholeNumber } from '$lib/server/requests';
import { database } from '$lib/server/db/pool';
import { askedFor, mendSoon, mostWaitedFor } from '$lib/server/snags/mending';
import { snagFilterShape } from '$lib/server/snags/filter';
import { threads } from '$lib/server/threads/ask';

const asked = object({
	check: string().max(60).required('The check is not named'),
	question: key('The question'),
	version: wholeNumber('The version'),
	within: snagFilterShape
});

/**
 * Mends one question, or all that a filter finds: what takes longer tells how far it is and can be stopped, and very many
 * are mended in the background.
 */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { check, question, version, within } = await jsonOf(request, asked);
	const total = question ? 1 : await askedFor(database(), course.id, check, within);
	if (total > mostWaitedFor)
		return json({ mending: await mendSoon(database(), course.id, person.id, check, within, total) });
	return following(
		request,
		check === 'exact-duplicate' && !question
			? threads().begin('keepOneOfEach', course.id, person.id, within)
			: threads().begin('mend', course.id, person.id, check, question ?? null, version ?? null, within)
	);
};
