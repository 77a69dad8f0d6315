import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blanksIn } from '../../markup/markers';
import { plainText } from '../../markup/text';
import type { Question } from '../../kinds';
import { readBare } from '../../test-support/packages';
import { checkQuestion } from '../../checks/one';
import { rightResponse, score } from '../../scoring/score';

const head =
	'<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="Q" title="Q" adaptive="false" timeDependent="false">';
const outcome =
	'<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>';
const most = (points: number) =>
	`<outcomeDeclaration identifier="MAXSCORE" cardinality="single" baseType="float"><defaultValue><value>${points}</value></defaultValue></outcomeDeclaration>`;
const response = (id: string, type: string, cardinality: string, correct: string[], inner = '') =>
	`<responseDeclaration identifier="${id}" cardinality="${cardinality}" baseType="${type}">${correct.length ? `<correctResponse>${correct.map((one) => `<value>${one}</value>`).join('')}</correctResponse>` : ''}${inner}</responseDeclaration>`;
const template = (name: string) =>
	`<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/${name}"/>`;
const float = (value: number) => `<baseValue baseType="float">${value}</baseValue>`;
const add = (test: string, points: number) =>
	`<responseCondition><responseIf>${test}<setOutcomeValue identifier="SCORE"><sum><variable identifier="SCORE"/>${float(points)}</sum></setOutcomeValue></responseIf></responseCondition>`;
const right = (id: string) => `<match><variable identifier="${id}"/><correct identifier="${id}"/></match>`;
const read = async (declarations: string, body: string, rules: string) => {
	const found = await readBare(
		'q.xml',
		`${head}${declarations}${outcome}<itemBody>${body}</itemBody>${rules}</assessmentItem>`
	);
	return { question: found.questions[0]!, rules: [...found.about.values()].flat().map((report) => report.rule) };
};
const earn = (question: Question, blanks: Record<string, string[]>) => score(question, { blanks }).credit;

