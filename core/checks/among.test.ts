import { expect } from 'vitest';
import { choiceOf } from '../test-support/checked';
import { choice, essay, numeric, short } from '../test-support/questions';
import { tryManyCheck, tryTreeCheck } from '../test-support/tester';
import { categoryEmpty } from './category-empty';
import { keyLongest } from './key-longest';
import { keyPlace } from './key-place';
import { nearDuplicate } from './near-duplicate';
import { otherLanguage } from './other-language';
import { pointsFar } from './points-far';
import { sameStemOtherKey } from './same-stem-other-key';
import { tagsCase } from './tags-case';

/** So many choices whose key stands in a place, from 0, or in all of them in turn. */
const keyed = (count: number, place: number | null, more: object = {}) =>
	Array.from({ length: count }, (_, at) => {
		const key = place ?? at % 4;
		return choiceOf(
			`Question ${at}?`,
			['Red', 'Green', 'White', 'Blue'].map((text, of) => (of === key ? `${text}|1` : text)),
			{ shuffle: false, ...more }
		);
	});
const found = (count: number, says: string) => Object.fromEntries(Array.from({ length: count }, (_, at) => [at, says]));

tryManyCheck(
	keyPlace,
	[
		{ name: 'keys all over', questions: keyed(12, null) },
		{ name: 'seven alone', questions: keyed(7, 0) },
		{ name: 'shuffled ones', questions: keyed(12, 0, { shuffle: true }) },
		{ name: 'seven of ten', questions: [...keyed(7, 0), ...keyed(3, 2)] },
		{
			name: 'choices of two',
			questions: Array.from({ length: 9 }, (_, at) => choiceOf(`Q${at}?`, ['Yes|1', 'No'], { shuffle: false }))
		},
		{
			name: 'two categories',
			questions: keyed(12, 0).map((question, at) => ({
				question,
				standing: { bank: 'a', category: [at % 2 ? 'x' : 'y'] }
			}))
		}
	],
	[
		{
			name: 'eight of eight',
			questions: keyed(8, 0),
			says: found(8, 'In 8 of 8 choices'),
			mended: (questions) => expect(questions.every((one) => 'shuffle' in one && one.shuffle === true)).toBe(true)
		},
		{ name: 'eight of ten', questions: [...keyed(8, 2), ...keyed(2, 0)], says: found(8, 'the key is option 3') },
		{
			name: 'where nothing is said of shuffling',
			questions: keyed(9, 1, { shuffle: null }),
			says: found(9, 'option 2')
		},
		{
			name: 'beside shuffled ones',
			questions: [...keyed(8, 3), ...keyed(5, null, { shuffle: true })],
			says: found(8, 'option 4')
		},
		{ name: 'beside essays', questions: [...keyed(8, 3), essay()], says: found(8, 'option 4') },
		{ name: 'many', questions: keyed(40, 0), says: found(40, 'In 40 of 40') }
	]
);

const long = 'the red light that every vessel carries on her port side by night';
const longest = (count: number, right: string, wrong = 'a light') =>
	Array.from({ length: count }, (_, at) => choiceOf(`Q${at}?`, [`${right}|1`, wrong, `${wrong} x`]));
tryManyCheck(
	keyLongest,
	[
		{ name: 'keys of one length', questions: longest(10, 'a torch') },
		{ name: 'seven alone', questions: longest(7, long) },
		{ name: 'a little longer', questions: longest(10, 'a lamp of red', 'a light of it') },
		{ name: 'half of them', questions: [...longest(6, long), ...longest(6, 'red')] },
		{ name: 'shorter keys', questions: longest(10, 'red', long) },
		{
			name: 'several keys',
			questions: Array.from({ length: 9 }, () =>
				choiceOf('Q?', [`${long}|0.5`, 'a|0.5', 'b'], { kind: 'multiple-response' })
			)
		}
	],
	[
		{
			name: 'eight of eight',
			questions: longest(8, long),
			says: found(8, 'In 8 of 8 choices of this category the key is the longest')
		},
		{ name: 'eight of ten', questions: [...longest(8, long), ...longest(2, 'red')], says: found(8, 'In 8 of 10') },
		{ name: 'a fifth longer', questions: longest(8, 'twelve signs', '10 signs'), says: found(8, '8 of 8') },
		{
			name: 'shuffled ones',
			questions: longest(9, long).map((one) => ({ ...one, shuffle: true })),
			says: found(9, '9 of 9')
		},
		{ name: 'tags do not count', questions: longest(8, `<b>${long}</b>`), says: found(8, '8 of 8') },
		{ name: 'many', questions: longest(30, long), says: found(30, '30 of 30') }
	]
);

