import type { EditAsked, EditName } from '$core/edits';
import { kindNamed, kinds } from '$core/kinds';
import { takesPoints } from '$core/take-in/adjust';
import type { Condition } from '../banks/conditions';
import { rows, type Database } from '../db/pool';

/** Texts of a question are cut in their columns, where they are longer than this many letters. */
const cutAt = { difficulty: 60, language: 35 };

/** A text of a question is another one: by its column, or where that may be cut by its document. */
const isOther = (column: keyof typeof cutAt, text: string): Condition => ({
	sql: `IF(CHAR_LENGTH(q.${column}) < ${cutAt[column]}, BINARY q.${column} <> BINARY ?, BINARY COALESCE(JSON_VALUE(q.document, '$.${column}'), '') <> BINARY ?)`,
	parameters: [text, text]
});

const tagged = 'EXISTS (SELECT 1 FROM question_tags t WHERE t.question_id = q.id AND t.tag = ?)';
const shuffled = kinds.filter((kind) => 'shuffle' in kindNamed(kind).fields);
const worthNothing = kinds.filter((kind) => !takesPoints(kind));

/**
 * For each edit the condition for the questions `q` that it changes, where their columns tell; null where only the question
 * itself does.
 */
const conditions: { [Name in EditName]: ((what: Extract<EditAsked, { edit: Name }>) => Condition) | null } = {
	points: ({ points }) => ({
		sql: 'q.kind NOT IN (?) AND NOT (q.points <=> ?)',
		parameters: [worthNothing, points]
	}),
	tags: ({ add, remove }) => ({
		sql: `(${[...add.map(() => `NOT ${tagged}`), ...remove.map(() => tagged)].join(' OR ') || 'FALSE'})`,
		parameters: [...add, ...remove]
	}),
	shuffle: ({ on }) => ({
		sql: 'q.kind IN (?) AND NOT (q.shuffle <=> ?)',
		parameters: [shuffled, on ? 1 : 0]
	}),
	difficulty: ({ difficulty }) => isOther('difficulty', difficulty),
	language: ({ language }) => isOther('language', language),
	pin: null,
	replace: null
};

const batch = 5000;

/** Those of some questions that an edit changes, in the same order; null where only the questions themselves tell. */
export async function touchedBy(
	db: Database,
	courseId: number,
	ids: readonly number[],
	what: EditAsked
): Promise<number[] | null> {
	const conditionOf = conditions[what.edit] as ((what: EditAsked) => Condition) | null;
	if (!conditionOf) return null;
	const { sql, parameters } = conditionOf(what);
	const touched = new Set<number>();
	for (let at = 0; at < ids.length; at += batch) {
		// by key
		const found = await rows<{ id: number }>(
			db,
			`SELECT q.id FROM questions q WHERE q.course_id = ? AND q.id IN (?) AND ${sql}`,
			[courseId, ids.slice(at, at + batch), ...parameters]
		);
		for (const { id } of found) touched.add(id);
	}
	return ids.filter((id) => touched.has(id));
}
