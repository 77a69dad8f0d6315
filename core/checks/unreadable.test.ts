import { emptyCommon } from '../model/question';
import type { Question } from '../kinds';
import { choice } from '../test-support/questions';
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
	[{ name: 'a question that was read', question: choice() }],
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
		}
	]
);
