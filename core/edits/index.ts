import { lazy, object, string, type InferType, type ObjectSchema } from 'yup';
import type { Question } from '../kinds';
import { difficulty } from './difficulty';
import type { Edit } from './edit';
import { language } from './language';
import { pin } from './pin';
import { points } from './points';
import { replace } from './replace';
import { shuffle } from './shuffle';
import { retag } from './tags';

/** All that can be done to many questions at once and changes what they say. A new one is a new file and one line here. */
const register = { points, tags: retag, shuffle, pin, difficulty, language, replace };

/** The name of an edit. */
export type EditName = keyof typeof register;

/** An edit with what it needs to know. */
export type EditAsked = {
	[Name in EditName]: { edit: Name } & ((typeof register)[Name] extends Edit<infer What> ? What : never);
}[EditName];

/** The names of all edits. */
export const edits = Object.keys(register) as EditName[];

const named = (name: EditName) => register[name] as unknown as Edit<Record<string, unknown>>;

/** An edit out of a value of unknown shape. Throws Yup's ValidationError, which says in words what is wrong with it. */
export const editShape = lazy((value: unknown) => {
	const name = (value as { edit?: unknown } | null)?.edit;
	const known = edits.find((edit) => edit === name);
	return object({
		edit: string().oneOf(edits, 'There is no such thing to do.').required('What is to be done is not named.'),
		...(known ? named(known).fields : {})
	}).required('What is to be done is not named.') as ObjectSchema<InferType<ObjectSchema<{ edit: string }>>>;
});

/** The question as an edit makes it; the same object where there is nothing to do. */
export function applyEdit(question: Question, { edit, ...what }: EditAsked): Question {
	return named(edit).apply(question, what);
}

/** What an edit does in words, and what is said of it in the ledger. */
export function editWords({ edit, ...what }: EditAsked): { deed: string; says: string; keepsKey: boolean } {
	const { deed, says, keepsKey } = named(edit);
	return { deed, says: says(what), keepsKey };
}
