import { describe, expect, it } from 'vitest';
import { checks } from '$core/checks';
import { readerRules } from '$core/reports/rules';
import { ruleShort, ruleTitle, ruleWhy } from './rule';

describe('a rule', () => {
	it('has a title, a short word and a reason, whoever speaks by it', () => {
		expect([ruleTitle('no-key'), ruleShort('no-key')]).toEqual(['No key', 'no key']);
		expect([ruleTitle('cut-off'), ruleShort('cut-off')]).toEqual(['File that breaks off', 'file that breaks off']);
		for (const rule of [...checks.map(({ id }) => id), ...Object.keys(readerRules)]) {
			expect(ruleTitle(rule)).toMatch(/^\S.+\S$/);
			expect(ruleWhy(rule)).toMatch(/\.$/);
		}
	});
	it('that is gone is called by its id', () => {
		expect([ruleTitle('no-such-rule'), ruleWhy('no-such-rule')]).toEqual(['no such rule', '']);
		expect(ruleTitle('constructor')).toBe('constructor');
	});
});
