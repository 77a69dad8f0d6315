import { courseCopy } from '$lib/forms/course';
import { courseAt } from '$lib/server/access';
import { following } from '$lib/server/answers';
import { jsonOf } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

/** Copies the course under another code. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'manage');
	const { quizzes, rules, ...details } = await jsonOf(request, courseCopy);
	const what = { quizzes: quizzes === 'on', rules: rules === 'on' };
	return following(request, threads().begin('copyCourse', course.id, person.id, details, what));
};
