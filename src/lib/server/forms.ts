import { fail, type ActionFailure } from '@sveltejs/kit';
import { ValidationError, type AnyObjectSchema, type InferType } from 'yup';
import { textFields } from './requests';

/** What is wrong with what was filled in: words for each field by its name, and for the form as a whole. */
export interface Slips {
	/** Which form of a page it was. */
	form: string;
	slips: Record<string, string>;
	message: string;
	/** What was filled in, but for passwords, so that it need not be typed again. */
	values: Record<string, string>;
}

/** Answers a form with what is wrong with it. */
export function slip(
	form: string,
	values: Record<string, string>,
	slips: Record<string, string>,
	message = '',
	status = 400
): ActionFailure<Slips> {
	const kept = Object.fromEntries(Object.entries(values).filter(([name]) => !/password|before|again/.test(name)));
	return fail(status, { form, slips, message, values: kept });
}

/**
 * The fields of a form by a schema, or what is wrong with each of them, to be given back as it is. Fields that stand
 * several times in the form are a list where the schema has one.
 */
export async function filledIn<S extends AnyObjectSchema>(
	request: Request,
	form: string,
	schema: S,
	most?: number
): Promise<{ filled: InferType<S>; values: Record<string, string> } | { failed: ActionFailure<Slips> }> {
	const { texts: values, lists } = await textFields(request, most);
	const given: Record<string, unknown> = { ...values };
	for (const [name, field] of Object.entries(schema.fields))
		// a list that is written in one field is parted by its schema
		if ((field as { type?: string }).type === 'array' && (lists.get(name)?.length ?? 0) > 1)
			given[name] = lists.get(name);
	try {
		return { filled: await schema.validate(given, { abortEarly: false }), values };
	} catch (cause) {
		if (!(cause instanceof ValidationError)) throw cause;
		const slips = new Map<string, string>();
		for (const { path, message } of cause.inner.length ? cause.inner : [cause]) {
			const name = /^[^.[]*/.exec(path ?? '')![0];
			if (!slips.has(name)) slips.set(name, message);
		}
		return { failed: slip(form, values, Object.fromEntries(slips)) };
	}
}
