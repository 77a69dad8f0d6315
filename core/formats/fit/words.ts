/** A number with the word for what is counted, in its right form. */
export const counted = (count: number, word: string): string =>
	`${count.toLocaleString('en')} ${word}${count === 1 ? '' : 's'}`;

/** Words as a list: a, b and c. */
export const listed = (words: readonly string[]): string =>
	words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;
