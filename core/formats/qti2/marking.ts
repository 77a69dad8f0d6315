import { creditsByTrying, type FoundCredits } from '../credits';
import { placeFeedback2, type Answer } from './feedback';
import type { Markup } from '../../model/question';
import { hasFeedback, isTemplate, simplified, runner, type Reading } from './reading';
import type { ResponseDeclaration } from './process';
import type { Value } from './values';

/** What the values of a response earn, one credit each, and how the credits come together. */
export interface SetMarking extends FoundCredits {
	/** The feedback that belongs to single values, by their place. */
	feedback: Map<number, Markup>;
}

/**
 * Finds what each of the given values earns, where any set of them can be the answer. `sure` says which of them the
 * key can name without doubt. The points of the question are settled on the way. `ofValues` says whether feedback may
 * belong to single values.
 */
export function markSets(
	reading: Reading,
	declaration: ResponseDeclaration,
	values: string[],
	several: boolean,
	sure: (at: number) => boolean = () => true,
	areas = false
): SetMarking {
	const { common, rules, item } = reading;
	const run = runner(reading, declaration.identifier);
	const answer = (ticked: number[]): Value => {
		const chosen = ticked.filter(sure).map((at) => values[at]!);
		return chosen.length ? chosen : null;
	};
	const keys = new Set(declaration.correct);
	const expected = values.flatMap((one, at) => (keys.has(one) && sure(at) ? [at] : []));
	const mapping = areas ? null : declaration.mapping;
	const declared = areas
		? declaration.areas && {
				scores: values.map((_, at) => declaration.areas!.shapes[at]?.value ?? 0),
				lower: declaration.areas.lower,
				upper: declaration.areas.upper
			}
		: mapping && {
				scores: values.map((one) => mapping.entries.find((entry) => entry.key === one)?.value ?? mapping.fallback),
				lower: mapping.lower,
				upper: mapping.upper
			};
	const sum = (ticked: number[]) => {
		const total = ticked.filter(sure).reduce((before, at) => before + declared!.scores[at]!, 0);
		return Math.min(declared!.upper ?? Infinity, Math.max(declared!.lower ?? -Infinity, total));
	};
	// what the key names in vain can be no part of an answer, and is told
	const whole = (ticked: number[]) =>
		expected.length > 0 && ticked.length === expected.length && ticked.every((at) => expected.includes(at)) ? 1 : 0;
	let full = reading.full;
	let mark: (ticked: number[]) => number;
	// where a single answer has several keys, or no rule says how to mark, the declared key itself is the rule
	if (!rules || (!several && keys.size > 1 && !declared)) {
		full = 1;
		mark = declared ? sum : several ? whole : (ticked) => (ticked.some((at) => expected.includes(at)) ? 1 : 0);
		if (declared) full = common.points || Math.max(1, sum(expected));
	} else if (declared && isTemplate(rules, areas ? 'map_response_point' : 'map_response')) {
		// the templates come to this; running them for every set of options would take most of the time of a large package
		mark = sum;
	} else if (isTemplate(rules, 'match_correct')) mark = whole;
	else mark = (ticked) => run(answer(ticked)).score;
	if (common.points === null) {
		const reachable = Math.max(0, ...[...values.map((_, at) => [at]), expected].map(mark));
		full = reachable || full;
		common.points = rules ? full : null;
	} else if (isTemplate(rules, 'match_correct') && common.points !== 1) full = 1; // the template gives 1 for all the points there are
	const found = creditsByTrying(values.length, several, full, mark, expected, declared ?? undefined);
	if (!found.exact)
		simplified(
			reading,
			'Its marking cannot be held exactly. Each option was given what it adds to the score; look at the credit.'
		);
	const answers: Answer[] = (hasFeedback(item) ? values : []).map((_, at) => ({
		outcomes: run(answer([at])).outcomes,
		credit: mark([at]) / full,
		option: at
	}));
	if (several && answers.length) {
		const best = found.credits.flatMap((credit, at) => (credit > 0 ? [at] : []));
		const right = expected.length ? expected : best;
		if (right.length) answers.push({ outcomes: run(answer(right)).outcomes, credit: 1, option: null });
	}
	return { ...found, feedback: placeFeedback2(item, common, answers, reading.cleaning) };
}

/** Places the feedback of an item by the outcomes of a right, a wrong and a half-right answer. */
export function feedbackByAnswers(reading: Reading, tried: { outcomes: Answer['outcomes']; credit: number }[]): void {
	placeFeedback2(
		reading.item,
		reading.common,
		tried.map((one) => ({ ...one, option: null })),
		reading.cleaning
	);
}