const worth = (...points: (number | null)[]) =>
	points.map((one, at) => choice({ title: `P${at}`, stem: `Which ${at}?`, points: one }));
tryManyCheck(
	pointsFar,
	[
		{ name: 'one point each', questions: worth(1, 1, 1, 1, 1, 1) },
		{ name: 'three times as much', questions: worth(1, 1, 1, 1, 1, 3) },
		{ name: 'five questions', questions: worth(1, 1, 1, 1, 10) },
		{ name: 'an essay', questions: [...worth(1, 1, 1, 1, 1, 1), essay({ points: 20 })] },
		{ name: 'none said', questions: worth(1, 1, 1, 1, 1, null, null) },
		{ name: 'nothing, of which its quiz speaks', questions: worth(1, 1, 1, 1, 1, 1, 0) }
	],
	[
		{
			name: 'ten instead of one',
			questions: worth(1, 1, 1, 1, 1, 10),
			says: { 5: 'worth 10 points, and the middle of its category is 1' }
		},
		{ name: 'a quarter', questions: worth(4, 4, 4, 4, 4, 1), says: { 5: 'worth 1 point' } },
		{ name: 'four times', questions: worth(1, 1, 1, 4, 1, 1), says: { 3: 'worth 4' } },
		{ name: 'two of them', questions: worth(2, 2, 2, 2, 2, 20, 0.2), says: { 5: '20', 6: '0.2' } },
		{ name: 'between two in the middle', questions: worth(1, 1, 1, 2, 2, 2, 9), says: { 6: 'is 2' } },
		{ name: 'a numeric one', questions: [...worth(1, 1, 1, 1, 1), numeric([], { points: 5 })], says: { 5: 'worth 5' } }
	]
);

const english = [
	'Which light does a vessel at anchor show by night?',
	'What is the colour of the buoy on the port side of the channel?',
	'How do you tie a knot that makes a loop at the end of a rope?',
	'When is the tide at its highest after the new moon?',
	'Which of these signals means that the vessel is in distress?',
	'What should you do before you leave the harbour in fog?',
	'Where is the anchor kept when the vessel is under way?',
	'Who has to give way when two vessels meet head on?',
	'What does the barometer tell you about the weather that is coming?',
	'Why is the depth on the chart less than the depth that you measure?'
];
const asked = (stem: string) => ({ ...short([], { stem, title: stem }) });
const beside = (stem: string) => [...english, stem].map(asked);
tryManyCheck(
	otherLanguage,
	[
		{ name: 'one language', questions: english.map(asked) },
		{ name: 'a short one', questions: beside('Welche Farbe?') },
		{
			name: 'names',
			questions: beside(
				'Vlissingen, Rotterdam, Den Helder, Harlingen, Delfzijl, Terneuzen, Breskens, Zierikzee, Yerseke'
			)
		},
		{
			name: 'code',
			questions: beside('<code>wenn das Licht rot ist dann ist es die Backbordseite von dem Schiff</code>')
		},
		{
			name: 'half of a bank',
			questions: [
				...english,
				...english.map(() => 'Welche Farbe hat die Tonne an der Backbordseite des Fahrwassers?')
			].map(asked)
		},
		{ name: 'numbers', questions: beside('12 24 36 48 60 72 84 96 108 120') },
		{
			name: 'too few questions',
			questions: [english[0]!, english[1]!, 'Welche Farbe hat die Tonne an der Backbordseite des Fahrwassers?'].map(
				asked
			)
		}
	],
	[
		['Welche Farbe hat die Tonne an der Backbordseite des Fahrwassers?', 'German'],
		['Quelle est la couleur de la bouée qui se trouve à bâbord du chenal ?', 'French'],
		['¿De qué color es la boya que está a babor en el canal del puerto?', 'Spanish'],
		['Qual é a cor da boia que fica a bombordo no canal do porto?', 'Portuguese'],
		['Di che colore è la boa che si trova a sinistra nel canale del porto?', 'Italian'],
		['Welke kleur heeft de ton die aan bakboord van het vaarwater ligt?', 'Dutch']
	].map(([stem, language]) => ({
		name: language!,
		questions: beside(stem!),
		says: { 10: `written in ${language!}, and 10 of 11` }
	}))
);

const tagged = (...tags: string[][]) =>
	tags.map((some, at) => choice({ title: `T${at}`, stem: `Which ${at}?`, tags: some }));
