// Writes the tables of docs/formats.md from the limits that the program uses: node --import tsx scripts/formats.ts
import { readFileSync, writeFileSync } from 'node:fs';
import { writtenFormats } from '../core/formats';
import { formatTables } from '../core/formats/tables';

const file = new URL('../docs/formats.md', import.meta.url);
const [begin, end] = ['<!-- tables: made by scripts/formats.ts -->', '<!-- end of the tables -->'];
const text = readFileSync(file, 'utf8');
const [before, rest = ''] = text.split(begin);
const after = rest.split(end)[1] ?? '';
writeFileSync(file, `${before}${begin}\n\n${formatTables(writtenFormats)}\n${end}${after}`);
