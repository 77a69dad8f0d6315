import type { StoredQuestion } from '$lib/server/banks/banks';
import { latest } from '$lib/ui/latest';
import type { BankView } from './bank.svelte';

/** The question that is chosen in the list of a bank, and what is seen of it. */
export class ChosenQuestion {
	/** Its key; null where none is chosen. */
	id = $state<number | null>(null);
	shown = $state.raw<StoredQuestion | null>(null);
	readonly #view: BankView;
	/** Where it stood when it was last seen in the list, and how long the list was. */
	#stood = 0;
	#stoodIn = 0;
	/** The question that the address named last. */
	#named: number | null = null;
	readonly #fetch = latest(async (id: number) => {
		const answer = await fetch(`/courses/${this.#view.courseId}/banks/questions/${id}`);
		return answer.ok ? ((await answer.json()) as StoredQuestion) : undefined;
	});

	constructor(view: BankView) {
		this.#view = view;
	}

	/** Its place in the list; where that is not known, the last that was. */
	get place(): number {
		return this.#stood;
	}

	/** Notes where it stands in the list as it is now. */
	note(place: number, total: number): void {
		if (place >= 0) [this.#stood, this.#stoodIn] = [place, total];
	}

	/** Chooses a question, and fetches what is seen of it. */
	async choose(id: number): Promise<void> {
		this.id = id;
		const found = await this.#fetch(id);
		if (found !== null) this.shown = found ?? null;
	}

	/** Chooses the question behind it in the list; gives whether there is one. */
	async next(): Promise<boolean> {
		const { pages } = this.#view;
		const after = await pages.load(pages.placeOf(this.id) + 1);
		if (after) void this.choose(after.id);
		return after !== undefined;
	}

	/**
	 * Chooses anew once the list or the address is another: what the address names now, the same question where it is
	 * there, what has come to its place, or the first.
	 */
	follow(named: number | null): void {
		const { pages } = this.#view;
		if (named !== this.#named && pages.placeOf(named) >= 0) this.id = named;
		this.#named = named;
		// it may have come to another place of a list that is sorted; where the list is shorter, it has left it
		const isThere = pages.placeOf(this.id) >= 0 || (pages.isRenewed && pages.total >= this.#stoodIn);
		if (this.id !== null && isThere) return void this.choose(this.id);
		const next = pages.isRenewed ? pages.at(Math.min(this.#stood, pages.total - 1)) : undefined;
		const found = pages.find(({ id }) => id === named) ?? next ?? pages.at(0);
		if (found) void this.choose(found.id);
		else [this.id, this.shown] = [null, null];
	}
}
