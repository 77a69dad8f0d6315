import { plainText } from '../../markup/text';
import { withCommon } from '../../model/question';
import type { ChoiceQuestion } from '../../kinds';
import { childOf, childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { isTrueFalse, limitWords } from '../choices';
import { creditsByTrying } from '../credits';
import { placeFeedback, type Trial } from './feedback';
import { joinBlocks, materialBelow } from './material';
import { cardinalityOf, run12, settlePoints12, simplified12, type Reading12 } from './reading';

/** What conditions ask for, without what they ask not to be there. */
function wantedBy(processing: XmlElement | undefined): Set<string> {
	const wanted = new Set<string>();
	const walk = (node: XmlElement) => {
		if (node.name === 'varequal') wanted.add(trimmed(node));
		else if (node.name !== 'not') childrenOf(node).forEach(walk);
	};
	if (processing) walk(processing);
	return wanted;
}

/** Reads one response by options (ASI information model, 3.5.1). */
export function readChoice12(reading: Reading12, response: XmlElement): ChoiceQuestion {
	const { common, item, cleaning, processing, full, reports, place } = reading;
	const ident = response.attributes.ident ?? '';
	const choice = childOf(response, 'render_choice')!;
	const labels = descendants(choice, 'response_label');
	const texts = labels.map((label) => joinBlocks(materialBelow(label, cleaning)));
	const idents = labels.map((label) => label.attributes.ident ?? '');
	const several = cardinalityOf(response) === 'multiple';
	const { minnumber = '0', maxnumber = '0' } = choice.attributes;
	const limit = several ? limitWords(labels.length, Number(minnumber), Number(maxnumber)) : null;
	if (limit)
		reports.push({
			rule: 'beside-question',
			severity: 'untidy',
			message: `The file also says ${limit}. A question here does not hold that; set it up by hand where it is needed.`,
			place
		});
	const keyed = processing ? descendants(processing, 'varequal').map(trimmed) : [];
	const lostKeys = [...new Set(keyed)].filter((key) => idents.filter((one) => one === key).length !== 1);
	const repeated = [...new Set(idents.filter((one, at) => idents.indexOf(one) !== at))];
	if (repeated.length)
		reports.push({
			rule: 'repeated-identifier',
			severity: 'broken',
			message: `${repeated.length > 1 ? 'Several options share' : 'Two options share'} the identifier ${repeated.map((one) => `“${one}”`).join(', ')}, so the key does not say which of them is right. Mark the right one.`,
			place
		});
	const mark = (ticked: number[]) =>
		run12(reading, new Map([[ident, ticked.map((at) => idents[at]!).filter((one) => !repeated.includes(one))]])).score;
	const earning = idents.flatMap((one, at) => (keyed.includes(one) && mark([at]) > 0 ? [at] : []));
	const wanted = wantedBy(processing);
	// where only all of them together earn anything, those that are asked for are right
	const expected = earning.length ? earning : idents.flatMap((one, at) => (wanted.has(one) ? [at] : []));
	const found = creditsByTrying(labels.length, several, full, mark, expected);
	settlePoints12(reading, found.full);
	if (!found.exact)
		simplified12(
			reading,
			'Its marking cannot be held exactly. Each option was given what it adds to the score; look at the credit.'
		);
	const trials: Trial[] = labels.map((_, at) => ({
		responses: new Map([[ident, [idents[at]!]]]),
		full: !several && found.credits[at]! >= 1,
		option: at
	}));
	if (several)
		trials.push({
			responses: new Map([[ident, idents.filter((_, at) => found.credits[at]! > 0)]]),
			full: true,
			option: null
		});
	const feedback = placeFeedback(item, common, trials, cleaning, reading.cardinalities);
	const { shuffle } = choice.attributes;
	return withCommon(common, {
		kind: several ? 'multiple-response' : isTrueFalse(texts.map(plainText)) ? 'true-false' : 'multiple-choice',
		options: labels.map((label, at) => ({
			identifier: idents[at]!,
			text: texts[at]!,
			credit: found.credits[at]!,
			...(feedback.has(at) ? { feedback: feedback.get(at)! } : {}),
			pinned: /^no$/i.test(label.attributes.rshuffle ?? '')
		})),
		shuffle: shuffle === undefined ? null : /^yes$/i.test(shuffle),
		combination: found.combination,
		bounds: found.bounds,
		lostKeys
	});
}
