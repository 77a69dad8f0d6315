import { mapMarkup, markupOf, type Question } from '../kinds';
import type { OneCheck } from './check';

/** Behind a figure it is inches, seconds or a repetition sign. */
const straight = /(?<!\d\s?)(?:"|&quot;|&#34;)/g;
const curly = /[“”„‟]/g;
/** What stands within code is written as it has to be. */
const pieces = /(<(?:code|pre|kbd|samp)\b[\s\S]*?<\/(?:code|pre|kbd|samp)>|<[^<>]*>)/;

/** The text of rich text, without tags and code. */
const textOf = (markup: string) =>
	markup
		.split(pieces)
		.filter((_, at) => at % 2 === 0)
		.join(' ');
const textsOf = (question: Question) => [question.title, ...markupOf(question).map(({ markup }) => textOf(markup))];

function counts(question: Question): { straight: number; curly: number; opening: string } {
	const texts = textsOf(question);
	const found = texts.flatMap((text) => text.match(curly) ?? []);
	return {
		straight: texts.reduce((sum, text) => sum + (text.match(straight)?.length ?? 0), 0),
		curly: found.length,
		opening: found.includes('„') ? '„' : '“'
	};
}

/** Straight quotes made curly, in the way of those that are there: the first of two opens. */
function curled(markup: string, opening: string): string {
	const closing = opening === '„' ? '“' : '”';
	const texts = textOf(markup).match(straight)?.length ?? 0;
	if (texts % 2) return markup;
	let met = 0;
	return markup
		.split(pieces)
		.map((piece, at) => (at % 2 ? piece : piece.replace(straight, () => (met++ % 2 ? closing : opening))))
		.join('');
}

/** Straight and curly quotes in one question. */
export const mixedQuotes: OneCheck = {
	id: 'mixed-quotes',
	version: 1,
	scope: 'one',
	title: 'Straight and curly quotes mixed',
	short: 'quotes',
	severity: 'untidy',
	why: 'Mostly it comes of texts that were put together from two places. It reads badly, and a key that is typed with one quote is not found with the other.',
	find(question) {
		if (question.kind === 'unreadable') return [];
		const found = counts(question);
		return found.straight && found.curly
			? [{ message: `Straight quotes (") stand beside curly ones (“ ”). Write all in one way.`, words: ['"'] }]
			: [];
	},
	mend: {
		title: 'Make the straight quotes curly ones, as the others are',
		fits: (question) => {
			const { opening } = counts(question);
			return counts(mended(question, opening)).straight === 0;
		},
		apply(question) {
			const found = counts(question);
			if (!found.straight || !found.curly) return question;
			const after = mended(question, found.opening);
			return counts(after).straight ? question : after;
		}
	}
};

const mended = (question: Question, opening: string): Question => ({
	...mapMarkup(question, (markup) => curled(markup, opening)),
	title: curled(question.title, opening)
});
