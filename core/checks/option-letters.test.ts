import { expect } from 'vitest';
import { choice, option } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { optionLetters } from './option-letters';

const withLast = (text: string) =>
	choice({
		options: [option('A', 'Strong wind', 0), option('B', 'Calm', 0), option('C', 'Rain', 0), option('D', text, 1)]
	});

tryCheck(
	optionLetters,
	[
		{ name: 'options in words', question: choice() },
		{ name: 'a single letter that is meant', question: withLast('A') },
		{ name: 'options that keep their order', question: { ...withLast('Both A and C'), shuffle: false } }
	],
	['Both A and C', 'A and C', 'A, B and C', 'Neither A nor B', 'B & C only'].map((text) => ({
		name: `“${text}”`,
		question: withLast(text),
		says: 'by their letters',
		words: [text],
		mended: (question) => expect('shuffle' in question && question.shuffle).toBe(false)
	}))
);
