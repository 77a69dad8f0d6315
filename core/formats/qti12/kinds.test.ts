import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blanksIn } from '../../markup/markers';
import { plainText } from '../../markup/text';
import { checkQuestion } from '../../checks/one';
import { rightResponse, score } from '../../scoring/score';
import { readBare } from '../../test-support/packages';

const item = async (presentation: string, conditions: string, max = 2) => {
	const found = await readBare(
		'q.xml',
		`<questestinterop><item ident="i" title="Q"><presentation>${presentation}</presentation><resprocessing><outcomes><decvar varname="SCORE" maxvalue="${max}"/></outcomes>${conditions}</resprocessing></item></questestinterop>`
	);
	return { question: found.questions[0]!, rules: [...found.about.values()].flat().map((report) => report.rule) };
};
const material = (text: string) => `<material><mattext>${text}</mattext></material>`;
const label = (id: string, text = id) => `<response_label ident="${id}">${material(text)}</response_label>`;
const list = (ident: string, labels: string, cardinality = 'Single', inner = '') =>
	`<response_lid ident="${ident}" rcardinality="${cardinality}">${inner}<render_choice>${labels}</render_choice></response_lid>`;
const box = (ident: string) => `<response_str ident="${ident}"><render_fib/></response_str>`;
const is = (ident: string, value: string) => `<varequal respident="${ident}">${value}</varequal>`;
const when = (test: string, action: string, value: number) =>
	`<respcondition continue="Yes"><conditionvar>${test}</conditionvar><setvar action="${action}">${value}</setvar></respcondition>`;

