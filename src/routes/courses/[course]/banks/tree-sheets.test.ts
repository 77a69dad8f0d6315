import { describe, expect, it } from 'vitest';
import { treeShape } from '$lib/server/banks/asked';
import { slipIn, treeSheet, type TreeFilled } from './tree-sheets';
import type { TreeDeed } from './tree-deeds';

const subject = {
	bank: { id: 3, name: 'Spring', questions: 12 },
	tree: [],
	category: { id: 7, name: 'Tides', all: 5, own: 5 }
} as never;
const filled = (more: Partial<TreeFilled>): TreeFilled => ({
	name: '',
	more: '',
	into: 1,
	to: { bankId: 4, categoryId: null },
	how: 'move',
	questions: 'above',
	rule: 'kind',
	carry: null,
	...more
});
const named: TreeDeed[] = ['makeBank', 'renameBank', 'copyBank', 'splitBank', 'makeCategory', 'renameCategory'];

describe('the sheet for a bank or a category', () => {
	it.each(named)(
		'of %s takes what the server takes, and says what is wrong with the rest before it is sent',
		(deed) => {
			for (const [name, words] of [
				['Neaps', ''],
				['  ', 'Give the'],
				['Ne\u200baps', 'cannot be seen'],
				['x'.repeat(300), 'letters at the most']
			] as const) {
				const given = filled({ name });
				const sheet = treeSheet(deed, subject, given)!;
				const slip = slipIn(deed, given);
				expect(slip).toContain(words);
				expect(sheet.ready, name).toBe(words === '');
				const taken = () => treeShape.validateSync(sheet.asked()) as unknown;
				if (words) expect(taken, name).toThrow(slip);
				else expect(taken()).toMatchObject({ name });
			}
		}
	);
	it('says that a code or a description is too long', () => {
		expect(slipIn('renameCategory', { name: 'Tides', more: 'x'.repeat(61) })).toContain('60 letters');
		expect(slipIn('makeBank', { name: 'Spring', more: 'x'.repeat(4001) })).toContain('4,000 letters');
		expect(slipIn('moveCategory', { name: '', more: '' })).toBe('');
	});
});
