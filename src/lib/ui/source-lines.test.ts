import { describe, expect, it } from 'vitest';
import { sourceLines } from './source-lines';

describe('the source of a question', () => {
	it('is shown in its own lines', () => {
		expect(sourceLines('<a>\n<b/>\n</a>', 7).map((line) => [line.number, line.text])).toEqual([
			[7, '<a>'],
			[8, '<b/>'],
			[9, '</a>']
		]);
	});
	it('is broken and indented where it is one endless line, without losing a sign', () => {
		const source = `<item ident="a"><p>${'Which light? '.repeat(30)}</p><b>x & y</b><br/></item>`;
		const lines = sourceLines(source, 3);
		expect(lines.length).toBeGreaterThan(4);
		expect(lines.every((line) => line.number === 3)).toBe(true);
		expect(lines.filter((line) => line.first)).toHaveLength(1);
		expect(lines.find((line) => line.text.includes('<br/>'))!.text).toMatch(/^\t/);
		const signs = (text: string) => text.replace(/\s/g, '');
		expect(signs(lines.map((line) => line.text).join(''))).toBe(signs(source));
	});
});
