import { describe, expect, it } from 'vitest';
import { score } from '../../scoring/score';
import { plainText } from '../../markup/text';
import { emptyCommon } from '../../model/question';
import {
	isChoice,
	type CalculatedQuestion,
	type FillBlanksQuestion,
	type LabelImageQuestion,
	type MatchingQuestion,
	type OrderingQuestion,
	type Question
} from '../../kinds';
import { choice, numeric, option } from '../../test-support/questions';
import { writtenFormat } from '../index';
import { ways } from './nearest';

const change = (question: Question, to: string, count = 1) =>
	ways.find((way) => way.from === question.kind && way.to === to)!.change(question, count);
const side = (identifier: string, text = identifier, uses: number | null = 1) => ({ identifier, text, uses });
const bounds = { lower: null, upper: null };
const matching: MatchingQuestion = {
	...emptyCommon('GH-5', 'Procedure words'),
	stem: 'Match each word to what it means.',
	points: 4,
	kind: 'matching',
	left: [side('L1', 'Roger'), side('L2', 'Wilco')],
	right: [side('R1', 'I have received it'), side('R2', 'I will do it'), side('R3', 'I end here')],
	pairs: [
		{ left: 'L1', right: 'R1', credit: 0.5 },
		{ left: 'L2', right: 'R2', credit: 0.5 }
	],
	combination: 'sum',
	bounds,
	shuffle: true
};
const blanks: FillBlanksQuestion = {
	...emptyCommon('GH-6', 'Streams'),
	stem: 'The <span class="blank" id="A"/> goes out and turns after about <span class="blank" id="B"/> hours, to the <span class="blank" id="C"/>.',
	points: 4,
	kind: 'fill-blanks',
	blanks: [
		{ identifier: 'A', share: 0.25, form: 'text', accepted: [{ text: 'ebb', credit: 1, caseSensitive: false }] },
		{
			identifier: 'B',
			share: 0.5,
			form: 'number',
			whole: false,
			accepted: [{ value: 6.2, tolerance: 0.3, credit: 1 }]
		},
		{
			identifier: 'C',
			share: 0.25,
			form: 'list',
			several: false,
			shuffle: null,
			entries: [
				{ identifier: 'x', text: 'flood', credit: 1 },
				{ identifier: 'y', text: 'gale', credit: 0 }
			]
		}
	],
	bank: [],
	combination: 'sum',
	shuffle: null
};
const ordering: OrderingQuestion = {
	...emptyCommon('GH-7', 'Winds'),
	stem: 'The weakest first.',
	points: 3,
	kind: 'ordering',
	items: ['light air', 'fresh breeze', 'gale'].map((text, at) => ({ identifier: `I${at + 1}`, text })),
	presented: ['I3', 'I1', 'I2'],
	rule: 'position',
	shuffle: true
};
const labels: LabelImageQuestion = {
	...emptyCommon('GH-8', 'Lights'),
	stem: 'Lay each light where it stands.',
	points: 2,
	kind: 'label-image',
	picture: { name: 'pictures/vessel.svg', width: 200, height: 100, alt: 'a vessel from above' },
	labels: [side('G', 'green'), side('R', 'red')],
	targets: [
		{ identifier: 'T1', shape: 'rect', coordinates: [0, 0, 50, 50], uses: 1 },
		{ identifier: 'T2', shape: 'circle', coordinates: [150, 50, 20], uses: 1 }
	],
	pairs: [
		{ left: 'G', right: 'T2', credit: 0.5 },
		{ left: 'R', right: 'T1', credit: 0.5 }
	],
	combination: 'sum',
	bounds,
	attachments: [{ name: 'pictures/vessel.svg', mediaType: 'image/svg+xml', hash: 'a'.repeat(64), missing: false }]
};
const calculated: CalculatedQuestion = {
	...emptyCommon('GH-9', 'Distance'),
	stem: 'How far does a vessel get in <var class="variable">h</var> hours at <var class="variable">v</var> knots?',
	points: 1,
	kind: 'calculated',
	variables: [
		{ name: 'h', whole: true, decimals: null, values: { form: 'range', min: 2, max: 5, step: 1 } },
		{ name: 'v', whole: true, decimals: null, values: { form: 'set', values: [4, 6, 8] } }
	],
	constraints: [],
	expression: 'h * v',
	tolerance: { mode: 'absolute', value: 0.5 },
	whole: false
};

