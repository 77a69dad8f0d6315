import { isChoice, type Question } from '../kinds';
import type { Pair, Side } from '../model/pieces';
import { plainText } from '../markup/text';

/** What can be made the key: an option, a partner, a place, an entry of a list. */
export interface KeyChoice {
	identifier: string;
	text: string;
	isKey: boolean;
}

/** Something for which a key is chosen: the question as a whole, or a part of it that has a key of its own. */
export interface KeyAsk {
	/** What it is called; empty for the question as a whole. */
	name: string;
	/** Whether several choices may be right: each is one of them, or no longer. */
	isSeveral: boolean;
	choices: KeyChoice[];
}

const sidesAsChoices = (sides: readonly Side[], pairs: readonly Pair[], left: string): KeyChoice[] =>
	sides.map(({ identifier, text }) => ({
		identifier,
		text: plainText(text),
		isKey: pairs.some((pair) => pair.left === left && pair.right === identifier && pair.credit > 0)
	}));

const placesAsSides = (places: readonly { identifier: string }[]): Side[] =>
	places.map(({ identifier }, at) => ({ identifier, text: `Place ${at + 1}`, uses: null }));

/** What is asked for to give a question its key, in its order; nothing for kinds whose key is written and not chosen. */
export function keyAsks(question: Question): KeyAsk[] {
	if (isChoice(question))
		return [
			{
				name: '',
				isSeveral: question.kind === 'multiple-response',
				choices: question.options.map(({ identifier, text, credit }) => ({
					identifier,
					text: plainText(text),
					isKey: credit > 0
				}))
			}
		];
	switch (question.kind) {
		case 'matching':
			return question.left.map(({ identifier, text }) => ({
				name: plainText(text),
				isSeveral: false,
				choices: sidesAsChoices(question.right, question.pairs, identifier)
			}));
		case 'label-image':
			return question.labels.map(({ identifier, text }) => ({
				name: plainText(text),
				isSeveral: false,
				choices: sidesAsChoices(placesAsSides(question.targets), question.pairs, identifier)
			}));
		case 'hotspot':
			return [
				{
					name: '',
					isSeveral: question.picks !== 1,
					choices: question.shapes.map(({ identifier, credit }, at) => ({
						identifier,
						text: `Place ${at + 1}`,
						isKey: credit > 0
					}))
				}
			];
		case 'fill-blanks':
			return question.blanks.flatMap((blank, at): KeyAsk[] =>
				blank.form === 'list'
					? [
							{
								name: `Blank ${at + 1}`,
								isSeveral: blank.several,
								choices: blank.entries.map(({ identifier, text, credit }) => ({
									identifier,
									text: plainText(text),
									isKey: credit > 0
								}))
							}
						]
					: []
			);
		default:
			return [];
	}
}

/** Choices with one of them made the key: the only one, or where several may be right one of them or no longer; those that are share the credit alike. */
function withOneMore<Choice extends { identifier: string; credit: number }>(
	choices: readonly Choice[],
	identifier: string,
	isSeveral: boolean
): Choice[] {
	if (!isSeveral) return choices.map((choice) => ({ ...choice, credit: choice.identifier === identifier ? 1 : 0 }));
	const right = new Set(choices.filter(({ credit }) => credit > 0).map((choice) => choice.identifier));
	if (!right.delete(identifier)) right.add(identifier);
	const share = right.size ? 1 / right.size : 0;
	// what a wrong one took away it takes away still
	const isPenalised = choices.some(({ credit }) => credit < 0);
	return choices.map((choice) => ({
		...choice,
		credit: right.has(choice.identifier) ? share : isPenalised ? -share : 0
	}));
}

/** Pairs with another partner for one thing, or without one where it had that already; all of them share the credit alike. */
function withPartner(pairs: readonly Pair[], left: string, right: string): Pair[] {
	const had = pairs.some((pair) => pair.left === left && pair.right === right && pair.credit > 0);
	const others = pairs.filter((pair) => pair.left !== left && pair.credit > 0);
	const now = had ? others : [...others, { left, right, credit: 0 }];
	return now.map((pair) => ({ ...pair, credit: 1 / now.length }));
}

/**
 * The question with a choice made the key of what is asked for at a place, from 0, among what `keyAsks` gives; the same
 * question where there is no such thing.
 */
export function withKey(question: Question, identifier: string, at = 0): Question {
	const keyed = withOneKeyMore(question, identifier, at);
	// what the source named in vain is no key any more
	return keyed === question || !question.lostKeys?.length ? keyed : { ...keyed, lostKeys: [] };
}

function withOneKeyMore(question: Question, identifier: string, at: number): Question {
	if (isChoice(question))
		return {
			...question,
			options: withOneMore(question.options, identifier, question.kind === 'multiple-response')
		};
	switch (question.kind) {
		case 'matching': {
			const left = question.left[at];
			return left ? { ...question, pairs: withPartner(question.pairs, left.identifier, identifier) } : question;
		}
		case 'label-image': {
			const label = question.labels[at];
			return label ? { ...question, pairs: withPartner(question.pairs, label.identifier, identifier) } : question;
		}
		case 'hotspot':
			return { ...question, shapes: withOneMore(question.shapes, identifier, question.picks !== 1) };
		case 'fill-blanks': {
			const asked = question.blanks.filter(({ form }) => form === 'list')[at];
			return {
				...question,
				blanks: question.blanks.map((blank) =>
					blank === asked && blank.form === 'list'
						? { ...blank, entries: withOneMore(blank.entries, identifier, blank.several) }
						: blank
				)
			};
		}
		default:
			return question;
	}
}
