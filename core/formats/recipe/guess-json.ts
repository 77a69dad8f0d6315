import { kindsTogether } from '../drafts/words';
import { guessColumns } from '../table/headings';
import { countsFromZero, isLabel, keyNamed, names, ordinary, partsNamed, plain, separators, sides } from './names';
import type { Recipe } from './recipe';

const isSentence = (value: unknown) => typeof value === 'string' && value.trim().split(/\s+/).length > 2;
const isObject = (value: unknown): value is Record<string, unknown> =>
	typeof value === 'object' && value !== null && !Array.isArray(value);

interface Listed {
	path: string;
	records: Record<string, unknown>[];
}

function listsIn(value: unknown, path: string, out: Map<string, Listed>, depth = 0): void {
	if (depth > 40) return;
	if (Array.isArray(value)) {
		const here = `${path}[*]`;
		const records = value.filter(isObject);
		if (records.length) {
			const known = out.get(here) ?? { path: here, records: [] };
			for (const one of records) known.records.push(one);
			out.set(here, known);
		}
		for (const one of value) listsIn(one, here, out, depth + 1);
	} else if (isObject(value))
		for (const [key, one] of Object.entries(value))
			listsIn(one, /^[\w-]+$/.test(key) ? (path ? `${path}.${key}` : key) : `${path}["${key}"]`, out, depth + 1);
}

/** The names of all fields of some records, each once. */
function namesIn(records: Record<string, unknown>[]): Set<string> {
	const found = new Set<string>();
	for (const record of records) for (const name of Object.keys(record)) found.add(name);
	return found;
}

const scoreOf = (records: Record<string, unknown>[]) => {
	const keys = new Set([...namesIn(records)].map(plain));
	const has = (name: string) => [...keys].some((key) => names[name]!.test(key));
	if (!has('stem')) return 0;
	return 1 + Object.keys(names).filter(has).length + (has('options') || has('key') ? 5 : 0);
};

/** Whether a list is one of the parts of a question that has a stem of its own, such as its pairs, and no list of questions. */
function isPartOf({ path }: Listed, lists: Map<string, Listed>): boolean {
	const found = /^(.*\[\*\])\.?([^.[\]]+)\[\*\]$/.exec(path);
	const name = plain(found?.[2] ?? '');
	if (!found || !['options', 'pairs', 'accepted'].some((part) => names[part]!.test(name))) return false;
	return (lists.get(found[1]!)?.records ?? []).some((one) =>
		Object.keys(one).some((key) => names.stem!.test(plain(key)))
	);
}

/** Whether the options and the answer stand side by side in any of some questions. */
const standTogether = (records: Record<string, unknown>[], options: string) =>
	records.some((one) => Array.isArray(one[options]) && Object.keys(one).some((key) => plain(key) === 'answer'));

const mostLookedAt = 20_000;

/** Of very many records so many that show what there is, from the first to the last. */
const spread = <T>(records: T[]): T[] =>
	records.length > mostLookedAt
		? Array.from({ length: mostLookedAt }, (_, at) => records[Math.floor((at * records.length) / mostLookedAt)]!)
		: records;

