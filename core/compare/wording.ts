import { kindOf, type Question } from '../kinds';
import { plainText } from '../markup/text';

/**
 * All that a question asks and offers, as plain text, with a word for each of its files: what its likeness to another is
 * judged by. Two questions that ask the same of other pictures, numbers or labels are not the same.
 */
export function wordingOf(question: Question): string {
	const files = question.attachments.map(({ hash, name }) => hash ?? name);
	return [question.stem, ...kindOf(question).wording(question)].map(plainText).concat(files).join(' ');
}
