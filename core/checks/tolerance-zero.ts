import type { Question } from '../kinds';
import type { AcceptedNumber } from '../model/pieces';
import type { OneCheck } from './check';

/** Half of the last decimal that a value is written with: 0.05 for 2.5. */
const halfStep = (value: number) => {
	const decimals = /\.(\d+)/.exec(String(value))?.[1]?.length ?? 0;
	return Number((0.5 * 10 ** -decimals).toPrecision(3));
};

interface Numbers {
	accepted: AcceptedNumber[];
	whole: boolean;
	unit: string;
}

/** The numbers of a question that are asked for in one place. */
function numbersIn(question: Question): Numbers[] {
	if (question.kind === 'numeric')
		return [{ accepted: question.accepted, whole: question.whole, unit: question.unit?.trim() ?? '' }];
	if (question.kind !== 'fill-blanks') return [];
	return question.blanks.flatMap((blank) =>
		blank.form === 'number' ? [{ accepted: blank.accepted, whole: blank.whole, unit: '' }] : []
	);
}

/** The values that are accepted exactly where that is hardly meant; none where anything around is accepted too. */
function exact({ accepted, whole, unit }: Numbers): number[] {
	const earning = accepted.filter(({ credit }) => credit > 0);
	if (whole || !earning.length || !earning.every((entry) => 'value' in entry && entry.tolerance === 0)) return [];
	return earning.flatMap((entry) =>
		'value' in entry && (!Number.isInteger(entry.value) || unit) ? [entry.value] : []
	);
}

const widened = (accepted: AcceptedNumber[], values: readonly number[]): AcceptedNumber[] =>
	accepted.map((entry) =>
		'value' in entry && entry.credit > 0 && values.includes(entry.value)
			? { ...entry, tolerance: halfStep(entry.value) }
			: entry
	);

/** A measured number is accepted only to the last figure. */
export const toleranceZero: OneCheck = {
	id: 'tolerance-zero',
	version: 1,
	scope: 'one',
	title: 'Number without a tolerance',
	short: 'no tolerance',
	severity: 'doubtful',
	why: 'Whoever rounds otherwise, or reckons with one figure more, is right and is marked wrong.',
	find(question) {
		const values = numbersIn(question).flatMap(exact);
		return values.length
			? [
					{
						message: `${values.join(', ')} ${values.length > 1 ? 'are' : 'is'} accepted exactly, and nothing around. Say how far off an answer may be.`,
						words: values.map(String)
					}
				]
			: [];
	},
	mend: {
		title: 'Accept half of the last decimal around it',
		apply(question) {
			if (question.kind === 'numeric') {
				const values = numbersIn(question).flatMap(exact);
				return values.length ? { ...question, accepted: widened(question.accepted, values) } : question;
			}
			if (question.kind !== 'fill-blanks') return question;
			return {
				...question,
				blanks: question.blanks.map((blank) =>
					blank.form === 'number'
						? { ...blank, accepted: widened(blank.accepted, exact({ ...blank, unit: '' })) }
						: blank
				)
			};
		}
	}
};
