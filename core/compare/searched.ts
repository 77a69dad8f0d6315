import { kindOf, markupOf, type Question } from '../kinds';
import { folded, foldedWords, searchedWord } from '../markup/folded';
import { plainText } from '../markup/text';

/** A part of a question in which a word was found: its name for people, what stands shortly before the word, and its text from the word on. */
export interface FoundPart {
	part: string;
	before: string;
	text: string;
}

/** All that is looked through in a search: what a question is called, asks, offers, takes for an answer and says of it. */
function searchedParts(question: Question): Pick<FoundPart, 'part' | 'text'>[] {
	return [
		{ part: 'title', text: question.title },
		...markupOf(question).map(({ field, markup }) => ({ part: field, text: plainText(markup) })),
		...kindOf(question)
			.wording(question)
			.map((text) => ({ part: 'answer', text: plainText(text) })),
		{ part: 'identifier', text: question.identifier }
	];
}

/** The words of a question by which it is found, each once, folded (`foldedWords`). */
export function searchedWords(question: Question): string[] {
	return [...new Set(searchedParts(question).flatMap(({ text }) => foldedWords(text)))];
}

/** How many letters are shown in front of a word that was found, and in all. */
const shown = { before: 40, all: 160 };

/**
 * Where a question has a word that is looked for and that nobody sees in `seen`, its title and the start of its stem.
 * Null where all of the words stand there, or the one that does not is nowhere.
 */
export function foundBeside(question: Question, lookedFor: string, seen: string): FoundPart | null {
	const visible = foldedWords(seen);
	const hidden = foldedWords(lookedFor).filter((start) => !visible.some((word) => word.startsWith(start)));
	if (!hidden.length) return null;
	const isHidden = (word: string) => foldedWords(word).some((found) => hidden.some((start) => found.startsWith(start)));
	for (const { part, text } of searchedParts(question)) {
		const all = folded(text);
		if (!hidden.some((start) => all.includes(start))) continue;
		const found = [...text.matchAll(searchedWord)].find(([word]) => isHidden(word));
		if (!found) continue;
		const at = found.index;
		const from = at <= shown.before ? 0 : Math.min(at, text.indexOf(' ', at - shown.before) + 1);
		const to = Math.max(from + shown.all, at + found[0].length);
		return { part, before: `${from > 0 ? '…' : ''}${text.slice(from, at)}`, text: text.slice(at, to) };
	}
	return null;
}
