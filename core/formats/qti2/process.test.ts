import { describe, expect, it } from 'vitest';
import { parseXml } from '../../xml/parse';
import { childOf, childrenOf } from '../../xml/tree';
import { Processing, responseDeclaration } from './process';
import { UnknownRule, type Value } from './values';

const base = (type: string, value: string | number | boolean) => `<baseValue baseType="${type}">${value}</baseValue>`;
const float = (value: number) => base('float', value);
const text = (value: string) => base('string', value);
const answer = '<variable identifier="R"/>';
const declared = (type: string, cardinality: string, inner = '') =>
	`<responseDeclaration identifier="R" baseType="${type}" cardinality="${cardinality}">${inner}</responseDeclaration>`;
const key = (...values: (string | number)[]) =>
	`<correctResponse>${values.map((value) => `<value>${value}</value>`).join('')}</correctResponse>`;

/** Runs rules on an answer, and gives the outcomes. */
function run(declaration: string, rules: string, response: Value, outcomes = ''): Processing {
	const { root } = parseXml(
		`<assessmentItem>${declaration}<outcomeDeclaration identifier="SCORE" baseType="float" cardinality="single"/>${outcomes}<responseProcessing>${rules}</responseProcessing></assessmentItem>`
	);
	const processing = new Processing(
		root!,
		childrenOf(root!, 'responseDeclaration').map(responseDeclaration),
		new Map([['R', response]])
	);
	processing.run(childOf(root!, 'responseProcessing')!);
	return processing;
}
const set = (expression: string, name = 'SCORE') =>
	`<setOutcomeValue identifier="${name}">${expression}</setOutcomeValue>`;
const worth = (expression: string, response: Value = null, declaration = declared('float', 'single')) =>
	run(declaration, set(expression), response).score;
const holds = (expression: string, response: Value = null, declaration = declared('string', 'single')) =>
	run(
		declaration,
		`<responseCondition><responseIf>${expression}${set(float(1))}</responseIf></responseCondition>`,
		response
	).score === 1;

describe('expressions that work out numbers (QTI 2.1, 15.4)', () => {
	const of = (name: string, ...values: number[]) => `<${name}>${values.map(float).join('')}</${name}>`;
	const named = (element: string, name: string, ...values: number[]) =>
		`<${element} name="${name}">${values.map(float).join('')}</${element}>`;
	it.each([
		[of('sum', 1, 2, 3.5), 6.5],
		[of('product', 2, 3, 4), 24],
		[of('subtract', 5, 7), -2],
		[of('divide', 7, 2), 3.5],
		[of('power', 2, 10), 1024],
		[of('integerDivide', -7, 2), -4],
		[of('integerModulus', -7, 3), 2],
		[of('min', 4, -1, 9), -1],
		[of('max', 4, -1, 9), 9],
		[of('gcd', 12, 18, 27), 3],
		[of('lcm', 4, 6, 10), 60],
		[of('truncate', -3.7), -3],
		[of('round', -3.5), -3],
		[of('round', 6.5), 7],
		[of('integerToFloat', 4), 4],
		[
			'<roundTo figures="2" roundingMode="decimalPlaces"><baseValue baseType="float">3.14159</baseValue></roundTo>',
			3.14
		],
		[
			'<roundTo figures="3" roundingMode="significantFigures"><baseValue baseType="float">1852.4</baseValue></roundTo>',
			1850
		],
		[`<truncate><product><mathConstant name="pi"/>${float(100)}</product></truncate>`, 314],
		[`<truncate><product><mathConstant name="e"/>${float(100)}</product></truncate>`, 271],
		[named('mathOperator', 'abs', -4), 4],
		[named('mathOperator', 'log', 1000), 3],
		[named('mathOperator', 'ln', 1), 0],
		[named('mathOperator', 'floor', 2.9), 2],
		[named('mathOperator', 'ceil', 2.1), 3],
		[named('mathOperator', 'signum', -9), -1],
		[named('mathOperator', 'toDegrees', Math.PI), 180],
		[named('mathOperator', 'atan2', 0, 1), 0],
		[named('statsOperator', 'mean', 2, 4, 9), 5],
		[named('statsOperator', 'popVariance', 2, 4), 1],
		[named('statsOperator', 'sampleVariance', 2, 4), 2],
		[named('statsOperator', 'popSD', 2, 6), 2]
	])('%s is %d', (expression, wanted) => expect(worth(expression)).toBeCloseTo(wanted, 9));
	it('give nothing where that cannot be worked out, which is no number and holds for nothing', () => {
		for (const expression of [
			of('divide', 1, 0),
			of('integerDivide', 1, 0),
			of('integerModulus', 1, 0),
			named('mathOperator', 'ln', 0),
			`<sum>${answer}${float(1)}</sum>`
		]) {
			expect(worth(expression)).toBe(0);
			expect(holds(`<isNull>${expression}</isNull>`, null, declared('float', 'single'))).toBe(true);
			expect(holds(`<gte>${expression}${float(-1000)}</gte>`, null, declared('float', 'single'))).toBe(false);
		}
	});
	it('count the values of an answer with several, each by itself', () => {
		const several = declared('float', 'multiple');
		expect(worth(`<sum>${answer}</sum>`, ['2', '3'], several)).toBe(5);
		expect(worth(`<containerSize>${answer}</containerSize>`, ['2', '3'], several)).toBe(2);
		expect(worth(`<containerSize>${answer}</containerSize>`, null, several)).toBe(0);
	});
	it.each(['<random/>', '<customOperator/>', '<mathOperator name="gamma"/>', '<statsOperator name="mode"/>'])(
		'that are not known, such as %s, are named',
		(expression) => expect(() => worth(expression)).toThrow(UnknownRule)
	);
});

