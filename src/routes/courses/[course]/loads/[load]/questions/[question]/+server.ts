import { error, json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { reviewState } from '$lib/server/loads/decide';
import { handIn } from '$lib/server/loads/hand-in';
import { loadOf } from '$lib/server/loads/loads';
import { threads } from '$lib/server/threads/ask';
import { limited } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import { stagedQuestion } from '$lib/server/loads/review';

export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const load = await loadOf(database(), course.id, keyOf(params.load));
	const found = load && (await stagedQuestion(database(), course.id, load.id, keyOf(params.question)));
	if (!found) error(404, 'There is no such question in this load.');
	return json(found);
};

/** The most bytes of a file that is handed in. */
const mostHandedIn = 100 * 2 ** 20;

/** Hands in a file that a question lacks: `name` as the question calls it, `file` as it was called where it came from. */
export const PUT = async ({ locals, params, request, url }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const db = database();
	const load = await loadOf(db, course.id, keyOf(params.load));
	if (!load || !request.body) error(404, 'There is no such question in this load.');
	try {
		const given = await handIn(
			db,
			course.id,
			load.id,
			person.id,
			{
				stagedId: keyOf(params.question),
				name: (url.searchParams.get('name') ?? '').slice(0, 1000),
				fileName: (url.searchParams.get('file') ?? '').slice(0, 1000),
				pieces: limited(request.body, mostHandedIn)
			},
			(arrived) => threads().ask('putInPlace', course.id, load.id, person.id, arrived)
		);
		return json({
			given,
			now: await reviewState(db, load.id),
			summary: await threads().ask('reviewSummary', course.id, load.id)
		});
	} catch (cause) {
		if (cause instanceof Refused) error(409, cause.message);
		throw cause;
	}
};
