import { number, object, string, type InferType, type Schema } from 'yup';
import { poolOf } from '$core/draws/pool';
import { severities } from '$core/reports/report';
import type { Database } from '../db/pool';
import { poolSource } from '../quizzes/pools';
import { quizOf } from '../quizzes/quiz';

const key = () => number().integer().min(1).max(Number.MAX_SAFE_INTEGER).nullable().default(null);

/** Which snags of a course are meant; what is null restricts nothing. */
export const snagFilterShape = object({
	check: string().max(60).nullable().default(null),
	bank: key(),
	/** A category of the bank; 0 for what stands in none. */
	category: number().integer().min(0).max(Number.MAX_SAFE_INTEGER).nullable().default(null),
	question: key(),
	quiz: key(),
	severity: string()
		.oneOf([...severities])
		.nullable()
		.default(null),
	/** Of questions that came or were changed since then: an ISO date with its time. */
	since: string()
		.matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/, 'Since when is not said as a date.')
		.nullable()
		.default(null)
});

/** Which snags of a course are meant; what is null restricts nothing. */
export type SnagFilter = InferType<typeof snagFilterShape>;

/** The filter of which nothing is restricted. */
export const everySnag: SnagFilter = snagFilterShape.getDefault();

const names = ['check', 'bank', 'category', 'question', 'quiz', 'severity', 'since'] as const;

/** The filter that an address asks for; a part of it that does not fit restricts nothing. */
export function snagFilterIn({ searchParams }: URL): SnagFilter {
	const filter = new Map<string, unknown>();
	for (const name of names) {
		const asked = searchParams.get(name);
		if (!asked) continue;
		const part = snagFilterShape.fields[name] as unknown as Schema;
		if (part.isValidSync(asked)) filter.set(name, part.cast(asked));
	}
	return { ...everySnag, ...(Object.fromEntries(filter) as Partial<SnagFilter>) };
}

/** A condition over snags `s` of a course, with its parameters. */
export interface SnagCondition {
	/** Tables with what they are joined by: the questions `q` of the snags only where they are asked of. */
	from: string;
	sql: string;
	parameters: unknown[];
}

/** The condition of a filter. Of a quiz, the snags of the questions that its parts can give are meant. */
export async function conditionOf(db: Database, courseId: number, filter: SnagFilter): Promise<SnagCondition> {
	const parts: [string, unknown[]][] = [['s.course_id = ?', [courseId]]];
	if (filter.check !== null) parts.push(['s.rule = ?', [filter.check]]);
	if (filter.severity !== null) parts.push(['s.severity = ?', [filter.severity]]);
	if (filter.question !== null) parts.push(['s.question_id = ?', [filter.question]]);
	if (filter.bank !== null) parts.push(['q.bank_id = ?', [filter.bank]]);
	if (filter.bank !== null && filter.category !== null)
		parts.push(['q.category_id <=> ?', [filter.category === 0 ? null : filter.category]]);
	if (filter.since !== null) parts.push(['COALESCE(q.changed, q.created) >= ?', [new Date(filter.since)]]);
	if (filter.quiz !== null) {
		const ids = await questionsOf(db, courseId, filter.quiz);
		parts.push(['s.question_id IN (?)', [ids.length ? ids : [0]]]);
	}
	const sql = parts.map(([part]) => part).join(' AND ');
	return {
		from: `snags s${sql.includes('q.') ? ' JOIN questions q ON q.id = s.question_id' : ''}`,
		sql,
		parameters: parts.flatMap(([, values]) => values)
	};
}

/** The questions that the parts of a quiz can give. */
async function questionsOf(db: Database, courseId: number, quizId: number): Promise<number[]> {
	const quiz = await quizOf(db, courseId, quizId);
	if (!quiz) return [];
	const source = await poolSource(db, courseId, quiz.parts);
	return [...new Set(quiz.parts.flatMap((part) => poolOf(part, source)))];
}