describe('several responses', () => {
	const area = (ident: string, numbers: string) =>
		`<response_label ident="${ident}" rarea="Rectangle">${numbers}</response_label>`;
	const picture = '<material><matimage uri="bay.png" imagtype="image/png" width="200" height="100"/></material>';
	it.each([
		[
			'things to put in order',
			list(
				'B',
				label('x', 'reef') + label('y', 'heave to') + label('z', 'call'),
				'Ordered',
				material('In what order?')
			),
			when(is('B', 'y') + is('B', 'x') + is('B', 'z'), 'Add', 1),
			{ 'B.1': ['y'], 'B.2': ['x'], 'B.3': ['z'] },
			{ 'B.1': ['x'], 'B.2': ['y'], 'B.3': ['z'] },
			['reef', 'heave to', 'call']
		],
		[
			'areas of a picture',
			`<response_lid ident="B" rcardinality="Single"><render_hotspot>${picture}${area('x', '0,0,10,20')}${area('y', '100,40,20,20')}</render_hotspot></response_lid>`,
			when(is('B', 'y'), 'Add', 1),
			{ B: ['y'] },
			{ B: ['x'] },
			['Place 1 (5 across, 10 down)', 'Place 2 (110 across, 50 down)']
		],
		[
			'a point in a picture',
			`<response_xy ident="B" rcardinality="Single"><render_hotspot>${picture}</render_hotspot></response_xy>`,
			when('<varinside respident="B" areatype="Rectangle">100,40,20,20</varinside>', 'Add', 1),
			{ B: ['A1'] },
			{ B: ['ELSEWHERE'] },
			['Place 1 (110 across, 50 down)', 'Another place']
		],
		[
			'pairs of a group',
			`<response_grp ident="B" rcardinality="Multiple"><render_choice><response_label ident="e" match_group="x,y" match_max="1">${material('ebb')}</response_label>${label('x', 'out')}${label('y', 'in')}</render_choice></response_grp>`,
			when('<varsubset respident="B">e,x</varsubset>', 'Add', 1),
			{ 'B.e': ['x'] },
			{ 'B.e': ['y'] },
			['out', 'in']
		]
	])('may be %s, beside another answer', async (_, response, condition, good, bad, entries) => {
		const { question, rules } = await item(
			`<flow>${material('Its name:')}${box('A')}${response}</flow>`,
			when(is('A', 'mole'), 'Add', 1) + condition
		);
		if (question.kind !== 'fill-blanks') throw new Error(question.kind);
		expect(rules).toContain('reshaped');
		const last = question.blanks.at(-1)!;
		expect(last.form === 'list' && last.entries.map(({ text }) => text)).toEqual(entries);
		expect(score(question, { blanks: { A: ['mole'], ...good } }).credit).toBe(1);
		expect(score(question, { blanks: { A: ['mole'], ...bad } }).credit).toBeLessThan(1);
		expect(score(question, { blanks: { A: ['pier'], ...good } }).credit).toBeCloseTo(0.5, 5);
		expect(blanksIn(question.stem)).toEqual(question.blanks.map(({ identifier }) => identifier));
		if (response.includes('bay.png')) {
			expect(question.stem).toContain('<img src="media:bay.png"');
			expect(question.attachments).toMatchObject([{ name: 'bay.png' }]);
		}
	});
	/** Each response with the condition that holds where it is right, under a name that it is given. */
	const all: ((ident: string) => [response: string, test: string])[] = [
		(ident) => [box(ident), is(ident, 'mole')],
		(ident) => [
			`<response_num ident="${ident}"><render_fib fibtype="Decimal"/></response_num>`,
			`<vargte respident="${ident}">1.4</vargte><varlte respident="${ident}">1.6</varlte>`
		],
		(ident) => [list(ident, label('a', 'ebb') + label('b', 'flood')), is(ident, 'b')],
		(ident) => [
			list(ident, label('a', 'red') + label('b', 'blue') + label('c', 'green'), 'Multiple'),
			`<and>${is(ident, 'a')}${is(ident, 'c')}<not>${is(ident, 'b')}</not></and>`
		],
		(ident) => [list(ident, label('a', 'reef') + label('b', 'heave to'), 'Ordered'), is(ident, 'b') + is(ident, 'a')],
		(ident) => [
			`<response_lid ident="${ident}"><render_hotspot>${picture}${area('x', '0,0,9,9')}${area('y', '20,0,9,9')}</render_hotspot></response_lid>`,
			is(ident, 'y')
		],
		(ident) => [
			`<response_xy ident="${ident}"><render_hotspot>${picture}</render_hotspot></response_xy>`,
			`<varinside respident="${ident}" areatype="Rectangle">20,0,9,9</varinside>`
		],
		(ident) => [
			`<response_grp ident="${ident}" rcardinality="Multiple"><render_choice><response_label ident="e" match_group="x,y">${material('ebb')}</response_label>${label('x', 'out')}${label('y', 'in')}</render_choice></response_grp>`,
			`<varsubset respident="${ident}">e,x</varsubset>`
		]
	];
	it('may be any, in any order: what is right earns all, nothing earns nothing, and each its own', async () => {
		const some = fc.uniqueArray(fc.constantFrom(...all), { minLength: 2, maxLength: 4 });
		await fc.assert(
			fc.asyncProperty(some, fc.boolean(), async (chosen, atOnce) => {
				const parts = chosen.map((part, at) => part(`R${at + 1}`));
				const { question } = await item(
					parts.map(([response]) => `<flow>${material('Then:')}${response}</flow>`).join(''),
					atOnce
						? when(parts.map(([, test]) => `<and>${test}</and>`).join(''), 'Set', parts.length)
						: parts.map(([, test]) => when(test, 'Add', 1)).join(''),
					parts.length
				);
				if (question.kind !== 'fill-blanks') throw new Error(`${question.kind}: ${JSON.stringify(question)}`);
				const { blanks } = rightResponse(question)!;
				expect(score(question, { blanks: blanks! }).credit).toBeCloseTo(1, 5);
				expect(score(question, { blanks: {} }).credit).toBe(0);
				expect(blanksIn(question.stem).sort()).toEqual(question.blanks.map(({ identifier }) => identifier).sort());
				for (const at of atOnce ? [] : parts.keys()) {
					const own = Object.entries(blanks!).filter(
						([name]) => name === `R${at + 1}` || name.startsWith(`R${at + 1}.`)
					);
					expect(score(question, { blanks: Object.fromEntries(own) }).credit).toBeCloseTo(1 / parts.length, 4);
				}
			}),
			{ numRuns: 80 }
		);
	});
	it('with the same options are a matching, each with the text beside it', async () => {
		const labels = label('x', 'out') + label('y', 'in');
		const row = (ident: string, text: string) => `<flow>${material(text)}${list(ident, labels)}</flow>`;
		const { question } = await item(
			`<flow>${material('Match them.')}${row('A', 'ebb')}${row('B', 'flood')}</flow>`,
			when(is('A', 'x'), 'Add', 1) + when(is('B', 'y'), 'Add', 1)
		);
		expect(question).toMatchObject({
			kind: 'matching',
			stem: 'Match them.',
			left: [{ text: 'ebb' }, { text: 'flood' }],
			pairs: [
				{ left: 'A', right: 'x', credit: 0.5 },
				{ left: 'B', right: 'y', credit: 0.5 }
			]
		});
	});
	it('within a text are blanks where they stand', async () => {
		const { question } = await item(
			`<flow>${material('The tide ')}${box('A')}${material(' and then it ')}${list('B', label('x', 'turns') + label('y', 'stops'))}${material('.')}</flow>`,
			when(is('A', 'ebbs'), 'Add', 1) + when(is('B', 'x'), 'Add', 1)
		);
		expect(question.kind).toBe('fill-blanks');
		expect(plainText(question.stem)).toBe('The tide [A] and then it [B].');
		expect(score(question, { blanks: { A: ['EBBS'], B: ['y'] } }).credit).toBe(0.5);
	});
	it('that only count together are all or nothing', async () => {
		const { question } = await item(
			`<flow>${material('From ')}${box('A')}${material(' to ')}${box('B')}</flow>`,
			`<respcondition><conditionvar>${is('A', 'a')}${is('B', 'b')}</conditionvar><setvar action="Set">2</setvar></respcondition>`
		);
		expect(question).toMatchObject({ kind: 'fill-blanks', combination: 'all' });
		expect(score(question, { blanks: { A: ['a'], B: ['b'] } }).credit).toBe(1);
		expect(score(question, { blanks: { A: ['a'], B: ['c'] } }).credit).toBe(0);
	});
});

