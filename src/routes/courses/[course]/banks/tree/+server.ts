import { courseAt } from '$lib/server/access';
import { following, refusing } from '$lib/server/answers';
import { carryShape, changeTree, treeShape, type TreeAsked } from '$lib/server/banks/asked';
import { jsonOf } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

/**
 * Changes banks and their categories: makes, renames, moves, merges, sorts, numbers, carries elsewhere, takes away. With
 * `preview` it says what carrying categories elsewhere would come to.
 */
export const POST = async ({ locals, params, request, url }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	if (url.searchParams.has('preview')) {
		const { bankId, categories, to } = await jsonOf(request, carryShape);
		const who = { courseId: course.id, personId: person.id };
		return following(request, threads().begin('carryPreview', who, bankId, categories, to));
	}
	const asked = (await jsonOf(request, treeShape)) as TreeAsked;
	return following(request, await refusing(() => changeTree(course.id, person.id, asked)));
};
