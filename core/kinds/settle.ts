import { acceptedNumbers, tidy } from '../numbers/numbers';
import type { AcceptedNumber, AcceptedText, Shape } from '../model/pieces';
import { accepts } from './answers';

/** The accepted numbers in the one form that says what earns how much, however many ways there are to write it. */
export function settledNumbers(given: AcceptedNumber[]): AcceptedNumber[] {
	// a value with a tolerance is the range around it
	const accepted = given.map((number): AcceptedNumber =>
		'value' in number && number.tolerance > 0
			? {
					min: tidy(number.value - number.tolerance),
					max: tidy(number.value + number.tolerance),
					includesMin: true,
					includesMax: true,
					credit: number.credit
				}
			: number
	);
	const ends = accepted.flatMap((number) =>
		'value' in number
			? [number.value - number.tolerance, number.value + number.tolerance]
			: [number.min, number.max].filter((end) => end !== null)
	);
	const centres = accepted.flatMap((number) => ('value' in number ? [number] : []));
	if (!ends.length) return accepted;
	return acceptedNumbers(
		ends,
		(value) => Math.max(0, ...accepted.filter((number) => accepts(number, value)).map((number) => number.credit)),
		centres
	);
}

/** The accepted texts in the one form in which they are compared. */
export const settledTexts = (accepted: AcceptedText[]) =>
	accepted.map(({ text, credit, caseSensitive, match }) => ({ text, credit, caseSensitive, match: match ?? 'whole' }));

/** An area without its identifier. */
export const settledShape = ({ shape, coordinates }: Shape) => ({ shape, coordinates });
