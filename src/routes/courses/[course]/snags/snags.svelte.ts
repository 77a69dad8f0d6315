import { goto } from '$app/navigation';
import { page } from '$app/state';
import type { SnagFilter } from '$lib/server/snags/filter';
import type { SnagRow } from '$lib/server/snags/list';
import { send, tellDone } from '$lib/ui/doing';
import { pagesFrom, ShownList, type Page, type Pages } from '$lib/ui/pages.svelte';
import { tell } from '$lib/ui/toasts';
import { count, figure } from '$lib/ui/words';
import { refresh } from '$lib/ui/refresh';

/** A snag in the list; its key here stays the same when its question is checked again. */
export type ListedSnag = SnagRow;

/** What the mend of some snags came to. */
type Mended =
	| 'changed'
	| { mended: number; left: number; deedId?: number }
	| { kept: number; gone: number; deedId: number }
	| { mending: number };

/** What the page of snags is made of: the list, and what is done to what is in it. */
export class SnagsView {
	readonly courseId: number;
	readonly #list = new ShownList<ListedSnag>();
	filter = $state.raw() as SnagFilter;
	busy = $state(false);
	/** What was refused last. */
	refused = $state('');
	readonly #keys = new Map<string, number>();
	/** What has been mended of a check since one came to it. */
	#mended = { check: '', sum: 0 };

	constructor(courseId: number) {
		this.courseId = courseId;
	}

	/** The snags that are listed. */
	get pages(): Pages<ListedSnag> {
		return this.#list.pages;
	}

	/** Takes what the server has sent with the page; `place` is that of what is chosen. */
	take(first: Page<SnagRow>, size: number, filter: SnagFilter, place = 0): void {
		this.filter = filter;
		const asked = new URLSearchParams();
		for (const [name, value] of Object.entries(filter)) if (value !== null) asked.set(name, String(value));
		const fetchPage = pagesFrom<SnagRow>((from) => `/courses/${this.courseId}/snags/rows?${asked}&from=${from}`);
		const keyed = async (from: number) => {
			const found = await fetchPage(from);
			return found && this.#keyed(found);
		};
		this.#list.take(asked.toString(), this.#keyed(first), size, keyed, place);
	}

	#keyed({ rows, ...rest }: Page<SnagRow>): Page<ListedSnag> {
		return { ...rest, rows: rows.map((snag) => ({ ...snag, id: this.#keyOf(snag) })) };
	}

	#keyOf({ questionId, rule }: SnagRow): number {
		const name = `${questionId} ${rule}`;
		const key = this.#keys.get(name) ?? this.#keys.size + 1;
		this.#keys.set(name, key);
		return key;
	}

	/** Shows the page by another address: what is named is set, or taken out where it is null. */
	show(asks: Record<string, string | null>): Promise<void> {
		const next = new URL(page.url);
		next.searchParams.delete('at');
		next.searchParams.delete('waived');
		for (const [name, value] of Object.entries(asks)) {
			if (value === null) next.searchParams.delete(name);
			else next.searchParams.set(name, value);
		}
		return goto(next, { keepFocus: true, noScroll: true });
	}

	/** Shows everything anew. */
	readonly again = (): Promise<void> => refresh();

	/** Mends one question, or where none is named all that is listed. */
	async mend(check: string, one?: { question: number; version: number }): Promise<void> {
		this.busy = true;
		this.refused = '';
		const sent = await send<Mended>(`/courses/${this.courseId}/snags/mend`, { check, ...one, within: this.filter });
		await this.again();
		this.busy = false;
		if (!sent.ok) this.refused = sent.message;
		else if (sent.value === 'changed')
			this.refused = 'Somebody has changed this question in the meantime. It is shown anew; look at it once more.';
		else if (!('mending' in sent.value)) this.told(check, sent.value);
	}

	/** Tells what the mend of a check came to, with the way back. */
	told(check: string, done: Exclude<Mended, 'changed' | { mending: number }>): void {
		const words = 'kept' in done ? keptWords(done) : this.#mendedWords(check, done);
		if (done.deedId) tellDone(this.courseId, { deedId: done.deedId, words }, this.again);
		else tell(words);
	}

	#mendedWords(check: string, { mended, left }: { mended: number; left: number }): string {
		this.#mended = { check, sum: (this.#mended.check === check ? this.#mended.sum : 0) + mended };
		const more = this.#mended.sum > mended ? `, ${figure(this.#mended.sum)} since you came here` : '';
		const rest = left
			? ` ${figure(left)} ${left === 1 ? 'needs' : 'need'} a person: the mend changes nothing there.`
			: '';
		return `${count(mended, 'question')} mended and checked again${more}.${rest}`;
	}
}

const keptWords = ({ kept, gone }: { kept: number; gone: number }) =>
	`Of ${count(kept, 'group')} one question each stays; ${count(gone, 'question')} in the bin.`;
