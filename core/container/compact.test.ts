import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Column, Names, Texts } from './compact';
import { FileList, FileSet } from './file-list';

const text = fc.oneof(fc.string({ unit: 'grapheme', maxLength: 30 }), fc.constantFrom('a', 'b', '', 'items/q1.xml'));
const texts = fc.array(text, { maxLength: 200 });

describe('a list of texts', () => {
	it('gives each back as it was', () => {
		fc.assert(
			fc.property(texts, (given) => {
				const list = new Texts();
				expect(given.map((one) => list.push(one))).toEqual([...given.keys()]);
				expect(given.map((_, at) => list.at(at))).toEqual(given);
			})
		);
	});
});

describe('a set of names', () => {
	it('numbers them as they come, the same one with the same number, and finds no others', () => {
		fc.assert(
			fc.property(texts, texts, (given, others) => {
				const names = new Names();
				const known = [...new Set(given)];
				expect(given.map((one) => names.add(one))).toEqual(given.map((one) => known.indexOf(one)));
				expect(known.map((one) => names.find(one))).toEqual([...known.keys()]);
				expect(known.map((_, number) => names.at(number))).toEqual(known);
				expect(others.map((one) => names.find(one))).toEqual(others.map((one) => known.indexOf(one)));
				expect(names).toHaveLength(known.length);
			})
		);
	});
});

describe('a column of numbers', () => {
	it('has what was set last at each place, and nought elsewhere', () => {
		const sets = fc.array(fc.tuple(fc.nat(300), fc.integer({ min: 1, max: 2 ** 31 - 1 })));
		fc.assert(
			fc.property(sets, (given) => {
				const column = new Column(Int32Array);
				const known = new Map<number, number>();
				for (const [place, value] of given) {
					column.set(place, value);
					known.set(place, value);
				}
				for (let place = 0; place <= 301; place += 1) expect(column.at(place)).toBe(known.get(place) ?? 0);
				expect(column).toHaveLength(Math.max(0, ...known.keys()) + (known.size ? 1 : 0));
			})
		);
	});
});

describe('the files of a package', () => {
	const files = FileList.of([
		{ path: 'Items/A.xml', size: 3 },
		{ path: 'b.png', size: 5_000_000_000 }
	]);
	it('are found by their names, also without regard to case', () => {
		expect(files.find('b.png')).toBe('b.png');
		expect(files.find('items/a.XML')).toBe('Items/A.xml');
		expect(files.find('c.png')).toBeNull();
		expect(files.size(files.number('b.png'))).toBe(5_000_000_000);
		expect([...files]).toEqual([
			{ path: 'Items/A.xml', size: 3 },
			{ path: 'b.png', size: 5_000_000_000 }
		]);
	});
	it('may be put in a set, which no other file is in', () => {
		const set = new FileSet(files);
		set.add('b.png');
		set.add('elsewhere.png');
		expect(['Items/A.xml', 'b.png', 'elsewhere.png'].map((path) => set.has(path))).toEqual([false, true, false]);
	});
});
