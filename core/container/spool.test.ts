import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Spool } from './spool';

describe('text and bytes that are put aside', () => {
	it('comes back as it was, however it was cut', () => {
		fc.assert(
			fc.property(fc.array(fc.string({ unit: 'grapheme' }), { maxLength: 40 }), fc.nat(3000), (texts, times) => {
				const spool = new Spool();
				const whole = texts.map((text) => text.repeat(1 + (times % 700)));
				for (const [at, text] of whole.entries()) spool.push(at % 2 ? text : new TextEncoder().encode(text));
				const back = new TextDecoder().decode(Buffer.concat([...spool.take()]));
				expect(back).toBe(whole.join(''));
			}),
			{ numRuns: 40 }
		);
	});
});
