import { isChoice } from '../../../kinds';

import { round, onTexts, changed, hasPositive } from './changing';
import type { Feature } from './feature';

/** Credit that is taken off. */
export const negativeCredit: Feature = {
	name: 'negative-credit',
	title: 'credit that is taken off',
	otherwise: 'credit that is taken off becomes none',
	without: (question) => {
		if (isChoice(question) && question.options.some((option) => option.credit < 0))
			return {
				...question,
				options: question.options.map((option) => ({ ...option, credit: Math.max(0, option.credit) }))
			};
		if ('pairs' in question && question.pairs.some((pair) => pair.credit < 0))
			return { ...question, pairs: question.pairs.filter((pair) => pair.credit > 0) };
		return onTexts(question, (texts) =>
			texts.some((one) => one.credit < 0) ? texts.filter((one) => one.credit >= 0) : texts
		);
	}
};

/** All or nothing without a key. */
export const keylessAll: Feature = {
	name: 'keyless-all',
	title: 'all or nothing without a key',
	otherwise: 'all or nothing without a key becomes credit by option',
	without: (question) => {
		if (!('combination' in question) || question.combination !== 'all') return question;
		if (question.kind === 'fill-blanks') return question;
		const credits = (
			isChoice(question) ? question.options : question.kind === 'hotspot' ? question.shapes : question.pairs
		).map((one) => one.credit);
		return hasPositive(credits) ? question : { ...question, combination: 'sum' };
	}
};

/** Unequal credit of what earns only together. */
export const unequalAll: Feature = {
	name: 'unequal-all',
	title: 'unequal credit of what earns only together',
	otherwise: 'credit of what earns only together becomes equal shares',
	without: (question) => {
		if (!('combination' in question) || question.combination !== 'all') return question;
		const equal = <T extends { credit: number }>(list: T[]): T[] => {
			const share = round(1 / list.filter((one) => one.credit > 0).length);
			return changed(list, (answer) => {
				const credit = answer.credit > 0 ? share : 0;
				return Math.abs(answer.credit - credit) > 2e-6 ? { ...answer, credit } : answer;
			});
		};
		if (isChoice(question)) {
			const options = equal(question.options);
			return options === question.options ? question : { ...question, options };
		}
		if (question.kind === 'hotspot') {
			const shapes = equal(question.shapes);
			return shapes === question.shapes ? question : { ...question, shapes };
		}
		return question;
	}
};

/** Bounds of a sum. */
export const bounds: Feature = {
	name: 'bounds',
	title: 'bounds of a sum',
	otherwise: 'the least and the greatest credit of a sum are left out',
	without: (question) =>
		'bounds' in question && (question.bounds.lower !== null || question.bounds.upper !== null)
			? { ...question, bounds: { lower: null, upper: null } }
			: question
};

/** Long answers among blanks that earn only together. */
export const openAll: Feature = {
	name: 'open-all',
	title: 'long answers among blanks that earn only together',
	otherwise: 'blanks that earn only together, a long answer among them, earn each its share',
	without: (question) =>
		question.kind === 'fill-blanks' &&
		question.combination === 'all' &&
		question.blanks.some((blank) => blank.form === 'open')
			? { ...question, combination: 'sum' }
			: question
};

/** Places that earn only together, and more of them than may be pointed at. */
export const unreachableAll: Feature = {
	name: 'unreachable-all',
	title: 'places that earn only together, and more of them than may be pointed at',
	otherwise: 'as many places may be pointed at as are right, where they earn only together',
	without: (question) => {
		if (question.kind !== 'hotspot' || question.combination !== 'all' || question.picks < 2) return question;
		const right = question.shapes.filter((shape) => shape.credit > 0).length;
		return question.picks < right ? { ...question, picks: right } : question;
	}
};

/** Credit for points outside of every place. */
export const outside: Feature = {
	name: 'outside',
	title: 'credit for points outside of every place',
	otherwise: 'points outside of every place earn nothing',
	without: (question) =>
		question.kind === 'hotspot' && question.outside !== 0 ? { ...question, outside: 0 } : question
};
