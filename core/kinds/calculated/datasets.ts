import { Generator, stepsIn } from '../../numbers/generator';
import { replaceVariables } from '../../markup/markers';
import { escapeText } from '../../xml/serialise';
import { mapCommon } from '../common';
import type { NumericQuestion } from '../numeric';
import type { CalculatedQuestion } from './fields';
import { evaluate, ExpressionError, parseExpression, variablesOf, type Tree } from './expression';

/** The numbers of one student: the value of each variable, and the right answer. */
export interface Dataset {
	values: Map<string, number>;
	answer: number;
}

const mostTries = 200;
const tidy = (value: number) => Number(value.toPrecision(12));

/** A value as a student sees it. */
export function shownValue(value: number, decimals: number | null): string {
	return decimals === null ? String(tidy(value)) : value.toFixed(Math.min(12, Math.max(0, decimals)));
}

/**
 * The numbers of a calculated question for a seed; the same seed gives the same numbers. Values that break a
 * constraint are drawn again. Throws an ExpressionError where an expression cannot be worked out, or where no values
 * are found that keep the constraints.
 */
export function datasetOf(question: CalculatedQuestion, seed: string): Dataset {
	const random = new Generator(`calculated ${seed}`);
	const trees = new Map<string, Tree>();
	const tree = (expression: string) => {
		if (!trees.has(expression)) trees.set(expression, parseExpression(expression));
		return trees.get(expression)!;
	};
	for (let attempt = 0; attempt < mostTries; attempt += 1) {
		const values = new Map<string, number>();
		for (const { name, values: from, whole, decimals } of question.variables) {
			if (from.form === 'set') {
				if (!from.values.length) throw new ExpressionError(`“${name}” has no values to choose from`);
				values.set(name, from.values[random.below(from.values.length)]!);
			} else if (from.form === 'range') {
				const step = from.step ?? (whole ? 1 : decimals === null ? null : 10 ** -decimals);
				const value = step
					? from.min + step * random.below(stepsIn(from.min, from.max, step))
					: from.min + (from.max - from.min) * (random.next() / 2 ** 32);
				values.set(name, tidy(value));
			} else {
				const value = Number(evaluate(tree(from.expression), values));
				values.set(name, whole ? Math.round(value) : tidy(value));
			}
		}
		const answer = Number(evaluate(tree(question.expression), values));
		if (Number.isFinite(answer) && question.constraints.every((one) => evaluate(tree(one), values) === true))
			return { values, answer: tidy(answer) };
	}
	throw new ExpressionError('no values were found that keep the constraints');
}

/** Why a calculated question cannot be worked out, for people; null where it can. */
export function faultOf(question: CalculatedQuestion): string | null {
	try {
		const known = new Set(question.variables.map((one) => one.name));
		const unknown = variablesOf(parseExpression(question.expression)).filter((name) => !known.has(name));
		if (unknown.length) return `the answer uses “${unknown[0]}”, which is no variable of this question`;
		datasetOf(question, 'check');
		return null;
	} catch (error) {
		if (error instanceof ExpressionError) return error.message;
		throw error;
	}
}

/** The tolerance around an answer, in its own unit. */
export function toleranceAround(question: CalculatedQuestion, answer: number): number {
	const { mode, value } = question.tolerance;
	return tidy(mode === 'relative' ? Math.abs(answer) * value : value);
}

/** A calculated question worked out for a seed: a numeric one, with the numbers in its text. Throws an ExpressionError. */
export function workedOut(question: CalculatedQuestion, seed: string): NumericQuestion {
	const { values, answer } = datasetOf(question, seed);
	const decimals = new Map(question.variables.map((one) => [one.name, one.decimals]));
	const shown = mapCommon(question, (markup) =>
		replaceVariables(markup, (name) =>
			values.has(name) ? escapeText(shownValue(values.get(name)!, decimals.get(name) ?? null)) : name
		)
	);
	const { variables: _1, constraints: _2, expression: _3, tolerance: _4, kind: _5, ...rest } = shown;
	return {
		...rest,
		kind: 'numeric',
		accepted: [{ value: answer, tolerance: toleranceAround(question, answer), credit: 1 }]
	};
}
