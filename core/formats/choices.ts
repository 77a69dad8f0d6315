const truths = [
	['true', 'false'],
	['yes', 'no'],
	['right', 'wrong'],
	['correct', 'incorrect'],
	['t', 'f']
];

/** Whether the texts of the options are those of a true-or-false question, in either order. */
export function isTrueFalse(texts: string[]): boolean {
	const plain = texts.map((text) => text.toLowerCase().replace(/[.\s]+$/, ''));
	return (
		plain.length === 2 && plain[0] !== plain[1] && truths.some((pair) => plain.every((text) => pair.includes(text)))
	);
}

/**
 * A limit on how many of some options may be chosen, in words; null where there is none beyond one or all of them. `most`
 * is 0 for any number.
 */
export function limitWords(options: number, least: number, most: number): string | null {
	if (most > 1 && most < options) return `that at most ${most} of the ${options} options may be chosen`;
	return least > 1 && most !== 1 ? `that at least ${least} options have to be chosen` : null;
}

/** The headings of two columns of which one is marked for each statement: that it is true, or that it is false. */
export const trueHeading = /^(?:t|true|richtig|wahr|vrai|verdadero|vero|waar)$/i;
export const falseHeading = /^(?:f|false|falsch|faux|falso|onwaar)$/i;
