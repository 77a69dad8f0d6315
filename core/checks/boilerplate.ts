import { mapMarkup, type Question } from '../kinds';
import { fold, plainText } from '../markup/text';
import type { OneCheck } from './check';
import { hintedKind } from './kind-hint';
import { boilerplateIn } from './phrases/instructions';
import { asksForOne, asksForSeveral } from './phrases/several';
import { quoted } from './saying';

const most = 5;

/** What is to go of a text, one after the other. */
function allIn(text: string, isLeft: (words: string) => boolean): string[] {
	const found: string[] = [];
	let rest = text;
	while (found.length < most) {
		const words = boilerplateIn(rest);
		if (!words || isLeft(words)) break;
		found.push(words);
		rest = fold(rest.replace(words, ' '));
	}
	return found;
}

/** What stands in the stem and in the title; what asks for another kind of choice is said by its own check. */
function foundIn(question: Question): { stem: string[]; title: string[] } {
	const hinted = hintedKind(question) !== null;
	const isHint = (words: string) => hinted && (asksForSeveral(words) !== null || asksForOne(words) !== null);
	return {
		stem: question.kind === 'unreadable' ? [] : allIn(plainText(question.stem), isHint),
		title: allIn(fold(question.title), isHint)
	};
}

const escaped = (words: string) => words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** Takes words out of rich text, in which tags may stand between them. */
function without(markup: string, words: string): string {
	const pattern = words
		.split(/\s+/)
		.map((word) =>
			[...word]
				.map((sign) => escaped(sign.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')))
				.join('(?:<[^<>]*>)*')
		)
		.join('(?:\\s|&#160;|<[^<>]*>)+');
	return markup
		.replace(new RegExp(`\\s*${pattern}\\s*`, 'iu'), (found, at: number) => {
			// tags that were opened or closed among the words stay, so that the rest is well-formed
			const tags = (found.match(/<[^<>]*>/g) ?? []).join('');
			return at === 0 || /^\s*(?:<\/[^<>]*>\s*)*(?:<p|<div|$)/.test(markup.slice(at + found.length))
				? tags
				: `${tags} `;
		})
		.replace(/<(p|div|b|i|em|strong|span|u)>\s*<\/\1>/g, '')
		.replace(/(?:<br\/>)+$/, '')
		.trim();
}

/** Words that say nothing of what is asked. */
export const boilerplate: OneCheck = {
	id: 'boilerplate',
	version: 5,
	scope: 'one',
	title: 'Words that belong to no question',
	short: 'boilerplate',
	severity: 'untidy',
	why: 'How to answer is shown with the options, and the number with the list. Typed into the words as well, it stays there when the question changes, and then it is wrong.',
	find(question) {
		const { stem, title } = foundIn(question);
		if (!stem.length && !title.length) return [];
		const where = [
			...(stem.length ? [`${quoted(stem)} in the stem`] : []),
			...(title.length ? [`${quoted(title)} in the title`] : [])
		];
		return [
			{
				message: `There is ${where.join(' and ')}, which says nothing of what is asked. Take it out.`,
				words: [...stem, ...title]
			}
		];
	},
	mend: {
		title: 'Take these words out',
		apply(question) {
			const { stem, title } = foundIn(question);
			if (!stem.length && !title.length) return question;
			const bare = mapMarkup(question, (markup, field) => (field === 'stem' ? stem.reduce(without, markup) : markup));
			const left = title.reduce((text, words) => fold(text.replace(words, ' ')), question.title);
			return { ...bare, title: left };
		}
	}
};
