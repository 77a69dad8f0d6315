import type { AcceptedText } from '../model/pieces';
import type { ChoiceQuestion, Question } from '../kinds';
import { emptyCommon } from '../model/question';
import { choice, option, short } from './questions';

/** A question in a table of examples, with the name under which it stands there. */
export interface Example<Of extends Question = Question> {
	name: string;
	question: Of;
}

/** A choice of so many options, each with its credit behind a bar: “Port|1”; nothing is no credit. */
export function choiceOf(stem: string, options: readonly string[], more: Partial<ChoiceQuestion> = {}): ChoiceQuestion {
	return choice({
		stem,
		title: 'Marks and lights',
		options: options.map((written, at) => {
			const [, text, credit] = /^([\s\S]*?)(?:\|(-?[\d.]+))?$/.exec(written)!;
			return option(String.fromCharCode(65 + at), text!, Number(credit ?? 0));
		}),
		...more
	});
}

/** Choices that differ in their stem alone, each under its stem as its name. */
export const stems = (
	of: readonly string[],
	options: readonly string[] = ['Port|1', 'Starboard', 'Ahead'],
	more: Partial<ChoiceQuestion> = {}
): Example<ChoiceQuestion>[] =>
	of.map((stem) => ({ name: stem || 'an empty stem', question: choiceOf(stem, options, more) }));

/** Choices that differ in their last option alone, each under that as its name. */
export const lasts = (of: readonly string[], more: Partial<ChoiceQuestion> = {}): Example<ChoiceQuestion>[] =>
	of.map((text) => ({
		name: `“${text}”`,
		question: choiceOf('Which is right?', ['Calm|1', 'Breeze', 'Gale', text], { shuffle: null, ...more })
	}));

/** A short answer with these accepted texts, whole credit each. */
export const accepting = (texts: readonly string[], more: Partial<AcceptedText> = {}): Question =>
	short(texts.map((text) => ({ text, credit: 1, caseSensitive: false, ...more })));

/** The credit of each option of a choice. */
export const creditsOf = (question: Question): number[] =>
	'options' in question ? question.options.map(({ credit }) => Math.round(credit * 1e6) / 1e6) : [];

/** The common part of a question of any kind, for kinds that have no maker of their own. */
export const common = (stem: string, title = 'Marks and lights') => ({
	...emptyCommon('GH-9', title),
	stem,
	points: 1
});
