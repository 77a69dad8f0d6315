import { searchedWords } from '$core/compare/searched';
import { parseQuestion } from '$core/kinds/schema';
import { foldedWords } from '$core/markup/folded';
import { rows, run, type Database } from '../db/pool';
import { whichCondition, type Which } from './tags';

const batch = 200;

/** The words of a document; one that is no question any more keeps nobody from starting, and is found by all it holds. */
export function wordsIn(document: string): string[] {
	try {
		return searchedWords(parseQuestion(JSON.parse(document)));
	} catch {
		return [...new Set(foldedWords(document))];
	}
}

/** Notes all the words of questions that have more of them than have room beside the question. */
export async function keepLongWords(db: Database, which: Which): Promise<void> {
	const { sql, parameters } = whichCondition(which);
	await run(
		db,
		`DELETE l FROM long_searched_words l JOIN questions q ON q.id = l.question_id WHERE ${sql}`,
		parameters
	);
	for (let last = 0; ;) {
		const long = await rows<{ id: number; document: string }>(
			db,
			`SELECT q.id, CAST(q.document AS CHAR) AS document FROM questions q WHERE ${sql} AND q.searched_words LIKE '+%' AND q.id > ? ORDER BY q.id LIMIT ${batch}`,
			[...parameters, last]
		);
		if (!long.length) return;
		last = long.at(-1)!.id;
		await run(db, 'INSERT INTO long_searched_words (question_id, words) VALUES ?', [
			long.map(({ id, document }) => [id, ` ${wordsIn(document).join(' ')}`])
		]);
	}
}
