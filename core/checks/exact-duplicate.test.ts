import { emptyCommon } from '../model/question';
import { choice } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { exactDuplicate } from './exact-duplicate';

tryCheck(exactDuplicate, [{ name: 'a question of which there is one', question: choice() }], []);
tryCheck(
	exactDuplicate,
	[
		{
			name: 'unreadable questions, of which nobody knows what they say',
			question: { ...emptyCommon('U', 'Plot'), kind: 'unreadable', reason: 'It is another kind.', fragment: '<item/>' }
		}
	],
	[
		{ name: 'one that is there already', question: choice(), says: 'It says the same as “Low pressure” in this course' }
	],
	{ duplicateOf: () => '“Low pressure” in this course' }
);
