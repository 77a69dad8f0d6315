import { searchedColumn } from '../questions/columns';
import { keepLongWords, wordsIn } from '../questions/long-words';
import { row, rows, run, type Database } from './pool';

const batch = 500;
/** After so many questions it is said how far it is. */
const told = 20_000;

/** Works out the words by which the questions of a table are found, where they were written before these were kept. */
async function fillTable(
	db: Database,
	table: 'questions' | 'staged_questions' | 'question_versions',
	tell: (more: number) => void
): Promise<void> {
	for (let last = 0; ;) {
		const found = await rows<{ id: number; document: string }>(
			db,
			`SELECT id, CAST(document AS CHAR) AS document FROM ${table} WHERE id > ? AND searched_words = '' ORDER BY id LIMIT ${batch}`,
			[last]
		);
		if (!found.length) return;
		last = found.at(-1)!.id;
		const values = found.flatMap(({ id, document }) => [id, searchedColumn(wordsIn(document))]);
		await run(
			db,
			`UPDATE ${table} q JOIN (${found.map(() => 'SELECT ? AS id, ? AS words').join(' UNION ALL ')}) w ON w.id = q.id SET q.searched_words = w.words`,
			values
		);
		if (table === 'questions') await keepLongWords(db, { ids: found.map(({ id }) => id) });
		tell(found.length);
	}
}

/** Works out by which words questions are found, for all that were written before these were kept; says how far it is. */
export async function fillSearchedWords(db: Database, say: (words: string) => void): Promise<void> {
	const { n: all } = (await row<{ n: number }>(
		db,
		"SELECT (SELECT COUNT(*) FROM questions WHERE searched_words = '') + (SELECT COUNT(*) FROM staged_questions WHERE searched_words = '') + (SELECT COUNT(*) FROM question_versions WHERE searched_words = '') AS n"
	))!;
	let done = 0;
	const tell = (more: number) => {
		if (Math.floor((done + more) / told) > Math.floor(done / told))
			say(`The words of ${done + more} of ${all} questions are noted for searching.`);
		done += more;
	};
	for (const table of ['questions', 'staged_questions', 'question_versions'] as const) await fillTable(db, table, tell);
}
