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

/** A recipe in the making, for the records of a list that are questions. */
class JsonGuess {
	readonly recipe: Recipe;
	readonly #records: Record<string, unknown>[];
	readonly #keys: string[];
	readonly #taken = new Set<string>();

	constructor({ path, records }: Listed) {
		this.recipe = { record: path, categorySeparators: separators };
		this.#records = spread(records);
		this.#keys = [...namesIn(this.#records)];
	}

	#valuesOf(key: string): unknown[] {
		return this.#records.map((record) => record[key]).filter((value) => value !== null && value !== undefined);
	}

	/** Whether "answers" is a list of answers, and no list of options. */
	#isAnswers(key: string): boolean {
		if (plain(key) !== 'answers') return false;
		if (this.#keys.some((other) => /^(options|choices)$/.test(plain(other)))) return true;
		return (
			this.#keys.some((other) => plain(other) === 'answer') &&
			!this.#valuesOf(key).flat().some(isObject) &&
			!standTogether(this.#records, key)
		);
	}

	/** A list of options, before anything else, so that "answers" is told from an answer. */
	options(): void {
		const { recipe } = this;
		const listed = (key: string) => this.#valuesOf(key).some((value) => Array.isArray(value) || isObject(value));
		const key = this.#keys.find((name) => names.options!.test(plain(name)) && listed(name));
		if (key === undefined || this.#isAnswers(key)) return;
		this.#taken.add(key);
		recipe.options = `${key}[*]`;
		const entries = this.#valuesOf(key).flatMap((value) =>
			Array.isArray(value) ? (value as unknown[]) : isObject(value) ? Object.values(value) : []
		);
		const objects = entries.filter(isObject);
		if (!objects.length) return;
		Object.assign(recipe, partsNamed([...namesIn(objects)]));
		if (recipe.credit && objects.some((entry) => Math.abs(Number(entry[recipe.credit as string])) > 1))
			recipe.creditScale = 'percent';
	}

	/** Options where no list is called so: texts under a name that says nothing, beside a key; or one in each of several keys. */
	otherOptions(): void {
		const { recipe } = this;
		const isTexts = (value: unknown) =>
			Array.isArray(value) && value.length > 1 && value.every((part) => typeof part === 'string');
		const bare = this.#keys.find(
			(key) =>
				!Object.values(names).some((pattern) => pattern.test(plain(key))) &&
				this.#valuesOf(key).length > this.#records.length / 2 &&
				this.#valuesOf(key).every(isTexts)
		);
		const keyed = this.#keys.some((key) => names.key!.test(plain(key)));
		if (recipe.options === undefined && bare !== undefined && keyed) {
			recipe.options = `${bare}[*]`;
			this.#taken.add(bare);
		}
		const apart = guessColumns(this.#keys);
		if (recipe.options === undefined && Array.isArray(apart.options) && apart.options.length > 1) {
			recipe.options = `[${apart.options.map((name) => `'${name}'`).join(',')}]`;
			for (const name of apart.options) this.#taken.add(name);
		}
	}

	fields(): void {
		const { recipe } = this;
		for (const field of [...ordinary, 'tolerance', 'pairs', 'order', 'accepted'] as const) {
			if (field === 'stem' && recipe.stem !== undefined) continue;
			const key = keyNamed(this.#keys, names[field]!, this.#taken);
			if (key === undefined) continue;
			if (field === 'pairs') this.#pairs(key);
			else if (field === 'order' || field === 'tags' || field === 'accepted')
				recipe[field] = this.#valuesOf(key).some(Array.isArray) ? `${key}[*]` : key;
			else if (field === 'key') this.#key(key);
			else (recipe as Record<string, unknown>)[field] = key;
		}
	}

	#pairs(key: string): void {
		const { recipe } = this;
		const some = this.#valuesOf(key);
		const lists = some.some(Array.isArray);
		recipe.pairs = isObject(some[0]) && !lists ? key : `${key}[*]`;
		const [first] = some.flatMap((value) => (Array.isArray(value) ? (value as unknown[]) : [value]));
		if (Array.isArray(first)) {
			recipe.left = '[0]';
			recipe.right = '[1]';
		} else if (isObject(first)) {
			for (const [side, pattern] of sides) {
				const name = Object.keys(first).find((inner) => pattern.test(plain(inner)));
				if (name) recipe[side as 'left'] = name;
			}
			// an object whose keys are the one side, and its values the other
			if (!lists && !(recipe.left && recipe.right))
				Object.assign(recipe, { pairs: `${key}[*]`, left: '~', right: '.' });
		}
	}

	#key(key: string): void {
		const { recipe } = this;
		// one question has "answer", another has "answers"
		const others = this.#keys.filter((name) => !this.#taken.has(name) && names.key!.test(plain(name)));
		const beside = (name: string) =>
			this.#records.some((record) => record[name] !== undefined && record[key] !== undefined);
		const more = others.filter((name) => !beside(name));
		for (const name of more) this.#taken.add(name);
		// and in a third both are there: a sentence beside the answer says why
		const reason = others.find((name) => beside(name) && this.#valuesOf(name).every(isSentence));
		if (reason !== undefined && recipe.generalFeedback === undefined) {
			recipe.generalFeedback = reason;
			this.#taken.add(reason);
		}
		recipe.key = more.length ? [key, ...more] : key;
	}

	/** An answer that is an object with a number, and perhaps how far off one may be. */
	numeric(): void {
		const { recipe } = this;
		for (const key of [recipe.key ?? []].flat()) {
			const object = this.#valuesOf(key).find(
				(value): value is Record<string, unknown> => isObject(value) && typeof value.value === 'number'
			);
			if (!object || recipe.numeric !== undefined) continue;
			recipe.numeric = `${key}.value`;
			const within = Object.keys(object).find((name) => names.tolerance!.test(plain(name)));
			if (within) recipe.tolerance = `${key}.${within}`;
		}
	}

	/** What is told from what is there: the stem, the category, what words for kinds mean, and the forms that keys can have. */
	rest(value: unknown): void {
		const { recipe } = this;
		if (recipe.stem === undefined && recipe.title !== undefined) {
			recipe.stem = recipe.title;
			delete recipe.title;
		}
		if (recipe.category === undefined && recipe.record!.split('[*]').length > 2) {
			const label = ancestorLabel(value, recipe.record!);
			if (label) recipe.categoryFrom = { ancestors: label };
		}
		const kinds = kindsTogether(this.#valuesOf(recipe.kind as string).map(String));
		if (kinds) recipe.kinds = kinds;
		const given = [recipe.key ?? []].flat().flatMap((key) => this.#valuesOf(key));
		const numbers = given.flat().filter((key): key is number => typeof key === 'number');
		const index = countsFromZero(numbers, recipe.key) ? 'index0' : 'index';
		recipe.keyForms = recipe.options ? ['text', 'letter', index, 'truth', 'answer'] : ['truth', 'answer'];
	}
}

/** A recipe for a JSON document, guessed from the names of its keys; null where no list of it reads like questions. */
export function guessJson(value: unknown): Recipe | null {
	const lists = new Map<string, Listed>();
	listsIn(value, '', lists);
	const [best] = [...lists.values()]
		.filter((list) => !isPartOf(list, lists))
		.sort((a, b) => scoreOf(b.records) - scoreOf(a.records));
	if (!best || scoreOf(best.records) < 3) return null;
	const guess = new JsonGuess(best);
	guess.options();
	guess.otherOptions();
	guess.fields();
	guess.numeric();
	guess.rest(value);
	return guess.recipe;
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
