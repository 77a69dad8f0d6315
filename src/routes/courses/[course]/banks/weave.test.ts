import { describe, expect, it } from 'vitest';
import type { CategoryNode } from '$lib/server/banks/tree';
import { linesOf, type WovenBank } from './weave';

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
