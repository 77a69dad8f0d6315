import type { AcceptedNumber } from '../model/pieces';

/** A number as people and files write it: a sign, digits, a point or one comma, an exponent; null where it is none. */
export function parseNumber(text: string): number | null {
	// most of what is asked about is words, known by the first sign, or a number in its plainest form
	if (/^-?\d{1,15}(?:\.\d{1,15})?$/.test(text)) return Number(text);
	if (!/^\s*[-+\u2212\u2013.\d]/.test(text)) return null;
	const plain = text
		.trim()
		.replace(/[\u2212\u2013]/g, '-')
		.replace(/^(-?\d+),(\d+)$/, '$1.$2');
	if (!/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(plain)) return null;
	const value = Number(plain);
	return Number.isFinite(value) ? value : null;
}

/** A number without the dust of binary arithmetic, for values that came out of a subtraction. */
export function tidy(value: number): number {
	return Number(value.toPrecision(12));
}

interface Stretch {
	from: number;
	to: number;
	includesFrom: boolean;
	includesTo: boolean;
	credit: number;
}

/**
 * Finds which numbers earn how much, by trying a marking rule at every number that it speaks of and between them.
 * `critical` are those numbers, `mark` gives the credit of one. `centres` are values with the tolerance that the
 * rule gives them, so that a range around one is told as that value.
 * What is found is nested: a wider range of less credit runs beneath a narrower one of more.
 */
export function acceptedNumbers(
	critical: number[],
	mark: (value: number) => number,
	centres: { value: number; tolerance: number }[]
): AcceptedNumber[] {
	const points = [...new Set(critical)].sort((a, b) => a - b);
	if (!points.length) return [];
	const span = Math.max(1, Math.abs(points[0]!), Math.abs(points.at(-1)!));
	const stretches: Stretch[] = [
		{ from: -Infinity, to: points[0]!, includesFrom: false, includesTo: false, credit: mark(points[0]! - span) }
	];
	points.forEach((point, at) => {
		stretches.push({ from: point, to: point, includesFrom: true, includesTo: true, credit: mark(point) });
		const next = points[at + 1] ?? Infinity;
		stretches.push({
			from: point,
			to: next,
			includesFrom: false,
			includesTo: false,
			credit: mark(next === Infinity ? point + span : (point + next) / 2)
		});
	});
	const levels = [...new Set(stretches.map((stretch) => stretch.credit).filter((credit) => credit > 0))].sort(
		(a, b) => b - a
	);
	const found: AcceptedNumber[] = [];
	for (const level of levels) {
		let open = null as Stretch | null;
		for (const stretch of [...stretches, null]) {
			if (stretch && stretch.credit >= level)
				open = open
					? { ...open, to: stretch.to, includesTo: stretch.includesTo, credit: Math.min(open.credit, stretch.credit) }
					: { ...stretch };
			else if (open) {
				// a stretch that is whole at a higher level is already told there
				if (open.credit === level) found.push(accepted(open, level, centres));
				open = null;
			}
		}
	}
	return found;
}

function accepted(stretch: Stretch, credit: number, centres: { value: number; tolerance: number }[]): AcceptedNumber {
	const near = (a: number, b: number) => Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b));
	if (stretch.includesFrom && stretch.includesTo) {
		const centre = centres.find(
			({ value, tolerance }) => near(value - tolerance, stretch.from) && near(value + tolerance, stretch.to)
		);
		if (centre) return { value: centre.value, tolerance: tidy(centre.tolerance), credit };
		if (stretch.from === stretch.to) return { value: stretch.from, tolerance: 0, credit };
	}
	return {
		min: stretch.from === -Infinity ? null : tidy(stretch.from),
		max: stretch.to === Infinity ? null : tidy(stretch.to),
		includesMin: stretch.includesFrom,
		includesMax: stretch.includesTo,
		credit
	};
}
