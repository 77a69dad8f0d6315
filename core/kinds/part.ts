import { plainText } from '../markup/text';
import type { Markup } from '../model/question';
import type { AcceptedNumber, AcceptedText, Bounds, Pair, Picture, Shape, Side } from '../model/pieces';
import { acceptedNumberText } from './answers';

/** One part of a question: its name for people, what it says in words, and the rich text behind that where there is one. */
export interface Part {
	name: string;
	text: string;
	markup?: Markup;
}

/** A share in percent: "33.3 %". */
export const percent = (credit: number) => `${Math.round(credit * 1000) / 10} %`;

/** What an answer is worth where that is not the whole: " (50 %)". */
export const worth = (credit: number) => (credit === 1 ? '' : ` (${percent(credit)})`);

/** A part that is rich text; `more` stands behind its words. */
export const rich = (name: string, markup: Markup, more = ''): Part => ({
	name,
	text: plainText(markup) + more,
	markup
});

/** "yes", "no", or nothing where the source is silent. */
export const yesOrNo = (value: boolean | null) => (value === null ? '' : value ? 'yes' : 'no');

/** Accepted texts in words. */
export const textsInWords = (accepted: AcceptedText[]) =>
	accepted
		.map(
			({ text, credit, caseSensitive, match }) =>
				`${match === 'pattern' ? `pattern ${text}` : match === 'contains' ? `with ${text} in it` : text}${worth(credit)}${caseSensitive ? ', by case' : ''}`
		)
		.join('; ');

/** Accepted numbers in words. */
export const numbersInWords = (accepted: AcceptedNumber[]) =>
	accepted.map((number) => acceptedNumberText(number) + worth(number.credit)).join('; ');

const boundsInWords = ({ lower, upper }: Bounds) =>
	lower === null && upper === null
		? ''
		: `${lower === null ? '' : `no less than ${percent(lower)}`} ${upper === null ? '' : `no more than ${percent(upper)}`}`.trim();

/** How credit becomes a mark, as a part. */
export const creditPart = ({ combination, bounds }: { combination: string; bounds?: Bounds }): Part => ({
	name: 'credit',
	text: `${combination === 'all' ? 'all or nothing' : ''} ${bounds ? boundsInWords(bounds) : ''}`.trim()
});

/** A picture as a part: what it shows, and its size. */
export const picturePart = ({ alt, width, height }: Picture): Part => ({
	name: 'picture',
	text: `${alt}${width === null || height === null ? '' : ` (${width} by ${height})`}`.trim()
});

/** An area in words. */
export const shapeInWords = ({ shape, coordinates }: Shape) => `${shape} ${coordinates.join(', ')}`;

/** How often something may be used, in words that stand behind it. */
export const usesInWords = (uses: number | null) => (uses === null ? '' : `, used ${uses} times at most`);

/** Things that can be put somewhere, a part each. */
export const sideParts = (name: string, sides: Side[]): Part[] =>
	sides.map((side, at) => rich(`${name} ${at + 1}`, side.text, usesInWords(side.uses)));

/** What belongs together, a part each. */
export const pairParts = (pairs: Pair[], inWords: (pair: Pair) => string): Part[] =>
	pairs.map((pair, at) => ({ name: `pair ${at + 1}`, text: `${inWords(pair)} (${percent(pair.credit)})` }));

/** What a thing of a list says, by its identifier; nothing where there is none. */
export const saidBy = (sides: { identifier: string; text: Markup }[], identifier: string) =>
	plainText(sides.find((side) => side.identifier === identifier)?.text ?? '');
