import { error } from '@sveltejs/kit';
import { ValidationError } from 'yup';
import { Refused } from './loads/refused';

/** Does work for an endpoint: what is refused is answered in words with 409, and what does not fit with 400. */
export async function refusing<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (cause) {
		if (cause instanceof Refused) error(409, cause.message);
		if (cause instanceof ValidationError) error(400, `${cause.message.replace(/\.$/, '')}.`);
		throw cause;
	}
}
