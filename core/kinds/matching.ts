import { plainText } from '../markup/text';
import { bounds as most } from '../model/bounds';
import { type Fields, list, maybeTruth } from '../model/fields';
import { bounds, combination, pair, side } from '../model/pieces';
import type { QuestionCommon } from '../model/question';
import type { KindOf } from './kind';
import { markPairs, pairless, rightPairs, scaledPairs, settledPairs, wrongPair } from './pairs';
import { creditPart, pairParts, saidBy, sideParts, yesOrNo } from './part';

const fields = {
	left: list(side),
	right: list(side),
	pairs: list(pair),
	combination: combination(),
	bounds,
	shuffle: maybeTruth()
};

/** A question answered by putting things on the left together with those on the right. */
export type MatchingQuestion = { kind: 'matching' } & QuestionCommon & Fields<typeof fields>;

function plain({ left, right, pairs, shuffle }: MatchingQuestion): Record<string, unknown> {
	const earning = pairs.filter((pair) => pair.credit > 0);
	const used = new Set(earning.map((pair) => pair.right));
	const distractors = right.filter((side) => !used.has(side.identifier));
	return {
		pairs: earning.map((pair) => [saidBy(left, pair.left), saidBy(right, pair.right)]),
		...(distractors.length ? { distractors: distractors.map((side) => plainText(side.text)) } : {}),
		shuffle
	};
}

/** A question answered by putting things on the left together with those on the right. */
export const matching: KindOf<MatchingQuestion> = {
	name: 'Matching',
	fields,
	marks: 'program',
	rich: (question, change) => ({
		...question,
		left: question.left.map((side, at) => ({ ...side, text: change(side.text, `left ${at + 1}`) })),
		right: question.right.map((side, at) => ({ ...side, text: change(side.text, `right ${at + 1}`) }))
	}),
	wording: ({ left, right }) => [...left, ...right].map((side) => side.text),
	content: (question) => ({
		left: question.left.map(({ text, uses }) => ({ text, uses })),
		right: question.right.map(({ text, uses }) => ({ text, uses })),
		...settledPairs(question, question.left, question.right),
		shuffle: question.shuffle
	}),
	parts: (question) => [
		...pairParts(
			question.pairs,
			(pair) => `${saidBy(question.left, pair.left)} = ${saidBy(question.right, pair.right)}`
		),
		...sideParts('on the left', question.left),
		...sideParts('on the right', question.right),
		creditPart(question),
		{ name: 'shuffled', text: yesOrNo(question.shuffle) }
	],
	plain,
	counts: ({ left, right, pairs }) => [
		[Math.max(left.length, right.length), most.options, 'things to match'],
		[pairs.length, most.pairs, 'pairs']
	],
	mark: markPairs,
	right: rightPairs,
	wrong: (question) => wrongPair(question, question.left, question.right),
	best: (question) => Math.max(0, markPairs(question, rightPairs(question)).credit ?? 0),
	keyless: pairless,
	scaled: scaledPairs,
	dealt: (question, { shuffled }) =>
		question.shuffle === false ? question : { ...question, right: shuffled(question.right) },
	hasKey: ({ pairs }) => pairs.some((pair) => pair.credit > 0)
};
