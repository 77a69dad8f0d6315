import { isChoice, type Question } from '../kinds';
import { fold } from '../markup/text';
import { contentOf } from './canonical';

/** What does not count where two questions ask the same: what is told after answering, and names. */
const aside = ['title', 'points', 'feedback', 'hints'];

/** Every text in a value with its white space folded, within rich text too. */
function tidied(value: unknown): unknown {
	if (typeof value === 'string') return fold(value.replace(/>\s+/g, '>').replace(/\s+</g, '<'));
	if (Array.isArray(value)) return value.map(tidied);
	if (value === null || typeof value !== 'object') return value;
	return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, tidied(inner)]));
}

const sorted = (list: unknown[]) => list.map((entry) => JSON.stringify(entry)).sort();

/**
 * What a student sees of a question before answering, and how it is marked: the same for two questions that ask the same.
 * Title, points, tags, category, feedback, hints, white space and the order of options that may be shuffled do not count.
 */
export function askedForm(question: Question): Record<string, unknown> {
	const form = tidied(
		Object.fromEntries(Object.entries(contentOf(question)).filter(([name]) => !aside.includes(name)))
	) as Record<string, unknown>;
	if (!isChoice(question) || !Array.isArray(form.options)) return form;
	const options = (form.options as Record<string, unknown>[]).map(({ feedback: _, ...option }) => option);
	// a pinned option keeps its place, and so does each of those that are never shuffled
	const free = question.shuffle === false ? [] : options.filter(({ pinned }) => !pinned);
	const bound = options.flatMap((option, at) => (free.includes(option) ? [] : [[at, option]]));
	return { ...form, shuffle: question.shuffle === false, options: [sorted(free), bound] };
}
