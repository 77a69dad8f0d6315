import { isChoice } from '../../../kinds';

import { onBlanks } from './changing';
import type { Feature } from './feature';

/** Shuffling that is not said. */
export const unsetShuffle: Feature = {
	name: 'unset-shuffle',
	title: 'shuffling that is not said',
	otherwise: 'shuffling that is not said becomes no shuffling',
	without: (question) => {
		if ('shuffle' in question && question.shuffle === null)
			return onBlanks({ ...question, shuffle: false }, (blank) =>
				blank.form === 'list' && blank.shuffle === null ? { ...blank, shuffle: false } : blank
			);
		return onBlanks(question, (blank) =>
			blank.form === 'list' && blank.shuffle === null ? { ...blank, shuffle: false } : blank
		);
	}
};

/** Whether options are shuffled. */
export const shuffle: Feature = {
	name: 'shuffle',
	title: 'whether options are shuffled',
	otherwise: 'whether options are shuffled is left out',
	without: (question) => {
		const blanks = onBlanks(question, (blank) =>
			blank.form === 'list' && blank.shuffle !== null ? { ...blank, shuffle: null } : blank
		);
		return 'shuffle' in blanks && blanks.shuffle !== null ? { ...blanks, shuffle: null } : blanks;
	}
};

/** Options that keep their place. */
export const pinned: Feature = {
	name: 'pinned',
	title: 'options that keep their place',
	otherwise: 'options no longer keep their place when they are shuffled',
	without: (question) =>
		isChoice(question) && question.options.some((option) => option.pinned)
			? { ...question, options: question.options.map((option) => ({ ...option, pinned: false })) }
			: question
};

/** Shuffling within a list of a blank. */
export const listShuffle: Feature = {
	name: 'list-shuffle',
	title: 'shuffling within a list of a blank',
	otherwise: 'the entries of lists in blanks are no longer shuffled',
	without: (question) =>
		onBlanks(question, (blank) => (blank.form === 'list' && blank.shuffle ? { ...blank, shuffle: false } : blank))
};
