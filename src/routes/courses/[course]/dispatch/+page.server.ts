import { fail, redirect } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { writtenFormat, writtenFormats } from '$core/formats';
import { courseAt } from '$lib/server/access';
import { banksOf } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { titleOf, type Consignment } from '$lib/server/dispatches/consignment';
import { begin, dispatchesOf } from '$lib/server/dispatches/dispatches';
import { stopWorkingOut, workOutSoon } from '$lib/server/dispatches/losses';
import { threads } from '$lib/server/threads/ask';
import { quizzesOf } from '$lib/server/quizzes/quizzes';
import { stopDispatch } from '$lib/server/dispatches/dispatches';
import { checked, formOf, key, keyIn, plainFormOf, requiredKey, wholeNumber } from '$lib/server/requests';
import { asked as addressOf, sentOf } from './what';

const nothingSent = { loss: [], quizLoss: null, working: null };
const mostWorkedOut = 200;
const worked = wholeNumber('The number of worked-out questions')
	.min(1)
	.max(mostWorkedOut, `At most ${mostWorkedOut} questions are worked out of one.`)
	.default(1);

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const [banks, quizzes, dispatches] = await Promise.all([
		banksOf(db, course.id),
		quizzesOf(db, course.id),
		dispatchesOf(db, course.id, keyIn(url, 'show'))
	]);
	const asked = askedFor({
		quiz: keyIn(url, 'quiz'),
		forms: keyIn(url, 'forms'),
		selection: keyIn(url, 'selection'),
		bank: keyIn(url, 'bank')
	});
	const title = asked && (await titleOf(db, course.id, asked));
	const what: Consignment | null = title !== undefined && asked ? asked : banks[0] ? { bankId: banks[0].id } : null;
	const format = writtenFormat(url.searchParams.get('as') ?? '') ?? writtenFormats[0]!;
	const workedOut = checked(worked, url.searchParams.get('worked') || undefined);
	return {
		banks,
		quizzes,
		dispatches,
		what,
		/** What is sent and stands in no list: a selection, or forms. */
		unlisted: what && ('selectionId' in what || 'formsId' in what) ? { what, title: title ?? '' } : null,
		format: { name: format.name, title: format.title },
		formats: writtenFormats.map(({ name, title, ending }) => ({ name, title, ending })),
		...(what ? await lossOf(course.id, what, format.name, workedOut) : nothingSent),
		workedOut,
		/** Whether calculated questions have to go as worked-out ones. */
		worksOut: !format.limits.holds.calculated
	};
};

type Keys = Partial<Record<'quiz' | 'forms' | 'selection' | 'bank', number | null | undefined>>;

/** What keys mean that came from outside; a quiz before its forms, before a selection, before a bank. */
function askedFor({ quiz, forms, selection, bank }: Keys): Consignment | null {
	if (quiz) return { quizId: quiz };
	if (forms) return { formsId: forms };
	if (selection) return { selectionId: selection };
	return bank ? { bankId: bank } : null;
}

const lossOf = async (courseId: number, what: Consignment, format: string, workedOut: number) => {
	const found = await threads().ask('lossesOf', courseId, what, format, { workedOut });
	return 'lines' in found
		? { loss: found.lines, quizLoss: found.quiz, working: null }
		: { ...nothingSent, working: found };
};

const ofTable = object({ table: requiredKey('The loss table') });

const shape = object({
	bank: key('The bank'),
	quiz: key('The quiz'),
	selection: key('The selection'),
	forms: key('The forms'),
	format: string().max(40).required(),
	workedOut: worked
});

export const actions = {
	write: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		let given;
		try {
			given = await formOf(request, shape);
		} catch (cause) {
			if (cause instanceof ValidationError) return fail(400, { message: cause.message });
			throw cause;
		}
		const what = askedFor(given);
		const id =
			what && (await begin(database(), course.id, person.id, what, given.format, { workedOut: given.workedOut }));
		if (!id) return fail(409, { message: 'There is nothing to write: it holds no questions, or it is gone.' });
		redirect(
			303,
			`?${addressOf(sentOf(what))}&as=${encodeURIComponent(given.format)}&worked=${given.workedOut}&show=${id}`
		);
	},
	workOut: async ({ locals, params, request }) => {
		const { course } = await courseAt(locals, params);
		const { table } = await plainFormOf(request, ofTable);
		await workOutSoon(database(), course.id, table);
	},
	stopWorking: async ({ locals, params, request }) => {
		const { course } = await courseAt(locals, params);
		const { table } = await plainFormOf(request, ofTable);
		await stopWorkingOut(database(), course.id, table);
	},
	stop: async ({ locals, params, request }) => {
		const { course } = await courseAt(locals, params, 'work');
		const { dispatch } = await plainFormOf(request, object({ dispatch: requiredKey('The dispatch') }));
		if (!(await stopDispatch(database(), course.id, dispatch)))
			return fail(409, { message: 'This dispatch is over already, or is none of this course.' });
		return undefined;
	}
};
