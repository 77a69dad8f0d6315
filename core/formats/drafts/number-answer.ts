import { fold } from '../../markup/text';
import type { AcceptedNumber } from '../../model/pieces';
import { parseNumber } from '../../numbers/numbers';

/** A number that is accepted, as people write it: "3.2 +/- 0.1", "3.1 to 3.3", "8"; null where it is none. */
export function numberAnswer(text: string): AcceptedNumber | null {
	const plain = fold(text);
	// a time of the clock or the number of a chart is no quantity: its nought counts
	if (/^0\d{3,}$/.test(plain)) return null;
	const number = '[-+\\u2212]?(?:\\d+(?:[.,]\\d+)?|[.,]\\d+)(?:[eE][-+]?\\d+)?';
	const around = new RegExp(
		`^(${number})\\s*(?:\\+\\s*/?\\s*-|±|\\+-|plus or minus)\\s*(${number})\\s*(%?)$`,
		'i'
	).exec(plain);
	if (around) {
		const [value, given] = [parseNumber(around[1]!), parseNumber(around[2]!)];
		if (value !== null && given !== null)
			return { value, tolerance: Math.abs(around[3] ? (value * given) / 100 : given), credit: 1 };
	}
	const range = new RegExp(
		`^(?:(?:between|from)\\s+)?(${number})\\s*(?:to|and|\\.\\.\\.?|…|–|—)\\s*(${number})$`,
		'i'
	).exec(plain);
	if (range) {
		const [min, max] = [parseNumber(range[1]!), parseNumber(range[2]!)];
		if (min !== null && max !== null && min <= max)
			return { min, max, includesMin: true, includesMax: true, credit: 1 };
	}
	const value = parseNumber(plain.replace(/^=\s*/, ''));
	return value === null ? null : { value, tolerance: 0, credit: 1 };
}
