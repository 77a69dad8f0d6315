import { fail, redirect } from '@sveltejs/kit';
import { number, object, string, ValidationError } from 'yup';
import { writtenFormat, writtenFormats } from '$core/formats';
import { courseAt, keyOf } from '$lib/server/access';
import { banksOf } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { begin, dispatchesOf, lossTable, type Consignment } from '$lib/server/dispatches/dispatches';
import { quizzesOf } from '$lib/server/quizzes/quizzes';
import { askToStop } from '$lib/server/jobs/jobs';

const mostWorkedOut = 200;

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const [banks, quizzes, dispatches] = await Promise.all([
		banksOf(db, course.id),
		quizzesOf(db, course.id),
		dispatchesOf(db, course.id)
	]);
	const quizId = Number(url.searchParams.get('quiz')) || null;
	const bankId = quizId ? null : Number(url.searchParams.get('bank')) || banks[0]?.id || null;
	const what: Consignment | null =
		quizId && quizzes.some((quiz) => quiz.id === quizId)
			? { quizId }
			: bankId && banks.some((bank) => bank.id === bankId)
				? { bankId }
				: null;
	const format = writtenFormat(url.searchParams.get('as') ?? '') ?? writtenFormats[0]!;
	const workedOut = Math.min(mostWorkedOut, Math.max(1, Math.floor(Number(url.searchParams.get('worked')) || 1)));
	return {
		banks,
		quizzes,
		dispatches,
		what,
		format: { name: format.name, title: format.title },
		formats: writtenFormats.map(({ name, title, ending }) => ({ name, title, ending })),
		...(what ? await lossOf(course.id, what, format.name, workedOut) : { loss: [], quizLoss: null }),
		workedOut,
		/** Whether calculated questions have to go as worked-out ones. */
		worksOut: !format.limits.kinds.includes('calculated')
	};
};

const lossOf = async (courseId: number, what: Consignment, format: string, workedOut: number) => {
	const { lines, quiz } = await lossTable(database(), courseId, what, format, { workedOut });
	return { loss: lines, quizLoss: quiz };
};

const shape = object({
	bank: number().integer().positive(),
	quiz: number().integer().positive(),
	format: string().required(),
	workedOut: number().integer().min(1).max(mostWorkedOut).default(1)
});

export const actions = {
	write: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'change');
		const form = Object.fromEntries([...(await request.formData())].filter(([, value]) => value !== ''));
		let given;
		try {
			given = shape.validateSync(form);
		} catch (cause) {
			return fail(400, { message: (cause as ValidationError).message });
		}
		const what: Consignment | null = given.quiz ? { quizId: given.quiz } : given.bank ? { bankId: given.bank } : null;
		const id =
			what && (await begin(database(), course.id, person.id, what, given.format, { workedOut: given.workedOut }));
		if (!id) return fail(409, { message: 'There is nothing to write: it holds no questions, or it is gone.' });
		redirect(
			303,
			`?${given.quiz ? `quiz=${given.quiz}` : `bank=${given.bank}`}&as=${encodeURIComponent(given.format)}&worked=${given.workedOut}&show=${id}`
		);
	},
	stop: async ({ locals, params, request }) => {
		await courseAt(locals, params, 'change');
		await askToStop(database(), 'dispatch', keyOf(String((await request.formData()).get('dispatch'))));
	}
};
