import { kindOf } from '../kinds';
import type { OneCheck } from './check';

/** Nothing is marked as right. */
export const noKey: OneCheck = {
	id: 'no-key',
	version: 1,
	scope: 'one',
	title: 'No key',
	short: 'no key',
	severity: 'broken',
	why: 'Nothing is marked as the right answer, so every student would get no points, whatever they answer.',
	find(question) {
		const message = kindOf(question).keyless(question);
		return message === null ? [] : [{ message }];
	}
};
