import { ownClasses } from '../markup/classes';
import { plainText } from '../markup/text';
import { mapMarkup, markupOf, type Question } from '../kinds';
import type { OneCheck } from './check';
import { quoted } from './saying';

const emptySpan = /<span>\s*<\/span>|<span\/>/g;
const strayClass = /\sclass="([^"]*)"/g;
const officeTag = /<\/?(?:o|w|m|v|st1):[^<>]*>/g;
/** What a word processor writes among the words where its markup was taken for text. */
const spilled =
	/&lt;!--\[if [^\]]*\][\s\S]*?(?:endif\]--&gt;|$)|&lt;!\[(?:end)?if[^\]]*\]&gt;|\[if (?:!support\w+|gte mso \d+)\]|\[endif\]|&lt;\/?(?:o|w|m|v|st1):[^&]{0,80}&gt;|mso-[a-z-]+\s*:\s*[^;"<&]{1,60};?|(?:class|style)=(?:"|&quot;)?Mso\w+(?:"|&quot;)?|\bMsoNormal\b|(?:Start|End)Fragment/gi;

/** What is left of a word processor in a rich text, in words. */
function leftIn(markup: string): string[] {
	const words = (markup.match(spilled) ?? []).map((found) => plainText(found).slice(0, 60));
	if (markup.match(emptySpan)) words.push('empty spans');
	if ([...markup.matchAll(strayClass)].some(([, names]) => !ownClasses(names!))) words.push('classes');
	if (/ style="/.test(markup)) words.push('styles');
	if (markup.match(officeTag)) words.push('tags of an office program');
	return words;
}

/** The same without; bold, italic, raised, lowered, underlined and struck words stay as they are. */
function bare(markup: string): string {
	let clean = markup
		.replace(spilled, '')
		.replace(officeTag, '')
		.replace(strayClass, (found, names: string) => (ownClasses(names) ? found : ''))
		.replace(/ style="[^"]*"/g, '');
	for (let before = ''; before !== clean;) {
		before = clean;
		clean = clean.replace(emptySpan, '');
	}
	return clean.replace(/<p>\s*<\/p>/g, '').trim();
}

const found = (question: Question) => [...new Set(markupOf(question).flatMap(({ markup }) => leftIn(markup)))];

/** Markup that a word processor left behind. */
export const wordMarkup: OneCheck = {
	id: 'word-markup',
	version: 1,
	scope: 'one',
	title: 'Leavings of a word processor',
	short: 'word markup',
	severity: 'untidy',
	why: 'They say nothing, make the text several times as long, and break its looks in the next system.',
	find(question) {
		if (question.kind === 'unreadable') return [];
		const words = found(question);
		return words.length
			? [
					{
						message: `A word processor left ${quoted(words)} in it. Take that out.`,
						words: words.filter((word) => /[:[\]<]|Mso|Fragment/.test(word))
					}
				]
			: [];
	},
	mend: {
		title: 'Take them out, and keep the looks that mean something',
		apply: (question) => mapMarkup(question, bare)
	}
};
