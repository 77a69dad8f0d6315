import { expect } from 'vitest';
import { choice, option } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { emptyOrRepeatedOption } from './options';

const texts = (question: object) =>
	'options' in question ? (question.options as { text: string }[]).map((one) => one.text) : [];

tryCheck(
	emptyOrRepeatedOption,
	[
		{ name: 'three options that differ', question: choice() },
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
			question: choice({ options: [option('A', 'Mud', 1), option('B', 'Rock', 0), option('C', '<b>rock</b>', 0)] }),
			says: '“rock” stands there more than once',
			words: ['rock'],
			mended: (question) => expect(texts(question)).toEqual(['Mud', 'Rock'])
		},
		{
			name: 'an option that is right and wrong, which only a person can mend',
			question: choice({ options: [option('A', 'Mud', 1), option('B', 'mud', 0)] }),
			says: '“mud”',
			mended: null
		}
	]
);
