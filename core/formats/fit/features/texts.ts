import { onTexts, changed } from './changing';
import type { Feature } from './feature';

/** Capitals that matter. */
export const capitals: Feature = {
	name: 'capitals',
	title: 'capitals that matter',
	otherwise: 'capitals no longer matter',
	without: (question) =>
		onTexts(question, (texts) =>
			changed(texts, (one) => (one.caseSensitive && one.match !== 'pattern' ? { ...one, caseSensitive: false } : one))
		)
};

/** Patterns in which capitals do not matter. */
export const loosePatterns: Feature = {
	name: 'loose-patterns',
	title: 'patterns in which capitals do not matter',
	otherwise: 'capitals matter in patterns',
	without: (question) =>
		onTexts(question, (texts) =>
			changed(texts, (one) => (one.match === 'pattern' && !one.caseSensitive ? { ...one, caseSensitive: true } : one))
		)
};

/** Answers that only have to contain a text. */
export const contains: Feature = {
	name: 'contains',
	title: 'answers that only have to contain a text',
	otherwise: 'answers that only have to contain a text have to be that text',
	without: (question) =>
		onTexts(question, (texts) =>
			changed(texts, (accepted) => {
				if (accepted.match !== 'contains') return accepted;
				const { match: _, ...rest } = accepted;
				return rest;
			})
		)
};

/** Patterns. */
export const patterns: Feature = {
	name: 'patterns',
	title: 'patterns',
	otherwise: 'patterns are left out',
	without: (question) =>
		onTexts(question, (texts) =>
			texts.some((one) => one.match === 'pattern') ? texts.filter((one) => one.match !== 'pattern') : texts
		)
};

/** Texts that earn a part. */
export const textCredit: Feature = {
	name: 'text-credit',
	title: 'texts that earn a part',
	otherwise: 'texts that earn a part are no longer accepted',
	without: (question) =>
		onTexts(question, (texts) => {
			const best = Math.max(...texts.map((one) => one.credit));
			if (!texts.length || texts.every((one) => one.credit === 1)) return texts;
			return texts.filter((one) => one.credit === best && best > 0).map((one) => ({ ...one, credit: 1 }));
		})
};
