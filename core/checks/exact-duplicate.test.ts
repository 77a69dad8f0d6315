import { emptyCommon } from '../model/question';
import { choice, essay } from '../test-support/questions';
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
		{
			name: 'two with other keys',
			questions: [
				choice(),
				choice({ options: choice().options.map((one, at) => ({ ...one, credit: at === 1 ? 1 : 0 })) })
			]
		},
		{ name: 'two with other options', questions: [choice(), choice({ options: choice().options.slice(0, 2) })] },
		{
			name: 'two whose options stand in another order, and are never shuffled',
			questions: [choice({ shuffle: false }), choice({ shuffle: false, options: choice().options.toReversed() })]
		},
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
			name: 'two with another feedback, hint and white space, and options in another order',
			questions: [
				choice({ title: 'Low', stem: '<p>Which  cloud?</p>' }),
				choice({
					title: 'Pressure',
					stem: '<p>Which cloud?\n</p>',
					feedback: { general: 'Look up.' },
					hints: ['High.'],
					options: choice().options.toReversed()
				})
			],
			says: { 0: '“Pressure”', 1: '“Low”' }
		},
		{ name: 'an essay twice', questions: [essay({ title: 'A' }), essay({ title: 'B' })], says: { 0: '“B”', 1: '“A”' } },
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
