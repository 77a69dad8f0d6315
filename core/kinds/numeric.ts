import { number, object, string } from 'yup';
import { fold } from '../markup/text';
import { bounds as most } from '../model/bounds';
import { type Fields, list, maybeNumber, truth } from '../model/fields';
import { acceptedNumber, type AcceptedNumber } from '../model/pieces';
import type { QuestionCommon } from '../model/question';
import { parseNumber } from '../numbers/numbers';
import { acceptedNumberText, accepts, bestNumber, bestOf, rounded, scaledCredit, wrongNumber } from './answers';
import type { KindOf } from './kind';
import { numbersInWords } from './part';
import { settledNumbers } from './settle';

const fields = {
	accepted: list(acceptedNumber),
	/** Only whole numbers may be entered. */
	whole: truth(),
	/** What the number counts, for people: "m", "knots". */
	unit: string(),
	/** The number is chosen on a scale instead of typed. */
	slider: object({ lower: number().defined(), upper: number().defined(), step: maybeNumber() })
		.default(undefined)
		.optional()
};

/** A question answered with a number. */
export type NumericQuestion = { kind: 'numeric' } & QuestionCommon & Fields<typeof fields>;

/** Accepted numbers as figures: what likeness and search see of them. */
export const figures = (accepted: AcceptedNumber[]) =>
	accepted.map((entry) => ('value' in entry ? String(entry.value) : `${entry.min} ${entry.max}`));

/** A question answered with a number. */
export const numeric: KindOf<NumericQuestion> = {
	name: 'Numeric',
	fields,
	marks: 'program',
	rich: (question) => question,
	wording: ({ accepted }) => figures(accepted),
	content: ({ accepted, whole, unit, slider }) => ({
		whole,
		accepted: settledNumbers(accepted),
		unit: unit ?? '',
		slider: slider ?? null
	}),
	parts: ({ accepted, unit, whole, slider }) => [
		{ name: 'accepted', text: numbersInWords(accepted) },
		{ name: 'unit', text: unit ?? '' },
		{ name: 'whole numbers only', text: whole ? 'yes' : '' },
		{
			name: 'scale',
			text: slider
				? `${slider.lower} to ${slider.upper}${slider.step === null ? '' : ` in steps of ${slider.step}`}`
				: ''
		}
	],
	plain: ({ accepted }) => ({
		numeric: accepted.map((entry) =>
			'value' in entry ? entry : { min: entry.min, max: entry.max, credit: entry.credit }
		)
	}),
	counts: ({ accepted }) => [[accepted.length, most.options, 'accepted answers']],
	mark({ accepted, whole }, response) {
		const written = fold(response.text ?? '');
		if (!written) return { credit: 0, reason: 'Nothing is written.' };
		const value = parseNumber(response.text ?? '');
		if (value === null) return { credit: 0, reason: `“${written}” is not a number.` };
		if (whole && !Number.isInteger(value)) return { credit: 0, reason: `${value} is not a whole number.` };
		const hits = accepted.filter((entry) => accepts(entry, value));
		const best = hits.reduce<AcceptedNumber | null>((a, b) => (a === null || b.credit > a.credit ? b : a), null);
		return best
			? { credit: best.credit, reason: `${value} lies within ${acceptedNumberText(best)}.` }
			: { credit: 0, reason: `${value} lies outside what is accepted.` };
	},
	right({ accepted, whole }) {
		const text = bestNumber(accepted, whole);
		return text === null ? null : { text };
	},
	wrong({ accepted }) {
		const text = wrongNumber(accepted);
		return text === null ? null : { text };
	},
	best: ({ accepted }) => rounded(Math.max(0, ...accepted.map((entry) => entry.credit))),
	keyless: ({ accepted }) =>
		bestOf(accepted) ? null : 'No answer is accepted. Write the answer that earns the points.',
	scaled: (question, by) => ({
		...question,
		accepted: question.accepted.map((entry) => scaledCredit(entry, by))
	}),
	dealt: (question) => question,
	hasKey: ({ accepted }) => accepted.some((entry) => entry.credit > 0)
};
