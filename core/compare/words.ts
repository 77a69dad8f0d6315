import { diffWordsWithSpace } from 'diff';
import { plainText } from '../markup/text';
import type { Question } from '../model/question';

/** A stretch of words that is in both, only in the first, or only in the second. */
export interface Stretch {
	text: string;
	only: 'before' | 'after' | null;
}

/** One part of two questions, in words: the stem, an option, the points. */
export interface WordDifference {
	part: string;
	stretches: Stretch[];
}

const percent = (credit: number) => `${Math.round(credit * 1000) / 10} %`;

/** Everything that a question says, in parts with names, as plain text. */
function partsOf(question: Question): [string, string][] {
	const parts: [string, string][] = [
		['title', question.title],
		['stem', plainText(question.stem)],
		['points', question.points === null ? '' : String(question.points)],
		['category', question.category.join(' › ')],
		['tags', [...question.tags].sort().join(', ')]
	];
	if ('options' in question)
		question.options.forEach((option, at) => {
			parts.push([
				`option ${at + 1}`,
				`${plainText(option.text)}${option.credit ? ` (${percent(option.credit)})` : ''}`
			]);
			if (option.feedback) parts.push([`feedback to option ${at + 1}`, plainText(option.feedback)]);
		});
	if (question.kind === 'short-answer')
		parts.push(['accepted', question.accepted.map((one) => `${one.text} (${percent(one.credit)})`).join('; ')]);
	if (question.kind === 'numeric')
		parts.push([
			'accepted',
			question.accepted
				.map((one) => ('value' in one ? `${one.value} ± ${one.tolerance}` : `${one.min ?? '…'} to ${one.max ?? '…'}`))
				.join('; ')
		]);
	if (question.kind === 'matching') {
		const text = (list: { identifier: string; text: string }[], identifier: string) =>
			plainText(list.find((one) => one.identifier === identifier)?.text ?? '');
		question.pairs.forEach((pair, at) =>
			parts.push([`pair ${at + 1}`, `${text(question.left, pair.left)} = ${text(question.right, pair.right)}`])
		);
	}
	if (question.kind === 'ordering')
		question.items.forEach((one, at) => parts.push([`place ${at + 1}`, plainText(one.text)]));
	if (question.kind === 'calculated') parts.push(['expression', question.expression]);
	for (const [name, markup] of Object.entries(question.feedback))
		if (markup) parts.push([`feedback, ${name}`, plainText(markup as string)]);
	return parts;
}

/** The parts in which two questions differ in words, each with what is in both and what is only in one. */
export function wordDifferences(before: Question, after: Question): WordDifference[] {
	const [a, b] = [new Map(partsOf(before)), new Map(partsOf(after))];
	return [...new Set([...a.keys(), ...b.keys()])].flatMap((part) => {
		const [x, y] = [a.get(part) ?? '', b.get(part) ?? ''];
		if (x === y) return [];
		const stretches = diffWordsWithSpace(x, y).map(({ value, added, removed }): Stretch => ({
			text: value,
			only: added ? 'after' : removed ? 'before' : null
		}));
		return [{ part, stretches }];
	});
}
