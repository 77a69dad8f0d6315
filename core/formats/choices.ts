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
