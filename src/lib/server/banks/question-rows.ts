import { foundBeside, type FoundPart } from '$core/compare/searched';
import type { Kind, Question } from '$core/kinds';
import { foldedWords } from '$core/markup/folded';
import type { Severity } from '$core/reports/report';
import { rows, type Database } from '../db/pool';

/** A question of a bank, for a list. */
export interface QuestionRow {
	id: number;
	kind: Kind;
	title: string;
	/** The beginning of its stem, as plain text. */
	stem: string;
	points: number | null;
	categoryId: number | null;
	tags: string[];
	difficulty: string;
	language: string;
	shuffle: boolean | null;
	/** What is known of its key. */
	key: 'verified' | 'unverified' | 'disputed' | 'machine';
	/** Somebody verified an older version of it. */
	stale: boolean;
	/** The worst of its open snags, and how many there are. */
	worst: Severity | null;
	snags: number;
	/** How many parts of quizzes name it. */
	used: number;
	created: Date;
	changed: Date | null;
	changedBy: string | null;
	/** The file of the load that it came with. */
	load: string | null;
	/** Where it has the words that are looked for, if neither its title nor the start of its stem shows them. */
	found: FoundPart | null;
}

/** Where questions have words that neither their titles nor the starts of their stems show, by their keys. */
async function partsFound(
	db: Database,
	listed: { id: number; title: string; stem: string }[],
	words: string
): Promise<Map<number, FoundPart>> {
	const lookedFor = foldedWords(words);
	const seen = new Map(listed.map(({ id, title, stem }) => [id, `${title} ${stem}`]));
	const hidden = lookedFor.length
		? [...seen].flatMap(([id, text]) => {
				const shown = foldedWords(text);
				return lookedFor.every((start) => shown.some((word) => word.startsWith(start))) ? [] : [id];
			})
		: [];
	if (!hidden.length) return new Map();
	const documents = await rows<{ id: number; document: string }>(
		db,
		'SELECT id, CAST(document AS CHAR) AS document FROM questions WHERE id IN (?)',
		[hidden]
	);
	return new Map(
		documents.flatMap(({ id, document }) => {
			// as it was checked when it was written: to do so again for a list takes longer than to find it
			const part = foundBeside(JSON.parse(document) as Question, words, seen.get(id)!);
			return part ? [[id, part]] : [];
		})
	);
}

/** Questions by their keys, in the same order, as a list shows them; `words` are those that are looked for. */
export async function questionRows(db: Database, ids: number[], words: string): Promise<QuestionRow[]> {
	if (!ids.length) return [];
	const listed = await rows<
		Omit<QuestionRow, 'tags' | 'shuffle' | 'stale' | 'found'> & { tags: string; shuffle: number | null; stale: number }
	>(
		db,
		`SELECT q.id, q.kind, q.title, LEFT(q.stem_text, 160) AS stem, q.points, q.category_id AS categoryId, q.tags, q.difficulty, q.language, q.shuffle,
			CASE WHEN q.disputed IS NOT NULL THEN 'disputed' WHEN q.verified IS NOT NULL THEN 'verified' WHEN q.machine = 1 THEN 'machine' ELSE 'unverified' END AS \`key\`,
			q.verified IS NOT NULL AND q.verified_version < q.version AS stale, q.created, q.changed, p.name AS changedBy, l.file_name AS \`load\`,
			(SELECT COUNT(*) FROM quiz_part_questions u WHERE u.question_id = q.id AND u.role <> 'excluded') AS used,
			(SELECT MIN(s.severity) FROM snags s WHERE s.question_id = q.id) AS worst, (SELECT COUNT(*) FROM snags s WHERE s.question_id = q.id) AS snags
		FROM questions q LEFT JOIN people p ON p.id = q.changed_by LEFT JOIN loads l ON l.id = q.load_id WHERE q.id IN (?)`,
		[ids]
	);
	const beside = await partsFound(db, listed, words);
	const byId = new Map(
		listed.map((question) => [
			question.id,
			{
				...question,
				tags: JSON.parse(question.tags) as string[],
				shuffle: question.shuffle === null ? null : question.shuffle === 1,
				stale: question.stale === 1,
				found: beside.get(question.id) ?? null
			}
		])
	);
	return ids.flatMap((id) => byId.get(id) ?? []);
}
