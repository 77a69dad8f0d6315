import type { FoundPart, FoundQuestion } from '../model/quiz';
import type { CarriedRules } from '../model/sheet';

/** What a section that is drawn from, or mixed, holds: questions of its own, each alone, and sections whose questions come together. */
export type SectionUnits = FoundQuestion[][];

/**
 * How many questions are drawn where a section draws so many of its units: that can be told where all of them are of one
 * size, and null where not. `select` null is all of them.
 */
export function drawOfUnits(
	units: readonly (readonly unknown[])[],
	select: number | null
): { draw: number | null } | null {
	if (select === null) return { draw: null };
	const size = units[0]?.length ?? 0;
	return size > 0 && units.every((unit) => unit.length === size) ? { draw: select * size } : null;
}

const keyOf = (group: FoundQuestion[]) =>
	JSON.stringify(group.map(({ identifier, file, place }) => [file ?? identifier, place ?? 0]));

/** The groups of the sections of a quiz as they are found; one that stands in several parts is one group. */
export class FoundGroups {
	readonly #groups = new Map<string, FoundQuestion[]>();

	/** Notes the units of a part that hold several questions. */
	add(units: SectionUnits): void {
		for (const unit of units) if (unit.length > 1) this.#groups.set(keyOf(unit), unit);
	}

	/** What holds for all parts of a quiz, where anything does. */
	rules(partsShuffled: boolean): CarriedRules<FoundQuestion> | undefined {
		const together = [...this.#groups.values()];
		return partsShuffled || together.length ? { never: [], together, partsShuffled, fixedOptions: [] } : undefined;
	}
}

/** Questions of a section within a part, each with the titles of the sections that it stands in. */
export const standingIn = (questions: FoundPart['questions'], path: string[]): FoundPart['questions'] =>
	questions.map((question) => ({ ...question, path }));