describe('several answers in one item', () => {
	const body =
		'<p>A <textEntryInteraction responseIdentifier="A"/> and a <textEntryInteraction responseIdentifier="B"/>.</p>';
	const both = response('A', 'string', 'single', ['ebb']) + response('B', 'integer', 'single', ['3']);
	it('become blanks, each with its share of the points', async () => {
		const { question } = await read(
			both + most(4),
			body,
			`<responseProcessing>${add(right('A'), 1)}${add(right('B'), 3)}</responseProcessing>`
		);
		expect(question).toMatchObject({
			kind: 'fill-blanks',
			points: 4,
			combination: 'sum',
			blanks: [
				{ share: 0.25, form: 'text' },
				{ share: 0.75, form: 'number', whole: true }
			]
		});
		expect(plainText(question.stem)).toBe('A [A] and a [B].');
		expect(earn(question, { A: ['ebb'], B: ['9'] })).toBe(0.25);
	});
	it('become blanks of which all have to be right, where the rules say so', async () => {
		const rules = `<responseProcessing><responseCondition><responseIf><and>${right('A')}${right('B')}</and><setOutcomeValue identifier="SCORE">${float(2)}</setOutcomeValue></responseIf></responseCondition></responseProcessing>`;
		const { question } = await read(both + most(2), body, rules);
		expect(question).toMatchObject({ combination: 'all' });
		expect(earn(question, { A: ['ebb'] })).toBe(0);
		expect(earn(question, { A: ['ebb'], B: ['3'] })).toBe(1);
	});
	it('are reported where they weigh against each other', async () => {
		const rules = `<responseProcessing>${add(right('A'), 1)}${add(right('B'), 1)}<responseCondition><responseIf><and>${right('A')}${right('B')}</and><setOutcomeValue identifier="SCORE">${float(5)}</setOutcomeValue></responseIf></responseCondition></responseProcessing>`;
		expect((await read(both, body, rules)).rules).toContain('marking-simplified');
	});
	it('may be a choice with a text to explain it, which a person marks', async () => {
		const { question } = await read(
			response('A', 'identifier', 'single', ['X']) + response('B', 'string', 'single', []) + most(4),
			'<choiceInteraction responseIdentifier="A" maxChoices="1"><prompt>Which?</prompt><simpleChoice identifier="X">x</simpleChoice><simpleChoice identifier="Y">y</simpleChoice></choiceInteraction><extendedTextInteraction responseIdentifier="B"><prompt>Why?</prompt></extendedTextInteraction>',
			`<responseProcessing>${add(right('A'), 1)}</responseProcessing>`
		);
		expect(question).toMatchObject({
			kind: 'fill-blanks',
			blanks: [
				{ form: 'list', share: 0.25 },
				{ form: 'open', share: 0.75 }
			]
		});
		expect(plainText(question.stem)).toBe('Which? Why?');
	});
	const entry = '<p>Its name: <textEntryInteraction responseIdentifier="A"/></p>';
	const picture = '<object type="image/png" data="bay.png" width="200" height="100"/>';
	const spot = (tag: string, id: string, coords: string, more = '') =>
		`<${tag} identifier="${id}" shape="rect" coords="${coords}" ${more}/>`;
	const named = response('A', 'string', 'single', ['mole']);
	const mapped = (entries: string) => `<areaMapping defaultValue="0">${entries}</areaMapping>`;
	it.each([
		[
			'areas of a picture, by their labels or by where they lie',
			response('B', 'identifier', 'single', ['Y']),
			`<hotspotInteraction responseIdentifier="B" maxChoices="1"><prompt>Where is it?</prompt>${picture}${spot('hotspotChoice', 'X', '0,0,10,20', 'hotspotLabel="the quay"')}${spot('hotspotChoice', 'Y', '100,40,120,60')}</hotspotInteraction>`,
			right('B'),
			{ B: ['Y'] },
			{ B: ['X'] },
			['the quay', 'Place 2 (110 across, 50 down)']
		],
		[
			'any point of a picture',
			response(
				'B',
				'point',
				'single',
				['50 50'],
				mapped(
					'<areaMapEntry shape="circle" coords="50,50,8" mappedValue="1"/><areaMapEntry shape="circle" coords="90,20,8" mappedValue="0"/>'
				)
			),
			`<selectPointInteraction responseIdentifier="B" maxChoices="1">${picture}</selectPointInteraction>`,
			`<gt><mapResponsePoint identifier="B"/>${float(0)}</gt>`,
			{ B: ['A1'] },
			{ B: ['A2'] },
			['Place 1 (50 across, 50 down)', 'Place 2 (90 across, 20 down)', 'Another place']
		],
		[
			'labels laid on a picture',
			response('B', 'directedPair', 'multiple', ['L1 T1']),
			`<graphicGapMatchInteraction responseIdentifier="B">${picture}<gapText identifier="L1" matchMax="1">mole</gapText><gapText identifier="L2" matchMax="1">buoy</gapText>${spot('associableHotspot', 'T1', '0,0,10,10', 'matchMax="1"')}${spot('associableHotspot', 'T2', '20,0,30,10', 'matchMax="1"')}</graphicGapMatchInteraction>`,
			right('B'),
			{ 'B.T1': ['L1'] },
			{ 'B.T1': ['L2'] },
			['mole', 'buoy']
		],
		[
			'pairs within one list',
			response('B', 'pair', 'multiple', ['P3 P1']),
			'<associateInteraction responseIdentifier="B" maxAssociations="1"><simpleAssociableChoice identifier="P1" matchMax="1">ebb</simpleAssociableChoice><simpleAssociableChoice identifier="P2" matchMax="1">quay</simpleAssociableChoice><simpleAssociableChoice identifier="P3" matchMax="1">falling</simpleAssociableChoice></associateInteraction>',
			right('B'),
			{ 'B.P1': ['P3'] },
			{ 'B.P1': ['P2'] },
			['quay', 'falling']
		],
		[
			'words selected in a text',
			response('B', 'identifier', 'multiple', ['W1', 'W2']),
			'<hottextInteraction responseIdentifier="B" maxChoices="0"><p>Keep to the <hottext identifier="W1">port</hottext> and <hottext identifier="W2">starboard</hottext> marks, not the <hottext identifier="W3">kerb</hottext>.</p></hottextInteraction>',
			right('B'),
			{ B: ['W1', 'W2'] },
			{ B: ['W3'] },
			['port', 'starboard', 'kerb']
		]
	])('may be %s, beside another answer', async (_, declaration, body, test, good, bad, entries) => {
		const { question, rules } = await read(
			named + declaration + most(2),
			entry + body,
			`<responseProcessing>${add(right('A'), 1)}${add(test, 1)}</responseProcessing>`
		);
		if (question.kind !== 'fill-blanks') throw new Error(question.kind);
		expect(rules).toContain('reshaped');
		expect(rules).not.toContain('marking-simplified');
		const list = question.blanks.at(-1)!;
		expect(list.form === 'list' && list.entries.map(({ text }) => text)).toEqual(entries);
		expect(earn(question, { A: ['mole'], ...good })).toBe(1);
		expect(earn(question, { A: ['mole'], ...bad })).toBe(0.5);
		expect(blanksIn(question.stem)).toEqual(question.blanks.map(({ identifier }) => identifier));
		if (body.includes('bay.png')) {
			expect(question.stem).toContain('<img src="media:bay.png" alt="" width="200" height="100"/>');
			expect(question.attachments).toMatchObject([{ name: 'bay.png' }]);
		}
	});
	const associable = (id: string, text: string) =>
		`<simpleAssociableChoice identifier="${id}" matchMax="1">${text}</simpleAssociableChoice>`;
	const simple = (id: string, text: string) => `<simpleChoice identifier="${id}">${text}</simpleChoice>`;
	/** Each interaction with its type, its cardinality and its key, under a name that it is given. */
	const all: [string, string, string[], (id: string) => string][] = [
		['string', 'single', ['mole'], (id) => `<p>Name <textEntryInteraction responseIdentifier="${id}"/></p>`],
		['float', 'single', ['1.5'], (id) => `<p>Metres: <textEntryInteraction responseIdentifier="${id}"/></p>`],
		[
			'identifier',
			'single',
			['b'],
			(id) =>
				`<p>It is <inlineChoiceInteraction responseIdentifier="${id}"><inlineChoice identifier="a">ebb</inlineChoice><inlineChoice identifier="b">flood</inlineChoice></inlineChoiceInteraction>.</p>`
		],
		[
			'identifier',
			'multiple',
			['a', 'c'],
			(id) =>
				`<choiceInteraction responseIdentifier="${id}" maxChoices="0">${simple('a', 'red')}${simple('b', 'blue')}${simple('c', 'green')}</choiceInteraction>`
		],
		[
			'identifier',
			'ordered',
			['b', 'a'],
			(id) =>
				`<orderInteraction responseIdentifier="${id}">${simple('a', 'reef')}${simple('b', 'heave to')}</orderInteraction>`
		],
		[
			'directedPair',
			'multiple',
			['l r'],
			(id) =>
				`<matchInteraction responseIdentifier="${id}"><simpleMatchSet>${associable('l', 'ebb')}</simpleMatchSet><simpleMatchSet>${associable('r', 'out')}${associable('q', 'in')}</simpleMatchSet></matchInteraction>`
		],
		[
			'pair',
			'multiple',
			['q l'],
			(id) =>
				`<associateInteraction responseIdentifier="${id}">${associable('l', 'ebb')}${associable('m', 'quay')}${associable('q', 'falling')}</associateInteraction>`
		],
		[
			'directedPair',
			'multiple',
			['w g'],
			(id) =>
				`<gapMatchInteraction responseIdentifier="${id}"><gapText identifier="w" matchMax="1">port</gapText><gapText identifier="v" matchMax="1">bow</gapText><p>Left is <gap identifier="g"/>.</p></gapMatchInteraction>`
		],
		[
			'identifier',
			'single',
			['h'],
			(id) =>
				`<hottextInteraction responseIdentifier="${id}" maxChoices="1"><p>The <hottext identifier="h">cleat</hottext> or the <hottext identifier="k">kerb</hottext>.</p></hottextInteraction>`
		],
		[
			'identifier',
			'single',
			['y'],
			(id) =>
				`<hotspotInteraction responseIdentifier="${id}" maxChoices="1">${picture}${spot('hotspotChoice', 'x', '0,0,9,9')}${spot('hotspotChoice', 'y', '20,0,29,9')}</hotspotInteraction>`
		],
		[
			'point',
			'single',
			['50 50'],
			(id) => `<selectPointInteraction responseIdentifier="${id}" maxChoices="1">${picture}</selectPointInteraction>`
		],
		[
			'directedPair',
			'multiple',
			['n t'],
			(id) =>
				`<graphicGapMatchInteraction responseIdentifier="${id}">${picture}<gapText identifier="n" matchMax="1">mole</gapText><gapText identifier="o" matchMax="1">pier</gapText>${spot('associableHotspot', 't', '0,0,9,9', 'matchMax="1"')}</graphicGapMatchInteraction>`
		]
	];
	it('may be any, in any order: what is right earns all, nothing earns nothing, and each its own', async () => {
		const some = fc.uniqueArray(fc.constantFrom(...all), { minLength: 2, maxLength: 4 });
		await fc.assert(
			fc.asyncProperty(some, fc.boolean(), async (chosen, atOnce) => {
				const ids = chosen.map((_, at) => `R${at + 1}`);
				const { question } = await read(
					chosen.map(([type, cardinality, key], at) => response(ids[at]!, type, cardinality, key)).join('') +
						most(ids.length),
					chosen.map(([, , , body], at) => body(ids[at]!)).join(''),
					`<responseProcessing>${atOnce ? add(`<and>${ids.map(right).join('')}</and>`, ids.length) : ids.map((id) => add(right(id), 1)).join('')}</responseProcessing>`
				);
				if (question.kind !== 'fill-blanks') throw new Error(`${question.kind}: ${JSON.stringify(question)}`);
				const { blanks } = rightResponse(question)!;
				expect(score(question, { blanks: blanks! }).credit).toBeCloseTo(1, 5);
				expect(score(question, { blanks: {} }).credit).toBe(0);
				expect(blanksIn(question.stem).sort()).toEqual(question.blanks.map(({ identifier }) => identifier).sort());
				for (const id of atOnce ? [] : ids) {
					const own = Object.entries(blanks!).filter(([name]) => name === id || name.startsWith(`${id}.`));
					expect(score(question, { blanks: Object.fromEntries(own) }).credit).toBeCloseTo(1 / ids.length, 4);
				}
			}),
			{ numRuns: 120 }
		);
	});
	it('cannot be held where one is to draw', async () => {
		const { question } = await read(
			named + response('B', 'file', 'single', []),
			`${entry}<drawingInteraction responseIdentifier="B">${picture}</drawingInteraction>`,
			template('match_correct')
		);
		expect(question.kind).toBe('unreadable');
	});
});