describe('an order', () => {
	it.each([
		['in a row', is('R', 'b') + is('R', 'a') + is('R', 'c')],
		[
			'by their places',
			['c', 'b', 'a']
				.map((id) => `<varequal respident="R" index="${{ b: 1, a: 2, c: 3 }[id]}">${id}</varequal>`)
				.join('')
		]
	])('is told from equalities %s', async (_, test) => {
		const { question } = await item(
			`${material('Order them.')}${list('R', label('a') + label('b') + label('c'), 'Ordered')}`,
			when(test, 'Set', 2)
		);
		expect(question.kind === 'ordering' && question.items.map((one) => one.identifier)).toEqual(['b', 'a', 'c']);
		expect(question).toMatchObject({ points: 2, rule: 'all' });
	});
	it('without a key is reported', async () => {
		const { rules } = await item(
			`${material('Order them.')}${list('R', label('a') + label('b'), 'Ordered')}`,
			'<respcondition><conditionvar><other/></conditionvar></respcondition>'
		);
		expect(rules).toContain('no-right-order');
	});
});

describe('a key that names nothing', () => {
	const colours = label('r', 'Red') + label('g', 'Green');
	const flags = ['a', 'b']
		.map((id) => `<response_label ident="${id}" match_group="x,y">${material(`Flag ${id}`)}</response_label>`)
		.join('');
	it.each([
		[
			'lists to match by',
			material('Match.') +
				list('A', colours, 'Single', material('Port')) +
				list('B', colours, 'Single', material('Bow')),
			when(is('A', 'r'), 'Add', 1) + when(is('B', 'q'), 'Add', 1),
			{ kind: 'matching', lostKeys: ['q'], pairs: [{ credit: 0.5 }] }
		],
		[
			'pairs of a group',
			`${material('Match.')}<response_grp ident="G" rcardinality="Multiple"><render_choice>${flags}${label('x')}${label('y')}</render_choice></response_grp>`,
			['a,x', 'b,w'].map((pair) => when(`<varsubset respident="G">${pair}</varsubset>`, 'Add', 1)).join(''),
			{ kind: 'matching', lostKeys: ['w'], pairs: [{ left: 'a', right: 'x' }] }
		],
		[
			'an order',
			material('Order.') + list('R', label('a') + label('b') + label('c'), 'Ordered'),
			when(is('R', 'c') + is('R', 'q') + is('R', 'b'), 'Set', 2),
			{ kind: 'ordering', lostKeys: ['q'], items: [{ identifier: 'c' }, { identifier: 'a' }, { identifier: 'b' }] }
		],
		[
			'places in a picture',
			`${material('Where?')}<response_lid ident="R"><render_hotspot><material><matimage uri="bay.png" imagtype="image/png"/></material><response_label ident="p" rarea="Rectangle">1,1,9,9</response_label></render_hotspot></response_lid>`,
			when(is('R', 'q'), 'Set', 2),
			{ kind: 'hotspot', lostKeys: ['q'] }
		]
	])('is kept as lost for %s, and what it names beside it is right', async (_, presentation, conditions, wanted) => {
		const { question, rules } = await item(presentation, conditions);
		expect(question).toMatchObject(wanted);
		const said = [...rules, ...checkQuestion(question).map(({ rule }) => rule)];
		expect(said).toContain('lost-key');
		expect(said.filter((rule) => /^(no-key|no-right-order|credit-short|marking)/.test(rule))).toEqual([]);
	});
});

