import { expect } from 'vitest';
import type { Question } from '../kinds';
import { plainText } from '../markup/text';
import { choiceOf, stems } from '../test-support/checked';
import { tryCheck } from '../test-support/tester';
import { typedNumbering } from './typed-numbering';

const optionsOf = (question: Question) =>
	'options' in question ? question.options.map(({ text }) => plainText(text)) : [];

tryCheck(
	typedNumbering,
	[
		...stems([
			'1 knot is how many metres an hour?',
			'A vessel at anchor shows what?',
			'2. Offizier an Bord ist wer?',
			'A. Smith wrote the pilot book. When?',
			'3.5 m is the depth. Does she float?',
			'12 hours pass between two high waters, or not?',
			'1.5 is the draught.',
			'I. Newton explained the tides how?',
			'10:30 UTC: which tide is it?'
		]),
		{ name: 'a sentence that begins with a letter', question: choiceOf('Which?', ['A vessel|1', 'A buoy', 'A light']) },
		{ name: 'names with initials', question: choiceOf('Who?', ['A. Smith|1', 'J. Brown', 'K. Jones']) },
		{
			name: 'initials that begin in the order of letters',
			question: choiceOf('Who?', ['A. Smith|1', 'B. Jones', 'R. Miller'])
		},
		{ name: 'numbers that are the options', question: choiceOf('How many?', ['1.5 m|1', '2.5 m', '3.5 m']) },
		{ name: 'one Roman numeral among others', question: choiceOf('Which?', ['I. Newton|1', 'Kepler', 'Galilei']) }
	],
	[
		...[
			['12. What is a spring tide?', '12.', 'What is a spring tide?'],
			['3) Which light is red?', '3)', 'Which light is red?'],
			['(4) Which light is red?', '(4)', 'Which light is red?'],
			['a) Which light is red?', 'a)', 'Which light is red?'],
			['Q.7. Which light is red?', 'Q.7.', 'Which light is red?'],
			['3. Welche Tonne ist rot?', '3.', 'Welche Tonne ist rot?'],
			['7.Which light is red?', '7.', 'Which light is red?'],
			['7 - Which light is red?', '7 -', 'Which light is red?'],
			['#7 Which light is red?', '#7', 'Which light is red?'],
			['1.1. Which light is red?', '1.1.', 'Which light is red?'],
			['12.) Welche Tonne ist rot?', '12.)', 'Welche Tonne ist rot?'],
			['IV. Which light is red?', 'IV.', 'Which light is red?']
		].map(([stem, words, left]) => ({
			name: `“${words!}”`,
			question: choiceOf(stem!, ['Port|1', 'Starboard']),
			says: `number “${words!}”`,
			words: [words!],
			mended: (question: Question) => expect(plainText(question.stem)).toBe(left)
		})),
		...[
			['a) Red|1', 'b) Green', 'c) White'],
			['A. Red|1', 'B. Green', 'C. White'],
			['1. Red|1', '2. Green', '3. White'],
			['(a) Red|1', '(b) Green', '(c) White'],
			['i. Red|1', 'ii. Green', 'iii. White'],
			['I) Red|1', 'II) Green', 'III) White'],
			['A: Red|1', 'B: Green', 'C: White'],
			['[A] Red|1', '[B] Green', '[C] White'],
			['1- Red|1', '2- Green', '3- White'],
			['A.Red|1', 'B.Green', 'C.White'],
			['a)Red|1', 'b)Green', 'c)White'],
			['<p><b>A)</b> Red</p>|1', '<p><b>B)</b> Green</p>', '<p><b>C)</b> White</p>']
		].map((options) => ({
			name: options.join(', '),
			question: choiceOf('Which?', options),
			says: 'begin with a letter or number of their own',
			...(options[0]!.startsWith('<')
				? {}
				: { mended: (question: Question) => expect(optionsOf(question)).toEqual(['Red', 'Green', 'White']) })
		}))
	]
);
