import { plainText } from '../../markup/text';
import { withCommon, type QuestionCommon } from '../../model/question';
import { type Kind, type Question } from '../../kinds';
import type { Option } from '../../model/pieces';
import { isTrueFalse } from '../choices';

import { type Draft } from './draft';
import { letterOf, resolveKeys } from './keys';

import type { Assembling } from './assembling';
import type { Say } from './say';

const round = (value: number) => Math.round(value * 1e6) / 1e6;

/** A choice: one or several, told from the kind, the keys and the credits. */
export function choiceOf(
	draft: Draft,
	kind: Kind | null,
	common: QuestionCommon,
	how: Assembling,
	report: Say
): Question {
	const { options, keys } = draft;
	const given = options.some((option) => option.credit !== null && option.credit !== 0);
	const marked = options.flatMap((option, at) => (option.right ? [at] : []));
	const { places, lost } = resolveKeys(keys ?? [], how.keyForms, options);
	let right = marked.length ? marked : places;
	let contradiction = false;
	if (marked.length && places.length && marked.join() !== places.join()) {
		contradiction = true;
		right = [];
		const names = (list: number[]) =>
			list.map((at) => `“${plainText(options[at]!.text)}” (${letterOf(at)})`).join(', ');
		report(
			'contradictory-key',
			'broken',
			`Two keys disagree: the mark at the option says ${names(marked)}, the answer line says ${names(places)}. Neither was taken; mark the right one.`
		);
	}
	const several =
		kind === 'multiple-response' ||
		(kind === null &&
			(right.length > 1 ||
				(options.filter((option) => (option.credit ?? 0) > 0 && (option.credit ?? 0) < 1).length > 1 &&
					!options.some((option) => (option.credit ?? 0) >= 1))));
	if (right.length > 1 && !several && kind !== null)
		report(
			'several-keys',
			'doubtful',
			`The file calls it ${kind === 'true-false' ? 'true or false' : 'a multiple choice'}, and ${right.length} options are marked as right.`
		);
	const share = several ? round(1 / Math.max(1, right.length)) : 1;
	const built: Option[] = options.map((option, at) => ({
		identifier: letterOf(at) < '[' ? letterOf(at) : `O${at + 1}`,
		text: option.text,
		credit: given && !contradiction ? Math.max(-1, Math.min(1, option.credit ?? 0)) : right.includes(at) ? share : 0,
		...(option.feedback ? { feedback: option.feedback } : {}),
		pinned: option.pinned ?? false
	}));
	return withCommon(common, {
		kind: several
			? 'multiple-response'
			: isTrueFalse(options.map((option) => plainText(option.text)))
				? 'true-false'
				: 'multiple-choice',
		options: built,
		shuffle: draft.shuffle,
		combination: several && !given ? 'all' : 'sum',
		bounds: { lower: null, upper: null },
		lostKeys: lost
	});
}
