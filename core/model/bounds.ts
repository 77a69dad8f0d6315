import { isChoice, markupOf, type Question } from './question';

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

const figure = (value: number) => value.toLocaleString('en');

/** Says that something has more than is read, or null where it has not: "It has 10,000 options, and 1,000 is the most". */
function over(count: number, most: number, what: string): string | null {
	return count > most
		? `It has ${figure(count)} ${what}, and ${figure(most)} is the most that one question can have here.`
		: null;
}

/** Why a question cannot be worked with for its size, in a sentence; null where it can. */
export function overBounds(question: Question): string | null {
	const long = (text: string, most: number, what: string) =>
		text.length > most
			? `${what} ${what.startsWith('All') ? 'are' : 'is'} ${figure(text.length)} letters long, and ${figure(most)} is the most.`
			: null;
	const title = long(question.title, bounds.title, 'Its title');
	if (title) return title;
	if (isChoice(question)) {
		const options = over(question.options.length, bounds.options, 'options');
		if (options) return options;
	}
	const count =
		question.kind === 'fill-blanks'
			? (over(question.blanks.length, bounds.blanks, 'blanks') ??
				over(question.bank.length, bounds.options, 'words') ??
				over(
					Math.max(0, ...question.blanks.map((one) => ('entries' in one ? one.entries.length : 0))),
					bounds.options,
					'entries in a list'
				))
			: question.kind === 'matching'
				? (over(Math.max(question.left.length, question.right.length), bounds.options, 'things to match') ??
					over(question.pairs.length, bounds.pairs, 'pairs'))
				: question.kind === 'ordering'
					? over(question.items.length, bounds.options, 'things to put in order')
					: question.kind === 'hotspot'
						? over(question.shapes.length, bounds.options, 'places')
						: question.kind === 'label-image'
							? over(Math.max(question.labels.length, question.targets.length), bounds.options, 'labels or places')
							: question.kind === 'short-answer' || question.kind === 'numeric'
								? over(question.accepted.length, bounds.options, 'accepted answers')
								: question.kind === 'calculated'
									? over(question.variables.length, bounds.blanks, 'variables')
									: null;
	if (count) return count;
	for (const { field, markup } of markupOf(question)) {
		const found = long(markup, bounds.markup, `What stands under “${field}”`);
		if (found) return found;
	}
	if (question.kind === 'short-answer')
		for (const { text } of question.accepted) {
			const found = long(text, bounds.text, 'An accepted answer');
			if (found) return found;
		}
	for (const { name, value } of question.metadata) {
		const found = long(value, bounds.markup, `The metadata “${name.slice(0, 60)}”`);
		if (found) return found;
	}
	const inAll = JSON.stringify(question).length;
	return (
		over(question.tags.length, bounds.options, 'tags') ??
		over(question.attachments.length, bounds.pairs, 'files') ??
		long(question.tags.join(), bounds.tags, 'All its tags together') ??
		(inAll > bounds.source
			? `All that it holds is ${figure(inAll)} letters long, and ${figure(bounds.source)} is the most.`
			: null)
	);
}