describe('places in a picture', () => {
	const picture =
		'<material><matimage imagtype="image/png" uri="a.png" width="90" height="60">A plan</matimage></material>';
	it.each([
		['Rectangle', '10,10,20,5', 'rect', [10, 10, 30, 15]],
		['Ellipse', '10,10,4,4', 'circle', [10, 10, 4]],
		['Ellipse', '10,10,8,4', 'ellipse', [10, 10, 8, 4]],
		['Bounded', '0,0,9,0,0,9', 'poly', [0, 0, 9, 0, 0, 9]]
	])('of type %s at %s', async (type, text, shape, coordinates) => {
		const { question } = await item(
			`${material('Where?')}<response_xy ident="R"><render_hotspot>${picture}<response_label ident="S" rarea="${type}">${text}</response_label></render_hotspot></response_xy>`,
			when(`<varinside respident="R" areatype="${type}">${text}</varinside>`, 'Set', 2)
		);
		expect(question).toMatchObject({
			kind: 'hotspot',
			mode: 'points',
			picture: { width: 90, alt: 'A plan' },
			shapes: [{ identifier: 'S', shape, coordinates, credit: 1 }]
		});
	});
	it('may be areas to choose from', async () => {
		const area = (id: string) => `<response_label ident="${id}" rarea="Rectangle">1,1,5,5</response_label>`;
		const { question } = await item(
			`${material('Which?')}<response_lid ident="R"><render_hotspot>${picture}${area('S')}${area('T')}</render_hotspot></response_lid>`,
			when(is('R', 'T'), 'Set', 2)
		);
		expect(question).toMatchObject({ kind: 'hotspot', mode: 'areas', shapes: [{ credit: 0 }, { credit: 1 }] });
	});
});

describe('a group', () => {
	it('says by its match groups what is paired with what', async () => {
		const one = (id: string, group = '') =>
			`<response_label ident="${id}"${group ? ` match_group="${group}"` : ''}>${material(id)}</response_label>`;
		const { question } = await item(
			`${material('Pair them.')}<response_grp ident="R" rcardinality="Multiple"><render_choice>${one('a', 'x,y')}${one('b', 'x,y')}${one('x')}${one('y')}</render_choice></response_grp>`,
			when('<varsubset respident="R">a,x</varsubset>', 'Add', 1) +
				when('<varsubset respident="R">b,y</varsubset>', 'Add', 1)
		);
		expect(question.kind === 'matching' && question.pairs.map((pair) => [pair.left, pair.right, pair.credit])).toEqual([
			['a', 'x', 0.5],
			['b', 'y', 0.5]
		]);
	});
});

describe('a number on a scale', () => {
	it('keeps its ends and its step', async () => {
		const { question } = await item(
			`${material('How many degrees?')}<response_num ident="R" numtype="Integer"><render_slider lowerbound="0" upperbound="360" step="5"/></response_num>`,
			when(is('R', '225'), 'Set', 2)
		);
		expect(question).toMatchObject({
			kind: 'numeric',
			slider: { lower: 0, upper: 360, step: 5 },
			accepted: [{ value: 225 }]
		});
	});
});

describe('what stands around an item', () => {
	it('becomes tags, difficulty, a part of the stem, or is kept beside it', async () => {
		const found = await readBare(
			'q.xml',
			`<questestinterop><item ident="i" title="Q"><qticomment>From the old list</qticomment><itemmetadata><qmd_keywords>tides, springs</qmd_keywords><qmd_levelofdifficulty>hard</qmd_levelofdifficulty></itemmetadata><rubric view="Candidate">${material('Read twice.')}</rubric><rubric view="Scorer">${material('Two reasons.')}</rubric><presentation>${material('Why?')}<response_str ident="R"><render_fib rows="8"/></response_str></presentation></item></questestinterop>`
		);
		expect(found.questions[0]).toMatchObject({
			kind: 'essay',
			stem: '<p>Read twice.</p><p>Why?</p>',
			tags: ['tides', 'springs'],
			difficulty: 'hard',
			metadata: [
				{ name: 'qticomment', value: 'From the old list' },
				{ name: 'rubric for scorer', value: 'Two reasons.' }
			]
		});
	});
});