describe('pairs', () => {
	const sets =
		'<simpleMatchSet><simpleAssociableChoice identifier="a" matchMax="1">ebb</simpleAssociableChoice><simpleAssociableChoice identifier="b" matchMax="1">flood</simpleAssociableChoice></simpleMatchSet><simpleMatchSet><simpleAssociableChoice identifier="x" matchMax="0">out</simpleAssociableChoice><simpleAssociableChoice identifier="y" matchMax="2">in</simpleAssociableChoice></simpleMatchSet>';
	const body = `<matchInteraction responseIdentifier="R" maxAssociations="0">${sets}</matchInteraction>`;
	it('earn what the mapping says, wrong ones too', async () => {
		const mapping =
			'<mapping lowerBound="0" upperBound="2" defaultValue="-1"><mapEntry mapKey="a x" mappedValue="1"/><mapEntry mapKey="b y" mappedValue="1"/></mapping>';
		const { question } = await read(
			response('R', 'directedPair', 'multiple', ['a x', 'b y'], mapping) + most(2),
			body,
			template('map_response')
		);
		expect(question).toMatchObject({
			kind: 'matching',
			right: [{ uses: null }, { uses: 2 }],
			bounds: { lower: 0, upper: 1 },
			combination: 'sum'
		});
		expect(
			score(question, {
				pairs: [
					['a', 'x'],
					['b', 'x']
				]
			}).credit
		).toBe(0);
		expect(score(question, { pairs: [['a', 'x']] }).credit).toBe(0.5);
	});
	it('are all or nothing by the matching template', async () => {
		const { question } = await read(
			response('R', 'directedPair', 'multiple', ['a x', 'b y']),
			body,
			template('match_correct')
		);
		expect(question).toMatchObject({ kind: 'matching', combination: 'all' });
		expect(
			score(question, {
				pairs: [
					['a', 'x'],
					['b', 'y']
				]
			}).credit
		).toBe(1);
	});
	it('within one list are told whichever way they are written', async () => {
		const choices = ['a', 'b', 'c', 'd']
			.map((id) => `<simpleAssociableChoice identifier="${id}" matchMax="1">${id}</simpleAssociableChoice>`)
			.join('');
		const { question } = await read(
			response('R', 'pair', 'multiple', ['c a', 'b d']),
			`<associateInteraction responseIdentifier="R" maxAssociations="2">${choices}</associateInteraction>`,
			template('match_correct')
		);
		expect(question.kind === 'matching' && question.pairs.map((pair) => `${pair.left}${pair.right}`).sort()).toEqual([
			'ac',
			'bd'
		]);
	});
});

