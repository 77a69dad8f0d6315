import { choice, option } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { severalKeys } from './several-keys';

const two = [
	option('A', 'Air pressure', 1),
	option('B', 'The pressure of the <em>air</em>', 1),
	option('C', 'Wind', 0)
];

tryCheck(
	severalKeys,
	[
		{ name: 'one key', question: choice() },
		{
			name: 'a second option with half the credit',
			question: choice({ options: [option('A', 'Over', 1), option('B', 'Out', 0.5)] })
		},
		{ name: 'a multiple response', question: choice({ kind: 'multiple-response', options: two }) }
	],
	[
		{
			name: 'two options that earn everything',
			question: choice({ options: two }),
			says: '2 options earn all the points',
			words: ['Air pressure', 'The pressure of the air']
		},
		{
			name: 'a true or false that is both',
			question: choice({ kind: 'true-false', options: [option('T', 'True', 1), option('F', 'False', 1)] }),
			says: '“True”, “False”'
		}
	]
);
