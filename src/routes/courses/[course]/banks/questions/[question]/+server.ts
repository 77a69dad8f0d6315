import { error, json } from '@sveltejs/kit';
import { mixed, object } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { storedQuestion } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { jsonOf, wholeNumber } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const found = await storedQuestion(database(), course.id, keyOf(params.question));
	if (!found) error(404, 'There is no such question in this course.');
	return json(found);
};

const edited = object({
	version: wholeNumber('The version').required('The version is not named'),
	question: mixed().required('The question is missing')
});

/** Keeps a question that was edited; where another has changed it since, nothing is kept and both are given with 409. */
export const PUT = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { version, question } = await jsonOf(request, edited);
	const done = await refusing(() =>
		threads().ask('editQuestion', course.id, person.id, keyOf(params.question), version, question)
	);
	return json(done, { status: 'clash' in done ? 409 : 200 });
};

const old = object({ version: wholeNumber('The version').required('The version is not named') });

/** Makes the question say again what an older version of it said. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { version } = await jsonOf(request, old);
	return json(
		await refusing(() => threads().ask('bringBackVersion', course.id, person.id, keyOf(params.question), version))
	);
};
