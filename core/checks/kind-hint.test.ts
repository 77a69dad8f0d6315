import { expect } from 'vitest';
import type { Question } from '../kinds';
import { accepting, choiceOf, creditsOf, stems } from '../test-support/checked';
import { tryCheck } from '../test-support/tester';
import { kindHint } from './kind-hint';

const asks = (stem: string, more: object = {}) => choiceOf(stem, ['Red|0.5', 'Green|0.5', 'White'], more);
const several = (stem: string, keys: readonly string[] = ['Red|1', 'Green', 'White']) => ({
	name: stem,
	question: choiceOf(stem, keys, { kind: 'multiple-response' })
});

tryCheck(
	kindHint,
	[
		...stems([
			'Which light is red?',
			'Which two-masted vessel is a ketch?',
			'Buoys mark all dangers near the channel. What marks its side?',
			'Before you leave you check all lines. What comes first?',
			'How many of all vessels show one light?',
			'Which of these would you choose?',
			'Welche Tonne markiert alle Gefahren?'
		]),
		...[
			'Select all that apply.',
			'Choose two of these.',
			'Choose one or more of them.',
			'Wählen Sie alle zutreffenden Antworten.'
		].map((stem) => several(stem, ['Red|0.5', 'Green|0.5', 'White'])),
		{
			name: 'two things of which each option names both',
			question: choiceOf('Which two colours does a safe water mark show?', [
				'Red and white|1',
				'Red and green',
				'Black and yellow'
			])
		},
		{ name: 'a short answer', question: accepting(['Select all']) }
	],
	[
		...[
			['Select all that apply.', 'Select all'],
			['Which of these float? Choose two.', 'Choose two'],
			['Mark every true statement.', 'Mark every'],
			['Which two colours does a safe water mark show?', 'Which two'],
			['There may be more than one answer. Which light is red?', 'There may be more than one answer'],
			['Kreuzen Sie alle richtigen Antworten an.', 'Kreuzen Sie alle'],
			['Cochez toutes les bonnes réponses.', 'Cochez toutes'],
			['Marque todas las correctas.', 'Marque todas'],
			['Assinale todas as corretas.', 'Assinale todas'],
			['Seleziona due risposte.', 'Seleziona due'],
			['Kies alle juiste antwoorden.', 'Kies alle']
		].map(([stem, words]) => ({
			name: `“${stem!}”`,
			question: asks(stem!),
			says: `“${words!}”, and one option may be chosen`,
			words: [words!],
			mended: (question: Question) => {
				expect(question.kind).toBe('multiple-response');
				expect(creditsOf(question)).toEqual([0.5, 0.5, 0]);
			}
		})),
		{
			name: 'one key where several are asked for',
			question: choiceOf('Choose two:', ['Red|1', 'Green', 'White']),
			says: 'Make it a multiple response',
			mended: (question) => expect(creditsOf(question)).toEqual([1, 0, 0])
		},
		...[
			'Select one: which is red?',
			'Which is red? (choose the best answer)',
			'Kreuze eine Antwort an.',
			'Only one answer is right. Which is red?'
		].map((stem) => ({
			...several(stem),
			says: 'several options may be chosen',
			mended: (question: Question) => expect(question.kind).toBe('multiple-choice')
		})),
		{
			...several('Choose one.', ['Red|0.5', 'Green|0.5', 'White']),
			name: 'several keys where one is asked for, which only a person can mend',
			says: 'several options may be chosen',
			mended: null
		}
	]
);
