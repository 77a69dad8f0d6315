import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { countsOf } from '$lib/server/courses/counts';
import { database } from '$lib/server/db/pool';
import { bankTrees } from '$lib/server/quizzes/pools';
import { makeSeries, seriesShape } from '$lib/server/quizzes/series';
import { jsonOf } from '$lib/server/requests';

/** The banks and categories that quizzes can be made over, with how many questions each has to draw. */
export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	return json(await bankTrees(db, course.id, await countsOf(db, course.id)));
};

/** Makes a quiz for each of some categories, by one sheet. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const series = await jsonOf(request, seriesShape);
	const who = { courseId: course.id, personId: person.id };
	return json({ quizIds: await refusing(() => makeSeries(database(), who, series)) });
};
