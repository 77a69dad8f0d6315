/** At most this many things are named in a message; of more, the number is said. */
const mostNamed = 4;

/** Things in quotes, one after the other: “Port”, “Starboard” and 3 more. */
export function quoted(words: readonly string[]): string {
	const shown = words.slice(0, mostNamed).map((word) => `“${word}”`);
	const left = words.length - shown.length;
	return left ? `${shown.join(', ')} and ${left} more` : shown.join(', ');
}

/** A share as a percentage for people. */
export const inPercent = (share: number): string => `${Math.round(share * 100)} percent`;

/** A slack for shares of credit: what lies within it is rounding and no mistake. */
export const slack = 0.01;
