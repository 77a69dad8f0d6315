import { expect } from 'vitest';
import type { Question } from '../kinds';
import { plainText } from '../markup/text';
import { choiceOf, stems } from '../test-support/checked';
import { tryCheck } from '../test-support/tester';
import { boilerplate } from './boilerplate';

const found: [stem: string, words: string, left: string][] = [
	['Select one: Which buoy is red?', 'Select one:', 'Which buoy is red?'],
	['Which buoy is red? Select one:', 'Select one:', 'Which buoy is red?'],
	['Which buoy is red? (choose the best answer)', '(choose the best answer)', 'Which buoy is red?'],
	['Question 3: Which buoy is red?', 'Question 3:', 'Which buoy is red?'],
	['Here is your question: Which buoy is red?', 'Here is your question:', 'Which buoy is red?'],
	['Which buoy is red? *', '*', 'Which buoy is red?'],
	['Which buoy is red? (required)', '(required)', 'Which buoy is red?'],
	['Which buoy is red? Choose the correct answer.', 'Choose the correct answer.', 'Which buoy is red?'],
	['Frage 7: Welche Tonne ist rot?', 'Frage 7:', 'Welche Tonne ist rot?'],
	['Welche Tonne ist rot? (Kreuzen Sie eine Antwort an)', '(Kreuzen Sie eine Antwort an)', 'Welche Tonne ist rot?'],
	[
		'Quelle bouée est rouge ? (choisissez la bonne réponse)',
		'(choisissez la bonne réponse)',
		'Quelle bouée est rouge ?'
	],
	['¿Qué boya es roja? Seleccione una:', 'Seleccione una:', '¿Qué boya es roja?'],
	['Qual boia é vermelha? (Escolha uma alternativa)', '(Escolha uma alternativa)', 'Qual boia é vermelha?'],
	['Quale boa è rossa? Scegli la risposta corretta.', 'Scegli la risposta corretta.', 'Quale boa è rossa?'],
	['Welke ton is rood? Kies het juiste antwoord.', 'Kies het juiste antwoord.', 'Welke ton is rood?']
];
const stemOf = (question: Question) => plainText(question.stem);

tryCheck(
	boilerplate,
	[
		...stems([
			'How do you choose one of two berths in a swell?',
			'Which buoys mark all channels of the harbour?',
			'Select the buoy that marks a channel.',
			'Choose the right knot for a mooring post.',
			'Which is the right answer to a hail?',
			'Questions are asked of the harbour master by radio. On which channel?',
			'What is 3 * 4?',
			'See the note * below. * At low water.',
			'Select one:'
		]),
		{
			name: 'words that ask for another kind, of which its own check speaks',
			question: choiceOf('Which float? (Select all that apply)', ['Cork|1', 'Lead'])
		},
		{ name: 'a title of words', question: choiceOf('Which?', ['A|1', 'B'], { title: 'Question marks on charts' }) }
	],
	[
		...found.map(([stem, words, left]) => ({
			name: `“${words}”`,
			question: choiceOf(stem, ['Port|1', 'Starboard']),
			says: words,
			words: [words],
			mended: (question: Question) => expect(stemOf(question)).toBe(left)
		})),
		{
			name: 'an instruction in brackets, in a paragraph',
			question: choiceOf('<p>Which knots hold? (Choose all that apply)</p><p>Think twice.</p>', ['Bowline|1', 'Slip'], {
				kind: 'multiple-response'
			}),
			says: '(Choose all that apply)',
			mended: (question) => expect(question.stem).toBe('<p>Which knots hold?</p><p>Think twice.</p>')
		},
		{
			name: 'words with tags among them',
			question: choiceOf('<p>Which is red? <em>Select <b>one</b>:</em></p>', ['Port|1', 'Starboard']),
			says: 'Select one:',
			mended: (question) => expect(stemOf(question)).toBe('Which is red?')
		},
		{
			name: 'a number in the title',
			question: choiceOf('Which is red?', ['Port|1', 'Starboard'], { title: 'Question 12: Port' }),
			says: '“Question 12:” in the title',
			mended: (question) => expect(question.title).toBe('Port')
		},
		{
			name: 'two at once',
			question: choiceOf('Question 2: Which is red? Select one:', ['Port|1', 'Starboard']),
			says: '“Question 2:”, “Select one:”',
			mended: (question) => expect(stemOf(question)).toBe('Which is red?')
		}
	]
);
