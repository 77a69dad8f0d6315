import { lookup } from './lookup';
import { ValidationError } from 'yup';

const kindsOf = lookup<string>({
	string: 'a text',
	number: 'a number',
	boolean: 'true or false',
	array: 'a list',
	object: 'an object'
});

const shown = (value: unknown) => `“${typeof value === 'string' ? value : (JSON.stringify(value) ?? '').slice(0, 60)}”`;

/** What is wrong with a value that was held against the schema of questions, in words that name the part of it. */
export function faultOf(error: unknown, value: unknown): string {
	if (typeof value !== 'object' || value === null || Array.isArray(value))
		return `it is no question but ${value === null ? 'nothing' : shown(value)}`;
	const { kind } = value as { kind?: unknown };
	if (!(error instanceof ValidationError)) return (error as Error).message;
	const { path, type, params = {}, message } = error;
	if (!path)
		return kind === undefined ? '“kind” is missing' : `“kind” reads ${shown(kind)}, which is no kind that is known`;
	const given = params.originalValue ?? params.value;
	if (type === 'typeError' && given !== undefined && given !== null)
		return `“${path}” has to be ${kindsOf[params.type as string] ?? 'of another kind'} and reads ${shown(given)}`;
	if (['optionality', 'nullable', 'required', 'typeError'].includes(type ?? '')) return `“${path}” is missing`;
	if (type === 'oneOf') return `“${path}” reads ${shown(given)}, which is none of ${String(params.values)}`;
	if (type === 'min') return `“${path}” is ${String(given)}, and has to be at least ${String(params.min)}`;
	if (type === 'max') return `“${path}” is ${String(given)}, and may be at most ${String(params.max)}`;
	return message.replace(/\.$/, '');
}
