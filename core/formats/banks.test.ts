import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Banks, type QuestionReference } from './banks';

describe('the banks of a package', () => {
	it('give back each question that was noted for them, in its order', () => {
		const name = fc.constantFrom('TIDES', 'BUOYS', 'ROPES');
		const noted = fc.array(fc.tuple(fc.constantFrom('a.xml', 'b.xml'), fc.array(name, { maxLength: 3 })));
		fc.assert(
			fc.property(noted, (given) => {
				const banks = new Banks();
				const known = new Map<string, QuestionReference[]>();
				for (const [at, [file, names]] of given.entries()) {
					const reference = { identifier: `Q${at}`, file, place: at + 1 };
					banks.add(reference, names);
					for (const one of new Set(names)) known.set(one, [...(known.get(one) ?? []), reference]);
				}
				for (const one of ['TIDES', 'BUOYS', 'ROPES', 'NONE']) expect(banks.get(one)).toEqual(known.get(one));
			})
		);
	});
});
