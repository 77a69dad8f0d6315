import { expect } from 'vitest';
import type { Question } from '../kinds';
import { choiceOf, lasts } from '../test-support/checked';
import { tryCheck } from '../test-support/tester';
import { optionLetters } from './option-letters';

const found = [
	'Both A and C',
	'A and C',
	'A, B and C',
	'Neither A nor B',
	'B & C only',
	'1 and 3 only',
	'Both 1 and 2',
	'Only B',
	'Options A and B',
	'a) und c)',
	'Sowohl A als auch C',
	'Antwort A und B sind richtig',
	'Les réponses A et C',
	'Solo A y B',
	'Nur A und C',
	'Zowel A als B',
	'A e B',
	'both a and b'
];
const left = [
	'Flag A',
	'Vitamin C',
	'Fore',
	'A',
	'I and III only',
	'1 and 3',
	'A and a half knots',
	'Channels 6 and 8',
	'A, then a long pause',
	'Both ends',
	'Only by day'
];

tryCheck(
	optionLetters,
	[
		...lasts(left),
		{ name: 'options that keep their order', question: lasts(['Both A and C'], { shuffle: false })[0]!.question },
		{
			name: 'numbers of a list in the stem',
			question: choiceOf('1. Calm 2. Breeze 3. Gale: which of these are winds?', [
				'1 and 3 only|1',
				'2 and 3 only',
				'1 and 2 only'
			])
		},
		{ name: 'letters beyond the options', question: lasts(['F and G'])[0]!.question }
	],
	lasts(found).map(({ name, question }) => ({
		name,
		question,
		says: 'by their letters or numbers',
		mended: (after: Question) => expect('shuffle' in after && after.shuffle).toBe(false)
	}))
);
