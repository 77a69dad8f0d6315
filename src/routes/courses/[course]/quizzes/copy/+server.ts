import { json } from '@sveltejs/kit';
import { object } from 'yup';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { banksToFill } from '$lib/server/banks/fillable';
import { database } from '$lib/server/db/pool';
import { copyQuiz } from '$lib/server/quizzes/copy-quiz';
import { jsonOf, key, requiredKey } from '$lib/server/requests';

const shape = object({ quizId: requiredKey('The quiz'), courseId: key('The course').nullable().default(null) });

/** Copies a quiz in its course, or to another one that the person may work in. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { quizId, courseId } = await jsonOf(request, shape);
	const to = courseId ?? course.id;
	if (to !== course.id) await courseAt(locals, { course: String(to) }, 'work');
	const who = { courseId: course.id, personId: person.id };
	return json({ courseId: to, ...(await refusing(() => copyQuiz(database(), who, quizId, to))) });
};

/** The courses that a quiz can be copied to. */
export const GET = async ({ locals, params }) => {
	const { course, person } = await courseAt(locals, params);
	const courses = await banksToFill(database(), person.id, course.id);
	return json(
		courses.filter(({ courseId }) => courseId !== course.id).map(({ courseId, course: name }) => ({ courseId, name }))
	);
};
