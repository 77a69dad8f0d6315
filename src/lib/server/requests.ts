import { error } from '@sveltejs/kit';
import { number, ValidationError } from 'yup';

/** The most bytes of a body that is no file: a question with all its texts and options is smaller by far. */
const mostOfBody = 16 * 2 ** 20;
/** The most bytes of what one sends who is not signed in. */
export const mostOfStranger = 16 * 1024;
/** How deep the values of a body stand in one another at the most; a question needs a tenth of it. */
const deepest = 100;

const megabytes = (bytes: number) => (bytes < 2 ** 20 ? `${bytes / 1024} kB` : `${bytes / 2 ** 20} MB`);

/** The pieces of a body, which is refused in words with 413 as soon as more than so many bytes have come. */
export async function* limited(body: ReadableStream<Uint8Array> | null, most: number): AsyncGenerator<Uint8Array> {
	const reader = body?.getReader();
	let size = 0;
	try {
		for (let next = await reader?.read(); next && !next.done; next = await reader!.read()) {
			size += next.value.length;
			if (size > most)
				error(413, `What was sent is larger than ${megabytes(most)}, which is the most that is taken here.`);
			yield next.value;
		}
	} finally {
		// it is not cancelled, which would end the connection before whoever sends has heard why
		reader?.releaseLock();
	}
}

/** The whole body of a request, in bytes. Answers 413 where it is longer than `most`, before it is held. */
export async function bytesOf(request: Request, most = mostOfBody): Promise<Uint8Array<ArrayBuffer>> {
	if (Number(request.headers.get('content-length') ?? 0) > most)
		error(413, `What was sent is larger than ${megabytes(most)}, which is the most that is taken here.`);
	const pieces: Uint8Array[] = [];
	try {
		for await (const piece of limited(request.body, most)) pieces.push(piece);
	} catch (cause) {
		if ((cause as { status?: number }).status) throw cause;
		error(400, 'What was sent broke off on its way. Nothing was changed; send it again.');
	}
	return new Uint8Array(Buffer.concat(pieces));
}

/** How deep the brackets of a JSON text stand in one another, without reading it. */
function depthOf(text: string): number {
	let [depth, most] = [0, 0];
	for (const [sign] of text.matchAll(/"(?:[^"\\]|\\.)*"|[[{]|[\]}]/gs)) {
		if (sign === '[' || sign === '{') most = Math.max(most, ++depth);
		else if (sign === ']' || sign === '}') depth -= 1;
	}
	return most;
}

/** A value out of JSON that came from outside. Answers 400 where it is none, or is nested out of all reason. */
export function jsonIn(text: string): unknown {
	if (depthOf(text) > deepest) error(400, 'What was sent is nested too deep to be read.');
	try {
		return JSON.parse(text) as unknown;
	} catch {
		error(400, 'What was sent is no JSON.');
	}
}

/** What makes something of a value from outside, or throws a ValidationError: a schema of Yup. */
interface Shape<T> {
	validateSync: (value: unknown) => T;
}

/** What a schema makes of a value from outside. Throws a ValidationError for people, whatever is wrong with the value. */
function cast<T>(schema: Shape<T>, value: unknown): T {
	try {
		return schema.validateSync(value);
	} catch (cause) {
		// a value can be such that even looking at it fails
		throw cause instanceof ValidationError ? cause : new ValidationError('What was sent is not what is expected here');
	}
}

/** What a schema makes of a value from outside. Answers 400 in words where it does not fit. */
export function checked<T>(schema: Shape<T>, value: unknown): T {
	try {
		return cast(schema, value);
	} catch (cause) {
		error(400, `${(cause as ValidationError).message.replace(/\.$/, '')}.`);
	}
}

/** The body of a request as text. Answers 413 where it is longer than `most`. */
export async function textOf(request: Request, most?: number): Promise<string> {
	return Buffer.from(await bytesOf(request, most)).toString('utf8');
}

/** The value of a JSON body by a schema. Answers 400 or 413 in words where it is none of that shape or too long. */
export async function jsonOf<T>(request: Request, schema: Shape<T>, most?: number): Promise<T> {
	return checked(schema, jsonIn(await textOf(request, most)));
}

/** The texts of a form by their names, and all that stand under one name. Answers 400 or 413 where it is none. */
export async function textFields(
	request: Request,
	most?: number
): Promise<{ texts: Record<string, string>; lists: Map<string, string[]> }> {
	const bytes = await bytesOf(request, most);
	const type = request.headers.get('content-type') ?? '';
	try {
		const form = await new Response(bytes, { headers: { 'Content-Type': type } }).formData();
		const entries = [...form].filter((entry): entry is [string, string] => typeof entry[1] === 'string');
		const lists = new Map<string, string[]>();
		for (const [name, text] of entries) lists.set(name, [...(lists.get(name) ?? []), text]);
		return { texts: Object.assign(Object.create(null) as object, Object.fromEntries(entries)), lists };
	} catch {
		error(400, 'What was sent is no form.');
	}
}

/** The texts of a form by their names, without files and without fields that are left empty. Answers 400 or 413 where it is none. */
async function fieldsOf(request: Request, most?: number): Promise<Record<string, string>> {
	const { texts } = await textFields(request, most);
	const filled = Object.entries(texts).filter(([, text]) => text !== '');
	return Object.assign(Object.create(null) as object, Object.fromEntries(filled));
}

/** The fields of a form by a schema; a field that was left empty counts as none. Throws Yup's ValidationError, and answers 400 or 413. */
export async function formOf<T>(request: Request, schema: Shape<T>, most?: number): Promise<T> {
	return cast(schema, await fieldsOf(request, most));
}

/** The same, where a wrong field is no slip of whoever fills a form in: answers 400 in words. */
export async function plainFormOf<T>(request: Request, schema: Shape<T>, most?: number): Promise<T> {
	return checked(schema, await fieldsOf(request, most));
}

const plain = /^(?:0|[1-9]\d{0,14})$/;

/** A schema for a whole number as it is written in addresses and forms: in plain decimal digits and nothing else. */
export const wholeNumber = (what: string) =>
	number()
		.transform((_value, original: unknown) =>
			// nothing is no number, and stays nothing where a schema takes that
			original === null
				? null
				: typeof original === 'number' || plain.test(String(original))
					? Number(original)
					: Number.NaN
		)
		.nonNullable(`${what} has to be a whole number`)
		.typeError(`${what} has to be a whole number`)
		.integer(`${what} has to be a whole number`)
		.min(0, `${what} has to be a whole number`);

/** A schema for the key of something. */
export const key = (what: string) => wholeNumber(what).min(1, `${what} has to be a number from 1 on`);

/** A schema for the key of something that has to be named. */
export const requiredKey = (what: string) => key(what).required(`${what} is not named`);

/** A key in the query of an address, or null where it has none. Answers 400 where it is no plain number. */
export function keyIn(url: URL, name: string): number | null {
	const text = url.searchParams.get(name);
	return text === null || text === '' ? null : checked(requiredKey(`The “${name}” in the address`), text);
}

/** A place in a list that an address names, from 0; the beginning where it names none, or one that is no whole number. */
export function placeIn(url: URL, name: string): number {
	const text = url.searchParams.get(name) ?? '';
	return /^\d{1,9}$/.test(text) ? Number(text) : 0;
}
