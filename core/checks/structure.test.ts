import { expect } from 'vitest';
import type { Question } from '../kinds';
import { accepting, choiceOf, common, creditsOf } from '../test-support/checked';
import { essay } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { creditOver } from './credit-over';
import { creditShort } from './credit-short';
import { emptyStem } from './empty-stem';
import { lostKey } from './lost-key';
import { negativeBelow } from './negative-below';
import { noKey } from './no-key';
import { orderOfOne } from './order-of-one';
import { pairWithoutPartner } from './pair-without-partner';
import { placeOutsidePicture } from './place-outside-picture';
import { tooFewOptions } from './too-few-options';

const bounds = { lower: null, upper: null };
const several = (...options: string[]) => choiceOf('Which?', options, { kind: 'multiple-response' });
const side = (identifier: string, uses: number | null = null) => ({ identifier, text: identifier, uses });
const pair = (left: string, right: string, credit = 0.5) => ({ left, right, credit });
const matching = (left: string[], right: string[], pairs: [string, string][], more: object = {}): Question => ({
	...common('Match the lights.'),
	kind: 'matching',
	left: left.map((name) => side(name)),
	right: right.map((name) => side(name)),
	pairs: pairs.map(([a, b]) => pair(a, b, 1 / pairs.length)),
	combination: 'sum',
	bounds,
	shuffle: null,
	...more
});
const picture = { name: 'chart.png', width: 400 as number | null, height: 300 as number | null, alt: 'A chart' };
const shape = (kind: 'rect' | 'circle' | 'ellipse' | 'poly' | 'default', ...coordinates: number[]) => ({
	identifier: kind,
	shape: kind,
	coordinates,
	credit: 1
});
const hotspot = (shapes: ReturnType<typeof shape>[], size: Partial<typeof picture> = {}): Question => ({
	...common('Where is the rock?'),
	kind: 'hotspot',
	picture: { ...picture, ...size },
	shapes,
	mode: 'points',
	picks: 1,
	outside: 0,
	combination: 'sum',
	bounds
});
const labels = (targets: string[], pairs: [string, string][], uses: number | null = null): Question => ({
	...common('Label the buoys.'),
	kind: 'label-image',
	picture,
	labels: [side('Port'), side('Starboard'), side('Spare')],
	targets: targets.map((identifier) => ({ identifier, shape: 'rect', coordinates: [1, 1, 9, 9], uses })),
	pairs: pairs.map(([a, b]) => pair(a, b, 1 / pairs.length)),
	combination: 'sum',
	bounds
});
const ordering = (...items: string[]): Question => ({
	...common('Put in order.'),
	kind: 'ordering',
	items: items.map((text) => ({ identifier: text, text })),
	presented: items,
	rule: 'all',
	shuffle: true
});
const blanks = (...given: [share: number, ...texts: string[]][]): Question => ({
	...common(`The ${given.map((_, at) => `<span class="blank" id="B${at}"></span>`).join(' and ')} light.`),
	kind: 'fill-blanks',
	blanks: given.map(([share, ...texts], at) => ({
		identifier: `B${at}`,
		share,
		form: 'text',
		accepted: texts.map((text) => ({ text, credit: 1, caseSensitive: false }))
	})),
	bank: [],
	combination: 'sum',
	shuffle: null
});
const sharesOf = (question: Question) =>
	question.kind === 'fill-blanks' ? question.blanks.map(({ share }) => share) : [];

