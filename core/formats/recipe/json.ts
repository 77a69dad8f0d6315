/** A value of a JSON document, with the objects around it, outermost first, and its own key where it stands in one. */
export interface Found {
	value: unknown;
	around: unknown[];
	key?: string;
}

type Step =
	| { key: true }
	| { name: string }
	| { names: string[] }
	| { index: number }
	| { every: true }
	| { deep: string | null };

/** The steps of a path: `a.b`, `[*]` every entry, `[2]`, `['a','b']` those of these names that are there, `..name` at any depth, `.` the value itself (RFC 9535 in part), and `~` its own key. */
function stepsOf(path: string): Step[] {
	const steps: Step[] = [];
	const pattern =
		/\.\.(?:([^.[\]]+)|(?=\[|$))|\[\*\]|\[(\d+)\]|\[["']([^"']*)["']\]|\[((?:\s*["'][^"']*["']\s*,?)+)\]|\.?([^.[\]]+)|\./g;
	for (const found of path.trim().replace(/^\$/, '').matchAll(pattern)) {
		if (found[5] === '~') steps.push({ key: true });
		else if (found[0].startsWith('..')) steps.push({ deep: found[1] ?? null });
		else if (found[0] === '[*]') steps.push({ every: true });
		else if (found[2] !== undefined) steps.push({ index: Number(found[2]) });
		else if (found[3] !== undefined) steps.push({ name: found[3] });
		else if (found[4] !== undefined)
			steps.push({ names: [...found[4].matchAll(/["']([^"']*)["']/g)].map((one) => one[1]!) });
		else if (found[5] === '*') steps.push({ every: true });
		else if (found[5] !== undefined) steps.push({ name: found[5] });
	}
	return steps;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
	typeof value === 'object' && value !== null && !Array.isArray(value);

function below(found: Found): Found[] {
	const { value, around } = found;
	if (Array.isArray(value)) return value.map((one: unknown) => ({ value: one, around }));
	if (!isObject(value)) return [];
	return Object.entries(value).map(([key, one]) => ({ value: one, around: [...around, value], key }));
}

function deep(found: Found, name: string | null, out: Found[], depth = 0): void {
	if (depth > 200) return;
	const { value, around } = found;
	if (name === null) out.push(found);
	else if (isObject(value) && Object.hasOwn(value, name)) out.push({ value: value[name], around: [...around, value] });
	for (const one of below(found)) deep(one, name, out, depth + 1);
}

/** Every value that a path leads to. */
export function follow(start: Found, path: string): Found[] {
	let all: Found[] = [start];
	for (const step of stepsOf(path)) {
		if ('key' in step)
			all = all.flatMap((one) => (one.key === undefined ? [] : [{ value: one.key, around: one.around }]));
		else if ('every' in step) all = all.flatMap(below);
		else if ('index' in step)
			all = all.flatMap(({ value, around }) =>
				Array.isArray(value) && step.index in value ? [{ value: value[step.index] as unknown, around }] : []
			);
		else if ('names' in step)
			all = all.flatMap(({ value, around }) =>
				isObject(value)
					? step.names
							.filter((name) => Object.hasOwn(value, name) && value[name] !== null && value[name] !== '')
							.map((name) => ({ value: value[name], around: [...around, value], key: name }))
					: []
			);
		else if ('deep' in step) {
			const out: Found[] = [];
			for (const one of all) deep(one, step.deep, out);
			all = out;
		} else
			all = all.flatMap(({ value, around }) =>
				isObject(value) && Object.hasOwn(value, step.name)
					? [{ value: value[step.name], around: [...around, value], key: step.name }]
					: []
			);
	}
	return all;
}

/** The lines at which each of a list of records begins in the text of a JSON document, by looking for them in order. */
export function linesOfRecords(text: string, records: unknown[]): number[] {
	let at = 0;
	let line = 1;
	return records.map((record) => {
		const mark = isObject(record)
			? Object.entries(record).find(([, value]) => typeof value === 'string' && value.length > 0)
			: undefined;
		const wanted = mark ? JSON.stringify(mark[1]) : null;
		const found = wanted ? text.indexOf(wanted, at) : -1;
		if (found >= 0) {
			const start = Math.max(text.lastIndexOf('{', found), at);
			for (let place = at; place < start; place += 1) if (text.charCodeAt(place) === 10) line += 1;
			at = start;
			const here = line;
			for (let place = at; place < found; place += 1) if (text.charCodeAt(place) === 10) line += 1;
			at = found;
			return here;
		}
		return line;
	});
}