tryManyCheck(
	tagsCase,
	[
		{ name: 'one form', questions: tagged(['tide'], ['tide'], ['tide']) },
		{ name: 'tags that differ', questions: tagged(['tide'], ['tides'], ['time']) },
		{ name: 'none', questions: tagged([], []) },
		{ name: 'an accent', questions: tagged(['cote'], ['côte']) },
		{
			name: 'two banks',
			questions: tagged(['Tide'], ['tide']).map((question, at) => ({
				question,
				standing: { bank: `b${at}`, category: [] }
			}))
		},
		{ name: 'a figure', questions: tagged(['week 1'], ['week 2']) }
	],
	[
		{
			name: 'a capital',
			questions: tagged(['tide'], ['tide'], ['Tide']),
			says: { 2: 'The tag “Tide” is mostly written “tide”' },
			mended: (questions) => expect(questions[2]!.tags).toEqual(['tide'])
		},
		{ name: 'a hyphen', questions: tagged(['low-water'], ['low water'], ['low water']), says: { 0: '“low water”' } },
		{ name: 'a blank', questions: tagged(['lowwater'], ['low water'], ['low water']), says: { 0: '“lowwater”' } },
		{
			name: 'three forms',
			questions: tagged(['Tide'], ['tide'], ['tide'], ['TIDE']),
			says: { 0: '“Tide”', 3: '“TIDE”' }
		},
		{
			name: 'as often, the first by letters',
			questions: tagged(['tide'], ['Tide']),
			says: { 0: 'mostly written “Tide”' }
		},
		{
			name: 'two tags of one question',
			questions: tagged(['tide', 'buoy'], ['tide', 'buoy'], ['Tide', 'Buoy']),
			says: { 2: '“Buoy”' },
			mended: (questions) => expect(questions[2]!.tags).toEqual(['tide', 'buoy'])
		}
	]
);

const anchor =
	'Which light does a sailing vessel of fifty metres show by night when she lies at anchor in the harbour near the northern breakwater and the fog signal is switched on?';
const offers = ['A white light all round|1', 'A red light all round', 'A green light to starboard'];
tryManyCheck(
	nearDuplicate,
	[
		{
			name: 'other questions',
			questions: [choiceOf(anchor, offers), choiceOf('What is a spring tide?', ['High|1', 'Low'])]
		},
		{
			name: 'the same frame with another key word',
			questions: [
				choiceOf('What colour is the port light?', ['Red|1', 'Green', 'White']),
				choiceOf('What colour is the starboard light?', ['Red', 'Green|1', 'White'])
			]
		},
		{
			name: 'a long frame with another key word, of which the key is another of the same options',
			questions: [
				choiceOf('What colour is the port side light of a power driven vessel?', ['Red|1', 'Green', 'White']),
				choiceOf('What colour is the starboard side light of a power driven vessel?', ['Red', 'Green|1', 'White'])
			]
		},
		{
			name: 'a long frame with another thing and another key',
			questions: [
				choiceOf(anchor, offers),
				choiceOf(anchor.replace('harbour', 'estuary').replace('night', 'day'), [
					'A white light all round',
					'A red light all round|1',
					'A green light to starboard'
				])
			]
		},
		{ name: 'the same, which is an exact duplicate', questions: [choiceOf(anchor, offers), choiceOf(anchor, offers)] },
		{
			name: 'the same with another key, which is another trouble',
			questions: [
				choiceOf(anchor, offers),
				choiceOf(anchor, ['A white light all round', 'A red light all round|1', 'A green light to starboard'])
			]
		},
		{
			name: 'the small words alone',
			questions: [
				choiceOf('What is the and of a in to?', ['Red|1', 'Blue']),
				choiceOf('What is the and of a in to?', ['Oak|1', 'Elm'])
			]
		},
		{
			name: 'two banks',
			questions: [choiceOf(anchor, offers), choiceOf(anchor.replace('northern', 'southern'), offers)].map(
				(question, at) => ({ question, standing: { bank: `b${at}`, category: [] } })
			)
		}
	],
	[
		{
			name: 'a word more',
			questions: [choiceOf(anchor, offers), choiceOf(anchor.replace('fog signal', 'old fog signal'), offers)],
			says: { 0: 'nearly the same as', 1: 'nearly the same as' }
		},
		{
			name: 'another word',
			questions: [choiceOf(anchor, offers), choiceOf(anchor.replace('northern', 'southern'), offers)],
			says: { 0: 'Keep one', 1: 'Keep one' }
		},
		{
			name: 'two other words and the same key',
			questions: [
				choiceOf(anchor, offers),
				choiceOf(anchor.replace('northern', 'southern').replace('fog', 'mist'), offers)
			],
			says: { 0: 'nearly', 1: 'nearly' }
		},
		{
			name: 'another small word',
			questions: [choiceOf(anchor, offers), choiceOf(anchor.replace('in the harbour', 'at a harbour'), offers)],
			says: { 0: 'nearly', 1: 'nearly' }
		},
		{
			name: 'another kind',
			questions: [choiceOf(anchor, offers), choiceOf(anchor, offers, { kind: 'multiple-response' })],
			says: { 0: 'nearly', 1: 'nearly' }
		},
		{
			name: 'three of them among others',
			questions: [
				choiceOf(anchor, offers),
				essay(),
				choiceOf(anchor.replace('fog', 'mist'), offers),
				choiceOf(anchor.replace('northern', 'southern'), offers)
			],
			says: { 0: 'nearly', 2: 'nearly', 3: 'nearly' }
		}
	]
);

