/**
 * A table to look things up in by names that come from outside: it has what it is given and nothing else, not even the
 * names that every object has, such as `constructor`.
 */
export function lookup<T>(entries: Record<string, T> = {}): Record<string, T> {
	return Object.assign(Object.create(null) as Record<string, T>, entries);
}

/** What an object has itself under a name that comes from outside; undefined where it has nothing of that name. */
export function ownValue<T>(held: Record<string, T> | undefined, name: string): T | undefined {
	return held && Object.hasOwn(held, name) ? held[name] : undefined;
}