describe('expressions that hold or not (QTI 2.1, 15.3)', () => {
	const is = (name: string, ...parts: string[]) => `<${name}>${parts.join('')}</${name}>`;
	const yes = base('boolean', true);
	const no = base('boolean', false);
	it.each([
		[is('and', yes, yes), true],
		[is('and', yes, no), false],
		[is('or', no, yes), true],
		[is('not', no), true],
		[is('not', '<null/>'), false],
		[`<anyN min="2" max="3">${yes}${yes}${no}</anyN>`, true],
		[`<anyN min="2" max="3">${yes}${no}${no}</anyN>`, false],
		[is('isNull', '<null/>'), true],
		[is('isNull', text('')), true],
		[is('lt', float(1), float(2)), true],
		[is('lte', float(2), float(2)), true],
		[is('gt', float(1), float(2)), false],
		[is('gte', float(2), float(2)), true],
		[is('match', '<null/>', text('a')), false],
		[
			'<substring caseSensitive="false"><baseValue baseType="string">TIDE</baseValue><baseValue baseType="string">spring tides</baseValue></substring>',
			true
		],
		[
			'<substring caseSensitive="true"><baseValue baseType="string">TIDE</baseValue><baseValue baseType="string">spring tides</baseValue></substring>',
			false
		]
	])('%s: %s', (expression, wanted) => expect(holds(expression)).toBe(wanted));

	it.each([
		['exact', '', '3.2', true],
		['exact', '', '3.21', false],
		['absolute', '0.1', '3.3', true],
		['absolute', '0.1', '3.31', false],
		['absolute', '0.2 0.1', '3.0', true],
		['absolute', '0.2 0.1', '3.35', false],
		['relative', '10', '2.88', true],
		['relative', '10', '2.87', false],
		['relative', '10 50', '4.8', true]
	])('equal, %s tolerance “%s”: %s is %s', (mode, tolerance, given, wanted) => {
		const test = `<equal toleranceMode="${mode}" tolerance="${tolerance}">${answer}<correct identifier="R"/></equal>`;
		expect(holds(test, [given], declared('float', 'single', key(3.2)))).toBe(wanted);
	});
	it('leave the ends of a tolerance out where they are told to', () => {
		const test = (bounds: string) =>
			`<equal toleranceMode="absolute" tolerance="0.1" ${bounds}>${answer}<correct identifier="R"/></equal>`;
		const declaration = declared('float', 'single', key(3));
		expect(holds(test('includeUpperBound="false"'), ['3.1'], declaration)).toBe(false);
		expect(holds(test('includeUpperBound="false"'), ['2.9'], declaration)).toBe(true);
		expect(holds(test('includeLowerBound="false"'), ['2.9'], declaration)).toBe(false);
	});
	it('know the target of a tolerance on either side of an equality', () => {
		const test = `<equal toleranceMode="relative" tolerance="10">${float(200)}${answer}</equal>`;
		expect(holds(test, ['181'], declared('float', 'single'))).toBe(true);
		expect(holds(test, ['179'], declared('float', 'single'))).toBe(false);
	});
	it.each([
		['figures="1" roundingMode="decimalPlaces"', '3.24', true],
		['figures="1" roundingMode="decimalPlaces"', '3.26', false],
		['figures="2" roundingMode="significantFigures"', '3.24', true],
		['figures="1" roundingMode="significantFigures"', '3.4', true]
	])('equalRounded %s: %s is %s', (attributes, given, wanted) => {
		const test = `<equalRounded ${attributes}>${answer}<correct identifier="R"/></equalRounded>`;
		expect(holds(test, [given], declared('float', 'single', key(3.2)))).toBe(wanted);
	});
	it('match texts by case or not, in part or in whole, and by patterns that fit all of the answer', () => {
		const same = (attributes: string) => `<stringMatch ${attributes}>${answer}${text('Mayday')}</stringMatch>`;
		expect(holds(same('caseSensitive="true"'), ['mayday'])).toBe(false);
		expect(holds(same('caseSensitive="false"'), ['mayday'])).toBe(true);
		expect(holds(same('caseSensitive="true" substring="true"'), ['a Mayday call'])).toBe(true);
		expect(holds(same('caseSensitive="true"'), null)).toBe(false);
		const fits = `<patternMatch pattern="1[0-9]{2}">${answer}</patternMatch>`;
		expect(holds(fits, ['185'])).toBe(true);
		expect(holds(fits, ['1852'])).toBe(false);
	});
	it('compare several values without regard to order, and ordered ones with it', () => {
		const test = `<match>${answer}<correct identifier="R"/></match>`;
		const several = declared('identifier', 'multiple', key('A', 'C'));
		expect(holds(test, ['C', 'A'], several)).toBe(true);
		expect(holds(test, ['A'], several)).toBe(false);
		expect(holds(test, ['A', 'A'], several)).toBe(false);
		const ordered = declared('identifier', 'ordered', key('A', 'C'));
		expect(holds(test, ['C', 'A'], ordered)).toBe(false);
		expect(holds(test, ['A', 'C'], ordered)).toBe(true);
	});
	it('look into containers', () => {
		const several = declared('identifier', 'multiple');
		const made = `<multiple>${base('identifier', 'A')}${base('identifier', 'B')}</multiple>`;
		expect(holds(`<member>${base('identifier', 'A')}${answer}</member>`, ['A', 'C'], several)).toBe(true);
		expect(holds(`<member>${base('identifier', 'B')}${answer}</member>`, ['A', 'C'], several)).toBe(false);
		expect(holds(`<contains>${answer}${made}</contains>`, ['A', 'B', 'C'], several)).toBe(true);
		expect(holds(`<contains>${answer}${made}</contains>`, ['A', 'C'], several)).toBe(false);
		const without = `<delete>${base('identifier', 'A')}${answer}</delete>`;
		expect(holds(`<match>${without}<multiple>${base('identifier', 'C')}</multiple></match>`, ['A', 'C'], several)).toBe(
			true
		);
		const second = `<index n="2">${answer}</index>`;
		const ordered = declared('identifier', 'ordered');
		expect(holds(`<match>${second}${base('identifier', 'C')}</match>`, ['A', 'C'], ordered)).toBe(true);
		expect(holds(`<isNull>${second}</isNull>`, ['A'], ordered)).toBe(true);
	});
	it('tell whether a point lies in a shape', () => {
		const inside = `<inside shape="circle" coords="50,50,10">${answer}</inside>`;
		expect(holds(inside, ['55 50'], declared('point', 'single'))).toBe(true);
		expect(holds(inside, ['65 50'], declared('point', 'single'))).toBe(false);
	});
	it('take pairs without a direction in either order', () => {
		const test = `<match>${answer}<correct identifier="R"/></match>`;
		expect(holds(test, ['A B'], declared('pair', 'single', key('B A')))).toBe(true);
		expect(holds(test, ['A B'], declared('directedPair', 'single', key('B A')))).toBe(false);
	});
});

