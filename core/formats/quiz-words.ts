import { plainText } from '../markup/text';
import { escapeText } from '../xml/serialise';

const lines = (text: string) => text.replace(/\r\n?/g, '\n').split('\n');

/** Words around a quiz in the one form in which they are written and read: no blanks at the ends of lines, one empty line between paragraphs. */
export const settledWords = (text: string): string =>
	lines(text)
		.map((line) => line.replace(/\s+/g, ' ').trim())
		.join('\n')
		.replace(/\n{3,}/g, '\n\n')
		.trim();

/** Words around a quiz as paragraphs: an empty line parts them, a single break stays one. */
export const paragraphsOf = (text: string): string =>
	settledWords(text)
		.split('\n\n')
		.map((paragraph) => `<p>${lines(paragraph).map(escapeText).join('<br/>')}</p>`)
		.join('');

const blockEnd = /<\/(?:p|div|li|h[1-6]|blockquote|pre|tr|dd|dt|ul|ol|table)>|<hr[^>]*>/g;

/** The words of rich text: blocks parted by an empty line, breaks kept. */
export const wordsOfMarkup = (markup: string): string =>
	settledWords(
		markup
			.split(blockEnd)
			.map((block) =>
				block
					.split(/<br\b[^>]*>/)
					.map(plainText)
					.join('\n')
			)
			.join('\n\n')
	);
