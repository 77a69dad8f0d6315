import { fail } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { courseAt } from '$lib/server/access';
import { formOf, key, keyIn, requiredKey, wholeNumber } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import { keptFindings, type PlaceFinding } from '$lib/server/checks/places';
import { checkingOf, checkSoon, stopChecking } from '$lib/server/checks/course';
import { database } from '$lib/server/db/pool';
import { threads } from '$lib/server/threads/ask';
import { keepOne, keepThis, type KeptOne } from '$lib/server/snags/keep-one';
import { daysOf } from '$lib/server/snags/days';
import { meanBoth, takeWaiverBack, waive, waiversOf } from '$lib/server/snags/waive';
import { mendTitle } from '$core/checks';
import { snagCounts, snagPageSize, snagPlace, snagPlaces, snagRows, type SnagCount } from '$lib/server/snags/snags';

/** How many categories and quizzes of a check are sent. */
const mostPlaces = 500;

/** How many places each check over trees and quizzes speaks of. */
function countsOfFindings(findings: PlaceFinding[]): SnagCount[] {
	const counts = new Map<string, SnagCount>();
	for (const { rule, severity } of findings) {
		const count = counts.get(rule) ?? { rule, severity, questions: 0 };
		count.questions += 1;
		counts.set(rule, count);
	}
	return [...counts.values()];
}

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const findings = (await keptFindings(db, course.id)) ?? (await threads().ask('placeFindings', course.id));
	const counts = [...(await snagCounts(db, course.id)), ...countsOfFindings(findings)];
	const order = ['broken', 'doubtful', 'untidy'];
	counts.sort((a, b) => order.indexOf(a.severity) - order.indexOf(b.severity) || b.questions - a.questions);
	const asked = url.searchParams.get('check') ?? '';
	const counted = counts.find(({ rule }) => rule === asked) ?? counts[0];
	const check = counted?.rule ?? '';
	const question = keyIn(url, 'question');
	const placed = findings.filter(({ rule }) => rule === check);
	const place = check && question ? await snagPlace(db, course.id, check, question) : 0;
	const from = Math.floor(place / snagPageSize) * snagPageSize;
	const isWaived = url.searchParams.has('waived');
	const [waivers, days, places, rows, mendable, checking] = await Promise.all([
		waiversOf(db, course.id),
		daysOf(db, course.id),
		snagPlaces(db, course.id),
		check && !placed.length ? snagRows(db, course.id, check, from) : [],
		check && mendTitle(check) ? threads().ask('mendableCount', course.id, check) : 0,
		checkingOf(db, course.id)
	]);
	return {
		waivers,
		isWaived,
		days,
		counts,
		places,
		check,
		placed: placed.slice(0, mostPlaces),
		placeSnags: findings.length,
		page: { total: counted?.questions ?? 0, from, rows },
		pageSize: snagPageSize,
		mendable,
		checking
	};
};

const shape = object({
	check: string().max(60).required(),
	question: key('The question'),
	version: wholeNumber('The version')
});

const reason = string().trim().max(1000, 'A reason has 1,000 letters at the most.').default('');

const keptWords = ({ kept, gone, deedId }: KeptOne) => ({
	told: `“${kept.title}” stays; ${gone === 1 ? 'the other is' : `${gone} others are`} in the bin.`,
	deedId
});

/** Does work for an action; what is refused is told on the page. */
async function refusedInForm<T>(work: () => Promise<T>) {
	try {
		return await work();
	} catch (cause) {
		if (cause instanceof Refused) return fail(409, { message: cause.message });
		if (cause instanceof ValidationError) return fail(400, { message: cause.message });
		throw cause;
	}
}

export const actions = {
	stop: async ({ locals, params }) => {
		const { course } = await courseAt(locals, params, 'work');
		await stopChecking(database(), course.id);
	},
	check: async ({ locals, params }) => {
		const { course } = await courseAt(locals, params, 'work');
		await checkSoon(database(), course.id);
	},
	keep: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		return refusedInForm(async () => {
			const { question } = await formOf(request, object({ question: requiredKey('The question') }));
			return keptWords(await keepOne(database(), course.id, person.id, question));
		});
	},
	keepThis: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		return refusedInForm(async () => {
			const { kept, other } = await formOf(
				request,
				object({ kept: requiredKey('The question that is kept'), other: requiredKey('The other question') })
			);
			return keptWords(await keepThis(database(), course.id, person.id, kept, other));
		});
	},
	both: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		return refusedInForm(async () => {
			const {
				check,
				question,
				other,
				reason: why
			} = await formOf(
				request,
				object({
					check: string().max(60).required(),
					question: requiredKey('The question'),
					other: requiredKey('The other question'),
					reason
				})
			);
			await meanBoth(database(), course.id, person.id, check, [question, other], why);
			return { told: 'Both are kept. The pair stands under “Waived”.' };
		});
	},
	waive: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		return refusedInForm(async () => {
			const asked = await formOf(
				request,
				object({
					check: string().max(60).required(),
					question: requiredKey('The question'),
					scope: string()
						.oneOf(['question', 'category', 'course'] as const)
						.required(),
					reason
				})
			);
			const { snags } = await waive(database(), course.id, person.id, {
				rule: asked.check,
				scope: asked.scope,
				questionId: asked.question,
				reason: asked.reason
			});
			return { told: `${snags === 1 ? 'One snag is' : `${snags} snags are`} waived.` };
		});
	},
	unwaive: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		return refusedInForm(async () => {
			const { waiver } = await formOf(request, object({ waiver: requiredKey('The waiver') }));
			await takeWaiverBack(database(), course.id, person.id, waiver);
			return { told: 'The waiver is taken back; what it concerned is open again.' };
		});
	},
	mend: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		return refusedInForm(async () => {
			const { check, question, version } = await formOf(request, shape);
			const done = await threads().ask('mend', course.id, person.id, check, question ?? null, version ?? null);
			if (done === 'changed')
				return fail(409, {
					message: 'Somebody has changed this question in the meantime. It is shown anew; look at it once more.'
				});
			const left = done.left
				? ` ${done.left} ${done.left === 1 ? 'needs' : 'need'} a person: the mend changes nothing there.`
				: '';
			return { mended: done.mended, left, deedId: done.deedId };
		});
	}
};
