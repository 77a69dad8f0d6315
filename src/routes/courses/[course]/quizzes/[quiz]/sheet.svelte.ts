import { pathOfKey } from '$core/take-in/paths';
import type { CategoryNode } from '$lib/server/banks/tree';
import type { ShownLook } from '$lib/server/quizzes/look';
import type { Part, Quiz } from '$lib/server/quizzes/quiz';
import type { QuizSitting } from '$lib/server/quizzes/sittings';
import type { QuizChange } from '$lib/server/quizzes/the-quiz';
import { plainConditions } from '$lib/forms/quiz';
import { send, type Sent } from '$lib/ui/doing';
import { tell } from '$lib/ui/toasts';
import { count, dateTime } from '$lib/ui/words';
import { untrack } from 'svelte';
import { refresh } from '$lib/ui/refresh';

/** How long a change waits for the next one before it is looked into, and before the quiz is saved, in milliseconds. */
const lookPause = 180;
const savePause = 700;
/** How often it is asked whether somebody else has changed the quiz, in milliseconds. */
const watchPause = 4000;
const mostUndone = 200;
/** Words that are typed with no longer pause than that are one change, in milliseconds. */
const typingPause = 1500;

/** A sheet without its words, so that one sees whether anything else has changed. */
const wordless = (text: string) => text.replace(/"(title|description|instructions|gradeName)":"(?:[^"\\]|\\.)*"/g, '');

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

/** What of a quiz is edited here. */
type Edited = Pick<Quiz, 'title' | 'state' | 'drawingRule' | 'rules' | 'settings' | 'parts'>;

/** A quiz as it is edited: its parts, what they can draw and what comes of it, and how far it is saved. */
export class Sheet {
	quiz = $state() as Quiz;
	/** The place of the part that is open; -1 where all are folded. */
	chosen = $state(0);
	saved = $state('');
	failure = $state('');
	/** What was found of the sheet last, and whether that is of the sheet as it is now. */
	found = $state.raw() as ShownLook;
	isFresh = $state(false);
	/** Goes up with every change to what is drawn. */
	changes = $state(0);
	readonly address: string;
	readonly tree: readonly CategoryNode[];
	#last: string;
	/** When words were typed last; 0 where something else was done since. */
	#typed = 0;
	#undo = $state.raw<string[]>([]);
	#redo = $state.raw<string[]>([]);
	#saveTimer: ReturnType<typeof setTimeout> | undefined;
	#lookTimer: ReturnType<typeof setTimeout> | undefined;
	#looking: AbortController | undefined;
	#saving: Promise<void> = Promise.resolve();
	/** Whoever may only look may try things here; nothing of it is saved. */
	#maySave = true;

	/** `address` is that of the quiz. */
	constructor(address: string, quiz: Quiz, tree: readonly CategoryNode[], look: ShownLook) {
		this.address = address;
		this.tree = tree;
		this.quiz = structuredClone(quiz);
		this.found = look;
		this.#last = this.#text();
	}

	readonly part = $derived.by(() => this.quiz.parts[this.chosen]);
	/** What was found of each part; nothing of one that was just added. */
	readonly looks = $derived.by(() => this.quiz.parts.map((_, at) => this.found.parts[at]));
	/** The least and the most points of a sitting: as they were counted, else of each part by itself. */
	readonly total = $derived.by((): readonly [number, number] => {
		const points = this.found.figures?.points;
		if (points) return [points.least, points.most];
		return [0, 1].map((end) => this.found.parts.reduce((sum, part) => sum + part.points[end]!, 0)) as [number, number];
	});
	/** How many questions a student gets. */
	readonly inAll = $derived.by(() =>
		this.quiz.parts.reduce((sum, part, at) => sum + (part.draw ?? this.looks[at]?.draws ?? 0), 0)
	);
	/** Quotas, pairs, groups and the like need the rule of draw sheets. */
	readonly knowsQuotas = $derived.by(() => this.quiz.drawingRule > 1);

