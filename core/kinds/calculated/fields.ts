import { array, number, object, string, type InferType } from 'yup';
import { type Fields, list, maybeNumber, oneOfForms, text, truth, word } from '../../model/fields';
import type { QuestionCommon } from '../../model/question';

const variable = object({
	name: text(),
	whole: truth(),
	/** How many decimals are shown; null for as many as there are. */
	decimals: maybeNumber(),
	values: oneOfForms(
		{},
		{
			range: { min: number().defined(), max: number().defined(), step: maybeNumber() },
			set: { values: array(number().defined()).defined() },
			expression: { expression: text() }
		}
	)
}).defined();

/** A number of a calculated question, and where its values come from. Expressions are in the notation of mathjs. */
export type Variable = InferType<typeof variable>;

/** The fields of a calculated question. */
export const calculatedFields = {
	variables: list(variable),
	/** What must hold of the values that are drawn, in the notation of mathjs. */
	constraints: list(text()),
	/** The answer, in the notation of mathjs. */
	expression: text(),
	/** How far off an answer may be: in its own unit, or as a share of the right value. */
	tolerance: object({ mode: word('absolute', 'relative'), value: number().min(0).defined() }).defined(),
	whole: truth(),
	unit: string()
};

/** A question whose numbers are new for each student. In rich text a variable is `<var class="variable">NAME</var>`. */
export type CalculatedQuestion = { kind: 'calculated' } & QuestionCommon & Fields<typeof calculatedFields>;
