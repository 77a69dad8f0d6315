import type { AcceptedNumber } from '../../model/pieces';
import { numberAnswer } from '../drafts/number-answer';
import { parseNumber } from '../../numbers/numbers';
import type { RecordAccess } from './record';
import type { Path, Recipe } from './recipe';

const firstOf = (path: Path | undefined) => (Array.isArray(path) ? path[0] : path);

/** What a path leads through, and what it takes there: `n[*].value` is `value` of each `n[*]`, `value/@is` is `@is` of each `value`. */
function apart(path: string): { around: string; own: string } | null {
	const at = Math.max(path.lastIndexOf('/'), path.includes('/') ? -1 : path.lastIndexOf('.'));
	return at > 0 && !/[[(]/.test(path.slice(at)) ? { around: path.slice(0, at), own: path.slice(at + 1) } : null;
}

/** The paths of several things as those of the one element that holds them all; null where they stand apart. */
function together(paths: (string | undefined)[]): { around: string; own: (string | undefined)[] } | null {
	const found = paths.map((path) => (path === undefined ? undefined : apart(path)));
	const [first] = found.filter((one) => one !== undefined);
	if (!first || found.some((one) => one === null || (one && one.around !== first.around))) return null;
	return { around: first.around, own: found.map((one) => one?.own) };
}

/**
 * The numbers that a recipe finds in a record, each with the tolerance and the credit that stand beside it, where it has
 * any, and the ranges. A tolerance that stands by itself is that of all of them.
 */
export function numbersOf(
	record: RecordAccess,
	recipe: Recipe,
	creditOf: (part: RecordAccess, path: Path | undefined) => number | null
): { numbers: AcceptedNumber[]; tolerance: number | null } {
	const numbers: AcceptedNumber[] = [];
	let tolerance: number | null = null;
	const text = (part: RecordAccess, path: string | undefined) =>
		path === undefined
			? ''
			: (part
					.values(path)
					.find((one) => one.text !== '')
					?.text.trim() ?? '');
	const credited = (part: RecordAccess, number: AcceptedNumber) => ({
		...number,
		credit: creditOf(part, recipe.acceptedCredit ?? recipe.credit) ?? number.credit
	});
	const beside = together([firstOf(recipe.numeric), firstOf(recipe.tolerance)]);
	if (beside && recipe.tolerance !== undefined && !Array.isArray(recipe.numeric)) {
		const [own, within] = beside.own;
		for (const part of record.parts(beside.around)) {
			const number = numberAnswer(text(part, own));
			const given = parseNumber(text(part, within));
			if (number)
				numbers.push(credited(part, 'value' in number && given !== null ? { ...number, tolerance: given } : number));
		}
	} else {
		for (const path of [recipe.tolerance ?? []].flat()) tolerance ??= parseNumber(text(record, path));
		for (const path of [recipe.numeric ?? []].flat()) {
			const found = record.values(path);
			for (const value of found) {
				const number = numberAnswer(value.text);
				if (number) numbers.push(number);
			}
			if (found.length) break;
		}
	}
	const range = (part: RecordAccess, least: string | undefined, most: string | undefined) => {
		const [min, max] = [parseNumber(text(part, least)), parseNumber(text(part, most))];
		if (min === null && max === null) return;
		numbers.push(credited(part, { min, max, includesMin: min !== null, includesMax: max !== null, credit: 1 }));
	};
	const bounds = together([firstOf(recipe.numericMin), firstOf(recipe.numericMax)]);
	if (bounds) for (const part of record.parts(bounds.around)) range(part, bounds.own[0], bounds.own[1]);
	else range(record, firstOf(recipe.numericMin), firstOf(recipe.numericMax));
	return { numbers, tolerance };
}
