import { fail } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { courseAt } from '$lib/server/access';
import { formOf, key, keyIn, requiredKey } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import { keptFindings, type PlaceFinding } from '$lib/server/checks/places';
import { checkingOf, checkSoon, stopChecking } from '$lib/server/checks/course';
import { database } from '$lib/server/db/pool';
import { threads } from '$lib/server/threads/ask';
import { keepOne, keepThis, type KeptOne } from '$lib/server/snags/keep-one';
import { mendingOf, stopMending } from '$lib/server/snags/mending';
import { daysOf } from '$lib/server/snags/days';
import { meanBoth, takeWaiverBack, waive, waiversOf } from '$lib/server/snags/waive';
import { mendTitle } from '$core/checks';
import { snagFilterIn, type SnagFilter } from '$lib/server/snags/filter';
import { headsOf, orders, type Head, type Order } from '$lib/server/snags/heads';
import { snagPageSize, snagPlace, snagRows, snagsFound } from '$lib/server/snags/list';
import { snagCounts, snagPlaces, type SnagCount } from '$lib/server/snags/snags';
import { visitSnags } from '$lib/server/snags/visits';
import { bankNames } from '$lib/server/banks/banks';
import { mendsPlaces } from '$lib/server/banks/mend-places';
import { severities } from '$core/reports/report';

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

/** The snags that are shown at first: of what the address asks for, else of the worst check, or of the first of what they are gone through by. */
function startingFilter(url: URL, order: Order, counts: SnagCount[], heads: Head[]): SnagFilter {
	const asked = snagFilterIn(url);
	if (order === 'check')
		return { ...asked, check: counts.find(({ rule }) => rule === asked.check)?.rule ?? counts[0]?.rule ?? '' };
	const isNamed = order === 'category' ? asked.bank !== null : asked[order] !== null;
	if (isNamed || !heads.length) return asked;
	const first = new URL('http://localhost');
	first.search = new URLSearchParams(heads[0]!.asks).toString();
	return { ...snagFilterIn(first), check: asked.check, severity: asked.severity, since: asked.since };
}

/** What the checks over trees and quizzes found that belongs among the snags that are asked for. */
function placedIn(findings: PlaceFinding[], order: Order, filter: SnagFilter): PlaceFinding[] {
	if (order === 'check') return findings.filter(({ rule }) => rule === filter.check);
	if (order === 'quiz') return findings.filter(({ place }) => 'quizId' in place && place.quizId === filter.quiz);
	return [];
}

export const load = async ({ locals, params, url }) => {
	const { course, person } = await courseAt(locals, params);
	const db = database();
	const findings = (await keptFindings(db, course.id)) ?? (await threads().ask('placeFindings', course.id));
	const counts = [...(await snagCounts(db, course.id)), ...countsOfFindings(findings)];
	counts.sort((a, b) => severities.indexOf(a.severity) - severities.indexOf(b.severity) || b.questions - a.questions);
	const order = orders.find((name) => name === url.searchParams.get('by')) ?? 'check';
	const heads = await headsOf(db, course.id, order, findings);
	const filter = startingFilter(url, order, counts, heads);
	const placed = placedIn(findings, order, filter);
	const asked = keyIn(url, 'at');
	const total = await snagsFound(db, course.id, filter);
	const place = asked && total ? await snagPlace(db, course.id, filter, asked) : 0;
	const from = Math.floor(place / snagPageSize) * snagPageSize;
	const check = order === 'check' ? (filter.check ?? '') : '';
	const isMended = mendTitle(check) !== undefined || check === 'exact-duplicate';
	const [lastVisit, waivers, days, places, listed, mendable, checking, mending, banks] = await Promise.all([
		visitSnags(db, course.id, person.id),
		waiversOf(db, course.id),
		daysOf(db, course.id),
		snagPlaces(db, course.id),
		total ? snagRows(db, course.id, filter, from) : [],
		isMended && total ? threads().ask('mendableCount', course.id, filter) : 0,
		checkingOf(db, course.id),
		mendingOf(db, course.id),
		bankNames(db, course.id)
	]);
	return {
		waivers,
		isWaived: url.searchParams.has('waived'),
		days,
		counts,
		places,
		order,
		heads,
		filter,
		check,
		lastVisit: lastVisit?.toISOString() ?? null,
		banks,
		placed: placed.slice(0, mostPlaces),
		placeSnags: findings.length,
		page: { total, from, rows: listed },
		pageSize: snagPageSize,
		mendable: check === 'exact-duplicate' ? total : mendable,
		mendsPlaces: mendsPlaces(check),
		checking,
		mending
	};
};

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
	stopMending: async ({ locals, params }) => {
		const { course } = await courseAt(locals, params, 'work');
		await stopMending(database(), course.id);
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
	mendPlaces: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		return refusedInForm(async () => {
			const { check, bank, category } = await formOf(
				request,
				object({ check: string().max(60).required(), bank: key('The bank'), category: key('The category') })
			);
			const place = bank === undefined ? null : { bankId: bank, categoryId: category ?? null };
			const changer = { courseId: course.id, personId: person.id };
			const { deedId, words } = await threads().ask('mendPlaces', changer, check, place);
			return { told: words, deedId };
		});
	}
};
