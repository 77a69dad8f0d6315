import { expect } from 'vitest';
import { accepting, choiceOf, creditsOf } from '../test-support/checked';
import { tryCheck } from '../test-support/tester';
import { severalKeys } from './several-keys';

tryCheck(
	severalKeys,
	[
		{ name: 'one key', question: choiceOf('Which?', ['Red|1', 'Green', 'White']) },
		{ name: 'no key', question: choiceOf('Which?', ['Red', 'Green']) },
		{ name: 'a key and half of one', question: choiceOf('Which?', ['Red|1', 'Green|0.5']) },
		{
			name: 'several that may all be chosen',
			question: choiceOf('Which?', ['Red|1', 'Green|1'], { kind: 'multiple-response' })
		},
		{ name: 'thirds', question: choiceOf('Which?', ['Red|0.333', 'Green|0.333', 'White|0.333']) },
		{ name: 'several accepted texts', question: accepting(['port', 'left']) }
	],
	[
		{
			name: 'two',
			question: choiceOf('Which?', ['Red|1', 'Green|1', 'White']),
			says: '2 options earn all',
			words: ['Red', 'Green'],
			mended: null
		},
		{ name: 'all', question: choiceOf('Which?', ['Red|1', 'Green|1']), says: '2 options' },
		{ name: 'three', question: choiceOf('Which?', ['Red|1', 'Green|1', 'White|1', 'Blue']), says: '3 options' },
		{
			name: 'both of true and false',
			question: choiceOf('Port is red.', ['True|1', 'False|1'], { kind: 'true-false' }),
			says: '“True”, “False”'
		},
		{ name: 'with tags around', question: choiceOf('Which?', ['<b>Red</b>|1', 'Green|1']), says: '“Red”' },
		{
			name: 'two where the words ask for several',
			question: choiceOf('Select all that are lit:', ['Red|1', 'Green|1', 'White']),
			says: 'make it a multiple response',
			mended: (question) => {
				expect(question.kind).toBe('multiple-response');
				expect(creditsOf(question)).toEqual([0.5, 0.5, 0]);
			}
		}
	]
);
