import { describe, expect, it } from 'vitest';
import { parseXml } from '../../xml/parse';
import { runProcessing, UnknownCondition, type Cardinalities } from './process';

const set = (value: number, action = 'Set', variable = 'SCORE') =>
	`<setvar varname="${variable}" action="${action}">${value}</setvar>`;
const when = (test: string, acts: string, attributes = '') =>
	`<respcondition ${attributes}><conditionvar>${test}</conditionvar>${acts}</respcondition>`;
const declared = (attributes = '') => `<outcomes><decvar varname="SCORE" ${attributes}/></outcomes>`;

/** Runs response processing on the values of the response R, and gives the score. */
function outcome(rules: string, given: string[], cardinality: 'single' | 'multiple' | 'ordered' = 'single') {
	const { root } = parseXml(`<resprocessing>${rules.includes('<outcomes>') ? '' : declared()}${rules}</resprocessing>`);
	const cardinalities: Cardinalities = new Map([['R', cardinality]]);
	return runProcessing(root!, new Map(given.length ? [['R', given]] : []), cardinalities);
}
const score = (...of: Parameters<typeof outcome>) => outcome(...of).score;
const holds = (test: string, given: string[], cardinality?: 'single' | 'multiple' | 'ordered') =>
	score(when(test, set(1)), given, cardinality) === 1;

describe('conditions (QTI 1.2 ASI information model, 3.6.3)', () => {
	const is = (name: string, value: string | number, attributes = '') =>
		`<${name} respident="R" ${attributes}>${value}</${name}>`;
	it.each([
		[is('varequal', 'Mayday'), 'mayday', true],
		[is('varequal', 'Mayday', 'case="Yes"'), 'mayday', false],
		[is('varequal', 'Mayday', 'case="No"'), ' MAYDAY ', true],
		[is('varequal', '3.20'), '3.2', true],
		[is('varequal', 'a'), 'b', false],
		[is('varlt', 5), '4.9', true],
		[is('varlt', 5), '5', false],
		[is('varlte', 5), '5', true],
		[is('vargt', 5), '5', false],
		[is('vargte', 5), '5', true],
		[is('vargte', 5), 'five', false],
		[is('varsubstring', 'day'), 'a Mayday call', true],
		[is('varsubstring', 'Day', 'case="Yes"'), 'a Mayday call', false],
		[is('varinside', '10,10,50,40', 'areatype="Rectangle"'), '20,30', true],
		[is('varinside', '10,10,50,40', 'areatype="Rectangle"'), '5,30', false],
		['<other/>', 'anything', true],
		['<unanswered respident="R"/>', 'a', false],
		[`<not>${is('varequal', 'a')}</not>`, 'b', true],
		[`<not>${is('varequal', 'a')}</not>`, 'a', false],
		[`<or>${is('varequal', 'a')}${is('varequal', 'b')}</or>`, 'b', true],
		[`<and>${is('vargte', 3)}${is('varlte', 4)}</and>`, '3.5', true],
		[`<and>${is('vargte', 3)}${is('varlte', 4)}</and>`, '4.5', false],
		[is('vargte', 3) + is('varlte', 4), '3.5', true],
		[`<not><or>${is('varlt', 3)}${is('vargt', 4)}</or></not>`, '3.5', true]
	])('%s on “%s”: %s', (test, given, wanted) => expect(holds(test, [given])).toBe(wanted));
	it('know when there is no answer', () => {
		expect(holds('<unanswered respident="R"/>', [])).toBe(true);
		expect(holds(is('varequal', 'a'), [])).toBe(false);
	});
	it('take several texts side by side on one answer as any of them, and on several answers as all of them', () => {
		const both = is('varequal', 'a') + is('varequal', 'c');
		expect(holds(both, ['c'])).toBe(true);
		expect(holds(both, ['c'], 'multiple')).toBe(false);
		expect(holds(both, ['a', 'c'], 'multiple')).toBe(true);
	});
	it('count places in an ordered answer, said or not', () => {
		const said = is('varequal', 'b', 'index="1"') + is('varequal', 'a', 'index="2"');
		expect(holds(said, ['b', 'a'], 'ordered')).toBe(true);
		expect(holds(said, ['a', 'b'], 'ordered')).toBe(false);
		const silent = is('varequal', 'b') + is('varequal', 'a');
		expect(holds(silent, ['b', 'a'], 'ordered')).toBe(true);
		expect(holds(silent, ['a', 'b'], 'ordered')).toBe(false);
	});
	it('find pairs whichever of the two comes first', () => {
		const pair = is('varsubset', 'L1,R1');
		expect(holds(pair, ['L1 R1'], 'multiple')).toBe(true);
		expect(holds(pair, ['R1 L1'], 'multiple')).toBe(true);
		expect(holds(pair, ['L1 R2'], 'multiple')).toBe(false);
	});
	it('that are not known are named, and only where an answer comes as far', () => {
		const odd = when('<durgte respident="R">10</durgte>', set(1));
		expect(() => score(odd, ['a'])).toThrow(UnknownCondition);
		expect(score(when(is('varequal', 'a'), set(2)) + odd, ['a'])).toBe(2);
	});
});

