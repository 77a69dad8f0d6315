import type { QuizSettings } from '$core/model/quiz-settings';
import type { CarriedPart, CarriedRules } from '$core/model/sheet';
import { rows, type Database } from '../db/pool';

/** A part of a quiz as it was found; questions are named by their numbers in the load. */
export interface StagedPart {
	title: string;
	draw: number | null;
	pointsEach: number | null;
	shuffle: boolean | null;
	numbers: number[];
	/** What it says beside that, in a file of ours. */
	sheet: CarriedPart<number> | null;
}

/** What was found of a quiz beside its title, as it is kept until it is taken in. */
export interface StagedSheet {
	settings: Partial<QuizSettings>;
	rules: CarriedRules<number> | null;
	parts: StagedPart[];
}

/** A quiz that was found in a load. */
export interface StagedQuiz extends StagedSheet {
	id: number;
	title: string;
}

/** What is kept of a quiz; loads that were read by an earlier edition have its parts alone. */
function sheetIn(document: string): StagedSheet {
	const kept = JSON.parse(document) as StagedSheet | Omit<StagedPart, 'sheet'>[];
	return Array.isArray(kept)
		? { settings: {}, rules: null, parts: kept.map((part) => ({ ...part, sheet: null })) }
		: kept;
}

/** The quizzes that were found in a load. */
export async function foundQuizzes(db: Database, loadId: number): Promise<StagedQuiz[]> {
	const found = await rows<{ id: number; title: string; document: string }>(
		db,
		'SELECT id, title, document FROM staged_quizzes WHERE load_id = ? ORDER BY id',
		[loadId]
	);
	return found.map(({ id, title, document }) => ({ id, title, ...sheetIn(document) }));
}

/** The numbers of the questions of a quiz that was found, each once. */
export const numbersIn = ({ parts }: StagedSheet): number[] => [...new Set(parts.flatMap(({ numbers }) => numbers))];

/** The quizzes that were found in a load, by their titles. */
export async function quizTitles(db: Database, loadId: number): Promise<{ id: number; title: string }[]> {
	return rows(db, 'SELECT id, title FROM staged_quizzes WHERE load_id = ? ORDER BY id', [loadId]);
}
