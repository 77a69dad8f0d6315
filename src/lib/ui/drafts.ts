/** A question as somebody was writing it when it was left without being kept. */
export interface Draft {
	question: unknown;
	/** The version of the question that was being changed. */
	version: number;
	/** When it was last written at, in milliseconds since 1970. */
	at: number;
}

const prefix = 'draft ';
const mostDrafts = 60;
/** Drafts are let go after a month. */
const longestKept = 30 * 24 * 3_600_000;

const storage = (): Storage | null => (typeof localStorage === 'undefined' ? null : localStorage);

function all(store: Storage): [string, Draft][] {
	return Object.keys(store)
		.filter((name) => name.startsWith(prefix))
		.flatMap((name): [string, Draft][] => {
			try {
				return [[name, JSON.parse(store.getItem(name)!) as Draft]];
			} catch {
				return [];
			}
		});
}

/** Keeps what is being written of a question, in this browser; `key` names the question for ever. */
export function keepDraft(key: string, question: unknown, version: number): void {
	const store = storage();
	if (!store) return;
	const before = all(store).sort((a, b) => b[1].at - a[1].at);
	for (const [name, draft] of before.filter((one, at) => at >= mostDrafts || Date.now() - one[1].at > longestKept))
		if (draft) store.removeItem(name);
	try {
		store.setItem(prefix + key, JSON.stringify({ question, version, at: Date.now() } satisfies Draft));
	} catch {
		// a browser without room keeps none
	}
}

/** What was being written of a question and was not kept, or null. */
export function draftOf(key: string): Draft | null {
	const text = storage()?.getItem(prefix + key);
	if (!text) return null;
	try {
		return JSON.parse(text) as Draft;
	} catch {
		return null;
	}
}

/** Lets a draft go: it was kept in the question, or is not wanted. */
export function dropDraft(key: string): void {
	storage()?.removeItem(prefix + key);
}
