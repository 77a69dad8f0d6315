import { overMany, type Noted } from './check';

const folded = (tag: string) => tag.toLowerCase().replace(/[\s\u00a0_-]+/g, '');

interface Note {
	tags: string[];
}

/** For each tag in one form, the form that is met most; of two that are met alike, the first by letters. */
function formsOf(noted: readonly Noted<Note>[]): Map<string, string> {
	const counts = new Map<string, Map<string, number>>();
	for (const { note, times = 1 } of noted)
		for (const tag of note.tags) {
			const forms = counts.get(folded(tag)) ?? new Map<string, number>();
			counts.set(folded(tag), forms);
			forms.set(tag, (forms.get(tag) ?? 0) + times);
		}
	return new Map(
		[...counts].map(([name, forms]) => [name, [...forms].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0]![0]])
	);
}

/** A tag is written in several ways. */
export const tagsCase = overMany<Note>({
	id: 'tags-case',
	version: 2,
	scope: 'many',
	title: 'Tag that is written in several ways',
	short: 'tag',
	severity: 'untidy',
	why: 'What is looked for or drawn by one of the forms misses the questions that have the other.',
	within: 'bank',
	tallied: true,
	note: ({ tags }) => (tags.length ? { tags: [...new Set(tags)].sort() } : null),
	among(noted) {
		const forms = formsOf(noted);
		return noted.flatMap(({ id, note }) => {
			const rarer = note.tags.filter((tag) => forms.get(folded(tag)) !== tag);
			return rarer.length
				? [
						{
							id,
							message: `${rarer.map((tag) => `The tag “${tag}” is mostly written “${forms.get(folded(tag))!}” in this bank`).join('; ')}. Write it one way.`,
							words: rarer
						}
					]
				: [];
		});
	},
	mend: {
		title: 'Take the form that is met most',
		apply(question, own, noted) {
			const forms = formsOf(noted);
			return { ...question, tags: [...new Set(question.tags.map((tag) => forms.get(folded(tag)) ?? tag))] };
		}
	}
});
