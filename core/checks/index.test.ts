import { describe, expect, it } from 'vitest';
import { choice } from '../test-support/questions';
import { checkOf, checks } from '.';
import { checkQuestion } from './one';

describe('the register of checks', () => {
	it('has every check, each under its own id', () => {
		expect(checks).toHaveLength(55);
		expect(new Set(checks.map((check) => check.id)).size).toBe(55);
		for (const check of checks) expect(checkOf(check.id)).toBe(check);
		expect(checkOf('no-such-check')).toBeUndefined();
	});
	it('names the place of the question in each report', () => {
		const question = choice({
			options: [],
			source: { format: 'qti12', file: 'a/b.xml', line: 12, endLine: 20, identifier: 'x' }
		});
		expect(checkQuestion(question)).toEqual([
			expect.objectContaining({ rule: 'too-few-options', severity: 'broken', place: { file: 'a/b.xml', line: 12 } })
		]);
	});
	it('finds nothing in a question that is whole', () => {
		expect(checkQuestion(choice())).toEqual([]);
	});
});
