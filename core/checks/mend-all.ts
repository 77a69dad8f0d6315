import type { Question } from '../kinds';
import type { ManyCheck, MendTools, Noted, NoteTools, OneCheck } from './check';
import { checkOf } from '.';
import { called } from '../kinds/called';
import { findAmong } from './many';
import { askedDigest } from './exact-duplicate';
import { takenOver } from './take-over';

/** What mending a list of questions has done: the questions as they are then, and how many each check has changed. */
export interface MendedAll {
	questions: Question[];
	mended: Map<string, number>;
}

type Tools = NoteTools & MendTools;

function mendEach(check: OneCheck, questions: readonly Question[], tools: Tools): Question[] {
	const { mend } = check;
	if (!mend) return [...questions];
	return questions.map((question) =>
		check.find(question).length && (mend.fits?.(question) ?? true) ? mend.apply(question, tools) : question
	);
}

function mendAmong(check: ManyCheck, questions: readonly Question[], tools: Tools): Question[] {
	if (!check.mend) return [...questions];
	const groups = new Map<string, Noted<unknown>[]>();
	questions.forEach((question, id) => {
		const note = check.note(question, tools);
		if (note === null) return;
		const within = check.within === 'category' ? question.category : [];
		const key = JSON.stringify([within, check.key?.(note) ?? '']);
		const noted = { id, name: called(question), category: question.category, note };
		groups.set(key, [...(groups.get(key) ?? []), noted]);
	});
	const mended = [...questions];
	for (const group of groups.values()) {
		const found = new Set(findAmong(check, group).map(({ id }) => id));
		for (const own of group) if (found.has(own.id)) mended[own.id] = check.mend.apply(mended[own.id]!, own, group);
	}
	return mended;
}

/** Of questions that ask the same the first, which takes over what it lacks of the others; those that are named stay. */
function oneOfEach(questions: readonly Question[], isNamed: (question: Question) => boolean): (Question | null)[] {
	const groups = new Map<string, number[]>();
	questions.forEach((question, at) => {
		if (question.kind === 'unreadable') return;
		const digest = askedDigest(question);
		groups.set(digest, [...(groups.get(digest) ?? []), at]);
	});
	const left: (Question | null)[] = [...questions];
	for (const places of groups.values()) {
		if (places.length < 2) continue;
		const kept = places.find((at) => isNamed(questions[at]!)) ?? places[0]!;
		const gone = places.filter((at) => at !== kept && !isNamed(questions[at]!));
		left[kept] = takenOver(
			questions[kept]!,
			gone.map((at) => questions[at]!)
		);
		for (const at of gone) left[at] = null;
	}
	return left;
}

/**
 * Mends all that some checks find in questions that count as one bank, check after check in the order that is given.
 * `isNamed` says which questions a quiz names, so that they stay. Checks without a mend change nothing.
 */
export function mendAll(
	questions: readonly Question[],
	ids: readonly string[],
	tools: Tools,
	isNamed: (question: Question) => boolean = () => false
): MendedAll {
	const mended = new Map<string, number>();
	let all = [...questions];
	for (const id of ids) {
		const check = checkOf(id);
		const after: (Question | null)[] =
			check?.scope === 'one'
				? mendEach(check, all, tools)
				: id === 'exact-duplicate'
					? oneOfEach(all, isNamed)
					: check?.scope === 'many'
						? mendAmong(check, all, tools)
						: all;
		mended.set(id, after.filter((question, at) => question !== all[at]).length);
		all = after.filter((question) => question !== null);
	}
	return { questions: all, mended };
}
