import { error } from '@sveltejs/kit';
import { formQuestions } from '$core/paper/form';
import { paperQuestion } from '$core/paper';
import { courseAt, keyOf } from '$lib/server/access';
import { questionsById } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { formsAt } from '$lib/server/quizzes/forms';
import { namedQuestions } from '$lib/server/quizzes/pool-page';
import { keyIn } from '$lib/server/requests';

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const quizId = keyOf(params.quiz);
	const id = keyIn(url, 'forms');
	const forms = id === null ? undefined : await formsAt(database(), course.id, quizId, id);
	if (!forms) error(404, 'There are no such forms of this quiz. Make them on its page.');
	const only = url.searchParams.get('form');
	const ids = Object.keys(forms.versions).map(Number);
	const questions = await questionsById(database(), course.id, ids);
	const names = new Map((await namedQuestions(database(), course.id, ids)).map((question) => [question.id, question]));
	return {
		id,
		quizId,
		title: forms.title,
		instructions: forms.instructions,
		minutes: forms.minutes,
		parts: forms.parts.map(({ title }) => title),
		what: url.searchParams.get('what') === 'keys' ? ('keys' as const) : ('papers' as const),
		paper: url.searchParams.get('paper') === 'letter' ? ('letter' as const) : ('A4' as const),
		gone: ids.length - questions.size,
		forms: forms.forms
			.filter(({ name }) => !only || name === only)
			.map((form) => ({
				name: form.name,
				questions: formQuestions(form, forms, questions).map(({ question, order, ...asked }) => ({
					...asked,
					...paperQuestion(question, order),
					title: names.get(asked.id)?.title ?? '',
					stimulus: question.stimulus?.content ?? '',
					attachments: question.attachments
				}))
			}))
	};
};
