import { landings, pathKey, pathOfKey } from '$core/take-in/paths';
import { planTakeIn } from '$core/take-in/plan';
import { plainRules, type Decision, type MatchRule, type Rules } from '$core/take-in/decision';
import type { ReviewState } from '$lib/server/loads/decide';
import type { CategorySource, StagedRow } from '$lib/server/loads/review';

interface Start {
	address: string;
	questions: StagedRow[];
	now: ReviewState;
	remembered: Rules;
	bankId: number | null;
	bankName: string;
	pathsOf: (bankId: number | null) => string[];
	/** How many quizzes come with it. */
	quizzes: number;
}

/** What can be decided for questions, as the endpoint takes it. */
export type Asked =
	| { do: 'choose'; ids: number[]; choice: 'leave' | 'aside' | null }
	| { do: 'place'; ids: number[]; category: string | null }
	| { do: 'match'; ids: number[]; rule: MatchRule | null }
	| { do: 'verify'; ids: number[]; verified: boolean }
	| { do: 'source'; from: CategorySource }
	| { do: 'mend'; rule: string; ids?: number[] }
	| { do: 'edit'; id: number; version: number; question: unknown }
	| { do: 'rules'; name: string; rules: Rules };

interface Answer {
	now: ReviewState;
	questions: StagedRow[] | null;
	mended?: { mended: number; left: number } | null;
	/** In how many questions a file that was handed in is now. */
	given?: number;
	message?: string;
}

const pause = 350;

/** A review as it stands in the browser: the questions, the decision, what it comes to, and what others decide meanwhile. */
export class Review {
	questions = $state.raw<StagedRow[]>([]);
	decision = $state<Decision>() as Decision;
	/** What somebody else has done to the load while it was open here. */
	news = $state('');
	failure = $state('');
	busy = $state(false);
	/** The state of the load, as soon as somebody else has taken it in. */
	gone = $state('');
	readonly #start: Start;
	#version: number;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#kept: string;

	constructor(start: Start) {
		this.#start = start;
		this.questions = start.questions;
		this.#version = start.now.version;
		this.decision = start.now.decision ?? {
			...plainRules,
			...start.remembered,
			bankId: start.bankId,
			bankName: start.bankName,
			quizBank: null,
			leftOut: [],
			landings: {}
		};
		this.#kept = JSON.stringify(this.decision);
	}

	readonly existing = $derived.by(() => this.#start.pathsOf(this.decision.bankId));
	readonly plan = $derived.by(() =>
		planTakeIn(
			this.questions,
			this.decision,
			this.existing,
			this.decision.quizBank ? this.#start.pathsOf(this.decision.quizBank.bankId) : [],
			this.#start.quizzes
		)
	);
	/** How many questions stand in a quiz, and in no bank or category of their own. */
	readonly quizOnly = $derived(this.questions.filter((one) => one.quizOnly).length);
	// copied here, so that what a category was given is read now and not when somebody asks for it
	readonly land = $derived.by(() =>
		landings({ ...this.decision, landings: { ...this.decision.landings } }, this.existing)
	);

	/** The categories as a tree in lines: those that questions are in, and those above them. */
	readonly tree = $derived.by(() => {
		const all = new Map<string, { key: string; path: string[]; own: number; all: number }>();
		for (const { category } of this.questions) {
			const path = pathOfKey(category);
			for (let depth = path.length ? 1 : 0; depth <= path.length; depth += 1) {
				const key = pathKey(path.slice(0, depth));
				const line = all.get(key) ?? { key, path: path.slice(0, depth), own: 0, all: 0 };
				line.all += 1;
				if (depth === path.length) line.own += 1;
				all.set(key, line);
			}
		}
		return [...all.values()];
	});

	/** The categories that stand at a key and under it. */
	under(key: string): string[] {
		return this.tree.map((line) => line.key).filter((one) => one === key || (key !== '' && one.startsWith(`${key}\n`)));
	}

	include(key: string, on: boolean): void {
		const these = this.under(key);
		this.decision.leftOut = on
			? this.decision.leftOut.filter((one) => !these.includes(one))
			: [...new Set([...this.decision.leftOut, ...these])];
	}

	/** Puts a category where a person says; nothing said lets it land by itself again. */
	put(key: string, to: string[] | null): void {
		const { [key]: _before, ...others } = this.decision.landings;
		this.decision.landings = to === null ? others : { ...others, [key]: pathKey(to) };
	}

	/** Holds back what waits to be kept, while the load is being taken in with the decision as it stands. */
	hold(): void {
		clearTimeout(this.#timer);
		this.#kept = JSON.stringify(this.decision);
		this.busy = true;
	}

	/** Keeps the decision for everybody, a moment after the last change to it. */
	keep(): void {
		const text = JSON.stringify(this.decision);
		if (text === this.#kept) return;
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => {
			this.#kept = text;
			void this.#send({ do: 'decision', decision: JSON.parse(text) as unknown });
		}, pause);
	}

	/** Decides something; gives the answer, or null where it was refused, with the reason in `failure`. */
	async ask(asked: Asked): Promise<Answer | null> {
		this.busy = true;
		const answer = await this.#send(asked);
		this.busy = false;
		return answer;
	}

	/** Hands in a file that a question lacks; gives in how many questions it is now, or null where it was refused. */
	async handIn(id: number, name: string, file: File): Promise<number | null> {
		this.busy = true;
		const answer = await this.#request(
			`questions/${id}?name=${encodeURIComponent(name)}&file=${encodeURIComponent(file.name)}`,
			{
				method: 'PUT',
				headers: { 'Content-Type': 'application/octet-stream', Accept: 'application/json' },
				body: file
			}
		);
		this.busy = false;
		return answer?.questions ? (answer.given ?? 0) : null;
	}

	async #send(body: unknown): Promise<Answer | null> {
		return this.#request('review', {
			method: 'POST',
			headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
			body: JSON.stringify(body)
		});
	}

	async #request(address: string, asked: RequestInit): Promise<Answer | null> {
		this.failure = '';
		try {
			const response = await fetch(`${this.#start.address}/${address}`, asked);
			const answer = (await response.json()) as Answer;
			if (!response.ok) {
				this.failure = answer.message ?? 'It could not be kept.';
				return null;
			}
			this.#take(answer);
			return answer;
		} catch {
			this.failure = 'The server does not answer, so this was not kept. Look at the connection, and do it again.';
			return null;
		}
	}

	#take({ now, questions }: Answer): void {
		this.#version = now.version;
		if (questions) this.questions = questions;
		if (!['review', 'undone'].includes(now.state)) this.gone = now.state;
	}

	/** Looks whether somebody else has decided something. */
	async look(): Promise<void> {
		if (this.busy || this.gone) return;
		const before = this.#version;
		const response = await fetch(`${this.#start.address}/review?since=${before}`).catch(() => null);
		if (!response?.ok || this.busy || before !== this.#version) return;
		const answer = (await response.json()) as Answer;
		if (!answer.questions && ['review', 'undone'].includes(answer.now.state)) return;
		this.#take(answer);
		const theirs = answer.now.decision;
		if (theirs && JSON.stringify(theirs) !== JSON.stringify(this.decision)) {
			this.#kept = JSON.stringify(theirs);
			this.decision = theirs;
		}
		if (answer.now.by) this.news = `${answer.now.by} has just decided something on this load.`;
	}
}
