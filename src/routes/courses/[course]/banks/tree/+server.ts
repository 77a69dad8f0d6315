import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { changeTree, treeShape, type TreeAsked } from '$lib/server/banks/asked';
import { jsonOf } from '$lib/server/requests';

/** Changes banks and their categories: makes, renames, moves, merges, sorts, numbers, carries elsewhere, takes away. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const asked = (await jsonOf(request, treeShape)) as TreeAsked;
	return json(await refusing(() => changeTree(course.id, person.id, asked)));
};
