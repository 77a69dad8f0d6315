import type { Pool } from 'mysql2/promise';

/**
 * A memory for what is worked out of a list, by the database and the name of the list: once something has changed, nobody
 * asks by that name again. At most so many are kept, the latest of them; what has no name is worked out anew each time.
 */
export function memory<Value>(most: number): (pool: Pool, name: string | null, work: () => Value) => Value {
	const keptFor = new WeakMap<Pool, Map<string, Value>>();
	return (pool, name, work) => {
		if (name === null) return work();
		const kept = keptFor.get(pool) ?? new Map<string, Value>();
		keptFor.set(pool, kept);
		if (kept.has(name)) return kept.get(name)!;
		const found = work();
		const [oldest] = kept.keys();
		if (kept.size >= most && oldest !== undefined) kept.delete(oldest);
		kept.set(name, found);
		// what failed is worked out again
		if (found instanceof Promise) found.catch(() => kept.delete(name));
		return found;
	};
}
