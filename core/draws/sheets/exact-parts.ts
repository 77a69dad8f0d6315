import type { Plan, PlannedPart } from './plan';

/** A part that draws so many of some questions, by their places in a plan. */
export interface PlainPart {
	title: string;
	draw: number;
	questions: number[];
}

/**
 * The parts without quotas that together are exactly a part with quotas: where each quota asks for one number, and the
 * quotas share no question and make up all that is drawn. Null where there are none such.
 */
export function exactParts({ questions, units }: Plan, part: PlannedPart): PlainPart[] | null {
	if (!part.quotas.length) return null;
	if (units.some(({ members, never }, unit) => (members.length > 1 || never.length) && part.units.includes(unit)))
		return null;
	const drawn = part.units.flatMap((unit) => units[unit]!.counted);
	const parts = part.quotas.map(({ least, most, name, has }) => ({
		title: `${part.title}: ${name.replace(/^“(.*)”$/, '$1')}`,
		draw: least === most ? least : -1,
		questions: drawn.filter((place) => has(questions[place]!))
	}));
	const all = parts.flatMap((own) => own.questions);
	if (parts.some(({ draw }) => draw < 0) || new Set(all).size < all.length) return null;
	if (parts.reduce((sum, { draw }) => sum + draw, 0) !== part.draw) return null;
	return parts.filter(({ draw }) => draw > 0);
}