describe('a matching as choices', () => {
	const parts = change(matching, 'multiple-choice');
	it('asks for each on the left by itself, with all on the right to choose from', () => {
		expect(parts.map((one) => plainText(one.stem))).toEqual([
			'Match each word to what it means. Roger',
			'Match each word to what it means. Wilco'
		]);
		expect(parts.map((one) => (isChoice(one) ? one.options.length : 0))).toEqual([3, 3]);
		expect(parts.map((one) => [one.identifier, one.title, one.points])).toEqual([
			['GH-5-1', 'Procedure words (1)', 2],
			['GH-5-2', 'Procedure words (2)', 2]
		]);
	});
	it('earns what the matching earned', () => {
		expect(parts.map((one, at) => score(one, { options: [`R${at + 1}`] }).credit)).toEqual([1, 1]);
		expect(score(parts[0]!, { options: ['R3'] }).credit).toBe(0);
	});
	it('asks for several where several belong to one', () => {
		const several = { ...matching, pairs: [...matching.pairs, { left: 'L1', right: 'R3', credit: 0.25 }] };
		expect(change(several, 'multiple-choice')[0]).toMatchObject({ kind: 'multiple-response', combination: 'all' });
	});
});

describe('blanks as questions of their own', () => {
	const parts = change(blanks, 'short-answer');
	it('are each of the kind that its answer has, with the others as lines', () => {
		expect(parts.map((one) => one.kind)).toEqual(['short-answer', 'numeric', 'multiple-choice']);
		expect(plainText(parts[0]!.stem)).toBe('The _____ goes out and turns after about … hours, to the ….');
	});
	it('share the points as the blanks did', () => {
		expect(parts.map((one) => one.points)).toEqual([1, 2, 1]);
	});
	it('share them evenly where only all blanks together earned anything', () => {
		const all = change({ ...blanks, combination: 'all', points: 3 }, 'short-answer');
		expect(all.map((one) => one.points)).toEqual([1, 1, 1]);
	});
	it('accept what the blanks accepted', () => {
		expect(score(parts[0]!, { text: 'EBB' }).credit).toBe(1);
		expect(score(parts[1]!, { text: '6.4' }).credit).toBe(1);
		expect(score(parts[1]!, { text: '7' }).credit).toBe(0);
		expect(score(parts[2]!, { options: ['x'] }).credit).toBe(1);
	});
});

describe('an order', () => {
	it('as a matching puts each thing with its place, and earns the same for each', () => {
		const [one] = change(ordering, 'matching') as [MatchingQuestion];
		expect(one.left.map((left) => left.text)).toEqual(['gale', 'light air', 'fresh breeze']);
		const pairs = (order: string[]) => order.map((identifier, at): [string, string] => [identifier, `P${at + 1}`]);
		for (const order of [
			['I1', 'I2', 'I3'],
			['I1', 'I3', 'I2'],
			['I3', 'I1', 'I2']
		])
			expect(score(one, { pairs: pairs(order) }).credit).toBeCloseTo(score(ordering, { order }).credit!, 5);
	});
	it('as an essay shows the things as they were shown, and not in their right order', () => {
		const [one] = change(ordering, 'essay');
		expect(plainText(one!.stem)).toBe('The weakest first. gale light air fresh breeze');
	});
});

