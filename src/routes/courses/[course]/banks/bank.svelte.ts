import { goto } from '$app/navigation';
import { page } from '$app/state';
import type { FilterName } from '$lib/server/banks/conditions';
import type { Chosen, QuestionFilter } from '$lib/server/banks/filter';
import type { QuestionPage } from '$lib/server/banks/pages';
import type { QuestionRow } from '$lib/server/banks/question-rows';
import type { Done } from '$lib/server/changes/deed';
import { send, tellDone } from '$lib/ui/doing';
import { pagesFrom, ShownList, type Pages } from '$lib/ui/pages.svelte';
import { Selection } from '$lib/ui/selection.svelte';
import { tell } from '$lib/ui/toasts';
import { refresh } from '$lib/ui/refresh';

/** What a bank page is made of: the questions as they are listed, which are selected, and what is done to them. */
export class BankView {
	readonly courseId: number;
	readonly #list = new ShownList<QuestionRow>();
	/** What was asked for, but for its order. */
	#asked = '';
	filter = $state.raw() as QuestionFilter;
	busy = $state(false);
	/** What the last thing that was refused said, for the sheet that asked for it. */
	failure = $state('');
	readonly selection: Selection<QuestionRow>;

	constructor(courseId: number) {
		this.courseId = courseId;
		this.selection = new Selection<QuestionRow>(() => this.pages.total);
	}

	/** The questions that are listed. */
	get pages(): Pages<QuestionRow> {
		return this.#list.pages;
	}

	/** Takes what the server has sent with the page; `place` is that of what is chosen. */
	take(first: QuestionPage, size: number, filter: QuestionFilter, place = 0): void {
		const { sort, down, ...others } = filter;
		const asked = JSON.stringify(others);
		if (this.#asked && this.#asked !== asked) this.selection.clear();
		this.#asked = asked;
		this.filter = filter;
		const fetchPage = pagesFrom<QuestionRow>((from) => {
			const address = new URL(`/courses/${this.courseId}/banks/rows`, page.url);
			address.search = page.url.search;
			address.searchParams.set('bank', String(filter.bankId));
			address.searchParams.set('from', String(from));
			return address.href;
		});
		this.#list.take(`${asked} ${sort} ${down}`, first, size, fetchPage, place);
	}

	/** Shows the page by another address: what is named is set, or taken out where it is null or empty. */
	show(
		changes: Partial<
			Record<
				| FilterName
				| 'bank'
				| 'category'
				| 'under'
				| 'words'
				| 'sort'
				| 'down'
				| 'question'
				| 'view'
				| 'across'
				| 'beside',
				string | null
			>
		>
	): Promise<void> {
		const next = new URL(page.url);
		for (const [name, value] of Object.entries(changes)) {
			if (value === null || value === '') next.searchParams.delete(name);
			else next.searchParams.set(name, value);
		}
		return goto(next, { keepFocus: true, noScroll: true, replaceState: true });
	}

	/** Which questions are selected, as endpoints take it. */
	get chosen(): Chosen {
		const { bankId, categoryId, withUnder, words, filters } = this.filter;
		const { ids, except } = this.selection;
		const by = { bankId, categoryId, withUnder, words, filters };
		return except ? { ...by, ids: undefined, except } : { ...by, ids, except: [] };
	}

	/** Asks an endpoint below the banks of the course to do something; what was done is told with its way back. */
	async act<T extends Done>(where: string, asked: unknown, method = 'POST'): Promise<T | null> {
		this.busy = true;
		this.failure = '';
		try {
			const sent = await send<T>(`/courses/${this.courseId}/banks/${where}`, asked, method);
			if (!sent.ok) {
				this.failure = sent.message;
				return null;
			}
			await this.again();
			tellDone(this.courseId, sent.value, () => this.again());
			return sent.value;
		} finally {
			this.busy = false;
		}
	}

	/** The same, where what is refused is told and no sheet is open for it. */
	async actAtOnce(where: string, asked: unknown): Promise<boolean> {
		const done = await this.act(where, asked);
		if (!done && this.failure) tell(this.failure);
		return done !== null;
	}

	/** Shows everything anew after something was done. */
	readonly again = (): Promise<void> => refresh();
}
