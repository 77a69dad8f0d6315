import { bestNumber } from '../../../kinds/answers';
import type { AcceptedNumber } from '../../../model/pieces';

import { onBlanks, changed, onNumbers } from './changing';
import type { Feature } from './feature';

/** Numbers that earn a part. */
export const numberCredit: Feature = {
	name: 'number-credit',
	title: 'numbers that earn a part',
	otherwise: 'numbers that earn a part are no longer accepted',
	without: (question) =>
		onNumbers(question, (numbers) => {
			const best = Math.max(...numbers.map((one) => one.credit));
			if (!numbers.length || numbers.every((one) => one.credit === 1)) return numbers;
			return numbers.filter((one) => one.credit === best && best > 0).map((one) => ({ ...one, credit: 1 }));
		})
};

/** Ranges without an end, or that leave their end out. */
export const openRanges: Feature = {
	name: 'open-ranges',
	title: 'ranges without an end, or that leave their end out',
	otherwise: 'ends of ranges are taken in, and ranges without an end are no longer accepted',
	without: (question) =>
		onNumbers(question, (numbers) => {
			const odd = (accepted: AcceptedNumber) =>
				!('value' in accepted) &&
				(accepted.min === null || accepted.max === null || !accepted.includesMin || !accepted.includesMax);
			if (!numbers.some(odd)) return numbers;
			return numbers
				.filter((one) => 'value' in one || (one.min !== null && one.max !== null))
				.map((one) => ('value' in one ? one : { ...one, includesMin: true, includesMax: true }));
		})
};

/** Whole numbers only. */
export const whole: Feature = {
	name: 'whole',
	title: 'whole numbers only',
	otherwise: 'any number may be entered, not only whole ones',
	without: (question) => (question.kind === 'numeric' && question.whole ? { ...question, whole: false } : question)
};

/** Whole numbers only, where no whole number is accepted. */
export const oddWhole: Feature = {
	name: 'odd-whole',
	title: 'whole numbers only, where no whole number is accepted',
	otherwise: 'any number may be entered where no whole number is accepted',
	without: (question) => {
		const odd = (accepted: AcceptedNumber[], whole: boolean) => whole && bestNumber(accepted, true) === null;
		if (question.kind === 'numeric' && odd(question.accepted, question.whole)) return { ...question, whole: false };
		return onBlanks(question, (blank) =>
			blank.form === 'number' && odd(blank.accepted, blank.whole) ? { ...blank, whole: false } : blank
		);
	}
};

/** A number chosen on a scale. */
export const slider: Feature = {
	name: 'slider',
	title: 'a number chosen on a scale',
	otherwise: 'the number is typed instead of chosen on a scale',
	without: (question) => {
		if (question.kind !== 'numeric' || !question.slider) return question;
		const { slider: _, ...rest } = question;
		return rest;
	}
};

/** Units. */
export const unit: Feature = {
	name: 'unit',
	title: 'units',
	otherwise: 'the unit is left out',
	without: (question) => {
		if ((question.kind !== 'numeric' && question.kind !== 'calculated') || question.unit === undefined) return question;
		const { unit: _, ...rest } = question;
		return rest;
	}
};

/** Units of a scale. */
export const sliderUnit: Feature = {
	name: 'slider-unit',
	title: 'units of a scale',
	otherwise: 'the unit of the scale is left out',
	without: (question) => {
		if (question.kind !== 'numeric' || !question.slider || question.unit === undefined) return question;
		const { unit: _, ...rest } = question;
		return rest;
	}
};

/** Decimal variables that go in steps. */
export const floatSteps: Feature = {
	name: 'float-steps',
	title: 'decimal variables that go in steps',
	otherwise: 'variables that go in steps of decimals take one of the values that the steps give',
	without: (question) => {
		if (question.kind !== 'calculated') return question;
		const variables = changed(question.variables, (variable) => {
			const { values } = variable;
			if (values.form !== 'range' || values.step === null || variable.whole) return variable;
			const count = Math.floor((values.max - values.min) / values.step + 1e-9) + 1;
			if (count > 500 || count < 1) return { ...variable, values: { ...values, step: null } };
			const list = Array.from({ length: count }, (_, at) => Number((values.min + at * values.step!).toPrecision(12)));
			return { ...variable, values: { form: 'set' as const, values: list } };
		});
		return variables === question.variables ? question : { ...question, variables };
	}
};

/** Decimals of variables that are not shown. */
export const hiddenDecimals: Feature = {
	name: 'hidden-decimals',
	title: 'decimals of variables that are not shown',
	otherwise: 'how many decimals a variable has is left out where it is not shown',
	without: (question) => {
		if (question.kind !== 'calculated') return question;
		const variables = changed(question.variables, (variable) =>
			variable.decimals !== null && !question.stem.includes(`>${variable.name}</var>`)
				? { ...variable, decimals: null }
				: variable
		);
		return variables === question.variables ? question : { ...question, variables };
	}
};
