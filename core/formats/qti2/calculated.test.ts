import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { datasetOf } from '../../kinds/calculated/datasets';
import { evaluate } from '../../kinds/calculated/expression';
import { plainText } from '../../markup/text';
import type { UnreadableQuestion, Question } from '../../kinds';
import { score } from '../../scoring/score';
import { readBare } from '../../test-support/packages';
import { parseXml } from '../../xml/parse';
import { operationOf } from './arithmetic';
import { treeOf } from './calculated';

const float = (value: number) => `<baseValue baseType="float">${value}</baseValue>`;
const variable = (name: string) => `<variable identifier="${name}"/>`;
const elementOf = (xml: string) => parseXml(xml).root!;

describe('a calculation of the standard, as one of ours', () => {
	const plain = 'sum product subtract divide power min max truncate round integerModulus integerDivide'.split(' ');
	const named =
		'sin cos tan sec csc cot asin acos atan sinh cosh tanh log ln exp abs signum floor ceil toDegrees toRadians'.split(
			' '
		);
	it('comes to what the standard says of it', () => {
		const value = fc.double({ min: -40, max: 40, noNaN: true }).map((one) => Math.round(one * 100) / 100 || 1);
		const expression = fc.oneof(
			fc.tuple(fc.constantFrom(...plain), fc.array(value, { minLength: 2, maxLength: 2 })).map(([name, of]) => ({
				xml: `<${name}>${(name === 'truncate' || name === 'round' ? of.slice(1) : of).map(float).join('')}</${name}>`,
				of: name === 'truncate' || name === 'round' ? of.slice(1) : of
			})),
			fc.tuple(fc.constantFrom(...named), value).map(([name, of]) => ({
				xml: `<mathOperator name="${name}">${float(of)}</mathOperator>`,
				of: [of]
			}))
		);
		fc.assert(
			fc.property(expression, ({ xml, of }) => {
				const node = elementOf(xml);
				const wanted = operationOf(node)!(of);
				const found = Number(evaluate(treeOf(node), new Map()));
				if (wanted === null) expect(Number.isFinite(found)).toBe(false);
				else expect(Math.abs(found - wanted)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(wanted)));
			}),
			{ numRuns: 400 }
		);
	});
	it('nests, with variables and constants', () => {
		const node = elementOf(
			`<divide><product>${variable('D')}<mathConstant name="pi"/></product><sum>${variable('V')}${float(2)}${float(1)}</sum></divide>`
		);
		const values = new Map([
			['D', 12],
			['V', 3]
		]);
		expect(evaluate(treeOf(node), values)).toBeCloseTo(2 * Math.PI, 9);
	});
});

const item = (
	templates: string,
	processing: string,
	equal = '<equal toleranceMode="absolute" tolerance="0.05 0.05">',
	interaction = '<textEntryInteraction responseIdentifier="RESPONSE"/>',
	type = 'float'
) =>
	`<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="P" title="Passage" adaptive="false" timeDependent="false"><responseDeclaration identifier="RESPONSE" cardinality="single" baseType="${type}"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>${templates}<templateProcessing>${processing}</templateProcessing><itemBody><p>How many hours are <printedVariable identifier="D"/> miles at <printedVariable identifier="V" format="%.1f"/> knots? ${interaction}</p></itemBody><responseProcessing><responseCondition><responseIf>${equal}<variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></equal><setOutcomeValue identifier="SCORE">${float(3)}</setOutcomeValue></responseIf></responseCondition></responseProcessing></assessmentItem>`;
const declare = (name: string, type: string, value?: number) =>
	`<templateDeclaration identifier="${name}" cardinality="single" baseType="${type}">${value === undefined ? '' : `<defaultValue><value>${value}</value></defaultValue>`}</templateDeclaration>`;
const set = (name: string, expression: string) =>
	`<setTemplateValue identifier="${name}">${expression}</setTemplateValue>`;
const right = (expression: string) => `<setCorrectResponse identifier="RESPONSE">${expression}</setCorrectResponse>`;
const time = right(`<divide>${variable('D')}${variable('V')}</divide>`);
const both = declare('D', 'integer') + declare('V', 'float');
const read = async (xml: string): Promise<Question> => (await readBare('p.xml', xml)).questions[0]!;

