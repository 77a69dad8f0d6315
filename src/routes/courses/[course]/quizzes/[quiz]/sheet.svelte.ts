import { invalidate } from '$app/navigation';
import { pointsRange, poolOf } from '$core/draws/pool';
import { pathOfKey } from '$core/take-in/paths';
import type { CoursePools } from '$lib/server/quizzes/pools';
import type { Part, Quiz } from '$lib/server/quizzes/quiz';
import { count, dateTime } from '$lib/ui/words';
import type { DrawAnswer, DrawRequest } from '$lib/workers/draws';
import DrawWorker from '$lib/workers/draws?worker';
import { untrack } from 'svelte';

/** How long a change waits for the next one before the quiz is saved, in milliseconds. */
const pause = 700;

const rounded = (value: number) => Math.round(value * 100) / 100;

/** Points in words: one number, or the least and the most. */
export const rangeText = ([least, most]: readonly [number, number]) =>
	least === most ? `${rounded(least)}` : `${rounded(least)} to ${rounded(most)}`;

/** What is gone, in words: what it was and since when. */
export function lostText({ kind, bank, name, lost }: Part['lost'][number]): string {
	const what =
		kind === 'bank'
			? `the bank ${bank}`
			: kind === 'category'
				? `${pathOfKey(name).join(' › ')} in ${bank}`
				: `“${name}” in ${bank}`;
	return `${what}, gone since ${dateTime(lost)}`;
}

/** A quiz as it is edited: its parts, what they can draw, why they cannot be filled, and how far it is saved. */
export class Sheet {
	quiz = $state() as Quiz;
	/** The place of the part that is looked at. */
	chosen = $state(0);
	saved = $state('');
	failure = $state('');
	refusals = $state.raw<DrawAnswer['refusals']>([]);
	/** Goes up with every change to what is drawn. */
	changes = $state(0);
	readonly address: string;
	readonly #given: CoursePools;
	/** What is chosen anew is asked for; this has come since. */
	#more = $state.raw<Pick<CoursePools, 'inCategory' | 'points'>>({ inCategory: {}, points: {} });
	#last: string;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#saving: Promise<void> = Promise.resolve();
	#worker: Worker | undefined;
	#requests = 0;
	readonly #waiting = new Map<number, (answer: DrawAnswer) => void>();

	/** `address` is that of the quiz. */
	constructor(address: string, quiz: Quiz, source: CoursePools) {
		this.address = address;
		this.#given = source;
		this.quiz = structuredClone(quiz);
		this.#last = JSON.stringify([quiz.title, quiz.parts]);
	}

