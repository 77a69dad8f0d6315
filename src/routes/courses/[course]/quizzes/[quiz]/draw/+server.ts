import { json } from '@sveltejs/kit';
import { array, string } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { database } from '$lib/server/db/pool';
import { sheetShape } from '$lib/server/quizzes/save';
import { theQuiz } from '$lib/server/quizzes/the-quiz';
import { jsonOf } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

const shape = sheetShape.shape({
	seeds: array(string().max(200, 'A seed has 200 letters at the most.').required()).min(1).max(1000).required()
});

/** Sittings of a sheet as it is edited, by their seeds. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	const { seeds, drawingRule, ...sheet } = await jsonOf(request, shape);
	const quiz = await theQuiz(database(), course.id, keyOf(params.quiz));
	const drawn = { ...sheet, drawingRule: drawingRule ?? quiz.drawingRule };
	return json(await refusing(() => threads().ask('sittingsOf', course.id, drawn, seeds)));
};
