import { datasetOf } from '../kinds/calculated/datasets';
import { evaluate, ExpressionError, parseExpression, variablesOf, type Tree } from '../kinds/calculated/expression';
import type { CalculatedQuestion, Variable } from '../kinds';
import type { OneCheck } from './check';
import { unsetVariables } from './variable-unset';

/** So many values of a variable are tried, its ends and those between, and so many sets of them at the most. */
const mostValues = 9;
const mostSets = 3000;
const drawn = 60;

/** Values that a variable can have: all of few, or its ends, nothing where that is among them, and some between. */
function valuesOf({ values, whole, decimals }: Variable): number[] | null {
	if (values.form === 'expression') return null;
	if (values.form === 'set') return values.values.slice(0, 40);
	const { min, max } = values;
	const step = values.step ?? (whole ? 1 : decimals === null ? null : 10 ** -decimals);
	const count = step ? Math.floor((max - min) / step + 1e-9) + 1 : mostValues;
	const size = step ?? (max - min) / (mostValues - 1);
	const all = (at: number) => Number((min + at * size).toPrecision(12));
	if (count <= 40) return Array.from({ length: count }, (_, at) => all(at));
	const spread = Array.from({ length: mostValues }, (_, at) => all(Math.round((at * (count - 1)) / (mostValues - 1))));
	const zero = Math.round(-min / size);
	return [...new Set([...spread, ...(zero >= 0 && zero < count ? [all(zero)] : [])])];
}

/** Sets of values: every one of a few, or a walk through many in which each value of each variable is met. */
function* setsOf(variables: readonly { name: string; values: number[] }[]): Generator<Map<string, number>> {
	const count = variables.reduce((product, { values }) => product * values.length, 1);
	const sets = Math.min(count, mostSets);
	// a step that has nothing in common with the count meets sets all over it
	const step = count <= mostSets ? 1 : Math.floor(count / mostSets) * 2 + 1;
	for (let at = 0; at < sets; at += 1) {
		let place = (at * step) % count;
		const set = new Map<string, number>();
		for (const { name, values } of variables) {
			set.set(name, values[place % values.length]!);
			place = Math.floor(place / values.length);
		}
		yield set;
	}
}

const setInWords = (set: Map<string, number>) => [...set].map(([name, value]) => `${name} = ${value}`).join(', ');

/** Why the answer cannot be worked out for some set of values, in words; null where every set that was tried gives a number. */
function faultOfSets(question: CalculatedQuestion, answer: Tree, constraints: Tree[]): string | null {
	const given = question.variables.flatMap((variable) => {
		const values = valuesOf(variable);
		return values ? [{ name: variable.name, values }] : [];
	});
	const derived = question.variables.flatMap(({ name, values }) =>
		values.form === 'expression' ? [{ name, tree: parseExpression(values.expression) }] : []
	);
	for (const set of setsOf(given)) {
		const all = new Map(set);
		for (const { name, tree } of derived) all.set(name, Number(evaluate(tree, all)));
		if (!constraints.every((one) => evaluate(one, all) === true)) continue;
		const worked = Number(evaluate(answer, all));
		if (!Number.isFinite(worked) || [...all.values()].some((value) => !Number.isFinite(value)))
			return `gives no number for ${setInWords(set)}`;
	}
	for (let seed = 0; seed < drawn; seed += 1) datasetOf(question, `check ${seed}`);
	return null;
}

function faultIn(question: CalculatedQuestion): string | null {
	const known = new Set(question.variables.map(({ name }) => name));
	try {
		if (!question.expression.trim()) return 'is empty';
		const answer = parseExpression(question.expression);
		const constraints = question.constraints.map(parseExpression);
		const used = [answer, ...constraints];
		for (const { values } of question.variables)
			if (values.form === 'expression') used.push(parseExpression(values.expression));
		const unknown = used.flatMap(variablesOf).find((name) => !known.has(name));
		if (unknown) return `uses “${unknown}”, which is no variable of this question`;
		return faultOfSets(question, answer, constraints);
	} catch (error) {
		if (error instanceof ExpressionError) return `cannot be worked out: ${error.message}`;
		throw error;
	}
}

/** The answer of a calculated question cannot be worked out. */
export const calculationFails: OneCheck = {
	id: 'calculation-fails',
	version: 1,
	scope: 'one',
	title: 'Calculation that fails',
	short: 'calculation',
	severity: 'broken',
	why: 'For some or all students there is no right answer, so whatever they write is wrong.',
	find(question) {
		// a variable without a value is said by its own check
		if (question.kind !== 'calculated' || unsetVariables(question).length) return [];
		const fault = faultIn(question);
		return fault === null
			? []
			: [
					{
						message: `“${question.expression}” ${fault}. Put the calculation right, or its variables.`,
						words: [question.expression]
					}
				];
	}
};
