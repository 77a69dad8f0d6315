import { json } from '@sveltejs/kit';
import { number, object, string } from 'yup';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { chosenShape } from '$lib/server/banks/filter';
import { database } from '$lib/server/db/pool';
import { addToQuiz, quizChoices, quizOfChosen } from '$lib/server/quizzes/make';
import { jsonOf, key } from '$lib/server/requests';

const shape = object({
	chosen: chosenShape.required(),
	title: string().trim().max(255, 'A title has 255 letters at the most.').default(''),
	/** The quiz that they are added to, and the part of it that lists them; a new quiz, or a new part, where these are missing. */
	quizId: key('The quiz').nullable().default(null),
	part: number().integer().min(0).nullable().default(null)
}).test('title', 'Give the quiz a title.', ({ title, quizId }) => Boolean(title) || quizId != null);

/** The quizzes of the course that questions can be added to, with the parts that list theirs. */
export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	return json(await quizChoices(database(), course.id));
};

/** Makes a quiz of chosen questions, or adds them to one. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { chosen, title, quizId, part } = await jsonOf(request, shape);
	const who = { courseId: course.id, personId: person.id };
	return json(
		await refusing(() =>
			quizId == null
				? quizOfChosen(database(), who, chosen, title)
				: addToQuiz(database(), who, chosen, { quizId, part: part ?? null })
		)
	);
};
