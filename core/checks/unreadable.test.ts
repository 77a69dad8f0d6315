import { emptyCommon } from '../model/question';
import type { Question } from '../kinds';
import { choice, essay } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { unreadable } from './unreadable';

const common = emptyCommon('d13', 'Broken file');
const held = (fragment: string, more: object = {}): Question => ({
	...common,
	kind: 'unreadable',
	reason: 'Its markup is not well-formed, in line 3: “p” is not closed.',
	fragment,
	...more
});

tryCheck(
	unreadable,
	[
		{ name: 'a question that was read', question: choice() },
		{ name: 'an essay that was read', question: essay() },
		{ name: 'a question about what cannot be read', question: choice({ stem: 'Which chart cannot be read?' }) },
		{ name: 'a question without options', question: choice({ options: [] }) },
		{ name: 'a question without a stem', question: choice({ stem: '' }) },
		{ name: 'a question with signs of markup as words', question: choice({ stem: 'What is &lt;item&gt;?' }) }
	],
	[
		{
			name: 'a question of a kind that is not known, which no mend can read',
			question: held('<item/>', { reason: 'It is drawn on a map, and there is no such kind here.' }),
			says: 'drawn on a map'
		},
		{
			name: 'a question whose markup is broken beyond putting right',
			question: held('nothing of markup', { faultLine: 3 }),
			says: 'in line 3',
			mended: null
		},
		{
			name: 'a question that is kept without its source',
			question: held('', { reason: 'Its kind is not known here.' }),
			says: 'kind is not known',
			mended: null
		},
		{
			name: 'a question that is too long',
			question: held('<item>', { reason: 'Its source is too long: it is 9 MB long.' }),
			says: 'too long'
		},
		{
			name: 'a question of our own form that lacks something',
			question: held('{"kind": "essay"}', { reason: 'Question 1 is not of the form: “stem” is missing.' }),
			says: '“stem” is missing'
		},
		{
			name: 'a row that is damaged',
			question: held('"a;b', { reason: 'A quote opens on line 3 and is not closed.' }),
			says: 'on line 3'
		}
	]
);
