import { markupOfHtml } from '../markup/clean';
import { plainText } from '../markup/text';
import { mapMarkup, markupOf } from '../kinds';
import type { Markup } from '../model/question';
import type { OneCheck } from './check';

// in rich text an ampersand is written &amp;, so a reference that a student would read begins &amp;
const reference = /&amp;(?:amp;)*(?:#\d{1,7}|#x[0-9a-f]{1,6}|[a-z][a-z0-9]{1,31});/gi;

const named = new Map<string, boolean>();

/** Whether a reference, with its own ampersand escaped or not, is one that HTML knows: a number, or a name. */
function isReference(found: string): boolean {
	const bare = found.replace(/^&amp;(?:amp;)*/i, '&');
	if (bare === '&' || bare.startsWith('&#')) return true;
	let known = named.get(bare);
	if (known === undefined) {
		known = plainText(markupOfHtml(bare, { media: () => null, removed: () => undefined })) !== bare;
		if (named.size < 500) named.set(bare, known);
	}
	return known;
}
const tag =
	/&lt;\/?(?:p|br|b|i|u|em|strong|span|div|sub|sup|ul|ol|li|img|font|table|tr|td)(?:\s+(?:[a-z:-]+=[^<>]*?)?)?\/?&gt;/gi;

/** What is marked as code shows signs as they are, and is meant so. */
const code = /<(code|pre|kbd|samp)\b[^>]*>[\s\S]*?<\/\1>/gi;
const withoutCode = (markup: Markup) => markup.replace(code, ' ');

/** Stand for pieces of code while what is around them is changed: so many, from the first on. */
const firstHidden = 0xe200;
const mostHidden = 256;

/** Rich text changed, but for what is marked as code in it. */
function aroundCode(markup: Markup, change: (around: Markup) => Markup): Markup {
	const kept: string[] = [];
	const hidden = markup.replace(code, (piece) =>
		kept.length < mostHidden ? String.fromCharCode(firstHidden + kept.push(piece) - 1) : piece
	);
	return change(hidden).replace(/[\ue200-\ue2ff]/g, (sign) => kept[sign.charCodeAt(0) - firstHidden] ?? sign);
}

function unescapeOnce(markup: Markup): Markup {
	const once = markup
		.replace(reference, (found) => (isReference(found) ? found.replace(/^&amp;(?:amp;)*/i, '&') : found))
		.replace(tag, (found) =>
			found
				.replace('&lt;', '<')
				.replace(/&gt;$/, '>')
				.replace(/&quot;/g, '"')
		);
	return markupOfHtml(once, { media: () => null, removed: () => undefined });
}

/** The references and tags that a student would read in rich text. */
const spokenIn = (markup: Markup): string[] => [
	...(markup.match(reference) ?? []).filter(isReference),
	...(markup.match(tag) ?? [])
];

/** Signs that were escaped twice, so that students read the escape. */
export const escapedTwice: OneCheck = {
	id: 'escaped-twice',
	version: 3,
	scope: 'one',
	title: 'Escaped twice',
	short: 'escaped',
	severity: 'untidy',
	why: 'Somewhere on its way the text was escaped once too often, so that students read signs such as &quot; or <p> in the middle of the words.',
	find(question) {
		const found = markupOf(question).flatMap(({ field, markup }) =>
			spokenIn(withoutCode(markup)).map((found) => ({ field, word: plainText(found) }))
		);
		if (!found.length) return [];
		const words = [...new Set(found.map(({ word }) => word))];
		return [
			{
				message: `Students would read ${words
					.slice(0, 4)
					.map((word) => `“${word}”`)
					.join(', ')}, signs and all, in the ${[...new Set(found.map(({ field }) => field))].join(', ')}.`,
				words
			}
		];
	},
	mend: {
		title: 'Turn the escapes into the signs that were meant',
		apply: (question) => mapMarkup(question, (markup) => aroundCode(markup, unescapeOnce))
	}
};
