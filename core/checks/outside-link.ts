import { markupOf, type Question } from '../kinds';
import type { OneCheck } from './check';
import { quoted } from './saying';

const link = /\s(?:href|src|data)="(?:media:)?((?:https?:)?\/\/[^"]*)"/gi;
const decode = (address: string) => address.replace(/&amp;/g, '&').replace(/&quot;/g, '"');
const isOutside = (name: string) => /^(?:https?:)?\/\//i.test(name);

/** The addresses outside of the package to which links and media of a question lead. */
export function outsideOf(question: Question): string[] {
	const linked = markupOf(question).flatMap(({ markup }) =>
		[...markup.matchAll(link)].map(([, address]) => decode(address!))
	);
	const files = question.attachments.filter(({ name }) => isOutside(name)).map(({ name }) => name);
	const pictures = 'picture' in question && isOutside(question.picture.name) ? [question.picture.name] : [];
	return [...new Set([...linked, ...files, ...pictures])];
}

/** A link or a picture leads outside. */
export const outsideLink: OneCheck = {
	id: 'outside-link',
	version: 1,
	scope: 'one',
	title: 'Link or picture that leads outside',
	short: 'outside link',
	severity: 'doubtful',
	why: 'What is on another server can be gone or be another thing tomorrow, tells that server who is reading, and is out of reach in an examination room without a network.',
	find(question) {
		if (question.kind === 'unreadable') return [];
		const words = outsideOf(question);
		return words.length
			? [
					{
						message: `${quoted(words)} ${words.length > 1 ? 'lead' : 'leads'} outside. Put what is meant into the question, or do without.`,
						words
					}
				]
			: [];
	}
};
