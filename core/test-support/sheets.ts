import type { Plan } from '../draws/sheets';

/** A sheet in the published form, as a test writes it. */
export interface SheetToTry {
	questions: {
		id: string;
		category?: string[];
		kind?: string;
		points?: number;
		difficulty?: number;
		tags?: string[];
	}[];
	parts: object[];
	never?: string[][];
	together?: string[][];
	'parts-order'?: 'shuffled';
}

/** So many questions of a category, named by a letter and numbers from 1. */
export function some(letter: string, count: number, category: string[], more: object = {}): SheetToTry['questions'] {
	return Array.from({ length: count }, (_, at) => ({ id: `${letter}${at + 1}`, category, points: 1, ...more }));
}

/** A part that draws from categories with all under them. */
export function drawing(draw: number | null, paths: string[][], more: object = {}): object {
	return { draw, pool: { categories: paths.map((path) => ({ path })) }, ...more };
}

/** Every valid way to give each part its units, gone through one by one: what all counting is held against. */
export function everyFilling(plan: Plan): Map<number, number>[] {
	const found: Map<number, number>[] = [];
	const way = new Map<number, number>();
	const fill = (unit: number) => {
		if (unit === plan.units.length) {
			if (holds(plan, way)) found.push(new Map(way));
			return;
		}
		fill(unit + 1);
		for (const [part, { units }] of plan.parts.entries()) {
			if (!units.includes(unit)) continue;
			way.set(unit, part);
			fill(unit + 1);
			way.delete(unit);
		}
	};
	fill(0);
	return found;
}

function holds(plan: Plan, way: ReadonlyMap<number, number>): boolean {
	for (const unit of way.keys()) if (plan.units[unit]!.never.some((other) => way.has(other))) return false;
	return plan.parts.every(({ draw, quotas, isAll, units, impossible }, part) => {
		const given = [...way].filter(([, taker]) => taker === part).map(([unit]) => unit);
		const questions = given.flatMap((unit) => plan.units[unit]!.counted.map((at) => plan.questions[at]!));
		return (
			impossible === null &&
			questions.length === draw &&
			(!isAll || given.length === units.length) &&
			quotas.every(({ has, least, most }) => {
				const count = questions.filter(has).length;
				return count >= least && count <= most;
			})
		);
	});
}
