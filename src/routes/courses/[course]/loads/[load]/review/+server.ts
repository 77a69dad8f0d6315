import { error, json } from '@sveltejs/kit';
import { lazy, mixed, number, object, string, ValidationError } from 'yup';
import { parseDecision, parseRules } from '$core/take-in/decision';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { chooseSource, decide, keepDecision, reviewState, type Change } from '$lib/server/loads/decide';
import { chosenFields, chosenIn, type ChosenBody } from '$lib/server/loads/list-filter';
import { loadOf } from '$lib/server/loads/loads';
import { jsonOf } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import { stagedQuestion } from '$lib/server/loads/review';
import { categorySources, type CategorySource } from '$lib/server/loads/sources';
import { threads } from '$lib/server/threads/ask';
import { takeStagedWaiverBack, waiveStaged } from '$lib/server/loads/waive';
import { saveRules } from '$lib/server/loads/rules';

const shapes = {
	choose: object({ ...chosenFields, choice: string().oneOf(['leave', 'aside']).nullable().defined() }),
	place: object({ ...chosenFields, to: string().max(2000).nullable().defined() }),
	match: object({ ...chosenFields, rule: string().oneOf(['skip', 'beside', 'replace']).nullable().defined() }),
	verify: object({ ...chosenFields, verified: mixed<boolean>().oneOf([true, false]).required() }),
	source: object({ from: string().oneOf(categorySources).required() }),
	waive: object({
		...chosenFields,
		rule: string().max(60).required(),
		reason: string().trim().max(1000, 'a reason has 1,000 letters at the most').default('')
	}),
	unwaive: object({ id: number().integer().positive().required(), rule: string().max(60).required() }),
	mend: object({ ...chosenFields, rule: string().max(60).required() }),
	edit: object({
		id: number().integer().positive().required(),
		version: number().integer().required(),
		question: mixed().required()
	}),
	decision: object({ decision: mixed().required() }),
	rules: object({ name: string().trim().min(1).max(120).required(), rules: mixed().required() })
};
const shape = lazy((value: { do?: keyof typeof shapes } | undefined) => {
	const named = value?.do && Object.hasOwn(shapes, value.do) ? shapes[value.do] : null;
	return named
		? named.shape({ do: string().required() })
		: object({ do: string().oneOf(Object.keys(shapes)).required() });
});

type Asked =
	| (ChosenBody & Change)
	| { do: 'source'; from: CategorySource }
	| (ChosenBody & { do: 'mend'; rule: string })
	| (ChosenBody & { do: 'waive'; rule: string; reason: string })
	| { do: 'unwaive'; id: number; rule: string }
	| { do: 'edit'; id: number; version: number; question: unknown }
	| { do: 'decision'; decision: unknown }
	| { do: 'rules'; name: string; rules: unknown };

/** How the review stands; with `since`, what it comes to only where something has changed after that version. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const load = await loadOf(database(), course.id, keyOf(params.load));
	const now = load && (await reviewState(database(), load.id));
	if (!now) error(404, 'There is no such load in this course.');
	const same = url.searchParams.get('since') === String(now.version);
	return json({ now, summary: same ? null : await threads().ask('reviewSummary', course.id, load.id) });
};

/** Decides something on a load, and gives how it stands then. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const db = database();
	const load = await loadOf(db, course.id, keyOf(params.load));
	if (!load) error(404, 'There is no such load in this course.');
	let mended = null;
	let waived = null;
	try {
		const asked = (await jsonOf(request, shape)) as Asked;
		if (asked.do === 'decision') await keepDecision(db, load.id, person.id, parseDecision(asked.decision));
		else if (asked.do === 'source') await chooseSource(db, load.id, person.id, asked.from);
		else if (asked.do === 'rules') await saveRules(db, course.id, asked.name, parseRules(asked.rules));
		else if (asked.do === 'mend')
			mended = await threads().ask('mendStaged', course.id, load.id, person.id, asked.rule, chosenIn(asked));
		else if (asked.do === 'waive')
			waived = await waiveStaged(db, course.id, load.id, person.id, asked, chosenIn(asked));
		else if (asked.do === 'unwaive') await takeStagedWaiverBack(db, load.id, person.id, asked.id, asked.rule);
		else if (asked.do === 'edit') {
			const done = await threads().ask(
				'editStaged',
				course.id,
				load.id,
				person.id,
				asked.id,
				asked.version,
				asked.question
			);
			if (done === 'changed')
				return json(
					{
						message:
							'Somebody else has changed this question in the meantime. Yours is still here; look at theirs first.',
						theirs: await stagedQuestion(db, course.id, load.id, asked.id)
					},
					{ status: 409 }
				);
		} else {
			const chosen = chosenIn(asked);
			if (!chosen) error(400, 'No questions were named.');
			await decide(db, course.id, load.id, person.id, chosen, asked);
		}
	} catch (cause) {
		if (cause instanceof Refused) error(409, cause.message);
		if (cause instanceof ValidationError) error(400, `That cannot be kept: ${cause.message}.`);
		throw cause;
	}
	return json({
		now: await reviewState(db, load.id),
		summary: await threads().ask('reviewSummary', course.id, load.id),
		mended,
		waived
	});
};
