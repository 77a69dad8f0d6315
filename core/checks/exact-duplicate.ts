import { digestOf } from '../compare/digest';
import { askedForm } from '../compare/asked';
import type { Question } from '../kinds';
import { overMany, type Finding, type Noted } from './check';

const most = 5;

/**
 * What is said of a question that is the same as others: what the first of these are called and where they are, of so
 * many in all.
 */
export function sameAs(names: readonly string[], all = names.length): Finding {
	const shown = names.slice(0, most);
	if (all > shown.length) shown.push(`${all - shown.length} more`);
	const listed = shown.length > 1 ? `${shown.slice(0, -1).join('; ')}; and ${shown.at(-1)!}` : shown.join();
	return { message: `It says the same as ${listed}. Keep one of them.` };
}

/** What others are called, with their categories, for messages: the first of them, without one of its own. */
export function namesOf(noted: readonly Noted<unknown>[], own: number): string[] {
	return noted
		.slice(0, most + 1)
		.filter(({ id }) => id !== own)
		.map(({ name, category }) => `“${name}”${category.length ? ` in ${category.join(' › ')}` : ''}`);
}

/** What tells whether two questions are the same: a digest of what a student sees before answering, and of the marking. */
export function askedDigest(question: Question): string {
	let digest = digests.get(question);
	if (digest === undefined) {
		digest = digestOf(JSON.stringify(askedForm(question)));
		digests.set(question, digest);
	}
	return digest;
}

/** Several checks ask for it one after the other. */
const digests = new WeakMap<Question, string>();

/** Another question is exactly the same. */
export const exactDuplicate = overMany<{ content: string }>({
	id: 'exact-duplicate',
	version: 2,
	scope: 'many',
	title: 'Exact duplicate',
	short: 'duplicate',
	severity: 'doubtful',
	why: 'Another question asks exactly the same and is marked the same way. A quiz that draws from both may ask a student the same thing twice.',
	within: 'course',
	note: (question) => (question.kind === 'unreadable' ? null : { content: askedDigest(question) }),
	key: ({ content }) => content,
	among: (noted) =>
		noted.length < 2 ? [] : noted.map(({ id }) => ({ id, ...sameAs(namesOf(noted, id), noted.length - 1) }))
});
