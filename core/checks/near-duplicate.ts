import { digestOf } from '../compare/digest';
import { isChoice, kindOf, type Question } from '../kinds';
import { contentWords } from '../language/small-words';
import { plainText } from '../markup/text';
import { overPairs } from './check';
import { askedDigest } from './exact-duplicate';
import { sameStemOtherKey } from './same-stem-other-key';

/** Two questions that share this much of their content words are nearly the same. */
const least = 0.9;
const mostWords = 160;
const fewestWords = 4;

interface Note {
	/** The content words as numbers, sorted, as often as they stand there. */
	words: number[];
	/** The words of the key. */
	key: string;
	/** The words beside the stem. */
	beside: string;
	/** What tells it from exact duplicates, and from the same with another key. */
	same: string;
	asked: string;
	right: string;
}

function hashOf(word: string): number {
	let hash = 0x811c9dc5;
	for (let at = 0; at < word.length; at += 1) hash = Math.imul(hash ^ word.charCodeAt(at), 0x01000193);
	return hash >>> 0;
}

/** What of the key is told in words: right options, right pairs, accepted texts and numbers. */
function keyOf(question: Question): string[] {
	if (isChoice(question)) return question.options.filter(({ credit }) => credit > 0).map(({ text }) => plainText(text));
	if ('pairs' in question)
		return question.pairs.filter(({ credit }) => credit > 0).map(({ left, right }) => `${left} ${right}`);
	return question.kind === 'ordering'
		? question.items.map(({ text }) => plainText(text))
		: kindOf(question).wording(question);
}

/** How many words of sorted lists are in both, each as often as in the one that has it less. */
function sharedBy(a: readonly number[], b: readonly number[]): number {
	let shared = 0;
	for (let x = 0, y = 0; x < a.length && y < b.length;)
		if (a[x] === b[y]) {
			shared += 1;
			x += 1;
			y += 1;
		} else if (a[x]! < b[y]!) x += 1;
		else y += 1;
	return shared;
}

/** By how much the size of what is alike may differ: with b words of a, 2b/(a+b) is 0.9 at the least. */
const ratio = (2 - least) / least;
const classOf = (size: number) => Math.floor(Math.log(size) / Math.log(ratio) + 1e-9);
/** So many words may differ in all between two of a class and the one before it, and one part more of them is the same in both. */
const partsOf = (sizeClass: number) => Math.floor((1 - least) * 2 * ratio ** (sizeClass + 1)) + 1;

/**
 * Words are dealt to one part more than may differ, so that of two that are alike one part is the same in both (pigeonhole;
 * Arasu, Ganti and Kaushik, 2006). What is alike differs by one class of size at the most: each question has the keys of its
 * own class and of the next.
 */
function keysOf({ words }: Note): string[] {
	const own = classOf(words.length);
	return [own, own + 1].flatMap((sizeClass) => {
		const parts: number[][] = Array.from({ length: partsOf(sizeClass) }, () => []);
		for (const word of words) parts[word % parts.length]!.push(word);
		return parts.map((part, at) => `${sizeClass} ${at} ${part.join(' ')}`);
	});
}

/** Whether two are nearly the same: by their words, where not another thing is asked in the same frame. */
function alike(a: Note, b: Note): boolean {
	if (a.same === b.same || (a.asked !== '' && a.asked === b.asked && a.right !== b.right)) return false;
	const shared = sharedBy(a.words, b.words);
	if (2 * shared < least * (a.words.length + b.words.length) - 1e-9) return false;
	// where another of the same options is the key, that is one word more that differs
	const other = a.key !== b.key && a.beside === b.beside ? 1 : 0;
	const differing = Math.max(a.words.length, b.words.length) - shared + other;
	// “starboard light” and “port light” in one frame are two questions
	return !(differing > 1 && a.key !== b.key);
}

/** Another question is nearly the same. */
export const nearDuplicate = overPairs<Note>({
	id: 'near-duplicate',
	version: 2,
	scope: 'pairs',
	title: 'Nearly the same as another',
	short: 'near duplicate',
	severity: 'doubtful',
	why: 'Two questions differ in a word or two. Mostly one of them is an older copy of the other, and a quiz that draws from both may ask a student the same thing twice.',
	within: 'bank',
	note(question, tools) {
		if (question.kind === 'unreadable') return null;
		const texts = [question.stem, ...kindOf(question).wording(question)].map(plainText);
		const words = contentWords(texts.join(' '))
			.map(hashOf)
			.sort((x, y) => x - y);
		if (words.length < fewestWords) return null;
		const other = sameStemOtherKey.note(question, tools) as { asked: string; key: string } | null;
		return {
			// of very many words those with the lowest numbers stand for all
			words: words.slice(0, mostWords),
			beside: digestOf(contentWords(texts.slice(1).join(' ')).sort().join(' ')),
			key: digestOf(contentWords(keyOf(question).join(' ')).sort().join(' ')),
			same: askedDigest(question),
			asked: other?.asked ?? '',
			right: other?.key ?? ''
		};
	},
	keys: keysOf,
	alike,
	say(others, all) {
		const names = others
			.slice(0, 3)
			.map(({ name, category }) => `“${name}”${category.length ? ` in ${category.join(' › ')}` : ''}`);
		const more = all - names.length;
		return {
			message: `It is nearly the same as ${names.join(', ')}${more > 0 ? ` and ${more} more` : ''}. Keep one of them, or say that both are meant.`
		};
	}
});
