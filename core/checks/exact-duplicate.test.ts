import { emptyCommon } from '../model/question';
import { choice } from '../test-support/questions';
import { tryManyCheck } from '../test-support/tester';
import { exactDuplicate } from './exact-duplicate';

const unreadable = {
	...emptyCommon('U', 'Plot'),
	kind: 'unreadable' as const,
	reason: 'It is another kind.',
	fragment: '<item/>'
};
const elsewhere = { bank: 'Weather', category: ['Clouds'] };

tryManyCheck(
	exactDuplicate,
	[
		{ name: 'a question of which there is one', questions: [choice()] },
		{ name: 'two that ask other things', questions: [choice(), choice({ stem: 'Which wind backs?' })] },
		{ name: 'two with other keys', questions: [choice(), choice({ options: choice().options.toReversed() })] },
		{ name: 'unreadable ones, of which nobody knows what they say', questions: [unreadable, unreadable] }
	],
	[
		{
			name: 'two that are the same',
			questions: [choice({ title: 'Low' }), choice({ title: 'Low' })],
			says: { 0: 'It says the same as “Low” in Springs', 1: 'It says the same as “Low” in Springs' }
		},
		{
			name: 'two that are the same but for title, points and tags',
			questions: [choice({ title: 'Low' }), choice({ title: 'Pressure', points: 9, tags: ['old'] })],
			says: { 0: '“Pressure”', 1: '“Low”' }
		},
		{
			name: 'one in another bank and category',
			questions: [choice({ title: 'Low' }), { question: choice({ title: 'Low' }), standing: elsewhere }],
			says: { 0: 'in Clouds', 1: 'in Springs' }
		},
		{
			name: 'more than anybody wants to read of',
			questions: Array.from({ length: 9 }, (_, at) => choice({ title: `Low ${at}` })),
			says: Object.fromEntries(Array.from({ length: 9 }, (_, at) => [at, 'and 3 more']))
		}
	]
);
