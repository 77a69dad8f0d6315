import type { Pool } from 'mysql2/promise';
import { checkQuestion } from '$core/checks/one';
import type { Container } from '$core/container/container';
import { openContainer } from '$core/formats/open';
import { readPackage } from '$core/formats/package/read';
import { parseRecipe, type Recipe } from '$core/formats/recipe/recipe';
import type { Question } from '$core/kinds';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { fileSource } from '../files/files';
import { codec } from '../files/codec';
import { enqueue } from '../jobs/jobs';
import type { Load } from './loads';

/** The file of a load, opened. */
export function openLoad(pool: Pool, load: Load): Promise<Container> {
	return openContainer(load.file_name, fileSource(pool, load.file_id!, load.size), codec);
}

/** The recipe by which a load is read, or null. */
export async function recipeOf(db: Database, loadId: number): Promise<Recipe | null> {
	const found = await row<{ recipe: string | null }>(db, 'SELECT recipe FROM loads WHERE id = ?', [loadId]);
	return found?.recipe ? parseRecipe(JSON.parse(found.recipe)) : null;
}

/** A recipe that was saved by name. */
export interface SavedRecipe {
	id: number;
	name: string;
	recipe: Recipe;
}

/** The recipes of a course, by name. */
export async function recipesOf(db: Database, courseId: number): Promise<SavedRecipe[]> {
	const found = await rows<{ id: number; name: string; document: string }>(
		db,
		'SELECT id, name, document FROM recipes WHERE course_id = ? ORDER BY name',
		[courseId]
	);
	return found.map(({ id, name, document }) => ({ id, name, recipe: JSON.parse(document) as Recipe }));
}

/** What a recipe finds: the first questions, how many there are in all, and what is broken in them. */
export interface Preview {
	questions: Question[];
	count: number;
	broken: number;
	reports: string[];
}

const shown = 5;
const mostRead = 20_000;

/** The first questions that a recipe finds in a load, without staging anything. */
export async function previewOf(pool: Pool, load: Load, recipe: Recipe): Promise<Preview> {
	const preview: Preview = { questions: [], count: 0, broken: 0, reports: [] };
	for await (const event of readPackage(await openLoad(pool, load), codec, 0, recipe)) {
		if (event.type === 'report') preview.reports.push(event.report.message);
		if (event.type !== 'question') continue;
		preview.count += 1;
		if (preview.questions.length < shown) preview.questions.push(event.question);
		const found = [...event.reports, ...checkQuestion(event.question)];
		if (found.some((report) => report.severity === 'broken')) preview.broken += 1;
		if (preview.count >= mostRead) break;
	}
	return preview;
}

/** Puts a load in the queue to be read by a recipe, which is saved where it has a name. False where the load is being worked on or in the course. */
export async function readByRecipe(
	pool: Pool,
	load: Load,
	personId: number,
	recipe: Recipe,
	name: string
): Promise<boolean> {
	return transaction(pool, async (connection) => {
		const { count } = await run(
			connection,
			"UPDATE loads SET recipe = ?, state = 'waiting', failure = '', bytes_read = 0, questions_found = 0, snags_found = 0 WHERE id = ? AND state IN ('review', 'undone', 'stopped', 'failed') AND file_id IS NOT NULL",
			[JSON.stringify(recipe), load.id]
		);
		if (!count) return false;
		if (name)
			await run(
				connection,
				'INSERT INTO recipes (course_id, person_id, name, document) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE document = VALUES(document), person_id = VALUES(person_id)',
				[load.course_id, personId, name, JSON.stringify(recipe)]
			);
		await enqueue(connection, 'read', load.id);
		return true;
	});
}
