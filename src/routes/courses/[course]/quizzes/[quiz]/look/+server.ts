import { number } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { following, refusing } from '$lib/server/answers';
import { database } from '$lib/server/db/pool';
import { lookAt } from '$lib/server/quizzes/looks';
import { sheetShape } from '$lib/server/quizzes/save';
import { theQuiz } from '$lib/server/quizzes/the-quiz';
import { jsonOf } from '$lib/server/requests';

const shape = sheetShape.shape({ attempts: number().integer().min(1).max(1000).nullable().default(null) });

/** What students get of a sheet as it is edited, or why it cannot be filled. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	const { attempts, ...quiz } = await jsonOf(request, shape);
	await theQuiz(database(), course.id, keyOf(params.quiz));
	const running = await refusing(() => lookAt(course.id, quiz, { figures: true, attempts: attempts ?? null }));
	const result = running.result.then(({ chances: _, ...look }) => look);
	return following(request, { ...running, result });
};