describe('an order', () => {
	const body = `<orderInteraction responseIdentifier="R" shuffle="true">${['a', 'b', 'c'].map((id) => `<simpleChoice identifier="${id}">${id}</simpleChoice>`).join('')}</orderInteraction>`;
	it('may earn a part for each place', async () => {
		const at = (n: number, id: string) =>
			`<match><index n="${n}"><variable identifier="R"/></index><baseValue baseType="identifier">${id}</baseValue></match>`;
		const { question } = await read(
			response('R', 'identifier', 'ordered', ['c', 'a', 'b']),
			body,
			`<responseProcessing>${add(at(1, 'c'), 1)}${add(at(2, 'a'), 1)}${add(at(3, 'b'), 1)}</responseProcessing>`
		);
		expect(question).toMatchObject({ kind: 'ordering', rule: 'position', points: 3, presented: ['a', 'b', 'c'] });
	});
	it('without a right one takes that of the file, and says so', async () => {
		const { rules } = await read(response('R', 'identifier', 'ordered', []), body, template('match_correct'));
		expect(rules).toContain('no-right-order');
	});
	it('of which some things are to be left out has a list to choose from for each place', async () => {
		const { question, rules } = await read(
			response('R', 'identifier', 'ordered', ['b', 'a']),
			body,
			template('match_correct')
		);
		expect(question).toMatchObject({ kind: 'fill-blanks', combination: 'all' });
		expect(rules).toContain('reshaped');
		expect(earn(question, { 'R.1': ['b'], 'R.2': ['a'] })).toBe(1);
		expect(earn(question, { 'R.1': ['a'], 'R.2': ['b'] })).toBe(0);
	});
});

