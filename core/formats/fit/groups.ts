import type { PartToWrite } from '../../model/quiz';
import { drawOfUnits } from '../section-draw';
import type { QuizLimits } from './quiz-limits';
import { counted } from './words';

/** The questions of a part as units: those of a group together, where its first one stands. */
export function unitsOf(questions: readonly number[], groups: readonly number[][]): number[][] {
	const groupOf = new Map(groups.flatMap((group) => group.map((at) => [at, group] as const)));
	const seen = new Set<number[]>();
	return questions.flatMap((at) => {
		const group = groupOf.get(at);
		if (!group) return [[at]];
		if (seen.has(group)) return [];
		seen.add(group);
		return [group];
	});
}

/**
 * The parts of a quiz with the groups that come whole, as far as a format has a place for them: a section of a section
 * counts as one where it is drawn, so that a part that draws can hold groups where all that it draws from are of one size.
 * Gives the groups that are held, and says what may be torn.
 */
export function fitGroups(
	parts: PartToWrite[],
	together: readonly number[][],
	limits: QuizLimits,
	written: (at: number) => number,
	what: string[]
): { parts: PartToWrite[]; together: number[][] } {
	const inParts = new Set(parts.flatMap(({ questions }) => questions));
	// a text that travels with a group stands in no part
	const asked = together.map((group) => group.filter((at) => inParts.has(at))).filter((group) => group.length > 1);
	const held = new Set<number[]>();
	const torn = new Set<number[]>();
	const fitted = parts.map((part) => {
		const own = new Set(part.questions);
		const groups = asked.filter((group) => group.every((at) => own.has(at)));
		const units = unitsOf(part.questions, groups);
		const keepsAll = part.draw === null && !part.shuffle;
		if (!groups.length || keepsAll) return part;
		const fits =
			limits.groups &&
			groups.flat().every((at) => written(at) === 1) &&
			(part.draw === null || (drawOfUnits(units, 1) !== null && part.draw % units[0]!.length === 0));
		for (const unit of units) if (unit.length > 1) (fits ? held : torn).add(unit);
		return fits ? { ...part, questions: units.flat(), groups: units.filter((unit) => unit.length > 1) } : part;
	});
	if (torn.size)
		what.push(
			`${counted(torn.size, 'group')} that ${torn.size === 1 ? 'comes' : 'come'} whole may be torn there.${limits.groups ? ' A part holds groups there where all that it draws from are of one size; or make forms of the quiz, and send these as quizzes that are fixed.' : ''}`
		);
	return { parts: fitted, together: [...held] };
}
