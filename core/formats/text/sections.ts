const amount = String.raw`(\d+(?:[.,]\d+)?)\s*(?:points?|marks?|pts?\.?)`;
const each = [
	new RegExp(String.raw`\b${amount}\s*(?:each\b|apiece\b|(?:per|for(?:\s+each)?)\s+(?:question|item|answer)\b)`, 'i'),
	new RegExp(
		String.raw`\beach\b(?:\s+(?:question|item|answer|one))?\s*(?:is|are|counts?|carries|earns?|gives)?\s*(?:worth|for)?\s*:?\s*\(?${amount}`,
		'i'
	)
];
const section = /^(?:part|section|teil|abschnitt|partie|parte|sección|deel|questions?\s+\d+\s*(?:[-–—]|to)\s*\d+)\b/i;
/** The kind of the questions below, in a line of its own: "Completion.", "True/False. Write T or F." */
const ofKind =
	/^(?:multiple[-\s]choice|true\s*(?:[/|]|or)?\s*false|matching|completion|short[-\s]answer|essay|fill[-\s]in[-\s]the[-\s]blanks?)(?:\s+questions?)?\s*(?:[.:(]|$)/i;
const trueOrFalse = /\btrue\s*(?:[/|]|or|and)\s*false\b|\bt\s*\/\s*f\b/i;

/** The points of a whole section, in brackets at the end of its line: “Part B. Essay (10 points)”. */
const total = new RegExp(String.raw`[([]\s*(?:total(?:\s+of)?:?\s*)?${amount}(?:\s*(?:in\s+)?total)?\s*[)\]]\s*$`, 'i');

/** What a line above questions says of each of them. */
export interface SectionWords {
	/** The points that each question is worth, as written; null where nothing is said of them. */
	points: string | null;
	/** The points of all of them together; null where nothing is said of that. */
	total: number | null;
	/** The questions are statements to be called true or false. */
	trueFalse: boolean;
	/** The line begins a new part of the paper, so that what was said above it holds no longer. */
	begins: boolean;
}

/** Reads a heading, or a line between questions: "Part B. True or false (2 points each)". */
export function sectionWords(text: string): SectionWords {
	const points = each.map((pattern) => pattern.exec(text)?.[1]).find((found) => found !== undefined) ?? null;
	const begins = section.test(text) || ofKind.test(text);
	const whole = points === null ? total.exec(text)?.[1] : undefined;
	return {
		points,
		total: whole ? Number(whole.replace(',', '.')) : null,
		trueFalse: begins && trueOrFalse.test(text),
		begins
	};
}
