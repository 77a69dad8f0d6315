import { string } from 'yup';
import { courseAt } from '$lib/server/access';
import { following } from '$lib/server/answers';
import { asideChosen } from '$lib/server/loads/aside-list';
import { jsonOf } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

const tasks = { take: 'takeAside', leave: 'leaveOut', back: 'setAsideAgain' } as const;
const shape = asideChosen.shape({
	do: string()
		.oneOf(['take', 'leave', 'back'] as const)
		.required('Say what becomes of them')
});

/** Takes in what was set aside, leaves it out, or sets what was left out aside again. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { do: what, ...chosen } = await jsonOf(request, shape);
	const who = { courseId: course.id, personId: person.id };
	return following(
		request,
		what === 'back' ? threads().begin(tasks.back, who, chosen.ids ?? []) : threads().begin(tasks[what], who, chosen)
	);
};
