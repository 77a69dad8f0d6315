import { courseAt } from '$lib/server/access';
import { following } from '$lib/server/answers';
import { bulkShape, type Bulk } from '$lib/server/changes/bulk';
import { jsonOf } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

/** Does something to chosen questions, or with `preview` says what that would change. */
export const POST = async ({ locals, params, request, url }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const bulk = (await jsonOf(request, bulkShape)) as Bulk;
	const task = url.searchParams.has('preview') ? 'previewBulk' : 'doBulk';
	return following(request, threads().begin(task, course.id, person.id, bulk));
};