	readonly part = $derived.by(() => this.quiz.parts[this.chosen]);
	readonly source = $derived.by(() => ({
		...this.#given,
		inCategory: { ...this.#given.inCategory, ...this.#more.inCategory },
		points: { ...this.#given.points, ...this.#more.points }
	}));
	readonly pools = $derived.by(() => this.quiz.parts.map((part) => poolOf(part, this.source)));
	/** The points of each part for any draw: the least and the most. */
	readonly ranges = $derived.by(() =>
		this.quiz.parts.map((part, at) => pointsRange(part, this.pools[at]!, this.source))
	);
	readonly total = $derived.by(
		() =>
			[
				this.ranges.reduce((sum, [least]) => sum + least, 0),
				this.ranges.reduce((sum, [, most]) => sum + most, 0)
			] as const
	);
	/** How many questions a student gets. */
	readonly inAll = $derived.by(() =>
		this.quiz.parts.reduce((sum, part, at) => sum + (part.draw ?? this.pools[at]!.length), 0)
	);

	/** The categories that the parts mean and whose questions are not here yet. */
	readonly absent = $derived.by(() => {
		const under = new Map<number, number[]>();
		for (const { id, parentId } of this.#given.tree)
			if (parentId !== null) under.set(parentId, [...(under.get(parentId) ?? []), id]);
		const meant = (id: number, deep: boolean): number[] =>
			deep ? [id, ...(under.get(id) ?? []).flatMap((child) => meant(child, true))] : [id];
		const here = new Set(this.#given.tree.map(({ id }) => id));
		const all = this.quiz.parts.flatMap((part) => part.categories.flatMap((id) => meant(id, part.withUnder)));
		return [...new Set(all)].filter((id) => here.has(id) && !Object.hasOwn(this.source.inCategory, id));
	});

	/** Fetches what can be drawn from categories that were chosen anew. */
	async fetchPools(categories: number[]): Promise<void> {
		if (!categories.length) return;
		const answer = await fetch(`${this.address}/pool`, {
			method: 'POST',
			body: JSON.stringify({ categories, withUnder: false })
		}).catch(() => null);
		if (!answer?.ok) return;
		const found = (await answer.json()) as Pick<CoursePools, 'inCategory' | 'points'>;
		this.#more = {
			inCategory: { ...this.#more.inCategory, ...found.inCategory },
			points: { ...this.#more.points, ...found.points }
		};
	}

	/** What a part draws from, in words. */
	poolText(part: Part): string {
		const nameOf = (id: number) => this.#given.tree.find((node) => node.id === id)?.name ?? 'a category that is gone';
		if (part.questions.length) return `${count(part.questions.length, 'question')} chosen by hand`;
		if (!part.categories.length) return part.lost.length ? 'its pool is gone' : 'no pool yet';
		return part.categories.map(nameOf).join(' + ') + (part.withUnder ? ' and all under' : '');
	}

	/** Begins to draw in a worker; gives what ends it. */
	begin(): () => void {
		const worker = new DrawWorker();
		worker.onmessage = ({ data: answer }: MessageEvent<DrawAnswer>) => {
			this.#waiting.get(answer.id)?.(answer);
			this.#waiting.delete(answer.id);
		};
		this.#worker = worker;
		void this.look();
		return () => worker.terminate();
	}

	/** Asks whether the sheet can be filled, and for a sitting where a seed is given. */
	ask(seed: string | null): Promise<DrawAnswer> {
		this.#requests += 1;
		const request: DrawRequest = {
			id: this.#requests,
			seed,
			parts: this.quiz.parts.map((part, at) => ({
				pool: $state.snapshot(this.pools[at]!) as number[],
				draw: part.draw,
				shuffle: part.shuffleQuestions
			}))
		};
		return new Promise((resolve) => {
			this.#waiting.set(request.id, resolve);
			this.#worker?.postMessage(request);
		});
	}

	async look(): Promise<void> {
		const mine = this.#requests + 1;
		const answer = await this.ask(null);
		if (mine === answer.id) this.refusals = answer.refusals;
	}

	/** Takes notice of a change, and saves it a moment later where that is allowed. */
	changed(maySave: boolean): void {
		const now = JSON.stringify([this.quiz.title, this.quiz.parts]);
		if (now === this.#last) return;
		this.#last = now;
		untrack(() => {
			this.changes += 1;
			this.saved = 'not saved yet';
			void this.look();
			clearTimeout(this.#timer);
			if (maySave) this.#timer = setTimeout(() => void this.save(), pause);
		});
	}

	/** Saves the quiz as it is now, behind what is on its way. */
	save(): Promise<void> {
		clearTimeout(this.#timer);
		this.#saving = this.#saving.then(() => this.#send());
		return this.#saving;
	}

	async #send(): Promise<void> {
		const { title, state, version, parts } = this.quiz;
		const body = {
			title,
			state,
			version,
			parts: parts.map((part) => ({ ...part, lost: part.lost.map(({ id }) => id) }))
		};
		const answer = await fetch(this.address, {
			method: 'PUT',
			headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
			body: JSON.stringify(body)
		}).catch(() => null);
		if (answer?.ok) {
			this.quiz.version = ((await answer.json()) as { version: number }).version;
			this.saved = `saved ${new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
			this.failure = '';
			void invalidate('barrow:course');
			return;
		}
		this.saved = 'not saved';
		const said = answer && ((await answer.json().catch(() => null)) as { message?: string } | null);
		this.failure = answer
			? (said?.message ?? 'It could not be saved.')
			: 'The connection is lost; it will be saved with your next change.';
	}

	add(): void {
		this.quiz.parts.push({
			title: `Part ${this.quiz.parts.length + 1}`,
			draw: 5,
			pointsEach: null,
			shuffleQuestions: true,
			shuffleOptions: true,
			withUnder: true,
			categories: [],
			questions: [],
			lost: []
		});
		this.chosen = this.quiz.parts.length - 1;
	}

	move(at: number, by: number): void {
		const [part] = this.quiz.parts.splice(at, 1);
		this.quiz.parts.splice(at + by, 0, part!);
		this.chosen = at + by;
	}

	remove(at: number): void {
		this.quiz.parts.splice(at, 1);
		this.chosen = Math.max(0, at - 1);
	}
}
