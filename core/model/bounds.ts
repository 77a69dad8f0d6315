/** The most that is read of one thing: more than any question that people make, and little enough to be worked with. Lengths in letters. */
export const bounds = {
	/** Of a file as a whole. */
	questions: 500_000,
	columns: 2000,
	/** Of one line or one cell of a text or a table. */
	cell: 100_000,
	/** Of one question; all of its texts together are no longer than its source may be. */
	source: 4_000_000,
	title: 2000,
	markup: 1_000_000,
	text: 20_000,
	tags: 12_000,
	options: 1000,
	blanks: 500,
	pairs: 2000,
	/** How deep elements of HTML stand in one another. */
	depth: 300
} as const;

/** How much of a source is kept that is beyond the bounds; the file itself stays as it came. */
export const keptOfSource = 64_000;
