import { describe, expect, it } from 'vitest';
import { widthsCookie } from './widths';

describe('the widths of columns', () => {
	it('are read as they were kept', () => {
		expect([...widthsCookie('banks.240.420|review.300.390')]).toEqual([
			['banks', [240, 420]],
			['review', [300, 390]]
		]);
	});
	it('are left out where they are none, whatever the cookie says', () => {
		for (const text of [undefined, '', 'banks', 'banks.1.2', 'banks.9999.300', '__proto__.300.300', '<b>.300.300'])
			expect(widthsCookie(text).size).toBe(0);
	});
});
