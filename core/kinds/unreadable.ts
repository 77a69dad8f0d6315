import { number } from 'yup';
import { type Fields, text } from '../model/fields';
import type { QuestionCommon } from '../model/question';
import type { KindOf } from './kind';
import { unmarked } from './unmarked';

const fields = {
	/** Why it could not be read, for people. */
	reason: text(),
	/** The source as it came. */
	fragment: text(),
	/** The line of the file at which its markup stops being well-formed, where that is why. */
	faultLine: number().integer()
};

/** A question that was recognised but cannot be held: it keeps its source as it came. */
export type UnreadableQuestion = { kind: 'unreadable' } & QuestionCommon & Fields<typeof fields>;

/** Of what could not be read so much is compared, in letters. */
const mostCompared = 20_000;

/** A question that was recognised but cannot be held: it keeps its source as it came. */
export const unreadable: KindOf<UnreadableQuestion> = {
	...unmarked('nobody', 'This question cannot be read here, so it cannot be marked.'),
	name: 'Unreadable',
	fields,
	wording: ({ fragment }) => [fragment.slice(0, mostCompared)],
	content: ({ fragment }) => ({
		fragment: fragment
			.replace(/\b(src|data|href)\s*=\s*("[^"]*"|'[^']*')/g, '$1')
			.replace(/\s+/g, ' ')
			.trim()
	}),
	parts: ({ fragment }) => [{ name: 'source', text: fragment }]
};
