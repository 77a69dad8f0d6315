import { array, boolean, mixed, number, object, string, type AnyObjectSchema } from 'yup';
import { kinds, type Kind, type Question } from './question';

const text = () => string().defined().strict();
const credit = () => number().defined().min(-1).max(1).strict();

const common = {
	identifier: text(),
	title: text(),
	stem: text(),
	points: number().nullable().defined().strict(),
	category: array(text()).defined(),
	tags: array(text()).defined(),
	language: string().nullable().defined(),
	feedback: object({ general: string(), correct: string(), incorrect: string(), partly: string() }).defined(),
	hints: array(text()).defined(),
	attachments: array(
		object({ name: text(), mediaType: text(), hash: string().nullable().defined(), missing: boolean().defined() })
	).defined(),
	metadata: array(object({ name: text(), value: text() })).defined(),
	removed: array(text()).defined(),
	source: object({
		format: text(),
		file: text(),
		line: number().defined(),
		endLine: number().defined(),
		identifier: text()
	})
		.nullable()
		.default(null)
};

const choice = {
	options: array(
		object({
			identifier: text(),
			text: text(),
			credit: credit(),
			feedback: string(),
			pinned: boolean().defined()
		})
	).defined(),
	shuffle: boolean().nullable().defined(),
	combination: string().oneOf(['sum', 'all']).defined(),
	bounds: object({ lower: number().nullable().defined(), upper: number().nullable().defined() }).defined(),
	lostKeys: array(text()).defined()
};

const parts: Record<Kind, Record<string, AnyObjectSchema | ReturnType<typeof mixed> | object>> = {
	'true-false': choice,
	'multiple-choice': choice,
	'multiple-response': choice,
	'short-answer': {
		accepted: array(object({ text: text(), credit: credit(), caseSensitive: boolean().defined() })).defined()
	},
	numeric: {
		whole: boolean().defined(),
		accepted: array(
			object({
				value: number(),
				tolerance: number().min(0),
				min: number().nullable(),
				max: number().nullable(),
				includesMin: boolean(),
				includesMax: boolean(),
				credit: credit()
			}).test(
				'value-or-range',
				'an accepted number has a value with its tolerance, or a range',
				(entry) => (entry.value !== undefined && entry.tolerance !== undefined) || entry.includesMin !== undefined
			)
		).defined()
	},
	essay: {},
	information: {},
	unreadable: { reason: text(), fragment: text() }
};

const schemas = new Map(
	kinds.map((kind) => [kind, object({ kind: string().oneOf([kind]).defined(), ...common, ...parts[kind] } as never)])
);

/**
 * A question out of a value of unknown shape, such as JSON from a file or a form.
 * Throws Yup's ValidationError, whose message names the field, where the value is no question.
 */
export function parseQuestion(value: unknown): Question {
	const kind = string()
		.oneOf(kinds)
		.required()
		.validateSync((value as { kind?: unknown } | null)?.kind);
	return schemas.get(kind)!.validateSync(value, { strict: true }) as unknown as Question;
}
