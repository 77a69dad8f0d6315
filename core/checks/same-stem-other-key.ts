import { digestOf } from '../compare/digest';
import { isChoice, type Question } from '../kinds';
import { fold, plainText } from '../markup/text';
import { overMany } from './check';
import { namesOf } from './exact-duplicate';

const words = (markup: string) =>
	`${fold(plainText(markup)).toLowerCase()} ${(markup.match(/<(?:img|object)\b[^>]*\b(?:src|data)="[^"]*"/g) ?? []).join(' ')}`;
const sorted = (texts: readonly string[]) => [...texts].sort().join('\n');

/** What is asked and offered, and what of it is right, each in one form; null for kinds whose offers are not chosen from. */
function askedAndKey(question: Question): [asked: string[], key: string[]] | null {
	if (isChoice(question))
		return [
			question.options.map(({ text }) => words(text)),
			question.options.filter(({ credit }) => credit > 0).map(({ text }) => words(text))
		];
	if (question.kind === 'matching') {
		const said = new Map(
			[...question.left, ...question.right].map(({ identifier, text }) => [identifier, words(text)])
		);
		return [
			[...said.values()],
			question.pairs
				.filter(({ credit }) => credit > 0)
				.map(({ left, right }) => `${said.get(left) ?? ''} = ${said.get(right) ?? ''}`)
		];
	}
	if (question.kind === 'ordering')
		return [question.items.map(({ text }) => words(text)), [question.items.map(({ text }) => words(text)).join(' > ')]];
	return null;
}

/** Another question asks the same with the same options, and has another key. */
export const sameStemOtherKey = overMany<{ asked: string; key: string }>({
	id: 'same-stem-other-key',
	version: 1,
	scope: 'many',
	title: 'Same question with another key',
	short: 'other key',
	severity: 'doubtful',
	why: 'Two questions ask the same and offer the same, and another answer is right in each. One of the two keys is wrong.',
	within: 'course',
	note(question) {
		const found = askedAndKey(question);
		// without a key there is none that could be another
		if (!found?.[1].length || !found[0].length) return null;
		const files = question.attachments.map(({ hash, name }) => hash ?? name);
		const stem = `${question.stimulus ? words(question.stimulus.content) : ''} ${words(question.stem)}`;
		return { asked: digestOf([stem, sorted(found[0]), sorted(files)].join('\n\n')), key: digestOf(sorted(found[1])) };
	},
	key: ({ asked }) => asked,
	among(noted) {
		if (new Set(noted.map(({ note }) => note.key)).size < 2) return [];
		return noted.map(({ id, note }) => {
			const others = noted.filter((other) => other.note.key !== note.key);
			const names = namesOf(others, id).slice(0, 3);
			const more = others.length - names.length;
			return {
				id,
				message: `${names.join(', ')}${more > 0 ? ` and ${more} more` : ''} ${others.length > 1 ? 'ask' : 'asks'} the same with the same options, and another answer is right there. See which key is the right one.`
			};
		});
	}
});
