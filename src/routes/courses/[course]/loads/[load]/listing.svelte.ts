import type { Chosen, ListedQuestion, ListFilter, ListPage, listOrders } from '$lib/server/loads/listed';
import { latest } from '$lib/ui/latest';
import { Pages, pagesFrom, renewed } from '$lib/ui/pages.svelte';
import { Selection } from '$lib/ui/selection.svelte';

/** The order of the questions of a load. */
export type ListOrder = (typeof listOrders)[number];

const pageSize = 100;
const everything: ListFilter = { words: '', rule: '', kind: '', match: '', category: null };

/** The questions of a load as they are listed and selected: by a filter and an order, a page at a time. */
export class Listing {
	filter = $state<ListFilter>({ ...everything });
	order = $state<ListOrder>('file');
	pages = $state.raw<Pages<ListedQuestion>>() as Pages<ListedQuestion>;
	readonly selection = new Selection<ListedQuestion>(() => this.pages.total);
	readonly #address: string;

	/** `address` is that of the load. */
	constructor(address: string, first: ListPage) {
		this.#address = address;
		this.pages = new Pages(first, pageSize, this.#fetching());
	}

	/** Fetches pages of the list by the filter as it is now. */
	#fetching() {
		const asked = new URLSearchParams({ order: this.order });
		for (const [name, value] of Object.entries(this.filter)) if (value !== null) asked.set(name, value);
		return pagesFrom<ListedQuestion>((from) => {
			asked.set('from', String(from));
			return `${this.#address}/rows?${asked}`;
		});
	}

	readonly #first = latest((made: () => Promise<Pages<ListedQuestion> | null>) => made());

	/** Lists by another filter or order, from the top; what was selected as all that were listed is so no more. */
	async show(changes: Partial<ListFilter & { order: ListOrder }>): Promise<void> {
		const { order = this.order, ...filter } = changes;
		this.order = order;
		this.filter = { ...this.filter, ...filter };
		if (this.selection.ofAll && Object.keys(filter).length) this.selection.clear();
		await this.#list(0);
	}

	/** Lists anew what is listed, after something has become of it; `chosen` is the key of what is chosen. */
	async again(chosen: number | null): Promise<void> {
		await this.#list(Math.floor(this.pages.seen / pageSize) * pageSize, this.pages.placeOf(chosen));
	}

	/** `place` is where something stands that has to be here with the list. */
	async #list(from: number, place?: number): Promise<void> {
		const fetchPage = this.#fetching();
		const pages = await this.#first(async () => {
			const first = await fetchPage(from);
			if (!first) return null;
			const made = new Pages(first, pageSize, fetchPage);
			if (place !== undefined) await renewed(this.pages, made, place);
			return made;
		});
		if (pages) this.pages = pages;
	}

	/** What is selected, as an endpoint takes it. */
	get chosen(): Chosen {
		const { ids, except } = this.selection;
		return except ? { filter: $state.snapshot(this.filter), except } : { ids };
	}

	/** Whether a rule may speak of something that is selected; of all that are listed it is not known here. */
	mayHave(rule: string): boolean {
		if (this.selection.ofAll) return !this.filter.rule || this.filter.rule === 'any' || this.filter.rule === rule;
		return this.selection.picked.some((question) =>
			(this.pages.at(this.pages.placeOf(question.id)) ?? question).marks.some((mark) => mark.rule === rule)
		);
	}
}