describe('a key that names nothing', () => {
	const associable = (id: string) =>
		`<simpleAssociableChoice identifier="${id}" matchMax="1">${id}</simpleAssociableChoice>`;
	const ordered = `<orderInteraction responseIdentifier="R" shuffle="true">${['a', 'b', 'c'].map((id) => `<simpleChoice identifier="${id}">${id}</simpleChoice>`).join('')}</orderInteraction>`;
	const matched = `<matchInteraction responseIdentifier="R" maxAssociations="2"><simpleMatchSet>${associable('a')}${associable('b')}</simpleMatchSet><simpleMatchSet>${associable('x')}${associable('y')}</simpleMatchSet></matchInteraction>`;
	const gaps =
		'<gapMatchInteraction responseIdentifier="R" shuffle="false"><gapText identifier="w" matchMax="1">ebb</gapText><gapText identifier="v" matchMax="1">flood</gapText><p>The <gap identifier="g"/> runs out, the <gap identifier="h"/> runs in.</p></gapMatchInteraction>';
	const places =
		'<hotspotInteraction responseIdentifier="R" maxChoices="1"><prompt>Where?</prompt><object type="image/png" data="a.png" width="40" height="30"/><hotspotChoice identifier="p" shape="circle" coords="5,5,2"/></hotspotInteraction>';
	const list =
		'<p>The flood runs <inlineChoiceInteraction responseIdentifier="R" shuffle="false"><inlineChoice identifier="a">in</inlineChoice><inlineChoice identifier="b">out</inlineChoice></inlineChoiceInteraction>.</p>';
	const options =
		'<choiceInteraction responseIdentifier="R" maxChoices="2"><prompt>Which?</prompt><simpleChoice identifier="X">x</simpleChoice><simpleChoice identifier="Y">y</simpleChoice></choiceInteraction>';
	it.each([
		['an order', response('R', 'identifier', 'ordered', ['a', 'q', 'c']), ordered, ['q'], 'ordering'],
		['pairs', response('R', 'directedPair', 'multiple', ['a x', 'b z']), matched, ['z'], 'matching'],
		['words in gaps', response('R', 'directedPair', 'multiple', ['w g', 'v k']), gaps, ['k'], 'fill-blanks'],
		['a place in a picture', response('R', 'identifier', 'single', ['q']), places, ['q'], 'hotspot'],
		['a list in a sentence', response('R', 'identifier', 'single', ['up']), list, ['up'], 'fill-blanks'],
		['options', response('R', 'identifier', 'multiple', ['X', 'Z']), options, ['Z'], 'multiple-response']
	])('is kept as lost for %s, and nothing else is said of it', async (_, declared, body, lost, kind) => {
		const { question, rules } = await read(declared, body, template('match_correct'));
		expect(question).toMatchObject({ kind, lostKeys: lost });
		const said = [...rules, ...checkQuestion(question).map(({ rule }) => rule)];
		expect(said.filter((rule) => /key|marking|credit|order|partner/.test(rule))).toEqual(
			kind === 'matching' ? ['lost-key', 'pair-without-partner'] : ['lost-key']
		);
	});
	it('leaves what is named beside it right', async () => {
		const { question } = await read(
			response('R', 'directedPair', 'multiple', ['a x', 'b z']),
			matched,
			template('match_correct')
		);
		expect(question).toMatchObject({ pairs: [{ left: 'a', right: 'x' }] });
	});
	it('leaves an order with each of its things, those that are named in their places', async () => {
		const { question } = await read(response('R', 'identifier', 'ordered', ['a', 'q', 'c']), ordered, '');
		expect(question).toMatchObject({ items: [{ identifier: 'a' }, { identifier: 'b' }, { identifier: 'c' }] });
	});
	it('is not said of points that nothing earns', async () => {
		const mapped = response(
			'R',
			'identifier',
			'single',
			[],
			'<mapping defaultValue="0"><mapEntry mapKey="X" mappedValue="0"/></mapping>'
		);
		const { question, rules } = await read(mapped, options, template('map_response'));
		expect(rules).not.toContain('marking-simplified');
		expect(checkQuestion(question).map(({ rule }) => rule)).toContain('no-key');
	});
});

