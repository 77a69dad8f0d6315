import { expect } from 'vitest';
import { choice, essay } from '../test-support/questions';
import { tryManyCheck } from '../test-support/tester';
import { sameTitle } from './same-title';

const titled = (title: string, stem = title) => choice({ title, stem });
const clouds = { bank: 'Weather', category: ['Clouds'] };
const winds = { bank: 'Weather', category: ['Winds'] };

tryManyCheck(
	sameTitle,
	[
		{ name: 'one of each title', questions: [titled('Neaps'), titled('Springs')] },
		{ name: 'questions without a title', questions: [titled('', 'Which wind?'), titled('', 'Which cloud?')] },
		{ name: 'titles that differ in a number', questions: [titled('Neaps 1'), titled('Neaps 2')] },
		{
			name: 'the same title in two categories',
			questions: [
				{ question: titled('Front'), standing: clouds },
				{ question: titled('Front'), standing: winds }
			]
		},
		{
			name: 'the same title in two banks',
			questions: [
				{ question: titled('Front'), standing: clouds },
				{ question: titled('Front'), standing: { ...clouds, bank: 'Old weather' } }
			]
		},
		{ name: 'a title that is a part of another', questions: [titled('Neap'), titled('Neap tides')] }
	],
	[
		{
			name: 'two of one title',
			questions: [titled('Neaps', 'When?'), titled('Neaps', 'Why?')],
			says: { 0: 'called “Neaps” too', 1: 'called “Neaps” too' },
			mended: (questions) => expect(questions.map(({ title }) => title)).toEqual(['Neaps', 'Neaps (2)'])
		},
		{
			name: 'three of one title among others',
			questions: [titled('Neaps', 'When?'), titled('Tides'), titled('Neaps', 'Why?'), titled('Neaps', 'Where?')],
			says: { 0: '2 other questions', 2: '2 other questions', 3: '2 other questions' },
			mended: (questions) =>
				expect(questions.map(({ title }) => title)).toEqual(['Neaps', 'Tides', 'Neaps (2)', 'Neaps (3)'])
		},
		{
			name: 'two that differ in capitals and blanks alone',
			questions: [titled('Neap tides', 'When?'), titled(' neap  Tides', 'Why?')],
			says: { 0: 'Give each a title of its own', 1: 'Give each a title of its own' }
		},
		{
			name: 'two kinds of one title',
			questions: [titled('Neaps'), { ...essay(), title: 'Neaps' }],
			says: { 0: 'Neaps', 1: 'Neaps' }
		},
		{
			name: 'two in the category and one in another',
			questions: [
				{ question: titled('Front', 'When?'), standing: clouds },
				{ question: titled('Front', 'Why?'), standing: winds },
				{ question: titled('Front', 'Where?'), standing: clouds }
			],
			says: { 0: 'called “Front” too', 2: 'called “Front” too' }
		},
		{
			name: 'two with a number already',
			questions: [titled('Neaps (2)', 'When?'), titled('Neaps (2)', 'Why?')],
			says: { 0: 'Neaps (2)', 1: 'Neaps (2)' }
		}
	]
);