describe('an item that is worked out anew for each student', () => {
	it('is a calculated question, whose numbers keep to what the file says and whose answer is marked', async () => {
		const question = await read(
			item(
				both,
				set('D', '<randomInteger min="10" max="60" step="10"/>') +
					set('V', '<randomFloat min="4" max="8"/>') +
					`<templateConstraint><gte><divide>${variable('D')}${variable('V')}</divide>${float(2)}</gte></templateConstraint>` +
					time
			)
		);
		if (question.kind !== 'calculated') throw new Error(question.kind);
		expect(question).toMatchObject({ points: 3, tolerance: { mode: 'absolute', value: 0.05 }, expression: 'D / V' });
		expect(question.variables.map((one) => [one.name, one.whole, one.decimals])).toEqual([
			['D', true, null],
			['V', false, 1]
		]);
		for (const seed of ['a', 'b', 'c', 'd', 'e']) {
			const { values, answer } = datasetOf(question, seed);
			expect(values.get('D')! % 10).toBe(0);
			expect(answer).toBeGreaterThanOrEqual(2);
			expect(score(question, { text: String(answer), seed }).credit).toBe(1);
			expect(score(question, { text: String(answer + 0.2), seed }).credit).toBe(0);
		}
	});
	it('takes its numbers from a list, from a default, or works them out', async () => {
		const question = await read(
			item(
				both + declare('K', 'float', 1.852),
				set('D', `<random><multiple>${float(12)}${float(24)}</multiple></random>`) +
					set('V', `<product>${variable('D')}${float(0.5)}</product>`) +
					right(`<product>${variable('D')}${variable('K')}</product>`)
			)
		);
		if (question.kind !== 'calculated') throw new Error(question.kind);
		expect(question.variables.map((one) => [one.name, one.values.form])).toEqual([
			['K', 'set'],
			['D', 'set'],
			['V', 'expression']
		]);
		const { values, answer } = datasetOf(question, 'x');
		expect([12, 24]).toContain(values.get('D'));
		expect(values.get('V')).toBe(values.get('D')! / 2);
		expect(answer).toBeCloseTo(values.get('D')! * 1.852, 6);
	});
	it('holds a tolerance in percent as a share, and none where the equality is exact', async () => {
		const numbers = set('D', '<randomInteger min="1" max="9"/>') + set('V', '<randomInteger min="1" max="9"/>') + time;
		const relative = await read(item(both, numbers, '<equal toleranceMode="relative" tolerance="2">'));
		expect(relative).toMatchObject({ tolerance: { mode: 'relative', value: 0.02 } });
		const exact = await read(item(both, numbers, '<equal toleranceMode="exact">'));
		expect(exact).toMatchObject({ tolerance: { mode: 'absolute', value: 0 } });
	});
	it('shows its variables in the stem by their names', async () => {
		const question = await read(
			item(both, set('D', '<randomInteger min="1" max="9"/>') + set('V', '<randomInteger min="1" max="9"/>') + time)
		);
		expect(plainText(question.stem)).toBe('How many hours are {D} miles at {V} knots?');
	});
	it.each([
		[
			'no right answer is set',
			item(both, set('D', '<randomInteger min="1" max="9"/>') + set('V', '<randomInteger min="1" max="9"/>'))
		],
		[
			'is itself worked out',
			item(both, set('D', '<randomInteger min="1" max="9"/>') + set('V', `<randomInteger min="{D}" max="9"/>`) + time)
		],
		[
			'is not a single number',
			item(both, set('D', '<randomInteger min="1" max="9"/>'), undefined, undefined, 'string')
		],
		[
			'“templateCondition”',
			item(
				both,
				set('D', '<randomInteger min="1" max="9"/>') +
					`<templateCondition><templateIf><gt>${variable('D')}${float(4)}</gt>${set('V', float(2))}</templateIf><templateElse>${set('V', float(3))}</templateElse></templateCondition>` +
					time
			)
		]
	])('is read in one version where %s, and says so', async (words, xml) => {
		const found = await readBare('p.xml', xml);
		const [question] = found.questions;
		expect(question!.kind).not.toBe('unreadable');
		const reports = [...found.about.values()].flat();
		expect(reports).toMatchObject([{ rule: 'worked-out', severity: 'doubtful' }]);
		expect(reports[0]!.message).toContain(words);
		const [, distance] = /hours are (\d+) miles at/.exec(plainText(question!.stem))!;
		expect(reports[0]!.message).toContain(`D = ${distance}`);
		// the same file is the same question each time
		expect((await readBare('p.xml', xml)).questions[0]).toEqual(question);
	});
	it('is kept as it came where its numbers cannot be worked out, and says so', async () => {
		const found = await readBare(
			'p.xml',
			item(both, set('D', `<mathOperator name="gamma">${float(3)}</mathOperator>`) + time)
		);
		expect(found.questions[0]).toMatchObject({ kind: 'unreadable' });
		expect((found.questions[0] as UnreadableQuestion).reason).toContain('“gamma”');
	});
});