tryCheck(
	creditOver,
	[
		{ name: 'one key', question: choiceOf('Which?', ['Red|1', 'Green']) },
		{ name: 'halves', question: several('Red|0.5', 'Green|0.5') },
		{ name: 'rounded thirds', question: several('Red|0.334', 'Green|0.334', 'White|0.334') },
		{ name: 'a sum that is bounded', question: { ...several('Red|1', 'Green|1'), bounds: { lower: null, upper: 1 } } },
		{ name: 'all or nothing', question: { ...several('Red|1', 'Green|1'), combination: 'all' } },
		{ name: 'two keys of which one may be chosen', question: choiceOf('Which?', ['Red|1', 'Green|1']) },
		{ name: 'an essay', question: essay() },
		{ name: 'one place of several', question: hotspot([shape('rect', 0, 0, 9, 9), shape('circle', 50, 50, 9)]) }
	],
	[
		{
			name: 'two whole ones',
			question: several('Red|1', 'Green|1'),
			says: '200 percent',
			mended: (question) => expect(creditsOf(question)).toEqual([0.5, 0.5])
		},
		{
			name: 'three halves',
			question: several('Red|0.5', 'Green|0.5', 'White|0.5', 'Blue|-0.5'),
			says: '150 percent',
			mended: (question) => expect(creditsOf(question)).toEqual([0.333333, 0.333333, 0.333333, -0.5])
		},
		{
			name: 'an upper bound above the whole',
			question: { ...several('Red|1', 'Green|1'), bounds: { lower: null, upper: 2 } },
			says: '200 percent'
		},
		{
			name: 'pairs',
			question: matching(['a', 'b'], ['c', 'd'], [], { pairs: [pair('a', 'c', 1), pair('b', 'd', 1)] }),
			says: '200 percent'
		},
		{
			name: 'places',
			question: { ...hotspot([shape('rect', 0, 0, 9, 9), shape('circle', 50, 50, 9)]), picks: 2 } as Question,
			says: '200 percent'
		},
		{
			name: 'blanks',
			question: blanks([0.75, 'red'], [0.75, 'green']),
			says: '150 percent',
			mended: (question) => expect(sharesOf(question)).toEqual([0.5, 0.5])
		}
	]
);

tryCheck(
	tooFewOptions,
	[
		...[
			['Red|1', 'Green'],
			['Red|1', 'Green', 'White']
		].map((options) => ({ name: `${options.length} options`, question: choiceOf('Which?', options) })),
		{ name: 'two of a multiple response', question: several('Red|0.5', 'Green|0.5') },
		{ name: 'a true-false with one', question: choiceOf('Port is red.', ['True|1'], { kind: 'true-false' }) },
		{ name: 'an essay', question: essay() },
		{ name: 'a short answer', question: accepting(['one']) }
	],
	[
		{ name: 'none', question: choiceOf('Which?', []), says: 'There are no options' },
		{ name: 'one that is right', question: choiceOf('Which?', ['Red|1']), says: 'one option alone' },
		{ name: 'one that is wrong', question: choiceOf('Which?', ['Red']), says: 'one option alone' },
		{ name: 'none of several', question: several(), says: 'no options' },
		{ name: 'one of several', question: several('Red|1'), says: 'one option alone' },
		{
			name: 'one that is a picture',
			question: choiceOf('Which?', ['<img src="media:a.png" alt=""/>|1']),
			says: 'one option alone'
		}
	]
);

tryCheck(
	pairWithoutPartner,
	[
		{
			name: 'all paired',
			question: matching(
				['a', 'b'],
				['c', 'd'],
				[
					['a', 'c'],
					['b', 'd']
				]
			)
		},
		{ name: 'a distractor on the right', question: matching(['a'], ['c', 'd'], [['a', 'c']]) },
		{
			name: 'one that may be used no time',
			question: matching(['a', 'b'], ['c'], [['a', 'c']], { left: [side('a'), side('b', 0)] })
		},
		{ name: 'no key at all, which is another trouble', question: matching(['a'], ['c'], []) },
		{
			name: 'a spare label',
			question: labels(
				['p', 's'],
				[
					['Port', 'p'],
					['Starboard', 's']
				]
			)
		},
		{
			name: 'one thing for two',
			question: matching(
				['a', 'b'],
				['c'],
				[
					['a', 'c'],
					['b', 'c']
				]
			)
		}
	],
	[
		{
			name: 'one on the left',
			question: matching(['a', 'b'], ['c'], [['a', 'c']]),
			says: 'Nothing belongs to “b”',
			words: ['b']
		},
		{ name: 'two on the left', question: matching(['a', 'b', 'e'], ['c'], [['a', 'c']]), says: '“b”, “e”' },
		{
			name: 'a pair that earns nothing',
			question: matching(['a', 'b'], ['c'], [], { pairs: [pair('a', 'c', 1), pair('b', 'c', 0)] }),
			says: '“b”'
		},
		{
			name: 'a pair that takes points',
			question: matching(['a', 'b'], ['c'], [], { pairs: [pair('a', 'c', 1), pair('b', 'c', -1)] }),
			says: '“b”'
		},
		{ name: 'a place', question: labels(['p', 's'], [['Port', 'p']]), says: 'place 2' },
		{ name: 'several places', question: labels(['p', 's', 'x'], [['Port', 'p']]), says: '“place 2”, “place 3”' }
	]
);

