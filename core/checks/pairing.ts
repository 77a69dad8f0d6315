import type { FindingAmong, Noted, PairCheck } from './check';

/** Of a question so many others are looked for that it is like, and in a group so many are looked at. */
const mostAlike = 5;
const mostTried = 300;

/** Which of a question's group it is like, looked for among those near it; `others` are in the order in which they came. */
export function alikeAmong(check: PairCheck, own: Noted<unknown>, others: readonly Noted<unknown>[]): Noted<unknown>[] {
	const found: Noted<unknown>[] = [];
	for (const other of others.slice(0, mostTried)) {
		if (other.id !== own.id && check.alike(own.note, other.note)) found.push(other);
		if (found.length >= mostAlike) break;
	}
	return found;
}

/** What is said of each of some questions, given those that it is like by its key. */
export function* saidOfPairs(
	check: PairCheck,
	noted: ReadonlyMap<number, Noted<unknown>>,
	pairs: ReadonlyMap<number, ReadonlySet<number>>
): Generator<FindingAmong> {
	for (const [id, others] of pairs) {
		const named = [...others].sort((a, b) => a - b).flatMap((other) => noted.get(other) ?? []);
		if (named.length) yield { id, ...check.say(named, named.length) };
	}
}

/** Finds the pairs of a check among questions that are added one by one. */
export class Pairing {
	readonly check: PairCheck;
	readonly #noted = new Map<number, Noted<unknown>>();
	readonly #groups = new Map<string, Noted<unknown>[]>();

	constructor(check: PairCheck) {
		this.check = check;
	}

	/** Adds a question as it was noted; `within` names those that it is held against. */
	add(noted: Noted<unknown>, within: string): void {
		this.#noted.set(noted.id, noted);
		for (const key of this.check.keys(noted.note)) {
			const name = `${within}\n${key}`;
			const group = this.#groups.get(name);
			if (group) group.push(noted);
			else this.#groups.set(name, [noted]);
		}
	}

	/** What is found among all that were added. */
	findings(): Generator<FindingAmong> {
		const pairs = new Map<number, Set<number>>();
		const add = (id: number, other: number) => {
			const known = pairs.get(id);
			if (known) known.add(other);
			else pairs.set(id, new Set([other]));
		};
		for (const group of this.#groups.values())
			group.forEach((own, at) => {
				if ((pairs.get(own.id)?.size ?? 0) >= mostAlike) return;
				for (const other of alikeAmong(this.check, own, group.slice(at + 1, at + 1 + mostTried))) {
					add(own.id, other.id);
					add(other.id, own.id);
				}
			});
		return saidOfPairs(this.check, this.#noted, pairs);
	}
}
