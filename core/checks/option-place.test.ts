import { expect } from 'vitest';
import { isChoice } from '../kinds';
import { choice, essay, option } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { optionPlace } from './option-place';

const withLast = (text: string, more = {}) =>
	choice({ options: [option('A', 'Its colour', 0), option('B', 'Its shape', 0), option('C', text, 1, more)] });

tryCheck(
	optionPlace,
	[
		{ name: 'options that stand for themselves', question: choice() },
		{ name: 'one that is pinned', question: withLast('All of the above', { pinned: true }) },
		{ name: 'options that are not shuffled', question: { ...withLast('All of the above'), shuffle: false } },
		{
			name: 'words that only begin alike',
			question: withLast('All of them float above the rest of the rope') && withLast('All hands')
		},
		{ name: 'an essay', question: essay() }
	],
	[
		{
			name: 'all of the above',
			question: withLast('All of the above'),
			says: 'may be shuffled out of its place',
			words: ['All of the above'],
			mended: (question) =>
				expect(isChoice(question) && question.options.map((one) => one.pinned)).toEqual([false, false, true])
		},
		{
			name: 'none of the above, where nothing is said of shuffling',
			question: { ...withLast('None of the above.'), shuffle: null },
			says: 'Pin it'
		}
	]
);
