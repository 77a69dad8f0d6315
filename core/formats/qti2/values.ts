import { parseNumber } from '../../numbers/numbers';

/** A value of a variable: nothing, one value or several. Numbers are kept as numbers. */
export type Value = null | (string | number | boolean)[];

/** A rule or an expression that this program cannot follow; the message names it. */
export class UnknownRule extends Error {}

/** A marking template whose rules stand somewhere else; the declared key still says what is right. */
export class UnknownTemplate extends UnknownRule {}

/** The number that a value is; null where it is none, or several. */
export const numberOf = (value: Value): number | null => {
	if (!value || value.length !== 1) return null;
	const [one] = value;
	return typeof one === 'number' ? one : typeof one === 'string' ? parseNumber(one) : null;
};
/** Whether a value is true. */
export const isTrue = (value: Value) => value?.[0] === true;
/** Whether two values are the same; numbers are compared as numbers, however they are written. */
export const equalValue = (a: string | number | boolean, b: string | number | boolean) => {
	if (typeof a === 'number' || typeof b === 'number') {
		const [x, y] = [
			typeof a === 'number' ? a : parseNumber(String(a)),
			typeof b === 'number' ? b : parseNumber(String(b))
		];
		return x !== null && x === y;
	}
	return a === b;
};

/** In front of a pattern that is tried as an answer: the answer that fits just this pattern. */
export const patternMark = '\u0002';
/** A point as a response has it: how far across and how far down, in pixels. */
export const pointOf = (text: string) => text.split(/\s+/).map(Number) as [number, number];
