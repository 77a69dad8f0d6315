import { fail } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { courseAt } from '$lib/server/access';
import { formOf, key, keyIn, requiredKey, wholeNumber } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import { keptFindings, type PlaceFinding } from '$lib/server/checks/places';
import { checkingOf, checkSoon, stopChecking } from '$lib/server/checks/course';
import { database } from '$lib/server/db/pool';
import { threads } from '$lib/server/threads/ask';
import { keepOne } from '$lib/server/snags/keep-one';
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
	const [places, rows, mendable, checking] = await Promise.all([
		snagPlaces(db, course.id),
		check && !placed.length ? snagRows(db, course.id, check, from) : [],
		check && mendTitle(check) ? threads().ask('mendableCount', course.id, check) : 0,
		checkingOf(db, course.id)
	]);
	return {
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
		try {
			const { question } = await formOf(request, object({ question: requiredKey('The question') }));
			const { kept, aside } = await keepOne(database(), course.id, person.id, question);
			return { kept: kept.title, aside };
		} catch (cause) {
			if (cause instanceof Refused) return fail(409, { message: cause.message });
			if (cause instanceof ValidationError) return fail(400, { message: cause.message });
			throw cause;
		}
	},
	mend: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		try {
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
		} catch (cause) {
			if (cause instanceof Refused) return fail(409, { message: cause.message });
			if (cause instanceof ValidationError) return fail(400, { message: cause.message });
			throw cause;
		}
	}
};
