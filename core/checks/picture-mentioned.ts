import { plainText } from '../markup/text';
import type { OneCheck } from './check';

const thing =
	'(?:picture|image|photo(?:graph)?|figure|diagram|drawing|graph|chart|map|plan|sketch|illustration|table|curve)';
const mention = new RegExp(
	`\\b${thing}\\s+(?:shown\\s+|given\\s+|drawn\\s+)?(?:below|above|opposite|shown here|here|on the (?:left|right))|\\b(?:the\\s+)?(?:following|accompanying|attached)\\s+${thing}\\b|\\b(?:in|see|look at)\\s+(?:the|this)\\s+(?:picture|image|photo(?:graph)?|figure|diagram|illustration|drawing)\\b`,
	'i'
);

/** The stem speaks of a picture, and there is none. */
export const pictureMentioned: OneCheck = {
	id: 'picture-mentioned',
	version: 1,
	scope: 'one',
	title: 'Picture that is spoken of and not there',
	short: 'no picture',
	severity: 'doubtful',
	why: 'The stem sends students to a picture or a table that the question does not have, so they cannot answer it.',
	find(question) {
		if ('picture' in question) return [];
		const holds = (markup: string) => /<(img|object|table|math)\b/.test(markup);
		if (holds(question.stem) || holds(question.stimulus?.content ?? '') || question.attachments.length) return [];
		const found = mention.exec(plainText(question.stem));
		return found
			? [
					{
						message: `The stem speaks of “${found[0]}”, and there is no picture in the question. Put it in, or write the stem anew.`,
						words: [found[0]]
					}
				]
			: [];
	}
};
