import { array, boolean, mixed, number, object, string, ValidationError, type InferType } from 'yup';
import { WrongSheet } from './wrong';

const text = () => string().typeError('has to be a text');
const texts = () => array(text().required()).typeError('has to be a list of texts');
const amount = () => number().typeError('has to be a number').min(0, 'has to be 0 or more');
const count = () => amount().integer('has to be a whole number');
const steps = () => texts().min(1, 'has to name at least one step');
const truth = () => boolean().typeError('has to be true or false');
const range = () =>
	array(number().typeError('has to be a number').required())
		.typeError('has to be a range: [least, most]')
		.length(2, 'has to be a range: [least, most]');
/** How the questions of a part are ordered. */
const orders = ['shuffled', 'kept', 'easy first'] as const;
/** By what a quota counts. */
const measures = ['category', 'kind', 'tag', 'difficulty'] as const;
/** How a quota over several values is filled in. */
const spreads = ['equal', 'proportional'] as const;
const choice = <const Values extends readonly string[]>(values: Values) =>
	text().oneOf<Values[number]>(values, `has to be one of “${values.join('”, “')}”`);

const question = object({
	id: text().required('is missing: every question needs one').min(1, 'is empty: every question needs one'),
	category: texts(),
	kind: text(),
	points: amount().nullable(),
	difficulty: number().typeError('has to be a number').nullable(),
	tags: texts(),
	seconds: amount().nullable()
}).typeError('has to be a question');

const pool = object({
	categories: array(object({ path: steps().required('is missing'), under: truth() }).required()).typeError(
		'has to be a list of categories'
	),
	tags: object({ any: texts(), all: texts(), none: texts() }).default(undefined),
	kinds: texts(),
	difficulty: range(),
	include: texts(),
	exclude: texts()
}).default(undefined);

const quota = object({
	by: choice(measures).required('is missing'),
	value: mixed<string | (string | number)[]>(),
	values: array(mixed<string | (string | number)[]>().required())
		.typeError('has to be a list')
		.min(1, 'has to name at least one value'),
	spread: choice(spreads),
	least: count(),
	most: count()
}).typeError('has to be a quota');

const part = object({
	title: text(),
	draw: count().min(1, 'has to be at least 1: leave the part out instead').nullable(),
	points: amount().nullable(),
	order: choice(orders),
	questions: texts(),
	pool,
	quotas: array(quota.required()).typeError('has to be a list of quotas')
}).typeError('has to be a part');

/** The published form of a draw sheet (draws.md). */
export const sheetShape = object({
	questions: array(question.required()).typeError('has to be a list of questions').required('is missing'),
	parts: array(part.required()).typeError('has to be a list of parts').required('is missing'),
	never: array(texts().length(2, 'has to be a pair of two questions').required()).typeError(
		'has to be a list of pairs'
	),
	together: array(texts().min(1, 'has to name questions').required()).typeError('has to be a list of groups'),
	'parts-order': choice(['kept', 'shuffled'] as const)
});

/** A sheet in the published form. */
export type SheetForm = InferType<typeof sheetShape>;
/** One of its parts. */
export type PartForm = SheetForm['parts'][number];
/** One of the quotas of a part. */
export type QuotaForm = NonNullable<PartForm['quotas']>[number];

/** A sheet out of a value of unknown shape. Throws WrongSheet with the place and what to do. */
export function sheetForm(value: unknown): SheetForm {
	if (value === null || typeof value !== 'object' || Array.isArray(value))
		throw new WrongSheet('', 'A sheet is a JSON object with “questions” and “parts”.');
	try {
		return sheetShape.validateSync(value, { strict: true });
	} catch (error) {
		if (!(error instanceof ValidationError)) throw error;
		const place = (error.path ?? '').replaceAll('"', '').replace(/^\[(.+?)\]/, '$1');
		const [message = ''] = error.errors;
		throw new WrongSheet(place || 'the sheet', message.replace(`${error.path ?? ''} `, ''));
	}
}

/** What a sheet says under names that are not known: nobody heeds it, and it may be mistyped. */
export function unknownNames(value: SheetForm): string[] {
	const found: string[] = [];
	const look = (thing: object | undefined, known: object, place: string) => {
		for (const name of Object.keys(thing ?? {})) if (!Object.hasOwn(known, name)) found.push(`${place}${name}`);
	};
	look(value, sheetShape.fields, '');
	value.parts.forEach((given, at) => {
		look(given, part.fields, `parts[${at}].`);
		look(given.pool, pool.fields, `parts[${at}].pool.`);
		given.quotas?.forEach((each, place) => look(each, quota.fields, `parts[${at}].quotas[${place}].`));
	});
	return found;
}