tryCheck(
	orderOfOne,
	[
		{ name: 'two things', question: ordering('Ebb', 'Flood') },
		{ name: 'three things', question: ordering('Ebb', 'Slack', 'Flood') },
		{ name: 'two that say the same', question: ordering('Ebb', 'Ebb ') },
		{ name: 'a choice of one', question: choiceOf('Which?', ['Ebb|1']) },
		{ name: 'an essay', question: essay() },
		{ name: 'a matching of one', question: matching(['a'], ['b'], [['a', 'b']]) }
	],
	[
		{ name: 'one thing', question: ordering('Ebb'), says: 'one thing alone' },
		{ name: 'nothing', question: ordering(), says: 'nothing to put in order' },
		{ name: 'one that is a picture', question: ordering('<img src="media:a.png" alt=""/>'), says: 'one thing alone' },
		{
			name: 'one, never shuffled',
			question: { ...ordering('Ebb'), shuffle: false } as Question,
			says: 'one thing alone'
		},
		{
			name: 'one, each place for itself',
			question: { ...ordering('Ebb'), rule: 'position' } as Question,
			says: 'one thing alone'
		},
		{ name: 'one long one', question: ordering('Ebb and flood and slack water'), says: 'one thing alone' }
	]
);

tryCheck(
	placeOutsidePicture,
	[
		{ name: 'a place inside', question: hotspot([shape('rect', 10, 10, 50, 50)]) },
		{ name: 'one that crosses the edge', question: hotspot([shape('rect', 380, 280, 450, 350)]) },
		{ name: 'one at the edge', question: hotspot([shape('rect', 400, 0, 420, 20)]) },
		{ name: 'a circle whose middle is outside', question: hotspot([shape('circle', 410, 100, 30)]) },
		{ name: 'all of the picture', question: hotspot([shape('default')]) },
		{
			name: 'a place in a picture of unknown size',
			question: hotspot([shape('rect', 900, 900, 950, 950)], { width: null, height: null })
		},
		{ name: 'labels inside', question: labels(['p'], [['Port', 'p']]) }
	],
	[
		{
			name: 'a rectangle to the right',
			question: hotspot([shape('rect', 450, 10, 500, 50)]),
			says: 'Place 1 lies outside of the picture, which is 400 by 300'
		},
		{ name: 'a circle below', question: hotspot([shape('circle', 100, 400, 50)]), says: 'outside' },
		{ name: 'an ellipse to the left', question: hotspot([shape('ellipse', -80, 100, 30, 40)]), says: 'outside' },
		{ name: 'a polygon above', question: hotspot([shape('poly', 10, -50, 50, -60, 30, -10)]), says: 'outside' },
		{
			name: 'two of three',
			question: hotspot([shape('rect', 1, 1, 9, 9), shape('rect', 500, 1, 509, 9), shape('circle', 900, 900, 5)]),
			says: 'Places 2, 3'
		},
		{
			name: 'no area in a picture of unknown size',
			question: hotspot([shape('rect', 10, 10, 10, 10)], { width: null, height: null }),
			says: 'no area'
		},
		{
			name: 'a circle without a radius',
			question: hotspot([shape('circle', 10, 10, 0)], { width: null }),
			says: 'no area'
		}
	]
);

