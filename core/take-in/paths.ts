import type { Decision } from './decision';

/** A path as one string: its steps with line feeds between, which no name has. */
export function pathKey(path: string[]): string {
	return path.map((step) => step.replace(/\s*\n\s*/g, ' ')).join('\n');
}

/** A path out of its string. */
export function pathOfKey(key: string): string[] {
	return key ? key.split('\n') : [];
}

/** Where a person has put the category of a key, as a key; undefined where nobody has. Categories are called anything, also like what every object has. */
export function putAt({ landings: put }: Pick<Decision, 'landings'>, key: string): string | undefined {
	return Object.hasOwn(put, key) ? put[key] : undefined;
}

/** Every path that has to be there so that questions can land in `paths`: those and all above them. */
export function withAbove(paths: string[][]): string[][] {
	const found = new Map<string, string[]>();
	for (const path of paths)
		for (let depth = 1; depth <= path.length; depth += 1)
			found.set(pathKey(path.slice(0, depth)), path.slice(0, depth));
	return [...found.values()].sort((a, b) => a.length - b.length);
}

/**
 * Gives where the questions of each found category land, by its path. What a person has said of a category counts for
 * all that is under it too. Otherwise it lands in the category of the same path; or in the only one in the bank that has
 * its name; or in a new one. `existing` are the paths of the bank, as `pathKey` gives them.
 */
export function landings(
	decision: Pick<Decision, 'categories' | 'oneCategory' | 'landings'>,
	existing: string[]
): (path: string[]) => string[] {
	if (decision.categories === 'one') {
		const one = decision.oneCategory.trim();
		return () => (one ? [one] : []);
	}
	const known = new Set(existing);
	const byName = new Map<string, string | null>();
	for (const key of existing) {
		const name = key.slice(key.lastIndexOf('\n') + 1);
		byName.set(name, byName.has(name) ? null : key);
	}
	const done = new Map<string, string[]>();
	const land = (path: string[]): string[] => {
		const key = pathKey(path);
		const before = done.get(key);
		if (before) return before;
		const said = putAt(decision, key);
		let to: string[];
		if (said !== undefined) to = pathOfKey(said);
		else if (!path.length) to = [];
		else if (known.has(key)) to = path;
		else {
			const above = land(path.slice(0, -1));
			const here = [...above, path.at(-1)!];
			const named = byName.get(path.at(-1)!);
			to = !known.has(pathKey(here)) && path.length === 1 && named ? pathOfKey(named) : here;
		}
		done.set(key, to);
		return to;
	};
	return land;
}
