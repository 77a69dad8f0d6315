import type { Question } from '../kinds';
import { called } from '../kinds/called';
import type { FindingAmong, ManyCheck, Noted, NoteTools, PairCheck } from './check';
import { manyChecks, pairChecks } from '.';
import { Pairing } from './pairing';

/** Where a question stands, as far as checks over many ask: its bank, told apart by any name, and the steps of its category. */
export interface Standing {
	bank: string;
	category: readonly string[];
}

/** Within what a check holds questions against one another, as a key: the course, the bank, or the category. */
export function withinKey(check: Pick<ManyCheck, 'within'>, { bank, category }: Standing): string {
	if (check.within === 'course') return '';
	return check.within === 'bank' ? bank : JSON.stringify([bank, ...category]);
}

/** The notes of a group with those that are the same as one, where a check goes by how many there are. */
export function tallied(
	check: ManyCheck,
	noted: readonly Noted<unknown>[]
): { noted: Noted<unknown>[]; all: Map<number, number[]> } {
	const all = new Map<number, number[]>();
	if (!check.tallied) return { noted: [...noted], all };
	const byNote = new Map<string, { noted: Noted<unknown>; ids: number[] }>();
	for (const entry of noted) {
		const key = JSON.stringify(entry.note);
		const known = byNote.get(key);
		if (known) known.ids.push(entry.id);
		else byNote.set(key, { noted: entry, ids: [entry.id] });
	}
	const counted = [...byNote.values()].map(({ noted: first, ids }) => {
		all.set(first.id, ids);
		return { ...first, times: ids.length };
	});
	return { noted: counted, all };
}

/** What a check finds among the notes of a group: of each question at most once. */
export function findAmong(check: ManyCheck, noted: readonly Noted<unknown>[]): FindingAmong[] {
	const { noted: given, all } = tallied(check, noted);
	return check
		.among(given)
		.flatMap((finding) => (all.get(finding.id) ?? [finding.id]).map((id) => ({ ...finding, id })));
}

/**
 * Holds questions against one another in one pass: begin by making it, add each question, and ask for the findings at the
 * end. It keeps what the checks have noted, and no question.
 */
export class Gathering {
	readonly #tools: NoteTools;
	readonly #checks: readonly ManyCheck[];
	readonly #groups = new Map<ManyCheck, Map<string, Noted<unknown>[]>>();
	readonly #pairings: Pairing[];

	constructor(tools: NoteTools, checks: readonly (ManyCheck | PairCheck)[] = [...manyChecks, ...pairChecks]) {
		this.#tools = tools;
		this.#checks = checks.filter((check): check is ManyCheck => check.scope === 'many');
		this.#pairings = checks.flatMap((check) => (check.scope === 'pairs' ? [new Pairing(check)] : []));
	}

	/** Adds a question, which `id` tells from the others. */
	add(id: number, question: Question, standing: Standing): void {
		const common = { id, name: called(question), category: standing.category };
		for (const check of this.#checks) {
			const note = check.note(question, this.#tools);
			if (note !== null) this.#note(check, { ...common, note }, standing);
		}
		for (const pairing of this.#pairings) {
			const note = pairing.check.note(question, this.#tools);
			if (note !== null) pairing.add({ ...common, note }, withinKey(pairing.check, standing));
		}
	}

	#note(check: ManyCheck, noted: Noted<unknown>, standing: Standing): void {
		const key = JSON.stringify([withinKey(check, standing), check.key?.(noted.note) ?? '']);
		const groups = this.#groups.get(check) ?? new Map<string, Noted<unknown>[]>();
		this.#groups.set(check, groups);
		const group = groups.get(key);
		if (group) group.push(noted);
		else groups.set(key, [noted]);
	}

	/** What is found among all that were added. */
	*findings(): Generator<{ check: ManyCheck | PairCheck } & FindingAmong> {
		for (const [check, groups] of this.#groups)
			for (const noted of groups.values()) for (const finding of findAmong(check, noted)) yield { check, ...finding };
		for (const pairing of this.#pairings)
			for (const finding of pairing.findings()) yield { check: pairing.check, ...finding };
	}
}
