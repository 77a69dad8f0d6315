import type { RecordAccess } from './fields';
import type { Recipe } from './recipe';

const identifying = /^@?(?:id|identifier|uuid|guid|no|nr|number|index|ref)$/i;
const likeIdentifier = /^(?=.*\d)[\w.:#-]{1,64}$/;

/** Every name that the paths of a recipe speak of. */
function spokenOf(value: unknown, out: Set<string> = new Set()): Set<string> {
	if (typeof value === 'string') {
		for (const word of value.split(/[^\p{L}\p{N}_:-]+/u)) out.add(word.replace(/^.*:/, ''));
		for (const quoted of value.matchAll(/["']([^"']*)["']/g)) out.add(quoted[1]!);
	} else if (typeof value === 'object' && value !== null) for (const one of Object.values(value)) spokenOf(one, out);
	return out;
}

/**
 * What stands in records, or in their options, and is spoken of by no path of a recipe: its name, and in how many of
 * them it stands. What only tells the records apart, such as an identifier, is none of it.
 */
export function unusedFields(records: RecordAccess[], recipe: Recipe): { name: string; count: number }[] {
	const spoken = spokenOf(recipe);
	const found = new Map<string, string[]>();
	for (const record of records)
		for (const [name, text] of record.fields()) {
			if (spoken.has(name.replace(/^@/, '').replace(/^.*:/, '')) || identifying.test(name)) continue;
			const texts = found.get(name);
			if (texts) texts.push(text);
			else found.set(name, [text]);
		}
	return [...found].flatMap(([name, texts]) =>
		texts.length > 1 && new Set(texts).size === texts.length && texts.every((text) => likeIdentifier.test(text))
			? []
			: [{ name, count: texts.length }]
	);
}
