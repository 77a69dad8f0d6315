import { plainText } from '../markup/text';
import { markupOf, type Question } from '../kinds';
import type { OneCheck } from './check';
import { sendsToPicture } from './phrases/picture';

const ofText =
	/text|passage|extract|excerpt|paragraph|abschnitt|auszug|extrait|fragment|pasaje|trecho|excerto|bran[oi]|code|tekst|test[oi]/iu;
const ofTable = /tab(?:le|elle|la|ella|el)|tableau|cuadro|quadro/iu;
/** So many numbers in the stem may be the table that it speaks of, written as text. */
const fewestOfTable = 5;
/** So many words beside the mention are a text that it may speak of. */
const fewestOfText = 25;

/** Whether what the words speak of is there: a picture, a table or a formula, or enough of a text. */
function isThere(question: Question, words: string): boolean {
	if ('picture' in question || question.stimulus || question.attachments.length) return true;
	if (markupOf(question).some(({ markup }) => /<(?:img|object|table|math|svg|pre)\b/.test(markup))) return true;
	if (ofTable.test(words) && (plainText(question.stem).match(/\d+(?:[.,:]\d+)?/g) ?? []).length >= fewestOfTable)
		return true;
	// what has blanks is the text that is to be filled in
	if (ofText.test(words) && 'blanks' in question) return true;
	return ofText.test(words) && plainText(question.stem).split(' ').length >= fewestOfText;
}

/** The words speak of a picture, a table or a text, and there is none. */
export const pictureMentioned: OneCheck = {
	id: 'picture-mentioned',
	version: 4,
	scope: 'one',
	title: 'Picture that is spoken of and not there',
	short: 'no picture',
	severity: 'doubtful',
	why: 'The words send students to a picture, a table or a text that the question does not have, so they cannot answer it.',
	find(question) {
		if (question.kind === 'unreadable') return [];
		const words = sendsToPicture(plainText(question.stem));
		return words && !isThere(question, words)
			? [
					{
						message: `The stem speaks of “${words}”, and there is nothing of that in the question. Put it in, or write the stem anew.`,
						words: [words]
					}
				]
			: [];
	}
};
