import { labelsAsMatching } from '../nearest';

import { changed, plain } from './changing';
import type { Feature } from './feature';

/** Things to be matched that belong to nothing. */
export const distractors: Feature = {
	name: 'distractors',
	title: 'things to be matched that belong to nothing',
	otherwise: 'things to be matched that belong to nothing are left out',
	without: (question) => {
		if (question.kind !== 'matching') return question;
		const used = (side: 'left' | 'right') =>
			new Set(question.pairs.filter((pair) => pair.credit > 0).map((pair) => pair[side]));
		const [lefts, rights] = [used('left'), used('right')];
		const left = question.left.filter((one) => lefts.has(one.identifier));
		const right = question.right.filter((one) => rights.has(one.identifier));
		return left.length === question.left.length && right.length === question.right.length
			? question
			: {
					...question,
					left,
					right,
					pairs: question.pairs.filter((pair) => lefts.has(pair.left) && rights.has(pair.right))
				};
	}
};

/** How often something may be matched. */
export const uses: Feature = {
	name: 'uses',
	title: 'how often something may be matched',
	otherwise: 'each on the left is matched once, those on the right as often as one likes',
	without: (question) => {
		if (question.kind !== 'matching') return question;
		const many = (identifier: string) =>
			question.pairs.filter((pair) => pair.left === identifier && pair.credit > 0).length > 1;
		const left = changed(question.left, (side) => {
			const uses = many(side.identifier) ? null : 1;
			return side.uses === uses ? side : { ...side, uses };
		});
		const right = changed(question.right, (one) => (one.uses === null ? one : { ...one, uses: null }));
		return left === question.left && right === question.right ? question : { ...question, left, right };
	}
};

/** Labels of words that are laid on a picture. */
export const textLabels: Feature = {
	name: 'text-labels',
	title: 'labels of words that are laid on a picture',
	otherwise: 'labels of words are matched with the places of the picture, which are numbered',
	without: (question) =>
		question.kind === 'label-image' && question.labels.some((label) => !/^<img [^>]*\/>$/.test(label.text))
			? labelsAsMatching(question)[0]!
			: question
};

/** Rich text in labels. */
export const richLabels: Feature = {
	name: 'rich-labels',
	title: 'rich text in labels',
	otherwise: 'rich text in labels becomes plain text',
	without: (question) => {
		if (question.kind !== 'label-image') return question;
		const labels = changed(question.labels, (label) =>
			/^<img [^>]*\/>$/.test(label.text) || plain(label.text) === label.text
				? label
				: { ...label, text: plain(label.text) }
		);
		return labels === question.labels ? question : { ...question, labels };
	}
};
