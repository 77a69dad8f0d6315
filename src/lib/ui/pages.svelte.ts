import { SvelteMap } from 'svelte/reactivity';

/** A list of any length as a table draws it: what is not here yet is fetched when it is wanted. */
export interface Source<Item extends { id: number }> {
	readonly total: number;
	/** Whether it is the list that was there before, as it is now: one stays where one is in it. */
	readonly isRenewed?: boolean;
	/** What stands at a place; undefined while it is not here. */
	at: (place: number) => Item | undefined;
	/** The place of an item, among those that are here; -1 where it is not. */
	placeOf: (id: number | null) => number;
	/** Says which places are seen, so that they are fetched. */
	want: (first: number, last: number) => void;
	/** Gives what stands at a place, once it is here. */
	load: (place: number) => Promise<Item | undefined>;
}

/** A list that is here as a whole. */
export function wholeList<Item extends { id: number }>(items: readonly Item[]): Source<Item> {
	return {
		total: items.length,
		at: (place) => items[place],
		placeOf: (id) => items.findIndex((item) => item.id === id),
		want: () => undefined,
		load: (place) => Promise.resolve(items[place])
	};
}

/** Some items of a list, from a place on, of so many in all. */
export interface Page<Item> {
	total: number;
	from: number;
	rows: Item[];
}

/** A list that comes a page at a time: the first with the page of the application, the others as one scrolls. */
export class Pages<Item extends { id: number }> implements Source<Item> {
	readonly #pages = new SvelteMap<number, readonly Item[]>();
	readonly #asked = new Map<number, Promise<void>>();
	readonly #fetchPage: (from: number) => Promise<Page<Item> | null>;
	readonly size: number;
	readonly isRenewed: boolean;
	total = $state(0);
	/** The first and the last place that were in sight last. */
	seen = 0;
	seenTo = 0;

	/** `first` is a page of `size` items at the most; `fetchPage` gives the page that begins at a place, or null where it cannot. */
	constructor(
		first: Page<Item>,
		size: number,
		fetchPage: (from: number) => Promise<Page<Item> | null>,
		isRenewed = false
	) {
		this.size = size;
		this.isRenewed = isRenewed;
		this.#fetchPage = fetchPage;
		this.#take(first);
	}

	#take(page: Page<Item>): void {
		this.total = page.total;
		this.#pages.set(Math.floor(page.from / this.size), page.rows);
	}

	at(place: number): Item | undefined {
		return this.#pages.get(Math.floor(place / this.size))?.[place % this.size];
	}

	/** The first that fits, among those that are here. */
	find(fits: (item: Item) => boolean): Item | undefined {
		for (const items of this.#pages.values()) {
			const found = items.find(fits);
			if (found) return found;
		}
		return undefined;
	}

	placeOf(id: number | null): number {
		for (const [number, items] of this.#pages) {
			const at = items.findIndex((item) => item.id === id);
			if (at >= 0) return number * this.size + at;
		}
		return -1;
	}

	want(first: number, last: number): void {
		[this.seen, this.seenTo] = [first, last];
		for (let number = Math.floor(first / this.size); number * this.size <= last; number += 1) void this.#ask(number);
	}

	async load(place: number): Promise<Item | undefined> {
		if (place < 0 || place >= this.total) return undefined;
		await this.#ask(Math.floor(place / this.size));
		return this.at(place);
	}

	#ask(number: number): Promise<void> {
		if (number < 0 || number * this.size >= Math.max(1, this.total) || this.#pages.has(number))
			return Promise.resolve();
		const asked = this.#asked.get(number) ?? this.#bring(number);
		this.#asked.set(number, asked);
		return asked;
	}

	async #bring(number: number): Promise<void> {
		try {
			const page = await this.#fetchPage(number * this.size);
			if (page) this.#take(page);
		} finally {
			this.#asked.delete(number);
		}
	}
}

/**
 * The list that a page shows. Taken anew, it is the same list as it is now, in which one stays where one is, or another one,
 * which is begun at its top.
 */
export class ShownList<Item extends { id: number }> {
	pages = $state.raw() as Pages<Item>;
	#name: string | null = null;
	#taken = 0;

	/** `name` says which list it is, and `place` where in it something stands that matters: that is here once the list is, as is what was in sight. */
	take(
		name: string,
		first: Page<Item>,
		size: number,
		fetchPage: (from: number) => Promise<Page<Item> | null>,
		place = 0
	): void {
		this.#taken += 1;
		const mine = this.#taken;
		const isSame = this.#name === name;
		this.#name = name;
		const pages = new Pages(first, size, fetchPage, isSame);
		if (!isSame) {
			this.pages = pages;
			return;
		}
		void renewed(this.pages, pages, place).then(() => {
			if (mine === this.#taken) this.pages = pages;
		});
	}
}

/** Fetches of a list that takes the place of another what was in sight of that one, and what stands at a place that matters. */
export async function renewed<Item extends { id: number }>(
	before: Pages<Item>,
	pages: Pages<Item>,
	place: number
): Promise<void> {
	[pages.seen, pages.seenTo] = [before.seen, before.seenTo];
	// what cannot be fetched now is asked for again as it comes into sight
	await Promise.allSettled([before.seen, before.seenTo, place].map((at) => pages.load(Math.min(at, pages.total - 1))));
}

/** Fetches pages of a list from an address, which is asked for `from`; an answer that fails leaves its page to be asked for again. */
export function pagesFrom<Item>(address: (from: number) => string): (from: number) => Promise<Page<Item> | null> {
	return async (from) => {
		const answer = await fetch(address(from)).catch(() => null);
		return answer?.ok ? ((await answer.json()) as Page<Item>) : null;
	};
}