tryCheck(
	lostKey,
	[
		{ name: 'a choice with its key', question: choiceOf('Which?', ['Red|1', 'Green']) },
		{ name: 'an essay', question: essay() },
		{ name: 'pairs that are there', question: matching(['a'], ['c'], [['a', 'c']]) },
		{
			name: 'a pair without credit that names nothing',
			question: matching(['a'], ['c'], [], { pairs: [pair('a', 'c', 1), pair('a', 'x', 0)] })
		},
		{ name: 'labels that are there', question: labels(['p'], [['Port', 'p']]) },
		{ name: 'blanks with texts', question: blanks([1, 'red']) }
	],
	[
		{
			name: 'a key that names no option',
			question: choiceOf('Which?', ['Red|1', 'Green'], { lostKeys: ['E'] }),
			says: 'The key reads “E”, and that is not one option',
			mended: null
		},
		{
			name: 'several of them',
			question: choiceOf('Which?', ['Red', 'Green'], { lostKeys: ['E', 'F'] }),
			says: 'those are not options',
			mended: null
		},
		{
			name: 'the letter of an option',
			question: choiceOf('Which?', ['Red', 'Green'], { lostKeys: ['B'] }),
			says: '“B”',
			mended: (question) => expect(creditsOf(question)).toEqual([0, 1])
		},
		{
			name: 'a letter in brackets',
			question: choiceOf('Which?', ['Red', 'Green'], { lostKeys: ['(a)'] }),
			says: '“(a)”',
			mended: (question) => expect(creditsOf(question)).toEqual([1, 0])
		},
		{
			name: 'the words of an option',
			question: choiceOf('Which?', ['<p>Red</p>', 'Green'], { lostKeys: ['red'] }),
			says: '“red”',
			mended: (question) => expect(creditsOf(question)).toEqual([1, 0])
		},
		{
			name: 'words that two options have',
			question: choiceOf('Which?', ['Red', 'red'], { lostKeys: ['RED'] }),
			says: '“RED”',
			mended: null
		},
		{
			name: 'a letter of several',
			question: { ...several('Red|1', 'Green', 'White'), lostKeys: ['C'] },
			says: '“C”',
			mended: (question) => expect(creditsOf(question)).toEqual([0.5, 0, 0.5])
		},
		{
			name: 'a pair that names nothing',
			question: matching(['a'], ['c'], [], { pairs: [pair('a', 'x', 1)] }),
			says: 'names “x”',
			mended: null
		},
		{ name: 'a label that is not there', question: labels(['p'], [['Port', 'q']]), says: '“q”' },
		{
			name: 'a word that is not in the bank',
			question: {
				...blanks([1]),
				bank: [side('w1')],
				blanks: [{ identifier: 'B0', share: 1, form: 'word', words: [{ word: 'w9', credit: 1 }] }]
			} as Question,
			says: 'names “w9”'
		}
	]
);

tryCheck(
	noKey,
	[
		{ name: 'a key', question: choiceOf('Which?', ['Red|1', 'Green']) },
		{ name: 'part of a key', question: choiceOf('Which?', ['Red|0.5', 'Green']) },
		{ name: 'an essay', question: essay() },
		{ name: 'a blank without a key among good ones', question: blanks([0.5, 'red'], [0.5]) },
		{ name: 'an accepted text', question: accepting(['port']) },
		{ name: 'an order', question: ordering('Ebb', 'Flood') },
		{
			name: 'a key that is lost, which is another trouble',
			question: choiceOf('Which?', ['Red', 'Green'], { lostKeys: ['E'] })
		}
	],
	[
		{ name: 'a choice', question: choiceOf('Which?', ['Red', 'Green']), says: 'No option is marked as right' },
		{
			name: 'a choice that takes points alone',
			question: choiceOf('Which?', ['Red|-0.5', 'Green|-1']),
			says: 'No option'
		},
		{ name: 'several', question: several('Red', 'Green'), says: 'No option' },
		{ name: 'a short answer', question: accepting([]), says: 'No answer is accepted' },
		{ name: 'an empty text that is accepted', question: accepting([' ']), says: 'No answer is accepted' },
		{ name: 'pairs', question: matching(['a'], ['b'], []), says: 'No pair' },
		{ name: 'a place', question: hotspot([{ ...shape('rect', 1, 1, 9, 9), credit: 0 }]), says: 'No place' },
		{ name: 'blanks', question: blanks([0.5], [0.5]), says: '2 blanks have no right answer' }
	]
);

