import { isTrueFalse } from '../../choices';
import { plainText } from '../../../markup/text';
import { isChoice } from '../../../kinds';

import { round, changed } from './changing';
import type { Feature } from './feature';

/** The kind of a choice between true and false. */
export const oddTruth: Feature = {
	name: 'odd-truth',
	title: 'the kind of a choice between true and false',
	otherwise: 'whether it is true or false is told from the words of its options',
	without: (question) => {
		if (question.kind !== 'true-false' && question.kind !== 'multiple-choice') return question;
		const kind = isTrueFalse(question.options.map((option) => plainText(option.text)))
			? 'true-false'
			: 'multiple-choice';
		return kind === question.kind ? question : { ...question, kind };
	}
};

/** Keys that point at nothing. */
export const lostKeys: Feature = {
	name: 'lost-keys',
	title: 'keys that point at nothing',
	otherwise: 'keys that point at nothing are left out',
	without: (question) => (question.lostKeys?.length ? { ...question, lostKeys: [] } : question)
};

/** Options that earn a part. */
export const partialCredit: Feature = {
	name: 'partial-credit',
	title: 'options that earn a part',
	otherwise: 'of options of which one may be chosen, only those with the most credit stay right',
	without: (question) => {
		if (!isChoice(question) || question.kind === 'multiple-response') return question;
		const best = Math.max(...question.options.map((option) => option.credit));
		const options = changed(question.options, (option) => {
			const credit = best > 0 && option.credit === best ? 1 : 0;
			return option.credit === credit ? option : { ...option, credit };
		});
		return options === question.options ? question : { ...question, options };
	}
};

/** Several options that earn everything where one may be chosen. */
export const oneKey: Feature = {
	name: 'one-key',
	title: 'several options that earn everything where one may be chosen',
	otherwise: 'of several right options the first stays right',
	without: (question) => {
		if (!isChoice(question) || question.kind === 'multiple-response') return question;
		const first = question.options.findIndex((option) => option.credit > 0);
		const options = changed(question.options, (option) =>
			option.credit > 0 && question.options.indexOf(option) !== first ? { ...option, credit: 0 } : option
		);
		return options === question.options ? question : { ...question, options };
	}
};

/** Credit for each option that is ticked. */
export const creditByOption: Feature = {
	name: 'credit-by-option',
	title: 'credit for each option that is ticked',
	otherwise: 'credit by option becomes all or nothing',
	without: (question) => {
		if (question.kind !== 'multiple-response' || question.combination === 'all') return question;
		const right = question.options.filter((option) => option.credit > 0).length;
		return {
			...question,
			combination: 'all',
			bounds: { lower: null, upper: null },
			options: question.options.map((option) => ({ ...option, credit: option.credit > 0 ? round(1 / right) : 0 }))
		};
	}
};
