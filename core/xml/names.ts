import { detached } from './detached';

const local = (name: string) => {
	const colon = name.indexOf(':');
	return colon < 0 || name.startsWith('xml:') ? name : name.slice(colon + 1);
};

const met = new Map<string, string>();
const mostMet = 2000;

/**
 * The name without its prefix, as the engine keeps the names of the program: comparing it with one of those is comparing
 * addresses, which is done with each element many times over.
 */
export function nameOf(name: string): string {
	let found = met.get(name);
	if (found === undefined) {
		found = Object.keys({ [local(name)]: 0 })[0]!;
		if (met.size < mostMet) met.set(detached(name), found);
	}
	return found;
}
