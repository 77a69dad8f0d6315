import { bounds } from '../model/bounds';
import { kindOf, markupOf, type Question } from '.';

const figure = (value: number) => value.toLocaleString('en');

/** Says that something has more than is read, or null where it has not: "It has 10,000 options, and 1,000 is the most". */
function over(count: number, most: number, what: string): string | null {
	return count > most
		? `It has ${figure(count)} ${what}, and ${figure(most)} is the most that one question can have here.`
		: null;
}

/** Says that something is longer than is read, or null where it is not. */
function long(text: string, most: number, what: string): string | null {
	return text.length > most
		? `${what} ${what.startsWith('All') ? 'are' : 'is'} ${figure(text.length)} letters long, and ${figure(most)} is the most.`
		: null;
}

/** What of a question's texts is too long. */
function overlong(question: Question): string | null {
	for (const { field, markup } of markupOf(question)) {
		const found = long(markup, bounds.markup, `What stands under “${field}”`);
		if (found) return found;
	}
	if (question.kind === 'short-answer')
		for (const { text } of question.accepted) {
			const found = long(text, bounds.text, 'An accepted answer');
			if (found) return found;
		}
	for (const { name, value } of question.metadata) {
		const found = long(value, bounds.markup, `The metadata “${name.slice(0, 60)}”`);
		if (found) return found;
	}
	return long(question.tags.join(), bounds.tags, 'All its tags together');
}

/** Why a question cannot be worked with for its size, in a sentence; null where it can. */
export function overBounds(question: Question): string | null {
	const title = long(question.title, bounds.title, 'Its title');
	if (title) return title;
	for (const [count, most, what] of [
		...kindOf(question).counts(question),
		[question.tags.length, bounds.options, 'tags'] as const,
		[question.attachments.length, bounds.pairs, 'files'] as const
	]) {
		const found = over(count, most, what);
		if (found) return found;
	}
	const found = overlong(question);
	if (found) return found;
	const inAll = JSON.stringify(question).length;
	return inAll > bounds.source
		? `All that it holds is ${figure(inAll)} letters long, and ${figure(bounds.source)} is the most.`
		: null;
}
