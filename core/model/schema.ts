import { lookup } from './lookup';
import { array, boolean, lazy, mixed, number, object, string, type AnyObjectSchema } from 'yup';
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
	difficulty: string(),
	stimulus: object({ identifier: text(), title: text(), content: text() }).default(undefined).optional(),
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

const bounds = object({ lower: number().nullable().defined(), upper: number().nullable().defined() }).defined();
const combination = string().oneOf(['sum', 'all']).defined();
const shuffle = boolean().nullable().defined();
const acceptedTexts = () =>
	array(
		object({
			text: text(),
			credit: credit(),
			caseSensitive: boolean().defined(),
			match: string().oneOf(['contains', 'pattern'])
		})
	).defined();
const acceptedNumbers = () =>
	array(
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
	).defined();
const sides = () => array(object({ identifier: text(), text: text(), uses: number().nullable().defined() })).defined();
const pairs = () => array(object({ left: text(), right: text(), credit: credit() })).defined();
const picture = object({
	name: text(),
	width: number().nullable().defined(),
	height: number().nullable().defined(),
	alt: text()
}).defined();
const shape = {
	identifier: text(),
	shape: string().oneOf(['rect', 'circle', 'ellipse', 'poly', 'default']).defined(),
	coordinates: array(number().defined()).defined()
};
const blankForms = lookup<object>({
	text: { accepted: acceptedTexts() },
	number: { accepted: acceptedNumbers(), whole: boolean().defined() },
	list: {
		entries: array(object({ identifier: text(), text: text(), credit: credit() })).defined(),
		several: boolean().defined(),
		shuffle
	},
	word: { words: array(object({ word: text(), credit: credit() })).defined() },
	open: {}
});
const blank = lazy((value: { form?: string } | undefined) =>
	object({
		identifier: text(),
		share: number().min(0).max(1).defined(),
		form: string().oneOf(Object.keys(blankForms)).defined(),
		...(blankForms[value?.form ?? ''] ?? {})
	} as never)
);
const variableForms = lookup<object>({
	range: { min: number().defined(), max: number().defined(), step: number().nullable().defined() },
	set: { values: array(number().defined()).defined() },
	expression: { expression: text() }
});
const variable = object({
	name: text(),
	whole: boolean().defined(),
	decimals: number().nullable().defined(),
	values: lazy((value: { form?: string } | undefined) =>
		object({
			form: string().oneOf(Object.keys(variableForms)).defined(),
			...(variableForms[value?.form ?? ''] ?? {})
		} as never)
	) as never
});

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
	shuffle,
	combination,
	bounds,
	lostKeys: array(text()).defined()
};

const parts: Record<Kind, Record<string, AnyObjectSchema | ReturnType<typeof mixed> | object>> = {
	'true-false': choice,
	'multiple-choice': choice,
	'multiple-response': choice,
	'short-answer': { accepted: acceptedTexts() },
	numeric: {
		whole: boolean().defined(),
		accepted: acceptedNumbers(),
		unit: string(),
		slider: object({ lower: number().defined(), upper: number().defined(), step: number().nullable().defined() })
			.default(undefined)
			.optional()
	},
	'fill-blanks': { blanks: array(blank as never).defined(), bank: sides(), combination, shuffle },
	matching: { left: sides(), right: sides(), pairs: pairs(), combination, bounds, shuffle },
	ordering: {
		items: array(object({ identifier: text(), text: text() })).defined(),
		presented: array(text()).defined(),
		rule: string().oneOf(['all', 'position']).defined(),
		shuffle
	},
	'file-upload': { accepts: string().nullable().defined() },
	hotspot: {
		picture,
		shapes: array(object({ ...shape, credit: credit() })).defined(),
		mode: string().oneOf(['areas', 'points']).defined(),
		picks: number().min(0).defined(),
		outside: credit(),
		combination,
		bounds
	},
	'label-image': {
		picture,
		labels: sides(),
		targets: array(object({ ...shape, uses: number().nullable().defined() })).defined(),
		pairs: pairs(),
		combination,
		bounds
	},
	calculated: {
		variables: array(variable).defined(),
		constraints: array(text()).defined(),
		expression: text(),
		tolerance: object({
			mode: string().oneOf(['absolute', 'relative']).defined(),
			value: number().min(0).defined()
		}).defined(),
		whole: boolean().defined(),
		unit: string()
	},
	essay: {},
	information: {},
	unreadable: { reason: text(), fragment: text(), faultLine: number().integer() }
};

const schemas = new Map(
	kinds.map((kind) => [kind, object({ kind: string().oneOf([kind]).defined(), ...common, ...parts[kind] } as never)])
);

const kindSchema = string().oneOf(kinds).required();

/**
 * A question out of a value of unknown shape, such as JSON from a file or a form.
 * Throws Yup's ValidationError, whose message names the field, where the value is no question.
 */
export function parseQuestion(value: unknown): Question {
	const kind = kindSchema.validateSync((value as { kind?: unknown } | null)?.kind);
	return schemas.get(kind)!.validateSync(value, { strict: true });
}
