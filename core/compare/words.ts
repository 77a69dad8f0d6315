import { diffWordsWithSpace } from 'diff';
import type { Markup } from '../model/question';
import type { Question } from '../kinds';
import { partsOf } from './parts';

/** A stretch of words that is in both, only in the first, or only in the second. */
export interface Stretch {
	text: string;
	only: 'before' | 'after' | null;
}

/** One part of two questions, in words: the stem, an option, the points. */
export interface WordDifference {
	part: string;
	stretches: Stretch[];
}

const between = (before: string, after: string): Stretch[] =>
	diffWordsWithSpace(before, after).map(({ value, added, removed }) => ({
		text: value,
		only: added ? 'after' : removed ? 'before' : null
	}));

/** Rich text with its pictures by their content, for their names may differ from place to place. */
function byContent(markup: Markup | undefined, { attachments }: Question): string {
	const hashes = new Map(attachments.map((one) => [one.name, one.hash]));
	return (markup ?? '').replace(/="media:([^"]*)"/g, (whole, name: string) => {
		const hash = hashes.get(name);
		return hash ? `="media:${hash}"` : whole;
	});
}

/** The names of files that only one of two questions uses, by their content. */
function filesApart(of: Question, other: Question): string {
	const known = new Set(other.attachments.map((one) => one.hash ?? one.name));
	return of.attachments
		.filter((one) => !known.has(one.hash ?? one.name))
		.map((one) => one.name)
		.join(', ');
}

/**
 * The parts in which two questions differ, each with what is in both and what is only in one: in words, and where the
 * words are the same but not how they are set, in their source.
 */
export function wordDifferences(before: Question, after: Question): WordDifference[] {
	const [a, b] = [before, after].map((question) => new Map(partsOf(question).map((part) => [part.name, part])));
	const found = [...new Set([...a!.keys(), ...b!.keys()])].flatMap((name): WordDifference[] => {
		const [x, y] = [a!.get(name), b!.get(name)];
		if ((x?.text ?? '') !== (y?.text ?? '')) return [{ part: name, stretches: between(x?.text ?? '', y?.text ?? '') }];
		if (byContent(x?.markup, before) === byContent(y?.markup, after)) return [];
		return [{ part: `${name}, how it is set`, stretches: between(x?.markup ?? '', y?.markup ?? '') }];
	});
	const [gone, come] = [filesApart(before, after), filesApart(after, before)];
	return gone || come ? [...found, { part: 'pictures and files', stretches: between(gone, come) }] : found;
}
