import { RE2JS } from 're2js';
import { parseNumber } from '../numbers/numbers';
import { fold } from '../markup/text';
import type { AcceptedNumber, AcceptedText } from '../model/pieces';

/** Whether a number is one that is accepted. */
export function accepts(accepted: AcceptedNumber, value: number): boolean {
	if ('value' in accepted) {
		const slack = 1e-9 * Math.max(1, Math.abs(accepted.value), accepted.tolerance);
		return Math.abs(value - accepted.value) <= accepted.tolerance + slack;
	}
	const { min, max, includesMin, includesMax } = accepted;
	return (
		(min === null || value > min || (includesMin && value === min)) &&
		(max === null || value < max || (includesMax && value === max))
	);
}

/** Whether a whole text fits a regular expression; false for one that is none (in the syntax of RE2, which takes linear time). */
export function fitsPattern(pattern: string, text: string, caseSensitive = true): boolean {
	try {
		return (
			RE2JS.matches(pattern, text) || (!caseSensitive && RE2JS.compile(pattern, RE2JS.CASE_INSENSITIVE).matches(text))
		);
	} catch {
		return false;
	}
}

/** Whether a text is one that is accepted; white space is folded. */
export function acceptsText(accepted: AcceptedText, answer: string): boolean {
	const given = fold(answer);
	if (accepted.match === 'pattern') return fitsPattern(accepted.text, given, accepted.caseSensitive);
	const [a, b] = accepted.caseSensitive
		? [fold(accepted.text), given]
		: [fold(accepted.text).toLowerCase(), given.toLowerCase()];
	return accepted.match === 'contains' ? a !== '' && b.includes(a) : a === b;
}

/** The best credit that an answer earns among accepted texts; null where none accepts it. */
export function creditOfText(accepted: AcceptedText[], answer: string): number | null {
	const hits = accepted.filter((one) => acceptsText(one, answer));
	return hits.length ? Math.max(...hits.map((one) => one.credit)) : null;
}

/** The best credit that an answer earns among accepted numbers; null where none accepts it, or where it is no number. */
export function creditOfNumber(accepted: AcceptedNumber[], answer: string, whole: boolean): number | null {
	const value = parseNumber(answer);
	if (value === null || (whole && !Number.isInteger(value))) return null;
	const hits = accepted.filter((one) => accepts(one, value));
	return hits.length ? Math.max(...hits.map((one) => one.credit)) : null;
}

/** A number that one entry accepts, a whole one where only those may be entered; null where there is none. */
function numberIn(number: AcceptedNumber, whole: boolean): number | null {
	const [min, max] =
		'value' in number ? [number.value - number.tolerance, number.value + number.tolerance] : [number.min, number.max];
	const middle =
		'value' in number
			? number.value
			: min !== null && max !== null
				? (min + max) / 2
				: min !== null
					? min + ('includesMin' in number && number.includesMin ? 0 : 1)
					: max !== null
						? max - ('includesMax' in number && number.includesMax ? 0 : 1)
						: 0;
	if (!whole) return middle;
	const near = [Math.round(middle)];
	if (min !== null) near.push(Math.ceil(min), Math.ceil(min) + 1);
	if (max !== null) near.push(Math.floor(max), Math.floor(max) - 1);
	return near.find((value) => accepts(number, value)) ?? null;
}

/** A number that is accepted for the most, as a student would write it; null where there is none. */
export function bestNumber(accepted: AcceptedNumber[], whole: boolean): string | null {
	for (const number of [...accepted].sort((a, b) => b.credit - a.credit)) {
		if (number.credit <= 0) break;
		const value = numberIn(number, whole);
		if (value !== null) return String(value);
	}
	return null;
}

/** A number that nothing accepts; null where none was found. */
export function wrongNumber(accepted: AcceptedNumber[]): string | null {
	const ends = accepted.flatMap((one) => ('value' in one ? [one.value + one.tolerance] : [one.max ?? one.min ?? 0]));
	for (const step of [1, 7, 1001, -5000]) {
		const value = Math.ceil(Math.max(0, ...ends)) + step;
		if (!accepted.some((one) => accepts(one, value))) return String(value);
	}
	return null;
}

/** A share of the points without the dust of binary arithmetic. */
export const rounded = (value: number) => Math.round(value * 1e6) / 1e6;

/** A sum of credits within bounds, and within the whole either way. */
export const bounded = (value: number, { lower, upper }: { lower: number | null; upper: number | null }) =>
	rounded(Math.max(-1, Math.min(1, Math.min(upper ?? Infinity, Math.max(lower ?? -Infinity, value)))));

/** What earns the most; nothing where nothing earns anything. */
export const bestOf = <T extends { credit: number }>(list: T[]): T | undefined =>
	[...list].sort((a, b) => b.credit - a.credit).find((entry) => entry.credit > 0);

/** An accepted number for people: "4.85 ± 0.02", "3.1 to 3.3", "above 5". */
export function acceptedNumberText(accepted: AcceptedNumber): string {
	if ('value' in accepted)
		return accepted.tolerance ? `${accepted.value} ± ${accepted.tolerance}` : `${accepted.value}`;
	const { min, max, includesMin, includesMax } = accepted;
	if (min === null && max === null) return 'any number';
	if (min === null) return `${includesMax ? 'up to' : 'below'} ${max}`;
	if (max === null) return `${includesMin ? 'from' : 'above'} ${min}`;
	return `${includesMin ? '' : 'above '}${min} to ${includesMax ? '' : 'below '}${max}`;
}

/** The same with its credit multiplied where it is above nothing, at most to the whole. */
export const scaledCredit = <T extends { credit: number }>(entry: T, by: number): T =>
	entry.credit > 0 ? { ...entry, credit: Math.min(1, rounded(entry.credit * by)) } : entry;