	#text(): string {
		const { title, state, drawingRule, rules, settings, parts } = this.quiz;
		return JSON.stringify({ title, state, drawingRule, rules, settings, parts } satisfies Edited);
	}

	/** A category by its key, or a bank by its key made negative. */
	node(id: number): CategoryNode | undefined {
		return this.tree.find((node) => node.id === id);
	}

	/** What a part draws from, in words. */
	poolText(part: Part): string {
		const nameOf = (id: number) => this.node(id)?.name ?? 'a category that is gone';
		if (part.questions.length) return `${count(part.questions.length, 'question')} chosen by hand`;
		if (!part.categories.length)
			return part.include.length
				? `${count(part.include.length, 'question')} taken in by hand`
				: part.lost.length
					? 'its pool is gone'
					: 'no pool yet';
		return part.categories.map(nameOf).join(' + ') + (part.withUnder ? ' and all under' : '');
	}

	/** Begins to look, and to watch for what others change; gives what ends it. */
	begin(): () => void {
		void this.look();
		const watching = setInterval(() => void this.#watch(), watchPause);
		return () => {
			clearInterval(watching);
			clearTimeout(this.#lookTimer);
			this.#looking?.abort();
		};
	}

	/** The sheet as it is sent to be looked into. */
	get sent() {
		const { parts, rules, drawingRule, settings } = this.quiz;
		return { parts: this.#partsSent(parts), rules, drawingRule, attempts: settings.attempts };
	}

	#partsSent(parts: readonly Part[]) {
		return parts.map((part) => ({ ...part, lost: part.lost.map(({ id }) => id) }));
	}

	/** Asks the server what comes of the sheet as it is; what was asked before is given up. */
	async look(): Promise<void> {
		clearTimeout(this.#lookTimer);
		this.#looking?.abort();
		const control = new AbortController();
		this.#looking = control;
		const answer = await send<ShownLook>(`${this.address}/look`, this.sent, 'POST', control);
		if (control !== this.#looking) return;
		if (control.signal.aborted) {
			this.failure = 'The counting was stopped. It begins again with your next change.';
			return;
		}
		if (!answer.ok) return void (this.failure = answer.message);
		this.failure = '';
		this.found = answer.value;
		this.isFresh = true;
	}

	/** What comes of another sheet, by the address of its quiz. */
	lookAt(sent: Sheet['sent'], control: AbortController, address = this.address): Promise<Sent<ShownLook>> {
		return send<ShownLook>(`${address}/look`, sent, 'POST', control);
	}

	/** Sittings by their seeds, of the sheet as it is. */
	draw(seeds: string[]): Promise<Sent<QuizSitting[]>> {
		return send(`${this.address}/draw`, { ...this.sent, seeds });
	}

	/** Takes notice of a change: it can be taken back, is looked into, and is saved a moment later where that is allowed. */
	changed(maySave: boolean): void {
		this.#maySave = maySave;
		const now = this.#text();
		if (now === this.#last) return;
		const before = this.#last;
		this.#last = now;
		untrack(() => {
			// what is typed in one go is taken back in one go
			const goesOn = Date.now() - this.#typed < typingPause && wordless(now) === wordless(before);
			this.#typed = wordless(now) === wordless(before) ? Date.now() : 0;
			if (!goesOn) this.#undo = [...this.#undo.slice(-mostUndone), before];
			this.#redo = [];
			this.#stir(maySave);
		});
	}

	#stir(maySave: boolean): void {
		this.changes += 1;
		this.isFresh = false;
		this.saved = this.#maySave ? 'not saved yet' : 'tried here, and not saved';
		clearTimeout(this.#lookTimer);
		this.#lookTimer = setTimeout(() => void this.look(), lookPause);
		clearTimeout(this.#saveTimer);
		if (maySave) this.#saveTimer = setTimeout(() => void this.save(), savePause);
	}

	readonly canUndo = $derived.by(() => this.#undo.length > 0);
	readonly canRedo = $derived.by(() => this.#redo.length > 0);

	/** Takes the last change back. */
	undo(): void {
		const before = this.#undo.at(-1);
		if (before === undefined) return;
		this.#undo = this.#undo.slice(0, -1);
		this.#redo = [...this.#redo, this.#last];
		this.#take(before);
	}

	/** Makes what was taken back again. */
	redo(): void {
		const after = this.#redo.at(-1);
		if (after === undefined) return;
		this.#redo = this.#redo.slice(0, -1);
		this.#undo = [...this.#undo, this.#last];
		this.#take(after);
	}

	#take(text: string): void {
		Object.assign(this.quiz, JSON.parse(text) as Edited);
		this.chosen = Math.min(this.chosen, Math.max(0, this.quiz.parts.length - 1));
		this.#last = this.#text();
		this.#stir(this.#maySave);
	}

	/** Takes a quiz as somebody else, or an earlier version, has it; the way back is as of any change. */
	take(quiz: Edited, maySave: boolean): void {
		const { title, state, drawingRule, rules, settings, parts } = quiz;
		Object.assign(this.quiz, { title, state, drawingRule, rules, settings, parts });
		this.chosen = Math.min(this.chosen, Math.max(0, parts.length - 1));
		this.changed(maySave);
	}

	/** Whether somebody else has saved the quiz; then theirs is shown here. */
	async #watch(): Promise<void> {
		if (document.hidden || this.saved === 'not saved yet') return;
		const answer = await fetch(this.address, { headers: { Accept: 'application/json' } }).catch(() => null);
		if (!answer?.ok) return;
		const { version } = (await answer.json()) as QuizChange;
		if (version > this.quiz.version && this.saved !== 'not saved yet') await this.#takeTheirs(false);
	}

	async #takeTheirs(isOver: boolean): Promise<void> {
		const answer = await fetch(`${this.address}?whole`, { headers: { Accept: 'application/json' } }).catch(() => null);
		if (!answer?.ok) {
			this.failure =
				answer?.status === 404
					? 'This quiz was thrown away meanwhile. Whoever did it can put it back; what you have here is not saved.'
					: 'The connection is lost; it will be saved with your next change.';
			return;
		}
		const { quiz, by } = (await answer.json()) as QuizChange & { quiz: Quiz };
		this.quiz.version = quiz.version;
		this.take(quiz, false);
		this.saved = 'as it was saved last';
		this.failure = '';
		const words = `${by ?? 'Somebody'} has changed this quiz; theirs is shown now.`;
		if (isOver) tell(`${words} Yours was not saved.`, { name: 'Show mine', act: () => this.undo() });
		else tell(words);
	}

	/** Saves the quiz as it is now, behind what is on its way. */
	save(): Promise<void> {
		clearTimeout(this.#saveTimer);
		if (!this.#maySave) return Promise.resolve();
		this.#saving = this.#saving.then(() => this.#send());
		return this.#saving;
	}

	async #send(): Promise<void> {
		const { title, state, version, parts, rules, settings, drawingRule } = this.quiz;
		const body = { title, state, version, rules, settings, drawingRule, parts: this.#partsSent(parts) };
		const answer = await fetch(this.address, {
			method: 'PUT',
			headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
			body: JSON.stringify(body)
		}).catch(() => null);
		if (answer?.ok) {
			this.quiz.version = ((await answer.json()) as { version: number }).version;
			this.saved = `saved ${new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
			this.failure = '';
			void refresh('barrow:course');
			return;
		}
		this.saved = 'not saved';
		if (answer?.status === 409) return this.#takeTheirs(true);
		const said = answer && ((await answer.json().catch(() => null)) as { message?: string } | null);
		this.failure = answer
			? (said?.message ?? 'It could not be saved.')
			: 'The connection is lost; it will be saved with your next change.';
	}

	/** Adds a part behind the others. */
	add(): void {
		this.quiz.parts.push({
			title: `Part ${this.quiz.parts.length + 1}`,
			draw: 5,
			pointsEach: null,
			order: 'shuffled',
			shuffleOptions: this.quiz.parts.every((part) => part.shuffleOptions),
			withUnder: true,
			categories: [],
			questions: [],
			conditions: plainConditions(),
			include: [],
			exclude: [],
			quotas: [],
			lost: []
		});
		this.chosen = this.quiz.parts.length - 1;
	}

	/** Puts a copy of a part behind it. */
	copy(at: number): void {
		const part = $state.snapshot(this.quiz.parts[at]!) as Part;
		this.quiz.parts.splice(at + 1, 0, { ...part, title: `${part.title} again`.slice(0, 255), lost: [] });
		this.chosen = at + 1;
	}

	/** Puts a part in another place. */
	move(from: number, to: number): void {
		const [part] = this.quiz.parts.splice(from, 1);
		this.quiz.parts.splice(to, 0, part!);
		this.chosen = to;
	}

	/** Takes a part out. */
	remove(at: number): void {
		this.quiz.parts.splice(at, 1);
		this.chosen = Math.max(0, Math.min(this.chosen, this.quiz.parts.length - 1));
	}

	/** Whether the options of all parts are shuffled. */
	readonly shufflesAll = $derived.by(
		() => this.quiz.parts.length > 0 && this.quiz.parts.every((part) => part.shuffleOptions)
	);

	/** Shuffles the options of all parts, or of none. */
	shuffleAll(on: boolean): void {
		for (const part of this.quiz.parts) part.shuffleOptions = on;
	}
}
