import { blankMarker } from '../markup/markers';
import { emptyCommon } from '../model/question';
import { serialise } from '../xml/serialise';
import { kindNamed, type Kind, type Question } from './index';

/** The kinds that somebody makes by hand: all but what could not be read. */
export type MadeKind = Exclude<Kind, 'unreadable'>;

const option = (identifier: string, text: string, credit: number) => ({ identifier, text, credit, pinned: false });
const side = (identifier: string) => ({ identifier, text: '', uses: 1 });
const picture = { name: '', width: null, height: null, alt: '' };
const choice = {
	shuffle: true,
	combination: 'sum',
	bounds: { lower: null, upper: null },
	lostKeys: []
};
const two = [option('A', '', 1), option('B', '', 0)];

/** What a new question of each kind has of its own: as little as it takes to be one. */
const own: Record<MadeKind, object> = {
	'true-false': { ...choice, shuffle: false, options: [option('A', 'True', 1), option('B', 'False', 0)] },
	'multiple-choice': { ...choice, options: [...two, option('C', '', 0), option('D', '', 0)] },
	'multiple-response': {
		...choice,
		bounds: { lower: 0, upper: 1 },
		options: [option('A', '', 0.5), option('B', '', 0.5), option('C', '', -0.5), option('D', '', -0.5)]
	},
	'short-answer': { accepted: [{ text: '', credit: 1, caseSensitive: false }] },
	numeric: { whole: false, accepted: [{ value: 0, tolerance: 0, credit: 1 }] },
	'fill-blanks': {
		stem: `<p>${serialise([blankMarker('B1')])}</p>`,
		blanks: [{ identifier: 'B1', share: 1, form: 'text', accepted: [{ text: '', credit: 1, caseSensitive: false }] }],
		bank: [],
		combination: 'sum',
		shuffle: null
	},
	matching: {
		left: [side('L1'), side('L2')],
		right: [side('R1'), side('R2')],
		pairs: [
			{ left: 'L1', right: 'R1', credit: 0.5 },
			{ left: 'L2', right: 'R2', credit: 0.5 }
		],
		combination: 'sum',
		bounds: { lower: 0, upper: 1 },
		shuffle: true
	},
	ordering: {
		items: ['A', 'B', 'C'].map((identifier) => ({ identifier, text: '' })),
		presented: ['C', 'A', 'B'],
		rule: 'all',
		shuffle: true
	},
	essay: {},
	'file-upload': { accepts: null },
	hotspot: {
		picture,
		shapes: [],
		mode: 'points',
		picks: 1,
		outside: 0,
		combination: 'sum',
		bounds: { lower: 0, upper: 1 }
	},
	'label-image': {
		picture,
		labels: [side('L1')],
		targets: [],
		pairs: [],
		combination: 'sum',
		bounds: { lower: 0, upper: 1 }
	},
	calculated: {
		stem: '<p></p>',
		variables: [{ name: 'a', whole: true, decimals: 0, values: { form: 'range', min: 1, max: 10, step: 1 } }],
		constraints: [],
		expression: 'a',
		tolerance: { mode: 'absolute', value: 0 },
		whole: true
	},
	information: {}
};

/** A new question of a kind, with nothing in it yet but what its kind needs; points and language as the course has them. */
export function blankQuestion(kind: MadeKind, points: number | null, language: string): Question {
	return {
		...emptyCommon('', ''),
		points: kindNamed(kind).marks === 'nobody' ? null : points,
		language: language || null,
		kind,
		...own[kind]
	} as Question;
}
