import { rows, type Database } from '../db/pool';

/** A quiz that was found in a load, with the numbers of its questions in the file. */
export interface StagedQuiz {
	id: number;
	title: string;
	numbers: number[];
}

/** The quizzes that were found in a load. */
export async function foundQuizzes(db: Database, loadId: number): Promise<StagedQuiz[]> {
	const found = await rows<{ id: number; title: string; document: string }>(
		db,
		'SELECT id, title, document FROM staged_quizzes WHERE load_id = ? ORDER BY id',
		[loadId]
	);
	return found.map(({ id, title, document }) => ({
		id,
		title,
		numbers: [...new Set((JSON.parse(document) as { numbers: number[] }[]).flatMap((part) => part.numbers))]
	}));
}

/** The quizzes that were found in a load, by their titles. */
export async function quizTitles(db: Database, loadId: number): Promise<{ id: number; title: string }[]> {
	return rows(db, 'SELECT id, title FROM staged_quizzes WHERE load_id = ? ORDER BY id', [loadId]);
}
