import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { writtenFormats } from '.';
import { formatTables } from './tables';

const plain = (text: string) => text.replace(/[-\s|]+/g, ' ');

it('docs/formats.md says what the program does', () => {
	const document = readFileSync(new URL('../../docs/formats.md', import.meta.url), 'utf8');
	expect(plain(document)).toContain(plain(formatTables(writtenFormats)).trim());
});
