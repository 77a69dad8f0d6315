import { kindOf } from '../kinds';
import type { OneCheck } from './check';

/** A language model wrote the question, and nobody has looked at its key. */
export const keyUnverified: OneCheck & { says: string } = {
	id: 'key-unverified',
	version: 1,
	scope: 'one',
	title: 'Key of a machine that nobody verified',
	short: 'not verified',
	severity: 'doubtful',
	why: 'A language model writes wrong keys as surely as right ones. Answer the question yourself: if you find the key, that verifies it.',
	says: 'A language model wrote it, and nobody has verified its key. Answer it, or verify it as you read.',
	find: (question, known) =>
		known?.machine && !known.verified && kindOf(question).hasKey(question) ? [{ message: keyUnverified.says }] : []
};