describe('labels of a picture as a matching', () => {
	const [one] = change(labels, 'matching') as [MatchingQuestion];
	it('keep the picture in the stem, and number its places', () => {
		expect(one.stem).toContain('src="media:pictures/vessel.svg"');
		expect(one.stem).toContain('alt="a vessel from above"');
		expect(one.right.map((right) => right.text)).toEqual([
			'Place 1 (25 across, 25 down)',
			'Place 2 (150 across, 50 down)'
		]);
	});
	it('earn what they earned', () => {
		const right: [string, string][] = [
			['G', 'T2'],
			['R', 'T1']
		];
		expect(score(one, { pairs: right }).credit).toBe(1);
		expect(score(one, { pairs: right.slice(0, 1) }).credit).toBe(0.5);
	});
});

describe('a number as a text', () => {
	it('is accepted as it is written, without the tolerance', () => {
		const [one] = change(numeric([{ value: 16, tolerance: 1, credit: 1 }]), 'short-answer');
		expect(score(one!, { text: '16' }).credit).toBe(1);
		expect(score(one!, { text: '17' }).credit).toBe(0);
	});
	it('is one that lies in the range, where it was a range', () => {
		const range = { min: 3, max: 4, includesMin: true, includesMax: true, credit: 1 };
		const [one] = change(numeric([range]), 'short-answer');
		const text = one?.kind === 'short-answer' ? Number(one.accepted[0]!.text) : NaN;
		expect(text).toBeGreaterThanOrEqual(3);
		expect(text).toBeLessThanOrEqual(4);
	});
});

describe('a calculated question', () => {
	it('is worked out as often as is asked for, each time with other numbers and the right answer to them', () => {
		const parts = change(calculated, 'numeric', 5);
		expect(parts.map((one) => one.identifier)).toEqual(['1', '2', '3', '4', '5'].map((at) => `GH-9-${at}`));
		for (const one of parts) {
			const [hours, knots] = plainText(one.stem).match(/\d+/g)!.map(Number) as [number, number];
			expect(score(one, { text: String(hours * knots) }).credit).toBe(1);
			expect(score(one, { text: String(hours * knots + 1) }).credit).toBe(0);
		}
		expect(new Set(parts.map((one) => one.stem)).size).toBeGreaterThan(1);
	});
	it('is the same each time it is written', () => {
		expect(change(calculated, 'numeric', 3)).toEqual(change(calculated, 'numeric', 3));
	});
	it('that cannot be worked out is asked as it stands, for a person to mark', () => {
		expect(change({ ...calculated, expression: 'h * (' }, 'numeric')[0]).toMatchObject({ kind: 'essay' });
	});
});

describe('pictures that cannot go along', () => {
	const shown = (name: string, alt = '') => `<img src="media:pictures/${name}" alt="${alt}"/>`;
	const pictured = choice({
		stem: `Which of these is a can? ${shown('harbour.svg')}`,
		options: [option('A', shown('can.svg', 'red can'), 1), option('B', shown('cone.svg'), 0)],
		attachments: ['harbour.svg', 'can.svg', 'cone.svg'].map((name) => ({
			name: `pictures/${name}`,
			mediaType: 'image/svg+xml',
			hash: 'b'.repeat(64),
			missing: false
		}))
	});
	it('leave their names where nothing else stood, so that options can still be told apart', () => {
		const loss = writtenFormat('csv')!.loss(pictured);
		const [one] = loss.fitted;
		expect(isChoice(one!) ? one.options.map((each) => plainText(each.text)) : []).toEqual([
			'red can (can.svg)',
			'cone.svg'
		]);
		expect(plainText(one!.stem)).toBe('Which of these is a can?');
		expect(one!.attachments).toEqual([]);
		expect(loss.what.join()).toContain('pictures, sound and files are left out');
	});
	it('go with that one of several questions that shows them', () => {
		const loss = writtenFormat('cc13')!.loss({
			...matching,
			left: [side('L1', shown('can.svg')), side('L2', shown('cone.svg'))],
			attachments: pictured.attachments
		});
		expect(loss.fitted.map((one) => one.attachments.map(({ name }) => name))).toEqual([
			['pictures/harbour.svg', 'pictures/can.svg'],
			['pictures/harbour.svg', 'pictures/cone.svg']
		]);
	});
});
