import { choice, essay, numeric, option, short } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { noKey } from './no-key';

tryCheck(
	noKey,
	[
		{ name: 'a choice with a key', question: choice() },
		{ name: 'a choice with a part of the credit', question: choice({ options: [option('A', 'Nimbus', 0.5)] }) },
		{ name: 'an essay, which has none', question: essay() },
		{ name: 'a word that is accepted', question: short([{ text: 'isobar', credit: 1, caseSensitive: false }]) }
	],
	[
		{
			name: 'a choice without a right option',
			question: choice({ options: [option('A', 'Nimbus', 0), option('B', 'Stratus', -0.5)] }),
			says: 'No option is marked as right'
		},
		{ name: 'a choice without options', question: choice({ options: [] }), says: 'No option is marked as right' },
		{ name: 'a short answer that accepts nothing', question: short([]), says: 'No answer is accepted' },
		{
			name: 'a number that earns nothing',
			question: numeric([{ value: 16, tolerance: 0, credit: 0 }]),
			says: 'No answer is accepted'
		}
	]
);
