import { object, string } from 'yup';
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