describe('boxes to write in', () => {
	it('of one response are told apart by their index', async () => {
		const boxes = `<response_str ident="F" rcardinality="Ordered"><render_fib><response_label ident="A"/>${material(' before ')}<response_label ident="B"/></render_fib></response_str>`;
		const at = (index: number, text: string) => `<varequal respident="F" index="${index}">${text}</varequal>`;
		const { question } = await item(
			`<flow>${material('First ')}${boxes}</flow>`,
			when(at(1, 'red'), 'Add', 1) + when(`<or>${at(2, 'white')}${at(2, 'pale')}</or>`, 'Add', 1)
		);
		expect(plainText(question.stem)).toBe('First [F.1] before [F.2]');
		expect(score(question, { blanks: { 'F.1': ['red'], 'F.2': ['pale'] } }).credit).toBe(1);
		expect(score(question, { blanks: { 'F.1': ['white'], 'F.2': ['white'] } }).credit).toBe(0.5);
	});
	it('may hold a label of their own, which is no option', async () => {
		const labelled = (ident: string) =>
			`<response_str ident="${ident}"><render_fib><response_label ident="x"/></render_fib></response_str>`;
		const { question } = await item(
			`<flow>${material('From ')}${labelled('A')}${material(' to ')}${labelled('B')}</flow>`,
			when(`<or>${is('A', 'ebb')}${is('A', 'the ebb')}</or>`, 'Add', 1) + when(is('B', 'flood'), 'Add', 1)
		);
		expect(question).toMatchObject({
			kind: 'fill-blanks',
			blanks: [{ accepted: [{ text: 'ebb' }, { text: 'the ebb' }] }, { accepted: [{ text: 'flood' }] }]
		});
	});
});

describe('a score whose most is not declared', () => {
	const whole = async (conditions: string) => {
		const found = await readBare(
			'q.xml',
			`<questestinterop><item ident="i" title="Q"><presentation>${material('Which float?')}${list('R', label('a') + label('b') + label('c'), 'Multiple')}</presentation><resprocessing><outcomes><decvar/></outcomes>${conditions}</resprocessing></item></questestinterop>`
		);
		return { question: found.questions[0]!, rules: [...found.about.values()].flat().map((report) => report.rule) };
	};
	it('is all the points at its best, also where only all right options together reach it', async () => {
		const { question, rules } = await whole(
			`<respcondition><conditionvar><and>${is('R', 'a')}<not>${is('R', 'b')}</not>${is('R', 'c')}</and></conditionvar><setvar action="Set">5</setvar></respcondition>`
		);
		expect(question).toMatchObject({ points: 5, combination: 'all' });
		expect(score(question, { options: ['a', 'c'] }).credit).toBe(1);
		expect(score(question, { options: ['a', 'b', 'c'] }).credit).toBe(0);
		expect(rules).not.toContain('marking-simplified');
	});
	it('is what all right options add up to', async () => {
		const { question } = await whole(when(is('R', 'a'), 'Add', 2) + when(is('R', 'c'), 'Add', 2));
		expect(question).toMatchObject({ points: 4, options: [{ credit: 0.5 }, { credit: 0 }, { credit: 0.5 }] });
	});
});

describe('a hint and a solution that nothing shows', () => {
	it('are kept as what they are', async () => {
		const found = await readBare(
			'q.xml',
			`<questestinterop><item ident="i"><presentation>${material('Describe it.')}<response_str ident="E"><render_fib rows="5"/></response_str></presentation><itemfeedback ident="s"><solution><solutionmaterial>${material('Head to wind.')}</solutionmaterial></solution></itemfeedback><itemfeedback ident="h"><hint><hintmaterial>${material('Mind the wind.')}</hintmaterial></hint></itemfeedback></item></questestinterop>`
		);
		expect(found.questions[0]).toMatchObject({ hints: ['Mind the wind.'], feedback: { general: 'Head to wind.' } });
	});
});
