import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { checks } from '.';
import { readerRuleTable } from '../reports/table';
import { checkTable } from './table';

describe('the table of checks in the documentation', () => {
	it('is the one that the checks give: node --import tsx scripts/formats.ts writes it', () => {
		const text = readFileSync(new URL('../../docs/checks.md', import.meta.url), 'utf8').replace(/ {2,}/g, ' ');
		const plain = (table: string) => table.replace(/ {2,}/g, ' ').replace(/-{3,}/g, '---');
		expect(plain(text)).toContain(plain(checkTable(checks)));
		expect(plain(text)).toContain(plain(readerRuleTable()));
	});
});
