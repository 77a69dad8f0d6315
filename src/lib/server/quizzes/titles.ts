import { rows, type Database } from '../db/pool';

/** Words that name questions of a course by their keys, as “#12”, with their titles instead. */
export async function withTitles(db: Database, courseId: number, words: string): Promise<string> {
	const keys = [...words.matchAll(/“#(\d+)”/g)].map(([, id]) => Number(id));
	if (!keys.length) return words;
	const titles = await rows<{ id: number; title: string }>(
		db,
		"SELECT id, IF(title = '', LEFT(stem_text, 80), title) AS title FROM questions WHERE course_id = ? AND id IN (?)",
		[courseId, keys]
	);
	const byKey = new Map(titles.map(({ id, title }) => [id, title]));
	return words.replace(/“#(\d+)”/g, (_, id) => `“${byKey.get(Number(id)) ?? 'a question'}”`);
}
