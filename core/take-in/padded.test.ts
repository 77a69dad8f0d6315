import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { paddedNames } from './padded';

describe('numbers before names', () => {
	it('are of one length, in the place of those that were there', () => {
		const names = ['1. Theory', '2) Tables', '10 - Pilotage', 'Lights', '3D models', '4.2 Sectors', '7'];
		expect(paddedNames([...names, 'a', 'b', 'c'])).toEqual([
			'01 Theory',
			'02 Tables',
			'03 Pilotage',
			'04 Lights',
			'05 3D models',
			'06 Sectors',
			'07 7',
			'08 a',
			'09 b',
			'10 c'
		]);
	});
	it('keep any order when they are sorted by letters, and are the same when it is done twice', () => {
		fc.assert(
			fc.property(fc.array(fc.stringMatching(/^[A-Za-z][A-Za-z ]{0,20}$/), { maxLength: 120 }), (names) => {
				const padded = paddedNames(names);
				expect([...padded].sort()).toEqual(padded);
				expect(paddedNames(padded)).toEqual(padded);
			})
		);
	});
});