/** A recipe for a JSON document, guessed from the names of its keys; null where no list of it reads like questions. */
export function guessJson(value: unknown): Recipe | null {
	const lists = new Map<string, Listed>();
	listsIn(value, '', lists);
	const [best] = [...lists.values()]
		.filter((list) => !isPartOf(list, lists))
		.sort((a, b) => scoreOf(b.records) - scoreOf(a.records));
	if (!best || scoreOf(best.records) < 3) return null;
	best.records = spread(best.records);
	const keys = [...namesIn(best.records)];
	const taken = new Set<string>();
	const recipe: Recipe = { record: best.path, categorySeparators: separators };
	const valuesOf = (key: string) =>
		best.records.map((one) => one[key]).filter((one) => one !== null && one !== undefined);
	// a list of options before anything else, so that "answers" is told from an answer
	const optionKey = keys.find(
		(key) => names.options!.test(plain(key)) && valuesOf(key).some((one) => Array.isArray(one) || isObject(one))
	);
	if (
		optionKey !== undefined &&
		!(
			plain(optionKey) === 'answers' &&
			(keys.some((key) => /^(options|choices)$/.test(plain(key))) ||
				(keys.some((key) => plain(key) === 'answer') &&
					!valuesOf(optionKey).flat().some(isObject) &&
					!standTogether(best.records, optionKey)))
		)
	) {
		taken.add(optionKey);
		recipe.options = `${optionKey}[*]`;
		const entries = valuesOf(optionKey).flatMap((one) =>
			Array.isArray(one) ? (one as unknown[]) : isObject(one) ? Object.values(one) : []
		);
		const objects = entries.filter(isObject);
		if (objects.length) {
			const inner = [...namesIn(objects)];
			Object.assign(recipe, partsNamed(inner));
			if (recipe.credit && objects.some((one) => Math.abs(Number(one[recipe.credit as string])) > 1))
				recipe.creditScale = 'percent';
		}
	}
	const apart = guessColumns(keys);
	// or a list of texts under a name that says nothing, beside a key
	const bare = keys.find(
		(key) =>
			!Object.values(names).some((pattern) => pattern.test(plain(key))) &&
			valuesOf(key).length > best.records.length / 2 &&
			valuesOf(key).every(
				(one) => Array.isArray(one) && one.length > 1 && one.every((part) => typeof part === 'string')
			)
	);
	if (recipe.options === undefined && bare !== undefined && keys.some((key) => names.key!.test(plain(key)))) {
		recipe.options = `${bare}[*]`;
		taken.add(bare);
	}
	// an option in each of several keys: "A", "B", "C"
	if (recipe.options === undefined && Array.isArray(apart.options) && apart.options.length > 1) {
		recipe.options = `[${apart.options.map((name) => `'${name}'`).join(',')}]`;
		for (const name of apart.options) taken.add(name);
	}
	for (const field of [...ordinary, 'tolerance', 'pairs', 'order', 'accepted'] as const) {
		if (field === 'stem' && recipe.stem !== undefined) continue;
		const key = keyNamed(keys, names[field]!, taken);
		if (key === undefined) continue;
		const some = valuesOf(key);
		const lists = some.some(Array.isArray);
		if (field === 'pairs') {
			recipe.pairs = isObject(some[0]) && !lists ? key : `${key}[*]`;
			const [first] = some.flatMap((one) => (Array.isArray(one) ? (one as unknown[]) : [one]));
			if (Array.isArray(first)) {
				recipe.left = '[0]';
				recipe.right = '[1]';
			} else if (isObject(first)) {
				for (const [side, pattern] of sides) {
					const name = Object.keys(first).find((one) => pattern.test(plain(one)));
					if (name) recipe[side as 'left'] = name;
				}
				// an object whose keys are the one side, and its values the other
				if (!lists && !(recipe.left && recipe.right))
					Object.assign(recipe, { pairs: `${key}[*]`, left: '~', right: '.' });
			}
		} else if (field === 'order' || field === 'tags' || field === 'accepted') recipe[field] = lists ? `${key}[*]` : key;
		else if (field === 'key') {
			// one question has "answer", another has "answers"
			const others = keys.filter((name) => !taken.has(name) && names.key!.test(plain(name)));
			const beside = (name: string) => best.records.some((one) => one[name] !== undefined && one[key] !== undefined);
			const more = others.filter((name) => !beside(name));
			for (const name of more) taken.add(name);
			// and in a third both are there: a sentence beside the answer says why
			const reason = others.find((name) => beside(name) && valuesOf(name).every(isSentence));
			if (reason !== undefined && recipe.generalFeedback === undefined) {
				recipe.generalFeedback = reason;
				taken.add(reason);
			}
			recipe.key = more.length ? [key, ...more] : key;
		} else (recipe as Record<string, unknown>)[field] = key;
	}
	// an answer that is an object with a number, and perhaps how far off one may be
	for (const key of [recipe.key ?? []].flat()) {
		const object = valuesOf(key).find((one) => isObject(one) && typeof one.value === 'number');
		if (!object || recipe.numeric !== undefined) continue;
		recipe.numeric = `${key}.value`;
		const within = Object.keys(object).find((name) => names.tolerance!.test(plain(name)));
		if (within) recipe.tolerance = `${key}.${within}`;
	}
	if (recipe.stem === undefined && recipe.title !== undefined) {
		recipe.stem = recipe.title;
		delete recipe.title;
	}
	if (recipe.category === undefined && best.path.split('[*]').length > 2) {
		const label = ancestorLabel(value, best.path);
		if (label) recipe.categoryFrom = { ancestors: label };
	}
	const kinds = kindsTogether(valuesOf(recipe.kind as string).map(String));
	if (kinds) recipe.kinds = kinds;
	const given = [recipe.key ?? []].flat().flatMap(valuesOf).flat();
	recipe.keyForms = recipe.options
		? [
				'text',
				'letter',
				countsFromZero(
					given.filter((one) => typeof one === 'number'),
					recipe.key
				)
					? 'index0'
					: 'index',
				'truth',
				'answer'
			]
		: ['truth', 'answer'];
	return recipe;
}

/** The key that names what stands around the records, such as the title of a section. */
function ancestorLabel(value: unknown, path: string): string | null {
	const outer = path.replace(/\.?[^.[\]]*\[\*\]$/, '');
	const lists = new Map<string, Listed>();
	listsIn(value, '', lists);
	const around = lists.get(outer);
	const keys = [...new Set(around?.records.flatMap((one) => Object.keys(one)) ?? [])];
	return keys.find((key) => isLabel.test(plain(key))) ?? null;
}