describe('a template that asks to draw', () => {
	it('is kept as it came, and nothing is said of a version that was read', async () => {
		const found = await readBare(
			'p.xml',
			item(
				both,
				set('D', '<randomInteger min="1" max="9"/>'),
				undefined,
				'<drawingInteraction responseIdentifier="RESPONSE"/>'
			)
		);
		expect(found.questions[0]).toMatchObject({ kind: 'unreadable' });
		expect([...found.about.values()].flat()).toEqual([]);
	});
});

describe('a version of an item that is made anew for each student', () => {
	const choice = (id: string, inner: string, more = '') =>
		`<simpleChoice identifier="${id}" ${more}>${inner}</simpleChoice>`;
	const printed = (name: string) => `<printedVariable identifier="${name}"/>`;
	const buoys = `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="B" title="Buoys" adaptive="false" timeDependent="false"><responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>${declare('N', 'integer')}<templateDeclaration identifier="SIDE" cardinality="single" baseType="identifier"/><templateProcessing>${set('N', '<randomInteger min="2" max="6" step="2"/>')}<templateCondition><templateIf><equal toleranceMode="exact">${variable('N')}${float(2)}</equal>${set('SIDE', '<baseValue baseType="identifier">PORT</baseValue>')}</templateIf><templateElse>${set('SIDE', '<baseValue baseType="identifier">STAR</baseValue>')}</templateElse></templateCondition><setCorrectResponse identifier="RESPONSE">${variable('SIDE')}</setCorrectResponse><templateConstraint><gt>${variable('N')}${float(2)}</gt></templateConstraint></templateProcessing><itemBody><templateBlock templateIdentifier="SIDE" identifier="STAR" showHide="show"><p>Leaving harbour.</p></templateBlock><templateBlock templateIdentifier="SIDE" identifier="PORT" showHide="show"><p>Coming in.</p></templateBlock><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><prompt>You pass ${printed('N')} buoys.</prompt>${choice('PORT', 'red')}${choice('STAR', `${printed('N')} green`)}${choice('NONE', 'none', 'templateIdentifier="SIDE" showHide="hide"')}</choiceInteraction></itemBody><responseProcessing><responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match><setOutcomeValue identifier="SCORE">${variable('N')}</setOutcomeValue></responseIf></responseCondition></responseProcessing></assessmentItem>`;
	it('shows and hides what its numbers say, keeps its constraints, and is marked by them', async () => {
		const question = await read(buoys);
		if (question.kind !== 'multiple-choice') throw new Error(question.kind);
		const [, count] = /You pass (\d) buoys/.exec(question.stem)!;
		expect(['4', '6']).toContain(count);
		expect(plainText(question.stem)).toBe(`Leaving harbour. You pass ${count} buoys.`);
		expect(question.options.map(({ text, credit }) => [text, credit])).toEqual([
			['red', 0],
			[`${count} green`, 1],
			['none', 0]
		]);
		expect(question.points).toBe(Number(count));
	});
	it('takes limits, tolerances and several answers from its numbers', async () => {
		const two = item(
			`<responseDeclaration identifier="SECOND" cardinality="single" baseType="float"/>${both}`,
			set('D', '<randomInteger min="6" max="6"/>') +
				set('V', '<randomFloat min="{D}" max="{D}"/>') +
				time +
				`<setCorrectResponse identifier="SECOND">${variable('D')}</setCorrectResponse>`,
			'<equal toleranceMode="absolute" tolerance="{D}">',
			'<textEntryInteraction responseIdentifier="RESPONSE"/> and <textEntryInteraction responseIdentifier="SECOND"/>'
		);
		const question = await read(two);
		expect(question).toMatchObject({
			kind: 'fill-blanks',
			blanks: [{ form: 'number', accepted: [{ value: 1, tolerance: 6, credit: 1 }] }, { form: 'number' }]
		});
	});
	it('is not what an item is that prints its score', async () => {
		const found = await readBare(
			'p.xml',
			buoys
				.replace(/<templateProcessing>[\s\S]*<\/templateProcessing>|<templateDeclaration[^>]*\/>/g, '')
				.replace(/<templateDeclaration[\s\S]*?<\/templateDeclaration>/g, '')
				.replace(variable('N'), float(2))
				.replace(
					'<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"/>',
					'<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>PORT</value></correctResponse></responseDeclaration>'
				)
				.replaceAll('identifier="N"', 'identifier="SCORE"')
		);
		expect(found.questions[0]).toMatchObject({ kind: 'multiple-choice', options: [{ credit: 1 }, {}, {}] });
		expect(plainText(found.questions[0]!.stem)).toContain('You pass … buoys.');
		expect([...found.about.values()].flat()).toMatchObject([{ rule: 'reshaped', severity: 'untidy' }]);
	});
});
