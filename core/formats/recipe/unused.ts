import type { RecordAccess } from './record';
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
export function unusedFields(records: Iterable<RecordAccess>, recipe: Recipe): { name: string; count: number }[] {
	const spoken = spokenOf(recipe);
	const passed = new Map<string, boolean>();
	/** How often each stands there, and its texts as long as all of them may be identifiers. */
	const found = new Map<string, { count: number; texts: Set<string> | null }>();
	for (const record of records)
		for (const [name, text] of record.fields()) {
			let passes = passed.get(name);
			if (passes === undefined) {
				passes = spoken.has(name.replace(/^@/, '').replace(/^.*:/, '')) || identifying.test(name);
				passed.set(name, passes);
			}
			if (passes) continue;
			let field = found.get(name);
			if (!field) found.set(name, (field = { count: 0, texts: new Set() }));
			field.count += 1;
			if (!field.texts) continue;
			if (field.texts.has(text) || !likeIdentifier.test(text)) field.texts = null;
			else field.texts.add(text);
		}
	return [...found].flatMap(([name, { count, texts }]) => (count > 1 && texts ? [] : [{ name, count }]));
}
