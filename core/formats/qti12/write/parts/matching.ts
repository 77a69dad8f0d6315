import type { MatchingQuestion } from '../../../../kinds';
import { escapeAttribute } from '../../../../xml/serialise';
import { allOf, condition, equals, setvar } from '../conditions';
import { material } from '../html';
import { label, names, stemOf, yesNo, type Address, type Parts } from './parts';

/** How a question of pairs is asked and marked. */
export function matchParts(question: MatchingQuestion, scale: number, address: Address): Parts {
	const lefts = names(question.left, 'L');
	const rights = names(question.right, 'R');
	const left = new Map(question.left.map((one, at) => [one.identifier, lefts[at]!]));
	const right = new Map(question.right.map((one, at) => [one.identifier, rights[at]!]));
	const labels = question.right.map((one, at) => label(rights[at]!, material(one.text, address))).join('');
	const rows = question.left
		.map(
			(one, at) =>
				`<flow><response_lid ident="${escapeAttribute(lefts[at]!)}" rcardinality="${one.uses === 1 ? 'Single' : 'Multiple'}">${material(one.text, address)}<render_choice${yesNo(question.shuffle)}>${labels}</render_choice></response_lid></flow>`
		)
		.join('');
	const known = question.pairs.filter((pair) => left.has(pair.left) && right.has(pair.right));
	const test = (pair: { left: string; right: string }) => equals(left.get(pair.left)!, right.get(pair.right)!);
	const whole = allOf(known.filter((pair) => pair.credit > 0).map(test));
	return {
		presentation: `<flow>${stemOf(question.stem, address)}${rows}</flow>`,
		points:
			question.combination === 'all'
				? whole
					? [condition(whole, setvar(scale, 'Set'), false)]
					: []
				: known
						.filter((pair) => pair.credit !== 0)
						.map((pair) => condition(test(pair), setvar(pair.credit * scale, 'Add'), true)),
		right: whole
	};
}
