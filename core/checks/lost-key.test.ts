import { choice, essay } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { lostKey } from './lost-key';

tryCheck(
	lostKey,
	[
		{ name: 'a choice with its key', question: choice() },
		{ name: 'an essay', question: essay() }
	],
	[
		{
			name: 'a key that names no option',
			question: choice({ lostKeys: ['E'] }),
			says: 'The key reads “E”, and that is not one option'
		},
		{ name: 'several of them', question: choice({ lostKeys: ['E', 'F'] }), says: 'those are not options' }
	]
);