describe('several things to do in one question', () => {
	const associable = (id: string) =>
		`<simpleAssociableChoice identifier="${id}" matchMax="1">${id}</simpleAssociableChoice>`;
	const choice =
		'<choiceInteraction responseIdentifier="A" maxChoices="1"><prompt>Which?</prompt><simpleChoice identifier="X">x</simpleChoice><simpleChoice identifier="Y">y</simpleChoice></choiceInteraction>';
	const match = `<matchInteraction responseIdentifier="B" maxAssociations="2"><simpleMatchSet>${associable('L1')}${associable('L2')}</simpleMatchSet><simpleMatchSet>${associable('T1')}${associable('T2')}${associable('T3')}</simpleMatchSet></matchInteraction>`;
	const declared = response('A', 'identifier', 'single', ['X']) + response('B', 'directedPair', 'multiple', ['L1 T1']);

	it('are a blank for each thing to be matched, with what is right and what it earns', async () => {
		const { question } = await read(
			declared.replace(
				'</correctResponse></responseDeclaration>',
				'</correctResponse><mapping defaultValue="0"><mapEntry mapKey="X" mappedValue="2"/></mapping></responseDeclaration>'
			) + most(4),
			choice + match,
			`<responseProcessing>${add(right('A'), 2)}<responseCondition><responseIf>${right('B')}<setOutcomeValue identifier="SCORE"><sum><variable identifier="SCORE"/>${float(2)}</sum></setOutcomeValue></responseIf></responseCondition></responseProcessing>`
		);
		expect(question).toMatchObject({ kind: 'fill-blanks', points: 4 });
		expect(earn(question, { A: ['X'], 'B.L1': ['T1'], 'B.L2': ['T2'] })).toBe(1);
		expect(earn(question, { A: ['X'] })).toBe(0.5);
		expect(earn(question, { A: ['X'], 'B.L1': ['T3'], 'B.L2': ['T3'] })).toBe(0.5);
	});
	it('are marked by the declared key where their rules give nothing for any answer, and that is said', async () => {
		const { question, rules } = await read(declared, choice + match, '<responseProcessing></responseProcessing>');
		expect(rules).toContain('marking-simplified');
		expect(earn(question, { A: ['X'], 'B.L1': ['T1'], 'B.L2': ['T2'] })).toBe(1);
		expect(earn(question, { A: ['Y'], 'B.L1': ['T2'] })).toBe(0);
	});
	it('may be to listen first: what is played stands in the stem', async () => {
		const { question, rules } = await read(
			response('M', 'integer', 'single', []) + response('A', 'identifier', 'single', ['X']),
			`<mediaInteraction responseIdentifier="M" autostart="false"><object data="call.mp3" type="audio/mpeg"/></mediaInteraction>${choice}`,
			template('match_correct')
		);
		expect(question).toMatchObject({ kind: 'multiple-choice', attachments: [{ name: 'call.mp3' }] });
		expect(question.stem).toContain('<object data="media:call.mp3"');
		expect(rules).toContain('reshaped');
	});
});

