import type { CalculatedQuestion } from '../kinds';
import type { Variable } from '../kinds';
import type { OneCheck } from './check';

/** Why a variable has no value, in words; null where it has one. */
function unset({ values, whole }: Variable): string | null {
	if (values.form === 'set') return values.values.length ? null : 'has no values to choose from';
	if (values.form !== 'range') return null;
	const { min, max, step } = values;
	if (min > max) return `goes from ${min} to ${max}`;
	if (min === max) return whole && !Number.isInteger(min) ? `is whole, and its only value is ${min}` : null;
	if (step !== null && (step <= 0 || step > max - min)) return `goes from ${min} to ${max} in steps of ${step}`;
	return whole && Math.ceil(min) > Math.floor(max)
		? `is whole, and there is no whole number from ${min} to ${max}`
		: null;
}

/** The variables of a calculated question that have no value, with why. */
export function unsetVariables({ variables }: CalculatedQuestion): { name: string; why: string }[] {
	return variables.flatMap((variable) => {
		const why = unset(variable);
		return why ? [{ name: variable.name, why }] : [];
	});
}

/** A variable has no value that it could take. */
export const variableUnset: OneCheck = {
	id: 'variable-unset',
	version: 1,
	scope: 'one',
	title: 'Variable without a value',
	short: 'no value',
	severity: 'broken',
	why: 'No numbers can be drawn for the question, so nobody gets one that can be answered.',
	find(question) {
		if (question.kind !== 'calculated') return [];
		const found = unsetVariables(question);
		return found.length
			? [
					{
						message: `${found.map(({ name, why }) => `“${name}” ${why}`).join('; ')}. Say which values it may have.`,
						words: found.map(({ name }) => name)
					}
				]
			: [];
	}
};
