import { describe, expect, it } from 'vitest';
import type { CategoryNode } from '$lib/server/banks/tree';
import { inColumn, linesOf, shareOf, sumsOf, type WovenBank } from './weave';

/** A bank with categories by their paths, whose keys count from a number on. */
function woven(first: number, paths: string[], loose = false): WovenBank {
	const tree = paths.map(
		(path, at) =>
			({ id: first + at, key: path, name: path.split('/').at(-1)!, depth: path.split('/').length - 1 }) as CategoryNode
	);
	const cell = { column: 'numeric', questions: 1, clean: 1, verified: 0, feedback: 0, whole: 0, broken: 0 };
	return { bank: { id: first, name: 'x' }, columns: [], tree, cells: loose ? [{ ...cell, categoryId: null }] : [] };
}
const told = (weaves: WovenBank[]) => linesOf(weaves).map(({ key, categories }) => [key, ...categories]);

describe('the lines of a weave', () => {
	it('are the tree of its bank', () => {
		expect(told([woven(1, ['a', 'a/b', 'c'])])).toEqual([
			['a', 1],
			['a/b', 2],
			['c', 3]
		]);
	});
	it('beside another bank have each category once, and what only one of them has where it belongs', () => {
		expect(told([woven(1, ['a', 'a/b', 'c']), woven(11, ['a', 'a/x', 'c', 'd'])])).toEqual([
			['a', 1, 11],
			['a/x', undefined, 12],
			['a/b', 2, undefined],
			['c', 3, 13],
			['d', undefined, 14]
		]);
	});
	it('begin with what stands in no category, where there is such', () => {
		expect(told([woven(1, ['a']), woven(11, ['a'], true)])).toEqual([
			['', null, null],
			['a', 1, 11]
		]);
	});
});

describe('the cells of a weave', () => {
	const cell = { questions: 4, clean: 3, verified: 1, feedback: 0, whole: 0, broken: 0 };
	const weave: WovenBank = {
		bank: { id: 1, name: 'x' },
		columns: [],
		tree: [
			{ id: 1, own: 10 },
			{ id: 2, own: 0 }
		] as CategoryNode[],
		cells: [
			{ ...cell, categoryId: 1, column: 'numeric' },
			{ ...cell, categoryId: 1, column: 'essay', verified: 4 },
			{ ...cell, categoryId: null, column: 'numeric', questions: 2 }
		]
	};
	it('are as dark as the share of their questions that has what the shade asks', () => {
		expect(shareOf(weave.cells[0]!, weave, 'kind', 'clean')).toBe(0.75);
		expect(shareOf(weave.cells[0]!, weave, 'tag', 'feedback')).toBe(0);
	});
	it('are as dark as what is lacking in all of their category', () => {
		expect(shareOf(weave.cells[0]!, weave, 'lack', 'clean')).toBe(0.4);
		expect(shareOf({ ...weave.cells[0]!, categoryId: 2 }, weave, 'lack', 'clean')).toBe(0);
	});
	it('are counted along a category and down a column', () => {
		expect(sumsOf(weave, 1, 'verified')).toEqual({ questions: 8, part: 5 });
		expect(sumsOf(weave, undefined, 'verified')).toEqual({ questions: 0, part: 0 });
		expect(inColumn(weave, 'numeric')).toBe(6);
	});
});
