/** What is selected in a list: some one by one, or all that it lists but for some. */
export class Selection<Item extends { id: number }> {
	/** Those that were selected one by one. */
	#picked = $state.raw(new Map<number, Item>());
	/** All that are listed are selected, but for these; null where they are selected one by one. */
	#except = $state.raw<ReadonlySet<number> | null>(null);
	/** Where a stretch that is selected with the shift key begins. */
	#anchor: number | null = null;
	readonly #total: () => number;

	/** `total` is how many are listed. */
	constructor(total: () => number) {
		this.#total = total;
	}

	isSelected(id: number): boolean {
		return this.#except ? !this.#except.has(id) : this.#picked.has(id);
	}

	select(item: Item, on: boolean): void {
		this.selectEach([item], on);
	}

	/** Selects or lets go several at once. */
	selectEach(items: readonly Item[], on: boolean): void {
		if (this.#except) {
			const except = new Set(this.#except);
			for (const { id } of items)
				if (on) except.delete(id);
				else except.add(id);
			this.#except = except;
			return;
		}
		const picked = new Map(this.#picked);
		for (const item of items)
			if (on) picked.set(item.id, item);
			else picked.delete(item.id);
		this.#picked = picked;
	}

	/** Selects by a click at a place of the list: with the shift key, the stretch from the one before. `at` gives what stands where. */
	click(place: number, on: boolean, stretch: boolean, at: (place: number) => Item | undefined): void {
		const from = stretch && this.#anchor !== null ? this.#anchor : place;
		const [first, last] = [Math.min(from, place), Math.max(from, place)];
		this.selectEach(
			Array.from({ length: last - first + 1 }, (_, step) => at(first + step)).flatMap((item) => item ?? []),
			on
		);
		this.#anchor = place;
	}

	selectAll(on: boolean): void {
		this.#picked = new Map();
		this.#except = on ? new Set() : null;
		this.#anchor = null;
	}

	clear(): void {
		this.selectAll(false);
	}

	readonly allSelected = $derived.by(() => this.#except?.size === 0);
	readonly selected = $derived.by(() =>
		this.#except ? Math.max(0, this.#total() - this.#except.size) : this.#picked.size
	);

	/** All that are listed are selected, but for some. */
	get ofAll(): boolean {
		return this.#except !== null;
	}

	/** Those that were selected one by one. */
	get picked(): Item[] {
		return [...this.#picked.values()];
	}

	/** Their keys. */
	get ids(): number[] {
		return [...this.#picked.keys()];
	}

	/** The keys of those that are not selected where all others are; null where they are selected one by one. */
	get except(): number[] | null {
		return this.#except && [...this.#except];
	}
}
