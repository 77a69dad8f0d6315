import { number, object, string, type InferType, type Schema } from 'yup';
import { type Fields, credit, list, maybeNumber, text, truth, word } from './fields';

/** One option. `credit` is a share of the points from -1 to 1; a pinned option keeps its place when options are shuffled. */
export const option = object({
	identifier: text(),
	text: text(),
	credit: credit(),
	feedback: string(),
	pinned: truth()
}).defined();

/** One option. `credit` is a share of the points from -1 to 1; a pinned option keeps its place when options are shuffled. */
export type Option = InferType<typeof option>;

/** How the credit of several answers becomes a mark: each for itself, or all of them or nothing. */
export const combination = () => word('sum', 'all');

/** How the credit of several answers becomes a mark: each for itself, or all of them or nothing. */
export type Combination = InferType<ReturnType<typeof combination>>;

/** The least and the greatest credit of the whole, null for no bound. */
export const bounds = object({ lower: maybeNumber(), upper: maybeNumber() }).defined();

/** The least and the greatest credit of the whole, null for no bound. */
export type Bounds = InferType<typeof bounds>;

/**
 * One text that is accepted, with its share of the points; `match` says how it is held against the answer where it is not
 * the whole of it: contained in it, or a regular expression.
 */
export const acceptedText = object({
	text: text(),
	credit: credit(),
	caseSensitive: truth(),
	match: string<'contains' | 'pattern'>().oneOf(['contains', 'pattern'])
}).defined();

/** One text that is accepted, with its share of the points. */
export type AcceptedText = InferType<typeof acceptedText>;

const aroundValue = object({
	value: number().defined(),
	tolerance: number().defined().min(0),
	credit: credit()
}).defined();
const inRange = object({
	min: maybeNumber(),
	max: maybeNumber(),
	includesMin: truth(),
	includesMax: truth(),
	credit: credit()
}).defined();

/** A number that is accepted: a value with an absolute tolerance, or a range; null is an end that is open to infinity. */
export type AcceptedNumber = InferType<typeof aroundValue> | InferType<typeof inRange>;

/** A number that is accepted: a value with an absolute tolerance, or a range; null is an end that is open to infinity. */
export const acceptedNumber = object({
	value: number(),
	tolerance: number().min(0),
	min: number().nullable(),
	max: number().nullable(),
	includesMin: truth().optional(),
	includesMax: truth().optional(),
	credit: credit()
})
	.test(
		'value-or-range',
		'an accepted number has a value with its tolerance, or a range',
		(entry) => (entry.value !== undefined && entry.tolerance !== undefined) || entry.includesMin !== undefined
	)
	.meta({ alternatives: [aroundValue, inRange] } as never) as unknown as Schema<AcceptedNumber>;

/** A thing that can be put somewhere, and how often; null is as often as one likes. */
export const side = object({ identifier: text(), text: text(), uses: maybeNumber() }).defined();

/** A thing that can be put somewhere, and how often; null is as often as one likes. */
export type Side = InferType<typeof side>;

/** What belongs together, by identifiers, with its share of the points. */
export const pair = object({ left: text(), right: text(), credit: credit() }).defined();

/** What belongs together, by identifiers, with its share of the points. */
export type Pair = InferType<typeof pair>;

/** A picture that is pointed at: an attachment's name, and its size in pixels where it is known. */
export const picture = object({ name: text(), width: maybeNumber(), height: maybeNumber(), alt: text() }).defined();

/** A picture that is pointed at: an attachment's name, and its size in pixels where it is known. */
export type Picture = InferType<typeof picture>;

/**
 * The fields of an area of a picture, in its pixels: rect left, top, right, bottom; circle x, y, radius; ellipse x, y, two
 * radii; poly x, y, x, y, …; default is all of it.
 */
export const shapeFields = {
	identifier: text(),
	shape: word('rect', 'circle', 'ellipse', 'poly', 'default'),
	coordinates: list(number().defined())
};

/** An area of a picture, in its pixels (see `shapeFields`). */
export type Shape = Fields<typeof shapeFields>;
