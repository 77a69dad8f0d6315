import { fail } from '@sveltejs/kit';
import { array, number, object, string, ValidationError } from 'yup';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { formOf, jsonIn } from '$lib/server/requests';
import { asideRows, settleAside } from '$lib/server/loads/aside';
import { threads } from '$lib/server/threads/ask';
import { Refused } from '$lib/server/loads/refused';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	return { questions: await asideRows(database(), course.id) };
};

const shape = object({
	what: string()
		.oneOf(['take', 'leave'] as const)
		.required(),
	questions: array(
		object({
			id: number().integer().positive().required(),
			loadId: number().integer().positive().required()
		})
	)
		.required()
		.max(20_000)
});

export const actions = {
	default: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		const db = database();
		try {
			const given = await formOf(request, object({ what: string(), questions: string().required() }));
			const { what, questions } = shape.validateSync({ what: given.what, questions: jsonIn(given.questions) });
			let done = 0;
			// each load for itself: its rules and its bank are its own
			for (const loadId of new Set(questions.map((one) => one.loadId))) {
				const ids = questions.filter((one) => one.loadId === loadId).map((one) => one.id);
				done +=
					what === 'take'
						? await threads().ask('takeAside', course.id, loadId, person.id, ids)
						: await settleAside(db, course.id, loadId, person.id, ids, 'left');
			}
			return { done, what };
		} catch (cause) {
			if (cause instanceof Refused || cause instanceof ValidationError) return fail(409, { refused: cause.message });
			throw cause;
		}
	}
};