tryCheck(
	creditShort,
	[
		{ name: 'a key for everything', question: choiceOf('Which?', ['Red|1', 'Green']) },
		{ name: 'thirds that come to the whole', question: several('Red|0.333', 'Green|0.333', 'White|0.333') },
		{ name: 'no credit at all, which is another trouble', question: choiceOf('Which?', ['Red', 'Green']) },
		{ name: 'an essay', question: essay() },
		{ name: 'blanks that come to the whole', question: blanks([0.5, 'red'], [0.5, 'green']) },
		{
			name: 'pairs',
			question: matching(
				['a', 'b'],
				['c', 'd'],
				[
					['a', 'c'],
					['b', 'd']
				]
			)
		}
	],
	[
		{
			name: 'half',
			question: several('Red|0.25', 'Green|0.25', 'White|-0.25'),
			says: '50 percent',
			mended: (question) => expect(creditsOf(question)).toEqual([0.5, 0.5, -0.25])
		},
		{
			name: 'one that earns a part',
			question: choiceOf('Which?', ['Red|0.8', 'Green']),
			says: '80 percent',
			mended: (question) => expect(creditsOf(question)).toEqual([1, 0])
		},
		{
			name: 'an upper bound below the whole',
			question: { ...several('Red|0.5', 'Green|0.5'), bounds: { lower: 0, upper: 0.8 } },
			says: '80 percent'
		},
		{ name: 'an accepted text', question: accepting(['port'], { credit: 0.5 }), says: '50 percent' },
		{
			name: 'a blank without a key among good ones',
			question: blanks([0.5, 'red'], [0.5]),
			says: '50 percent',
			mended: null
		},
		{
			name: 'pairs',
			question: matching(['a', 'b'], ['c', 'd'], [], { pairs: [pair('a', 'c', 0.25), pair('b', 'd', 0.25)] }),
			says: '50 percent'
		}
	]
);

tryCheck(
	emptyStem,
	[
		{ name: 'words', question: choiceOf('Which?', ['Red|1', 'Green']) },
		{ name: 'a picture', question: choiceOf('<img src="media:a.png" alt=""/>', ['Red|1', 'Green']) },
		{ name: 'a formula', question: choiceOf('<math><mi>x</mi></math>', ['1|1', '2']) },
		{
			name: 'a sound',
			question: choiceOf('<object data="media:horn.mp3" type="audio/mpeg"></object>', ['One|1', 'Two'])
		},
		{ name: 'blanks with words around', question: blanks([1, 'red']) },
		{ name: 'one sign', question: choiceOf('?', ['Red|1', 'Green']) }
	],
	[
		{ name: 'nothing', question: choiceOf('', ['Red|1', 'Green']), says: 'no text and no picture' },
		{ name: 'an empty paragraph', question: choiceOf('<p> </p>', ['Red|1', 'Green']), says: 'no text' },
		{ name: 'a line break', question: choiceOf('<br/>', ['Red|1', 'Green']), says: 'no text' },
		{ name: 'blanks of white space', question: choiceOf(' \u00a0 ', ['Red|1', 'Green']), says: 'no text' },
		{ name: 'an essay', question: essay({ stem: '' }), says: 'no text' },
		{ name: 'a short answer', question: { ...accepting(['a']), stem: '<div></div>' }, says: 'no text' }
	]
);

const taking = (credits: readonly number[], more: object = {}) => ({
	...several('Red|1', ...credits.map((credit, at) => `Wrong ${at}|${credit}`)),
	...more
});
tryCheck(
	negativeBelow,
	[
		{ name: 'nothing taken', question: several('Red|1', 'Green') },
		{ name: 'as much as the whole', question: taking([-0.5, -0.5]) },
		{ name: 'a bound at nothing', question: taking([-1, -1], { bounds: { lower: 0, upper: null } }) },
		{ name: 'a bound at less the whole', question: taking([-1, -1], { bounds: { lower: -1, upper: null } }) },
		{ name: 'all or nothing', question: taking([-1, -1], { combination: 'all' }) },
		{ name: 'one that may be chosen', question: choiceOf('Which?', ['Red|1', 'Green|-1', 'White|-1']) },
		{ name: 'thirds', question: taking([-0.333, -0.333, -0.334]) }
	],
	[
		...[
			[-1, -1],
			[-0.5, -0.5, -0.5],
			[-0.6, -0.6]
		].map((credits) => ({
			name: credits.join(', '),
			question: taking(credits),
			says: 'nothing stops it',
			mended: (question: Question) => expect('bounds' in question && question.bounds.lower).toBe(0)
		})),
		{
			name: 'a bound far below',
			question: taking([-1, -1], { bounds: { lower: -5, upper: null } }),
			says: '200 percent'
		},
		{
			name: 'pairs',
			question: matching(['a', 'b'], ['c', 'd'], [], {
				pairs: [pair('a', 'c', 1), pair('a', 'd', -1), pair('b', 'c', -1)]
			}),
			says: '200 percent'
		},
		{
			name: 'places',
			question: hotspot([
				shape('rect', 1, 1, 9, 9),
				{ ...shape('circle', 50, 50, 5), credit: -1 },
				{ ...shape('circle', 90, 50, 5), credit: -1 }
			]),
			says: '200 percent'
		}
	]
);