describe('places in a picture', () => {
	it('are told from rules as well as from a mapping', async () => {
		const inside = '<inside shape="circle" coords="10,10,5"><variable identifier="R"/></inside>';
		const { question } = await read(
			response('R', 'point', 'single', []),
			'<selectPointInteraction responseIdentifier="R" maxChoices="1"><prompt>Where?</prompt><object type="image/png" data="a.png" width="40" height="40">A chart</object></selectPointInteraction>',
			`<responseProcessing>${add(inside, 2)}</responseProcessing>`
		);
		expect(question).toMatchObject({
			kind: 'hotspot',
			mode: 'points',
			points: 2,
			picture: { width: 40, alt: 'A chart' },
			shapes: [{ shape: 'circle', coordinates: [10, 10, 5], credit: 1 }]
		});
	});
});

describe('words and numbers', () => {
	it('may be held against a pattern, or be contained', async () => {
		const rules = `<responseProcessing><responseCondition><responseIf><patternMatch pattern="[A-Z]{2}"><variable identifier="R"/></patternMatch><setOutcomeValue identifier="SCORE">${float(1)}</setOutcomeValue></responseIf><responseElseIf><stringMatch caseSensitive="false" substring="true"><variable identifier="R"/><baseValue baseType="string">tide</baseValue></stringMatch><setOutcomeValue identifier="SCORE">${float(0.5)}</setOutcomeValue></responseElseIf></responseCondition></responseProcessing>`;
		const { question } = await read(
			response('R', 'string', 'single', []) + most(1),
			'<p>Which?</p><p><textEntryInteraction responseIdentifier="R"/></p>',
			rules
		);
		expect(question).toMatchObject({
			kind: 'short-answer',
			accepted: [
				{ text: 'tide', credit: 0.5, match: 'contains' },
				{ text: '[A-Z]{2}', credit: 1, match: 'pattern' }
			]
		});
		expect(score(question, { text: 'GZ' }).credit).toBe(1);
		expect(score(question, { text: 'the spring tide' }).credit).toBe(0.5);
		expect(score(question, { text: 'GZx' }).credit).toBe(0);
	});
	it('in the middle of a sentence are a blank', async () => {
		const { question } = await read(
			response('R', 'string', 'single', ['ebb']),
			'<p>The stream is the <textEntryInteraction responseIdentifier="R"/> now.</p>',
			template('match_correct')
		);
		expect(question.kind).toBe('fill-blanks');
		expect(plainText(question.stem)).toBe('The stream is the [R] now.');
	});
	it('may be looked up in a table of scores', async () => {
		const outcomes =
			'<outcomeDeclaration identifier="RAW" cardinality="single" baseType="integer"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><matchTable defaultValue="0"><matchTableEntry sourceValue="1" targetValue="3"/></matchTable></outcomeDeclaration>';
		const rules = `<responseProcessing><responseCondition><responseIf>${right('R')}<setOutcomeValue identifier="RAW"><baseValue baseType="integer">1</baseValue></setOutcomeValue></responseIf></responseCondition><lookupOutcomeValue identifier="SCORE"><variable identifier="RAW"/></lookupOutcomeValue></responseProcessing>`;
		const found = await readBare(
			'q.xml',
			`${head}${response('R', 'string', 'single', ['ebb'])}${outcomes}<itemBody><p>Which?</p><p><textEntryInteraction responseIdentifier="R"/></p></itemBody>${rules}</assessmentItem>`
		);
		expect(found.questions[0]).toMatchObject({ points: 3, accepted: [{ text: 'ebb', credit: 1 }] });
	});
});
