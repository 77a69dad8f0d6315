import { beginning, plainText } from '../markup/text';
import type { Question } from '../kinds';
import type { ManyCheck, Noted } from './check';
import { manyChecks } from '.';

/** Where a question stands, as far as checks over many ask: its bank, told apart by any name, and the steps of its category. */
export interface Standing {
	bank: string;
	category: readonly string[];
}

/** What a question is called among others: its title, or the start of its stem. */
export function calledAmong(question: Question): string {
	return question.title || beginning(plainText(question.stem), 80);
}

/** Within what a check holds questions against one another, as a key: the course, the bank, or the category. */
export function withinKey(check: ManyCheck, { bank, category }: Standing): string {
	if (check.within === 'course') return '';
	return check.within === 'bank' ? bank : JSON.stringify([bank, ...category]);
}

/**
 * Holds questions against one another in one pass: begin by making it, add each question, and ask for the findings at the
 * end. It keeps what the checks have noted, and no question.
 */
export class Gathering {
	readonly #checks: readonly ManyCheck[];
	readonly #groups = new Map<ManyCheck, Map<string, Noted<unknown>[]>>();

	constructor(checks: readonly ManyCheck[] = manyChecks) {
		this.#checks = checks;
	}

	/** Adds a question, which `id` tells from the others. */
	add(id: number, question: Question, standing: Standing): void {
		for (const check of this.#checks) {
			const note = check.note(question);
			if (note !== null)
				this.note(check, { id, name: calledAmong(question), category: standing.category, note }, standing);
		}
	}

	/** Adds what was noted of a question before. */
	note(check: ManyCheck, noted: Noted<unknown>, standing: Standing): void {
		const key = JSON.stringify([withinKey(check, standing), check.key?.(noted.note) ?? '']);
		const groups = this.#groups.get(check) ?? new Map<string, Noted<unknown>[]>();
		this.#groups.set(check, groups);
		const group = groups.get(key);
		if (group) group.push(noted);
		else groups.set(key, [noted]);
	}

	/** What is found among all that were added. */
	*findings(): Generator<{ check: ManyCheck } & ReturnType<ManyCheck['among']>[number]> {
		for (const [check, groups] of this.#groups)
			for (const noted of groups.values()) for (const finding of check.among(noted)) yield { check, ...finding };
	}
}
