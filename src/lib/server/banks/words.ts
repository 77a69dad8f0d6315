import { foldedWords } from '$core/markup/folded';

/**
 * A condition for questions `q` that have words anywhere in what they say, each at the beginning of one of theirs, without
 * case and accents; with its parameters. Empty where nothing is looked for.
 */
export function wordCondition(words: string): { sql: string; parameters: string[] } {
	const starts = [...new Set(foldedWords(words))].map((word) => `% ${word}%`);
	return {
		// what has more words than have room in its column is looked up by itself, so that all else is read from by_filters
		sql: starts
			.map(
				() =>
					' AND (q.searched_words LIKE ? OR q.id IN (SELECT l.question_id FROM long_searched_words l WHERE l.words LIKE ?))'
			)
			.join(''),
		parameters: starts.flatMap((start) => [start, start])
	};
}
