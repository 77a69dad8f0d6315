import { markupOfText } from '../markup/clean';
import { emptyCommon, type QuestionCommon } from '../model/question';
import type { Option } from '../model/pieces';
import type { Question } from '../kinds';

const common = (identifier: string, title: string, stem: string, category: string): QuestionCommon => ({
	...emptyCommon(identifier, title),
	stem: markupOfText(stem),
	points: 1,
	category: [category]
});
const options = (...given: [string, number][]): Option[] =>
	given.map(([text, credit], at) => ({ identifier: 'ABCDEF'[at]!, text: markupOfText(text), credit, pinned: false }));
const choice = { shuffle: true, combination: 'sum', bounds: { lower: null, upper: null }, lostKeys: [] } as const;

/** One question of each kind that people write in text and in tables: what templates are made of. */
export const exampleQuestions: Question[] = [
	{
		...common('E1', 'One right answer', 'Which knot makes a loop that does not slip?', 'Knots'),
		...choice,
		lostKeys: [],
		kind: 'multiple-choice',
		options: options(['Bowline', 1], ['Reef knot', 0], ['Sheet bend', 0]),
		feedback: { general: markupOfText('The bowline holds its size under load.') }
	},
	{
		...common('E2', 'Several right answers', 'Which of these are bends, which join two ropes?', 'Knots'),
		...choice,
		lostKeys: [],
		kind: 'multiple-response',
		options: options(['Sheet bend', 0.5], ['Carrick bend', 0.5], ['Clove hitch', 0], ['Bowline', 0])
	},
	{
		...common('E3', 'True or false', 'A vessel under sail shows her sidelights at night.', 'Lights'),
		...choice,
		lostKeys: [],
		shuffle: false,
		kind: 'true-false',
		options: options(['True', 1], ['False', 0])
	},
	{
		...common('E4', 'A word', 'What is a line of equal pressure on a weather map called?', 'Weather'),
		kind: 'short-answer',
		accepted: [
			{ text: 'isobar', credit: 1, caseSensitive: false },
			{ text: 'an isobar', credit: 1, caseSensitive: false }
		]
	},
	{
		...common('E5', 'A number', 'How many metres are there in a nautical mile?', 'Charts'),
		kind: 'numeric',
		whole: false,
		accepted: [{ value: 1852, tolerance: 2, credit: 1 }]
	},
	{
		...common('E6', 'Pairs', 'Match each side of a vessel to the colour of its light.', 'Lights'),
		kind: 'matching',
		left: [
			{ identifier: 'L1', text: 'port', uses: null },
			{ identifier: 'L2', text: 'starboard', uses: null }
		],
		right: [
			{ identifier: 'R1', text: 'red', uses: null },
			{ identifier: 'R2', text: 'green', uses: null }
		],
		pairs: [
			{ left: 'L1', right: 'R1', credit: 0.5 },
			{ left: 'L2', right: 'R2', credit: 0.5 }
		],
		combination: 'sum',
		bounds: { lower: null, upper: null },
		shuffle: true
	},
	{
		...common('E7', 'An order', 'Put the scale of wind in order, the weakest first.', 'Weather'),
		kind: 'ordering',
		items: [
			{ identifier: 'O1', text: 'light breeze' },
			{ identifier: 'O2', text: 'fresh breeze' },
			{ identifier: 'O3', text: 'gale' }
		],
		presented: ['O1', 'O2', 'O3'],
		rule: 'all',
		shuffle: true
	},
	{
		...common('E8', 'An essay', 'Explain how you would anchor in a tidal stream.', 'Seamanship'),
		kind: 'essay'
	}
];