describe('response processing (3.6)', () => {
	const a = '<varequal respident="R">a</varequal>';
	const b = '<varequal respident="R">b</varequal>';
	it('sets, adds, takes off, multiplies and divides', () => {
		const go = 'continue="Yes"';
		const rules = (...acts: [number, string][]) =>
			acts.map(([value, action]) => when('<other/>', set(value, action), go)).join('');
		expect(score(rules([6, 'Set'], [2, 'Add']), ['a'])).toBe(8);
		expect(score(rules([6, 'Set'], [2, 'Subtract']), ['a'])).toBe(4);
		expect(score(rules([6, 'Set'], [2, 'Multiply']), ['a'])).toBe(12);
		expect(score(rules([6, 'Set'], [2, 'Divide']), ['a'])).toBe(3);
	});
	it('ends at the first condition that holds, unless it says that it goes on', () => {
		expect(score(when(a, set(1)) + when('<other/>', set(0)), ['a'])).toBe(1);
		expect(score(when(a, set(1), 'continue="Yes"') + when(a, set(5)), ['a'])).toBe(5);
	});
	it('takes other answers for those that no condition before was for, also where it goes on', () => {
		const rules = when(a, set(1), 'continue="Yes"') + when('<other/>', set(-1));
		expect(score(rules, ['a'])).toBe(1);
		expect(score(rules, ['b'])).toBe(-1);
		expect(score(when('<other/>', set(2), 'continue="Yes"') + when(a, set(5)), ['a'])).toBe(5);
	});
	it('goes on by itself where a condition only adds, since sums are written so', () => {
		expect(score(when(a, set(1, 'Add')) + when(b, set(2, 'Add')), ['a', 'b'], 'multiple')).toBe(3);
		expect(score(when(a, set(1, 'Add'), 'continue="No"') + when(b, set(2, 'Add')), ['a', 'b'], 'multiple')).toBe(1);
	});
	it('keeps within the bounds of its variable, and begins with its default', () => {
		const rules = declared('minvalue="-1" maxvalue="2" defaultval="1"');
		expect(score(rules + when(a, set(5, 'Add')), ['a'])).toBe(2);
		expect(score(rules + when(a, set(5, 'Subtract')), ['a'])).toBe(-1);
		expect(score(rules + when(a, set(5, 'Add')), ['b'])).toBe(1);
	});
	it('scores with the variable SCORE among others, or with the one that is there', () => {
		expect(score(when(a, set(9, 'Set', 'TIME') + set(2, 'Set', 'SCORE')), ['a'])).toBe(2);
		const own = '<outcomes><decvar varname="que_score" maxvalue="10"/></outcomes>';
		expect(score(own + when(a, set(7, 'Set', 'que_score')), ['a'])).toBe(7);
	});
	it('tells which feedback is shown', () => {
		const shown = '<displayfeedback linkrefid="well"/>';
		const { feedback } = outcome(when(a, set(1) + shown) + when(b, '<displayfeedback linkrefid="again"/>'), ['a']);
		expect(feedback).toEqual(['well']);
	});
});
