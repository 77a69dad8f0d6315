import { number, string, type Schema } from 'yup';
import { severities } from '$core/reports/report';
import { lacks } from '$lib/forms/lacks';
import { lackConditions } from './lacks';

/** A condition for questions `q`, with its parameters. */
export interface Condition {
	sql: string;
	parameters: unknown[];
}

/** One thing that questions can be filtered by: what it may be, and the condition for it. */
interface FilterBy<Value> {
	shape: Schema<Value | undefined>;
	condition: (value: Value) => Condition;
	/** An index of its own finds such questions; all others are looked for in by_filters from end to end. */
	isIndexed: boolean;
}

const by = <Value>(shape: Schema<Value | undefined>, condition: (value: Value) => Condition): FilterBy<Value> => ({
	shape,
	condition,
	isIndexed: false
});
const byIndex = <Value>(shape: Schema<Value | undefined>, condition: (value: Value) => Condition) => ({
	...by(shape, condition),
	isIndexed: true
});
const plain = (sql: string, ...parameters: unknown[]): Condition => ({ sql, parameters });
const snagOf = 'EXISTS (SELECT 1 FROM snags s WHERE s.question_id = q.id';
const named = "EXISTS (SELECT 1 FROM quiz_part_questions u WHERE u.question_id = q.id AND u.role <> 'excluded')";
const day = () => string().matches(/^\d{4}-\d{2}-\d{2}$/, 'A day is written as 2026-11-29.');

/** What is known of the key of a question, in words for filters and columns. */
export const keyStates = ['verified', 'unverified', 'disputed', 'machine'] as const;

const keyConditions: Record<(typeof keyStates)[number], string> = {
	verified: 'q.verified IS NOT NULL',
	unverified: 'q.verified IS NULL AND q.disputed_by IS NULL',
	disputed: 'q.disputed_by IS NOT NULL',
	machine: 'q.machine = 1 AND q.verified IS NULL'
};

/**
 * All that questions of a bank can be filtered by beside their place and words, each by the name that it has in an
 * address. A new one is an entry here, and a line in the list of filters of the page; its column stands in the index
 * by_filters, so that any of them together are read from it.
 */
const register = {
	// by_kind
	kind: byIndex(string().max(40), (kind: string) => plain('q.kind = ?', kind)),
	// by_tag
	tag: byIndex(string().max(120), (tag: string) =>
		plain('q.id IN (SELECT t.question_id FROM question_tags t WHERE t.tag = ?)', tag)
	),
	difficulty: by(string().max(60), (words: string) => plain('q.difficulty = ?', words === 'none' ? '' : words)),
	language: by(string().max(35), (tag: string) => plain('q.language = ?', tag === 'none' ? '' : tag)),
	points: by(number().min(0).max(1e6), (points: number) => plain('q.points = ?', points)),
	key: by(string().oneOf(keyStates), (state) => plain(`(${keyConditions[state]})`)),
	// by_question_severity, by_rule
	snag: byIndex(string().max(60), (rule: string) =>
		rule === 'none'
			? plain(`NOT ${snagOf})`)
			: rule === 'any'
				? plain(`${snagOf})`)
				: severities.some((severity) => severity === rule)
					? plain(`${snagOf} AND s.severity = ?)`, rule)
					: plain(`${snagOf} AND s.rule = ?)`, rule)
	),
	lack: byIndex(string().oneOf(lacks), (lack) => plain(`(${lackConditions[lack]})`)),
	// by_question of what quizzes name
	used: byIndex(string().oneOf(['yes', 'no']), (used) => plain(used === 'yes' ? named : `NOT ${named}`)),
	shuffle: by(string().oneOf(['yes', 'no']), (on) => plain('q.shuffle = ?', on === 'yes' ? 1 : 0)),
	feedback: by(string().oneOf(['yes', 'no']), (has) => plain('q.has_feedback = ?', has === 'yes' ? 1 : 0)),
	since: by(day(), (from: string) => plain('q.created >= ?', from)),
	until: by(day(), (to: string) => plain('q.created < DATE_ADD(?, INTERVAL 1 DAY)', to)),
	changed: by(day(), (from: string) => plain('q.changed >= ?', from)),
	by: by(number().integer().min(1), (person: number) => plain('q.changed_by = ?', person)),
	// by_load
	load: byIndex(number().integer().min(1), (load: number) => plain('q.load_id = ?', load))
};

/** The name of such a filter. */
export type FilterName = keyof typeof register;

/** Their names. */
export const filterNames = Object.keys(register) as FilterName[];

/** Filters by their names, as texts out of an address or a saved filter. */
export type Filters = Partial<Record<FilterName, string>>;

/** Those filters of what came from outside that say something, each held against its shape; the others are left out. */
export function filtersIn(given: (name: FilterName) => string | null | undefined): Filters {
	const found: Filters = {};
	for (const name of filterNames) {
		const text = given(name)?.trim();
		if (text && register[name].shape.isValidSync(text)) found[name] = text;
	}
	return found;
}

/** The condition for filters, all of which have to be met; empty where there are none. */
export function conditionFor(filters: Filters): Condition {
	const conditions = filterNames.flatMap((name) => {
		const text = filters[name];
		if (!text) return [];
		const { shape, condition } = register[name] as FilterBy<unknown>;
		return [condition(shape.cast(text))];
	});
	return {
		sql: conditions.map(({ sql }) => ` AND ${sql}`).join(''),
		parameters: conditions.flatMap(({ parameters }) => parameters)
	};
}

/** Whether filters are all looked for in by_filters, and none has an index of its own. */
export function areScanned(filters: Filters): boolean {
	return filterNames.every((name) => !filters[name] || !register[name].isIndexed);
}
