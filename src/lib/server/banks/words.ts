/** Words that the full-text index leaves out (InnoDB's own list) or that are too short for it; they are looked for in the text itself. */
const notIndexed = new Set(
	'a about an are as at be by com de en for from how i in is it la of on or that the this to was what when where who will with und www'.split(
		' '
	)
);
const shortest = 3;

/** A condition for questions `q` that have words in their title or stem, with its parameters. */
export function wordCondition(words: string): { sql: string; parameters: string[] } {
	const all = words.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
	const indexed = all.filter((word) => word.length >= shortest && !notIndexed.has(word));
	const others = all.filter((word) => !indexed.includes(word));
	const sql =
		(indexed.length ? ' AND MATCH (q.title, q.stem_text) AGAINST (? IN BOOLEAN MODE)' : '') +
		others.map(() => " AND CONCAT(' ', q.title, ' ', q.stem_text) LIKE ?").join('');
	return {
		sql,
		parameters: [
			...(indexed.length ? [indexed.map((word) => `+${word}*`).join(' ')] : []),
			...others.map((word) => `% ${word}%`)
		]
	};
}
