import { json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { alikePairs } from '$lib/server/quizzes/alike';
import { namedQuestions } from '$lib/server/quizzes/pool-page';
import { sheetShape } from '$lib/server/quizzes/save';
import { theQuiz } from '$lib/server/quizzes/the-quiz';
import { jsonOf } from '$lib/server/requests';

/** Pairs of questions in the pools of a sheet that are alike, with what they are called. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	await theQuiz(database(), course.id, keyOf(params.quiz));
	const pairs = await alikePairs(database(), course.id, await jsonOf(request, sheetShape));
	const ids = [...new Set(pairs.flatMap(({ one, other }) => [one, other]))];
	return json({ pairs, questions: await namedQuestions(database(), course.id, ids) });
};
