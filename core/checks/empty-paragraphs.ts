import { plainText } from '../markup/text';
import { mapMarkup, markupOf, type Question } from '../kinds';
import type { OneCheck } from './check';

const space = '(?:\\s|\u00a0|&#160;|&nbsp;)*';
const hollow = new RegExp(
	`<(p|div|h[1-6])(?: [^<>]*)?>(?:${space}<br ?/?>)*${space}</\\1>|<(?:p|h[1-6])(?: [^<>]*)?/>`,
	'g'
);
const breaks = new RegExp(`(?:<br ?/?>${space}){3,}`, 'g');
const isMarker = (found: string) => /class="(?:blank|variable)"/.test(found);

const isLoose = (markup: string) =>
	(markup.match(hollow) ?? []).some((found) => !isMarker(found)) || (markup.match(breaks) ?? []).length > 0;

/** Rich text without them; what only held such a paragraph is empty then, and goes too. */
function tightened(markup: string): string {
	const next = markup.replace(hollow, (found) => (isMarker(found) ? found : '')).replace(breaks, '<br/><br/>');
	return next === markup ? markup : tightened(next);
}

/** A stem or an option with nothing else in it is empty, which other checks say. */
const isEmpty = (field: string, markup: string) =>
	/^(?:stem|option)/.test(field) && !plainText(markup) && !/<(?:img|object|math)\b/.test(markup);

const fieldsOf = (question: Question) =>
	markupOf(question)
		.filter(({ field, markup }) => isLoose(markup) && !isEmpty(field, markup))
		.map(({ field }) => field);

/** Paragraphs with nothing in them, or rows of line breaks. */
export const emptyParagraphs: OneCheck = {
	id: 'empty-paragraphs',
	version: 2,
	scope: 'one',
	title: 'Empty paragraphs',
	short: 'empty lines',
	severity: 'untidy',
	why: 'They were typed to make room, and tear the question apart wherever it is shown in another size.',
	find(question) {
		if (question.kind === 'unreadable') return [];
		const fields = fieldsOf(question);
		return fields.length
			? [
					{
						message: `There are empty paragraphs, or more than two line breaks in a row, in the ${fields.join(', ')}. Take them out.`
					}
				]
			: [];
	},
	mend: { title: 'Take the empty paragraphs and breaks out', apply: (question) => mapMarkup(question, tightened) }
};
