import { bounds as most } from '../model/bounds';
import { parseNumber } from '../numbers/numbers';
import { datasetOf, faultOf, toleranceAround, workedOut } from './calculated/datasets';
import { ExpressionError, parseExpression, writeExpression } from './calculated/expression';
import { calculatedFields, type CalculatedQuestion, type Variable } from './calculated/fields';
import type { KindOf, Marked, Response } from './kind';
import type { NumericQuestion } from './numeric';
import { percent } from './part';

/** Marks a calculated answer against the numbers of its seed. */
function mark(question: CalculatedQuestion, response: Response): Marked {
	const written = response.text?.trim();
	if (!written) return { credit: 0, reason: 'Nothing is written.' };
	const value = parseNumber(written);
	if (value === null) return { credit: 0, reason: `“${written}” is not a number.` };
	try {
		const { answer } = datasetOf(question, response.seed ?? '1');
		const tolerance = toleranceAround(question, answer);
		const right = Math.abs(value - answer) <= tolerance + 1e-9 * Math.max(1, Math.abs(answer));
		return {
			credit: right ? 1 : 0,
			reason: `The answer for these numbers is ${answer}${tolerance ? ` ± ${tolerance}` : ''}.`
		};
	} catch (error) {
		if (!(error instanceof ExpressionError)) throw error;
		return { credit: null, reason: `The answer cannot be worked out: ${error.message}.` };
	}
}

/** What is written for the numbers of the first seed, out of the right answer; null where there is none. */
function written(question: CalculatedQuestion, from: (answer: number) => number): Response | null {
	return faultOf(question) === null ? { text: String(from(datasetOf(question, '1').answer)), seed: '1' } : null;
}

function settledExpression(expression: string): string {
	try {
		return writeExpression(parseExpression(expression));
	} catch {
		return expression;
	}
}

const settledVariable = (variable: Variable) => {
	const { values, whole } = variable;
	if (values.form === 'expression') return { ...variable, values: settledExpression(values.expression) };
	// whole numbers go in steps of one where nothing else is said
	return values.form === 'range' && whole
		? { ...variable, values: { ...values, step: values.step ?? 1 } }
		: { ...variable, values };
};

function variableInWords({ name, whole, decimals, values }: Variable): string {
	const from =
		values.form === 'range'
			? `${values.min} to ${values.max}${values.step === null ? '' : ` in steps of ${values.step}`}`
			: values.form === 'set'
				? values.values.join(', ')
				: `= ${values.expression}`;
	return `${name}: ${from}${whole ? ', whole' : ''}${decimals === null ? '' : `, ${decimals} decimals`}`;
}

function variableAsFigures({ name, values }: Variable): string {
	if (values.form === 'range') return `${name} ${values.min} ${values.max}`;
	return `${name} ${values.form === 'set' ? values.values.join(' ') : values.expression}`;
}

/** A question whose numbers are new for each student. */
export const calculated: KindOf<CalculatedQuestion, CalculatedQuestion | NumericQuestion> = {
	name: 'Calculated',
	fields: calculatedFields,
	marks: 'program',
	rich: (question) => question,
	wording: ({ expression, variables }) => [expression, ...variables.map(variableAsFigures)],
	content: ({ variables, constraints, expression, tolerance, whole, unit }) => ({
		variables: variables.map(settledVariable),
		constraints: constraints.map(settledExpression),
		expression: settledExpression(expression),
		tolerance,
		whole,
		unit: unit ?? ''
	}),
	parts: ({ expression, variables, constraints, tolerance, unit, whole }) => [
		{ name: 'expression', text: expression },
		...variables.map((variable, at) => ({ name: `variable ${at + 1}`, text: variableInWords(variable) })),
		{ name: 'constraints', text: constraints.join('; ') },
		{
			name: 'tolerance',
			text: tolerance.mode === 'relative' ? percent(tolerance.value) : `± ${tolerance.value}`
		},
		{ name: 'unit', text: unit ?? '' },
		{ name: 'whole numbers only', text: whole ? 'yes' : '' }
	],
	plain: ({ variables, expression, tolerance }) => ({ variables, expression, tolerance }),
	counts: ({ variables }) => [[variables.length, most.blanks, 'variables']],
	mark,
	right: (question) => written(question, (answer) => answer),
	wrong: (question) => written(question, (answer) => answer * 3 + 1000),
	// whether the right answer of every student is right is the calculation's to say
	best: () => null,
	keyless(question) {
		const fault = faultOf(question);
		return fault === null ? null : `Its answer cannot be worked out: ${fault}. Look at the calculation.`;
	},
	scaled: (question) => question,
	dealt(question, { seed }) {
		try {
			return workedOut(question, seed);
		} catch (error) {
			if (!(error instanceof ExpressionError)) throw error;
			return question;
		}
	},
	hasKey: ({ expression }) => expression.trim() !== ''
};