describe('rules', () => {
	const mapping = (inner: string, attributes = '') => `<mapping ${attributes}>${inner}</mapping>`;
	const entry = (name: string | number, value: number, more = '') =>
		`<mapEntry mapKey="${name}" mappedValue="${value}" ${more}/>`;
	it('take the first branch that holds, and the last where none does', () => {
		const rules = (test: string) =>
			`<responseCondition><responseIf>${test}${set(float(1))}</responseIf><responseElseIf><match>${answer}${text('b')}</match>${set(float(2))}</responseElseIf><responseElse>${set(float(3))}</responseElse></responseCondition>`;
		const score = (given: string) =>
			run(declared('string', 'single'), rules(`<match>${answer}${text('a')}</match>`), [given]).score;
		expect([score('a'), score('b'), score('c')]).toEqual([1, 2, 3]);
	});
	it('stop where they are told to, also inside a fragment', () => {
		const rules = `${set(float(1))}<responseProcessingFragment><exitResponse/></responseProcessingFragment>${set(float(2))}`;
		expect(run(declared('string', 'single'), rules, ['a']).score).toBe(1);
	});
	it('sum a mapping over different values, within its bounds, with its default', () => {
		const several = declared(
			'identifier',
			'multiple',
			mapping(entry('A', 2) + entry('B', 1), 'upperBound="2.5" lowerBound="0" defaultValue="-1"')
		);
		const score = (...given: string[]) => run(several, set('<mapResponse identifier="R"/>'), given).score;
		expect(score('A', 'B')).toBe(2.5);
		expect(score('A', 'A')).toBe(2);
		expect(score('B', 'C')).toBe(0);
		expect(score('C', 'D')).toBe(0);
		expect(score('A', 'C')).toBe(1);
	});
	it('map texts by case as each entry says, and numbers by their value', () => {
		const texts = declared(
			'string',
			'single',
			mapping(entry('Out', 1, 'caseSensitive="false"') + entry('Over', 2, 'caseSensitive="true"'))
		);
		const score = (declaration: string, given: string) =>
			run(declaration, set('<mapResponse identifier="R"/>'), [given]).score;
		expect([score(texts, 'OUT'), score(texts, 'over'), score(texts, 'Over')]).toEqual([1, 0, 2]);
		expect(score(declared('float', 'single', mapping(entry('2.50', 3))), '2.5')).toBe(3);
	});
	it('count each area of a picture once', () => {
		const areas =
			'<areaMapping defaultValue="-1" upperBound="3"><areaMapEntry shape="rect" coords="0,0,10,10" mappedValue="2"/><areaMapEntry shape="circle" coords="50,50,5" mappedValue="1"/></areaMapping>';
		const score = (...given: string[]) =>
			run(declared('point', 'multiple', areas), set('<mapResponsePoint identifier="R"/>'), given).score;
		expect(score('5 5')).toBe(2);
		expect(score('5 5', '6 6')).toBe(2);
		expect(score('5 5', '50 52')).toBe(3);
		expect(score('5 5', '90 90')).toBe(1);
	});
	it('begin with the defaults of outcomes, and look outcomes up in tables', () => {
		const outcomes =
			'<outcomeDeclaration identifier="START" baseType="float" cardinality="single"><defaultValue><value>4</value></defaultValue></outcomeDeclaration>' +
			'<outcomeDeclaration identifier="GRADE" baseType="identifier" cardinality="single"><interpolationTable defaultValue="low"><interpolationTableEntry sourceValue="8" targetValue="high"/><interpolationTableEntry sourceValue="4" targetValue="middle"/></interpolationTable></outcomeDeclaration>' +
			'<outcomeDeclaration identifier="EXACT" baseType="float" cardinality="single"><matchTable defaultValue="0"><matchTableEntry sourceValue="5" targetValue="50"/></matchTable></outcomeDeclaration>';
		const grade = (points: number) => {
			const sum = `<sum><variable identifier="START"/>${float(points)}</sum>`;
			const look = (name: string) => `<lookupOutcomeValue identifier="${name}">${sum}</lookupOutcomeValue>`;
			const done = run(
				declared('string', 'single'),
				look('GRADE') + look('EXACT') + set('<default identifier="START"/>'),
				null,
				outcomes
			);
			return [done.outcomes.get('GRADE')?.[0], done.outcomes.get('EXACT')?.[0], done.score];
		};
		expect(grade(0)).toEqual(['middle', 0, 4]);
		expect(grade(1)).toEqual(['middle', 50, 4]);
		expect(grade(5)).toEqual(['high', 0, 4]);
		expect(grade(-4)).toEqual(['low', 0, 4]);
	});
	it.each([
		'http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct',
		'http://www.imsglobal.org/question/qti_v2p2/rptemplates/match_correct.xml',
		'https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/match_correct',
		'match_correct'
	])('follow the template at %s', (address) => {
		const { root } = parseXml(
			`<assessmentItem>${declared('identifier', 'single', key('A'))}<outcomeDeclaration identifier="SCORE" baseType="float" cardinality="single"/><responseProcessing template="${address}"/></assessmentItem>`
		);
		const score = (given: string) => {
			const processing = new Processing(
				root!,
				childrenOf(root!, 'responseDeclaration').map(responseDeclaration),
				new Map([['R', [given]]])
			);
			processing.run(childOf(root!, 'responseProcessing')!);
			return processing.score;
		};
		expect([score('A'), score('B')]).toEqual([1, 0]);
	});
});
