import { landings, pathKey, pathOfKey } from '$core/take-in/paths';
import type { Decision, MatchRule, Rules } from '$core/take-in/decision';
import type { ReviewState } from '$lib/server/loads/decide';
import type { Chosen } from '$lib/server/loads/listed';
import type { CategorySource } from '$lib/server/loads/sources';
import type { ReviewSummary } from '$lib/server/loads/summary';

/** What can be decided for questions, as the endpoint takes it. */
export type Asked =
	| (Chosen & { do: 'choose'; choice: 'leave' | 'aside' | null })
	| (Chosen & { do: 'place'; category: string | null })
	| (Chosen & { do: 'match'; rule: MatchRule | null })
	| (Chosen & { do: 'verify'; verified: boolean })
	| { do: 'source'; from: CategorySource }
	| (Partial<Chosen> & { do: 'mend'; rule: string })
	| (Partial<Chosen> & { do: 'waive'; rule: string; reason: string })
	| { do: 'unwaive'; id: number; rule: string }
	| { do: 'edit'; id: number; version: number; question: unknown }
	| { do: 'rules'; name: string; rules: Rules };

interface Answer {
	now: ReviewState;
	/** What the load comes to; null where nothing has changed. */
	summary: ReviewSummary | null;
	mended?: { mended: number; left: number } | null;
	/** Of how many questions something was waived. */
	waived?: number | null;
	/** In how many questions a file that was handed in is now. */
	given?: number;
	message?: string;
}

/** A category of a load, with those above it. */
export interface FoundCategory {
	key: string;
	path: string[];
	own: number;
	/** With what is under it. */
	all: number;
}

/** How long a change waits for the next one before it is sent, in milliseconds: names are typed, the rest is clicked. */
const pauses = { typed: 350, clicked: 60 };

/** A decision as far as its numbers depend on it: not on the letters of a name. */
function countedBy(decision: Decision): string {
	const { bankName, quizBank, ...others } = decision;
	return JSON.stringify([others, !bankName.trim(), quizBank && [quizBank.bankId, !quizBank.bankName.trim()]]);
}

/** A review as it stands in the browser: the decision, what it comes to, and what others decide meanwhile. */
export class Review {
	summary = $state.raw<ReviewSummary>() as ReviewSummary;
	decision = $state<Decision>() as Decision;
	/** Goes up whenever something has become of questions. */
	changes = $state(0);
	/** What somebody else has done to the load while it was open here. */
	news = $state('');
	failure = $state('');
	busy = $state(false);
	/** The state of the load, as soon as somebody else has taken it in. */
	gone = $state('');
	readonly address: string;
	#version: number;
	#timer: ReturnType<typeof setTimeout> | undefined;
	/** The decision as it was sent last; nothing where it never arrived, so that it is sent once the server answers again. */
	#kept: string;
	#unreached = false;
	/** The decision that the numbers of the summary are of. */
	#counted = $state('');

	/** `address` is that of the load. */
	constructor(address: string, start: { summary: ReviewSummary; version: number }) {
		this.address = address;
		this.summary = start.summary;
		this.#version = start.version;
		this.decision = start.summary.decision;
		this.#kept = JSON.stringify(this.decision);
		this.#counted = countedBy(this.decision);
	}

	readonly existing = $derived.by(() => this.summary.existing);
	readonly plan = $derived.by(() => this.summary.plan);
	/** Whether the numbers are still of an earlier decision. */
	readonly counting = $derived.by(() => this.#counted !== countedBy(this.decision));
	// copied here, so that what a category was given is read now and not when somebody asks for it
	readonly land = $derived.by(() =>
		landings({ ...this.decision, landings: { ...this.decision.landings } }, this.existing)
	);

	/** The categories as a tree in lines: those that questions are in, and those above them. */
	readonly tree = $derived.by(() => {
		const all = new Map<string, FoundCategory>();
		for (const { key: category, own } of this.summary.categories) {
			const path = pathOfKey(category);
			for (let depth = path.length ? 1 : 0; depth <= path.length; depth += 1) {
				const key = pathKey(path.slice(0, depth));
				const line = all.get(key) ?? { key, path: path.slice(0, depth), own: 0, all: 0 };
				line.all += own;
				if (depth === path.length) line.own += own;
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

	/** Keeps the decision for everybody, a moment after the last change to it, and has it counted. */
	keep(): void {
		const text = JSON.stringify(this.decision);
		if (text === this.#kept) return;
		clearTimeout(this.#timer);
		this.#timer = setTimeout(
			() => {
				this.#kept = text;
				const decision = JSON.parse(text) as Decision;
				void this.#send({ do: 'decision', decision }).then((answer) => {
					if (answer) this.#counted = countedBy(decision);
					else if (this.#unreached && this.#kept === text) this.#kept = '';
				});
			},
			this.counting ? pauses.clicked : pauses.typed
		);
	}

	/** Decides something; gives the answer, or null where it was refused, with the reason in `failure`. */
	async ask(asked: Asked): Promise<Answer | null> {
		this.busy = true;
		const answer = await this.#send(asked);
		this.busy = false;
		if (answer && asked.do !== 'rules') this.changes += 1;
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
		if (answer) this.changes += 1;
		return answer ? (answer.given ?? 0) : null;
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
			const response = await fetch(`${this.address}/${address}`, asked);
			const answer = (await response.json()) as Answer;
			this.#unreached = false;
			if (!response.ok) {
				this.failure = answer.message ?? 'It could not be kept.';
				return null;
			}
			this.#take(answer);
			return answer;
		} catch {
			this.#unreached = true;
			this.failure = 'The server does not answer, so this was not kept. Look at the connection, and do it again.';
			return null;
		}
	}

	#take({ now, summary }: Answer): void {
		// an answer that was overtaken by a later one says nothing any more
		if (now.version < this.#version) return;
		this.#version = now.version;
		if (summary) this.summary = summary;
		if (!['review', 'undone'].includes(now.state)) this.gone = now.state;
	}

	/** Looks whether somebody else has decided something. */
	async look(): Promise<void> {
		if (this.busy || this.gone) return;
		const before = this.#version;
		const response = await fetch(`${this.address}/review?since=${before}`).catch(() => null);
		if (!response?.ok || this.busy || before !== this.#version) return;
		if (!this.#kept) return this.keep();
		const answer = (await response.json()) as Answer;
		if (!answer.summary && ['review', 'undone'].includes(answer.now.state)) return;
		this.#take(answer);
		this.changes += 1;
		const theirs = answer.now.decision;
		if (theirs && JSON.stringify(theirs) !== JSON.stringify(this.decision)) {
			this.#kept = JSON.stringify(theirs);
			this.decision = theirs;
			this.#counted = countedBy(theirs);
		}
		if (answer.now.by) this.news = `${answer.now.by} has just decided something on this load.`;
	}
}
