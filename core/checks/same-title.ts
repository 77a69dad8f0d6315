import { fold } from '../markup/text';
import { overMany } from './check';
import { askedDigest } from './exact-duplicate';
import { saysNothing } from './no-title';

const foldedTitle = (title: string) => fold(title).toLowerCase();

/** Another question of the category has the same title. */
export const sameTitle = overMany<{ title: string; content: string }>({
	id: 'same-title',
	version: 2,
	scope: 'many',
	title: 'Same title as another',
	short: 'same title',
	severity: 'untidy',
	why: 'Two questions of one category with the same title cannot be told apart in lists, in quizzes and in what students ask about.',
	within: 'category',
	// a title that says nothing is said by its own check
	note: (question) =>
		saysNothing(question) ? null : { title: foldedTitle(question.title), content: askedDigest(question) },
	key: ({ title }) => title,
	among: (noted) =>
		// of copies it is said that they are the same
		noted.length < 2 || new Set(noted.map(({ note }) => note.content)).size < 2
			? []
			: noted.map(({ id, name }) => ({
					id,
					message: `${noted.length === 2 ? 'Another question' : `${noted.length - 1} other questions`} of this category ${noted.length === 2 ? 'is' : 'are'} called “${name}” too. Give each a title of its own.`,
					words: [name]
				})),
	mend: {
		title: 'Add a number to all but the first of them',
		apply(question, own, noted) {
			const before = noted.filter(({ id }) => id < own.id).length;
			return before ? { ...question, title: `${question.title} (${before + 1})` } : question;
		}
	}
});