const lights = (key: number, options = ['Red', 'Green', 'White'], stem = 'What is the port light?') =>
	choiceOf(
		stem,
		options.map((text, at) => (at === key ? `${text}|1` : text)),
		{ title: `L${key}` }
	);
tryManyCheck(
	sameStemOtherKey,
	[
		{ name: 'the same with the same key', questions: [lights(0), lights(0)] },
		{ name: 'other options', questions: [lights(0), lights(1, ['Red', 'Green', 'Blue'])] },
		{
			name: 'another stem',
			questions: [lights(0), lights(1, ['Red', 'Green', 'White'], 'What is the starboard light?')]
		},
		{ name: 'options in another order and the same key', questions: [lights(0), lights(2, ['Green', 'White', 'Red'])] },
		{ name: 'one without a key, which is another trouble', questions: [lights(0), lights(-1)] },
		{
			name: 'another picture',
			questions: [
				lights(0, undefined, 'Which? <img src="media:a.png" alt=""/>'),
				lights(1, undefined, 'Which? <img src="media:b.png" alt=""/>')
			]
		}
	],
	[
		{
			name: 'another key',
			questions: [lights(0), lights(1)],
			says: { 0: '“L1” in Springs asks the same', 1: '“L0” in Springs' }
		},
		{
			name: 'in another order',
			questions: [lights(0), lights(0, ['Green', 'White', 'Red'])],
			says: { 0: 'another answer', 1: 'another answer' }
		},
		{
			name: 'two against one',
			questions: [lights(0), lights(0), lights(2)],
			says: { 0: '“L2”', 1: '“L2”', 2: 'ask the same' }
		},
		{
			name: 'capitals and blanks apart',
			questions: [lights(0), lights(1, ['red', 'green', 'white'], 'What is  the port light?')],
			says: { 0: 'another', 1: 'another' }
		},
		{
			name: 'in two banks',
			questions: [lights(0), { question: lights(1), standing: { bank: 'x', category: ['Old'] } }],
			says: { 0: 'in Old', 1: 'another' }
		},
		{
			name: 'several keys',
			questions: [
				choiceOf('Which float?', ['Cork|0.5', 'Wood|0.5', 'Lead'], { kind: 'multiple-response' }),
				choiceOf('Which float?', ['Cork|1', 'Wood', 'Lead'], { kind: 'multiple-response' })
			],
			says: { 0: 'another', 1: 'another' }
		}
	]
);

const tree = (given: Record<string, number>) =>
	Object.entries(given).map(([path, questions]) => ({ path: path.split('/'), questions }));
tryTreeCheck(
	categoryEmpty,
	[
		{ name: 'no categories', tree: [] },
		{ name: 'questions in each', tree: tree({ Tides: 2, 'Tides/Springs': 1 }) },
		{ name: 'questions under it', tree: tree({ Tides: 1, 'Tides/Springs': 1 }) },
		{ name: 'one question', tree: tree({ Tides: 1 }) },
		{ name: 'many levels', tree: tree({ A: 1, 'A/B': 1, 'A/B/C': 1 }) },
		{ name: 'two of one name', tree: tree({ A: 1, B: 1, 'B/A': 1 }) }
	],
	[
		{ name: 'one', tree: tree({ Tides: 1, Lights: 0 }), says: [['Lights', 'Nothing stands in “Lights”']] },
		{ name: 'one below another', tree: tree({ Tides: 1, 'Tides/Neaps': 0 }), says: [['Tides/Neaps', '“Neaps”']] },
		{
			name: 'the uppermost of several',
			tree: tree({ Tides: 0, 'Tides/Neaps': 0, 'Tides/Springs': 0 }),
			says: [['Tides', '“Tides”']]
		},
		{
			name: 'two',
			tree: tree({ A: 0, B: 3, C: 0 }),
			says: [
				['A', '“A”'],
				['C', '“C”']
			]
		},
		{ name: 'one of one name', tree: tree({ A: 1, B: 1, 'B/A': 0 }), says: [['B/A', '“A”']] },
		{ name: 'all of a bank', tree: tree({ A: 0 }), says: [['A', 'take it out']] }
	]
);
