import { plainText } from '../markup/text';
import { isChoice, type Question } from '../kinds';
import { overMany, type Noted } from './check';
import { isBoundToPlace } from './phrases/place';

/** So many choices at the least, and so large a share of them, make a habit out of a chance. */
const fewest = 8;
const share = 0.8;
const fewestOptions = 3;

interface Note {
	/** The place of the key among the options, from 1. */
	place: number;
}

/** How many questions a list of notes stands for. */
export const countOf = (noted: readonly Noted<unknown>[]): number =>
	noted.reduce((sum, { times = 1 }) => sum + times, 0);

/** The place of the only key of a choice of one among at least so many options, from 0; −1 where there is none such. */
export function placeOfKey(question: Question, options: number): number {
	if (question.kind !== 'multiple-choice' || question.options.length < options) return -1;
	const keys = question.options.filter(({ credit }) => credit > 0);
	return keys.length === 1 ? question.options.indexOf(keys[0]!) : -1;
}

/** The key of nearly all choices of a category stands in the same place. */
export const keyPlace = overMany<Note>({
	id: 'key-place',
	version: 1,
	scope: 'many',
	title: 'Key always in the same place',
	short: 'key place',
	severity: 'doubtful',
	why: 'Whoever sees that it is always the first, or always the third, knows the answers without the questions.',
	within: 'category',
	tallied: true,
	note(question) {
		if (!isChoice(question) || question.shuffle === true) return null;
		const place = placeOfKey(question, fewestOptions);
		return place < 0 ? null : { place: place + 1 };
	},
	among(noted) {
		const all = countOf(noted);
		if (all < fewest) return [];
		return noted.flatMap(({ id, note }) => {
			const here = countOf(noted.filter((other) => other.note.place === note.place));
			return here < share * all - 1e-9
				? []
				: [
						{
							id,
							message: `In ${here} of ${all} choices of this category that are not shuffled, the key is option ${note.place}. Shuffle the options, or move the keys about.`
						}
					];
		});
	},
	mend: {
		title: 'Shuffle the options, and pin those that make sense only in their place',
		apply: (question) =>
			isChoice(question)
				? {
						...question,
						shuffle: true,
						options: question.options.map((option) =>
							isBoundToPlace(plainText(option.text)) ? { ...option, pinned: true } : option
						)
					}
				: question
	}
});
