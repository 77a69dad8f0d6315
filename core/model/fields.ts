import {
	array,
	type AnyObject,
	boolean,
	lazy,
	number,
	object,
	string,
	type InferType,
	type ObjectShape,
	type Schema
} from 'yup';
import { ownValue } from './lookup';

/** A text, which may be empty. */
export const text = () => string().defined().strict();

/** A number, or null where there is none. */
export const maybeNumber = () => number().nullable().defined();

/** Yes or no. */
export const truth = () => boolean().defined();

/** Yes or no, or null where the source is silent. */
export const maybeTruth = () => boolean().nullable().defined();

/** A share of the points, from -1 to 1. */
export const credit = () => number().defined().min(-1).max(1).strict();

/** One of some words. */
export const word = <const Words extends readonly string[]>(...words: Words): Schema<Words[number]> =>
	string().oneOf(words).defined() as never;

/** A list of what a schema describes. */
export const list = <Entry extends Schema>(entry: Entry): Schema<InferType<Entry>[]> => array(entry).defined() as never;

/** What an object of some fields is: the type that goes with them. */
export type Fields<Of extends ObjectShape> = InferType<ReturnType<typeof object<AnyObject, Of>>>;

/** What an object of some fields is, none of which may be missing. */
type Shaped<Fields extends ObjectShape> = {
	[Name in keyof Fields]: Fields[Name] extends Schema ? InferType<Fields[Name]> : never;
};

/** One of several forms, told apart by its `form`: what an entry is beside what all of them have. */
type OneOfForms<Forms extends Record<string, ObjectShape>> = {
	[Form in keyof Forms]: { form: Form } & Shaped<Forms[Form]>;
}[keyof Forms];

/**
 * A schema for what has one of several forms, each with fields of its own beside what all of them have. The forms stand in
 * its description as well, for the published schema (core/model/json-schema.ts).
 */
export function oneOfForms<Common extends ObjectShape, const Forms extends Record<string, ObjectShape>>(
	common: Common,
	forms: Forms
): Schema<Shaped<Common> & OneOfForms<Forms>> {
	const alternatives = Object.entries(forms).map(([form, fields]) =>
		object({ ...common, form: word(form), ...fields })
	);
	const unknown = object({ ...common, form: word(...Object.keys(forms)) });
	const byForm = Object.fromEntries(Object.keys(forms).map((form, at) => [form, alternatives[at]!]));
	const chosen = lazy(
		(value: { form?: unknown } | null | undefined) => ownValue(byForm, String(value?.form)) ?? unknown
	);
	return chosen.meta({ alternatives } as never) as never;
}
