import { canonicalForm } from '../compare/canonical';
import { digestOf } from '../compare/digest';
import { overMany, type Finding } from './check';

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

/** Another question is exactly the same. */
export const exactDuplicate = overMany<{ content: string }>({
	id: 'exact-duplicate',
	version: 1,
	scope: 'many',
	title: 'Exact duplicate',
	short: 'duplicate',
	severity: 'doubtful',
	why: 'Another question has exactly the same content. A quiz that draws from both may ask a student the same thing twice.',
	within: 'course',
	note: (question) => (question.kind === 'unreadable' ? null : { content: digestOf(canonicalForm(question)) }),
	key: ({ content }) => content,
	among(noted) {
		if (noted.length < 2) return [];
		const first = noted.slice(0, most + 1);
		return noted.map(({ id }) => {
			const named = first
				.filter((other) => other.id !== id)
				.map(({ name, category }) => `“${name}”${category.length ? ` in ${category.join(' › ')}` : ''}`);
			return { id, ...sameAs(named, noted.length - 1) };
		});
	}
});
