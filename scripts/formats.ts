// Writes the tables of docs/formats.md and docs/checks.md from what the program uses: node --import tsx scripts/formats.ts
import { readFileSync, writeFileSync } from 'node:fs';
import { checks } from '../core/checks';
import { checkTable } from '../core/checks/table';
import { writtenFormats } from '../core/formats';
import { formatTables } from '../core/formats/tables';
import { readerRuleTable } from '../core/reports/table';

/** Puts a text between two marks of a file under docs. */
function put(name: string, begin: string, end: string, content: string): void {
	const file = new URL(`../docs/${name}`, import.meta.url);
	const [before, rest = ''] = readFileSync(file, 'utf8').split(begin);
	writeFileSync(file, `${before}${begin}\n\n${content}\n${end}${rest.split(end)[1] ?? ''}`);
}

put(
	'formats.md',
	'<!-- tables: made by scripts/formats.ts -->',
	'<!-- end of the tables -->',
	formatTables(writtenFormats)
);
put('checks.md', '<!-- table: made by scripts/formats.ts -->', '<!-- end of the table -->', `${checkTable(checks)}\n`);
put('checks.md', '<!-- rules: made by scripts/formats.ts -->', '<!-- end of the rules -->', `${readerRuleTable()}\n`);
