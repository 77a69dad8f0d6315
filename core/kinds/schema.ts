import { object, string, type Schema } from 'yup';
import { word } from '../model/fields';
import { commonFields } from '../model/question';
import { kindNamed, kinds, type Kind, type Question } from '.';

/** The schema of each kind of question: its kind, what every kind has, and its own. */
export const questionSchemas = new Map(
	kinds.map((kind: Kind) => [kind, object({ kind: word(kind), ...commonFields, ...kindNamed(kind).fields })])
);

const kindSchema = string().oneOf(kinds).required();

/**
 * A question out of a value of unknown shape, such as JSON from a file or a form.
 * Throws Yup's ValidationError, whose message names the field, where the value is no question.
 */
export function parseQuestion(value: unknown): Question {
	const kind = kindSchema.validateSync((value as { kind?: unknown } | null)?.kind);
	return questionSchemas.get(kind)!.validateSync(value, { strict: true }) as unknown as Question;
}

/** The fields that a value lacks of what a question of its kind has to have. */
export function missingFields(value: Readonly<Record<string, unknown>>): string[] {
	const fields = questionSchemas.get(value.kind as Kind)?.fields ?? {};
	return Object.entries(fields).flatMap(([name, field]) =>
		value[name] === undefined && !(field as Schema).isValidSync(undefined, { strict: true }) ? [name] : []
	);
}
