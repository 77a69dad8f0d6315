import { expect } from 'vitest';
import { choiceOf } from '../test-support/checked';
import { choice, essay, option } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { emptyOrRepeatedOption } from './options';

const texts = (question: object) =>
	'options' in question ? (question.options as { text: string }[]).map((one) => one.text) : [];

tryCheck(
	emptyOrRepeatedOption,
	[
		{ name: 'three options that differ', question: choice() },
		{
			name: 'options that differ in a capital alone, which is another trouble',
			question: choiceOf('Which?', ['Mud|1', 'mud'])
		},
		{ name: 'numbers that begin alike', question: choiceOf('Which?', ['1|1', '10', '100']) },
		{ name: 'a formula alone', question: choiceOf('Which?', ['<math><mi>a</mi></math>|1', '<math><mi>b</mi></math>']) },
		{ name: 'an essay', question: essay() },
		{
			name: 'pictures that differ',
			question: choice({
				options: [option('A', '<img src="media:a.svg" alt=""/>', 1), option('B', '<img src="media:b.svg" alt=""/>', 0)]
			})
		}
	],
	[
		{
			name: 'an empty option that earns nothing',
			question: choice({ options: [option('A', 'Mud', 1), option('B', '', 0), option('C', 'Sand', 0)] }),
			says: 'One option is empty',
			mended: (question) => expect(texts(question)).toEqual(['Mud', 'Sand'])
		},
		{
			name: 'an empty option that is the key, which only a person can mend',
			question: choice({ options: [option('A', '<p> </p>', 1), option('B', 'Sand', 0)] }),
			says: 'One option is empty',
			mended: null
		},
		{
			name: 'a wrong option twice',
			question: choice({ options: [option('A', 'Mud', 1), option('B', 'Rock', 0), option('C', '<b>Rock</b>', 0)] }),
			says: '“Rock” stands there more than once',
			words: ['Rock'],
			mended: (question) => expect(texts(question)).toEqual(['Mud', 'Rock'])
		},
		{ name: 'two empty ones', question: choiceOf('Which?', ['Mud|1', '', '<p> </p>']), says: '2 options are empty' },
		{
			name: 'an empty one beside a repeated one',
			question: choiceOf('Which?', ['Mud|1', '', 'Sand', 'Sand']),
			says: 'One option is empty. Write it, or take it out. “Sand”',
			mended: (question) => expect(texts(question)).toEqual(['Mud', 'Sand'])
		},
		{
			name: 'an option that is right and wrong, which only a person can mend',
			question: choice({ options: [option('A', 'Mud', 1), option('B', ' Mud ', 0)] }),
			says: '“Mud”',
			mended: null
		}
	]
);
