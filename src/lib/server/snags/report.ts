import type { Severity } from '$core/reports/report';
import { rows, type Database } from '../db/pool';
import { keptTree } from '../banks/tree';

/** A snag of a bank, as its report lists it. */
export interface ReportLine {
	questionId: number;
	title: string;
	kind: string;
	/** The steps of its category. */
	category: string;
	rule: string;
	severity: Severity;
	message: string;
}

/** So many snags stand in a report; of more, the number is said. */
export const mostLines = 5000;

/** What is wrong with the questions of a bank, question by question, in the order of the tree. */
export async function reportLines(db: Database, bankId: number): Promise<{ lines: ReportLine[]; all: number }> {
	// by_place, then by_question
	const found = await rows<Omit<ReportLine, 'category'> & { categoryId: number | null; all: number }>(
		db,
		`SELECT q.id AS questionId, q.title, q.kind, q.category_id AS categoryId, s.rule, s.severity, s.message, COUNT(*) OVER () AS \`all\`
		FROM questions q JOIN snags s ON s.question_id = q.id WHERE q.bank_id = ? ORDER BY q.category_id, q.id, s.severity, s.id LIMIT ${mostLines}`,
		[bankId]
	);
	const tree = await keptTree(db, bankId, { places: [], snags: [], rules: [] });
	const place = new Map(tree.map(({ id, key }, at) => [id, { at: at + 1, path: key.replaceAll('\n', ' › ') }]));
	const standing = (id: number | null) => place.get(id ?? 0) ?? { at: 0, path: '' };
	return {
		all: Number(found[0]?.all ?? 0),
		lines: found
			.sort((a, b) => standing(a.categoryId).at - standing(b.categoryId).at)
			.map(({ categoryId, all: _, ...line }) => ({ ...line, category: standing(categoryId).path }))
	};
}

/** What the questions of a category have and lack, in numbers. */
export interface Completeness {
	category: string;
	questions: number;
	withoutKey: number;
	unverified: number;
	withoutFeedback: number;
	withoutTitle: number;
	withoutPoints: number;
	kinds: number;
	/** Those with a snag that breaks them. */
	broken: number;
	/** How many the parts of quizzes draw from it, alone or with others, at the most. */
	drawn: number;
}

/** What each category of a bank has and lacks, in the order of its tree; what stands in none comes first. */
export async function completenessOf(db: Database, bankId: number): Promise<Completeness[]> {
	// by_filters, then by_question
	const found = await rows<Omit<Completeness, 'category' | 'drawn'> & { categoryId: number | null }>(
		db,
		`SELECT q.category_id AS categoryId, COUNT(*) AS questions, COUNT(DISTINCT q.kind) AS kinds, CAST(SUM(q.verified IS NULL AND q.kind NOT IN ('information', 'unreadable')) AS INT) AS unverified,
			CAST(SUM(q.has_feedback = 0 AND q.kind <> 'information') AS INT) AS withoutFeedback, CAST(SUM(q.points IS NULL) AS INT) AS withoutPoints,
			CAST(COALESCE(SUM(g.keyless), 0) AS INT) AS withoutKey, CAST(COALESCE(SUM(g.untitled), 0) AS INT) AS withoutTitle, CAST(COALESCE(SUM(g.broken), 0) AS INT) AS broken
		FROM questions q LEFT JOIN (SELECT s.question_id, MAX(s.rule IN ('no-key', 'lost-key')) AS keyless, MAX(s.rule = 'no-title') AS untitled, MAX(s.severity = 'broken') AS broken FROM snags s JOIN questions x ON x.id = s.question_id WHERE x.bank_id = ? GROUP BY s.question_id) g ON g.question_id = q.id
		WHERE q.bank_id = ? GROUP BY q.category_id`,
		[bankId, bankId]
	);
	const drawn = await rows<{ categoryId: number; drawn: number }>(
		db,
		'SELECT k.category_id AS categoryId, MAX(COALESCE(p.draw, 0)) AS drawn FROM quiz_part_categories k JOIN quiz_parts p ON p.id = k.part_id JOIN categories c ON c.id = k.category_id WHERE c.bank_id = ? GROUP BY k.category_id',
		[bankId]
	);
	const draws = new Map(drawn.map((one) => [one.categoryId, one.drawn]));
	const by = new Map(found.map((one) => [one.categoryId, one]));
	const empty = {
		questions: 0,
		withoutKey: 0,
		unverified: 0,
		withoutFeedback: 0,
		withoutTitle: 0,
		withoutPoints: 0,
		kinds: 0,
		broken: 0
	};
	const tree = await keptTree(db, bankId, { places: [], snags: [], rules: [] });
	const places: { id: number | null; path: string }[] = [
		...(by.has(null) ? [{ id: null, path: '' }] : []),
		...tree.map(({ id, key }) => ({ id, path: key.replaceAll('\n', ' › ') }))
	];
	return places.map(({ id, path }) => {
		const { categoryId: _, ...counted } = { categoryId: id, ...empty, ...by.get(id) };
		return { ...counted, category: path, drawn: draws.get(id ?? 0) ?? 0 };
	});
}
