import { courseAt, keyOf } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { countsOf } from '$lib/server/courses/counts';
import { database } from '$lib/server/db/pool';
import { lookAt } from '$lib/server/quizzes/looks';
import { bankTrees } from '$lib/server/quizzes/pools';
import { theQuiz } from '$lib/server/quizzes/the-quiz';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const quiz = await theQuiz(db, course.id, keyOf(params.quiz));
	const running = await lookAt(course.id, quiz, { figures: false, attempts: null });
	const { chances: _, ...look } = await refusing(() => running.result);
	return { quiz, tree: await bankTrees(db, course.id, await countsOf(db, course.id)), look };
};
