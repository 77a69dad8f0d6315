import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { isChoice, type Question } from '../../kinds';
import { readAll, opened, type Found } from '../../test-support/packages';
import type { Recipe } from '../recipe/recipe';

const cell = (at: string, text: string) => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;
const cells = (row: number, ...texts: string[]) =>
	`<row r="${row}">${texts.map((text, at) => cell(`${'ABCDEFGH'[at]}${row}`, text)).join('')}</row>`;
const head = cells(1, 'Stem', 'A', 'B', 'Key');
const optionsOf = (question: Question | undefined) =>
	question && isChoice(question) ? question.options.map((option) => option.text) : [];
const right = (question: Question | undefined) =>
	question && isChoice(question)
		? question.options.filter((option) => option.credit > 0).map((option) => plainText(option.text))
		: [];
const rulesOf = (found: Found) => [
	...found.reports.map((report) => report.rule),
	...[...found.about.values()].flat().map((report) => report.rule)
];

interface Sheet {
	name: string;
	rows: string;
	state?: string;
	after?: string;
}

/** A workbook of sheets, with parts beside them. */
const workbook = (sheets: Sheet[], parts: Record<string, string> = {}, properties = '', packed = true) =>
	opened(
		{
			'xl/workbook.xml': `<workbook xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships">${properties}<sheets>${sheets
				.map(
					({ name, state }, at) =>
						`<sheet name="${name}" sheetId="${at + 1}" r:id="r${at}"${state ? ` state="${state}"` : ''}/>`
				)
				.join('')}</sheets></workbook>`,
			'xl/_rels/workbook.xml.rels': `<Relationships>${sheets.map((_, at) => `<Relationship Id="r${at}" Target="worksheets/sheet${at}.xml"/>`).join('')}</Relationships>`,
			...Object.fromEntries(
				sheets.map(({ rows, after }, at) => [
					`xl/worksheets/sheet${at}.xml`,
					`<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${rows}</sheetData>${after ?? ''}</worksheet>`
				])
			),
			...parts
		},
		packed
	);
const read = async (rows: string, parts: Record<string, string> = {}, after = '', properties = '') =>
	readAll(await workbook([{ name: 'Q', rows, after }], parts, properties));

describe('the cells of a workbook (ECMA-376 part 1, 18.3.1.4)', () => {
	const styles = (codes: string[]) => ({
		'xl/styles.xml': `<styleSheet><numFmts>${codes.map((code, at) => `<numFmt numFmtId="${170 + at}" formatCode="${code}"/>`).join('')}</numFmts><cellXfs><xf numFmtId="0"/>${codes.map((_, at) => `<xf numFmtId="${170 + at}"/>`).join('')}<xf numFmtId="14"/><xf numFmtId="9"/></cellXfs></styleSheet>`
	});
	const value = (at: string, number: number | string, style = 0, type = '') =>
		`<c r="${at}" s="${style}"${type ? ` t="${type}"` : ''}><v>${number}</v></c>`;
	const optionsFrom = async (b: string, c: string, codes: string[] = [], properties = '') =>
		read(`${head}<row r="2">${cell('A2', 'Which?')}${b}${c}${cell('D2', 'A')}</row>`, styles(codes), '', properties);
	it('keep leading zeros, and percents as they are seen', async () => {
		const found = await optionsFrom(value('B2', 90, 1), value('C2', 0.25, 4), ['000', 'General']);
		expect(optionsOf(found.questions[0])).toEqual(['090', '25%']);
	});
	it('that became dates are reported, by either count of days', async () => {
		const found = await optionsFrom(value('B2', 45000, 2), value('C2', 45000.5, 1), ['yyyy\\-mm\\-dd hh:mm']);
		expect(optionsOf(found.questions[0])).toEqual(['2023-03-15', '2023-03-15 12:00']);
		expect(rulesOf(found)).toContain('date-cell');
		const other = await optionsFrom(value('B2', 43538, 1), cell('C2', 'x'), ['d/m/yyyy'], '<workbookPr date1904="1"/>');
		expect(optionsOf(other.questions[0])[0]).toBe('2023-03-15');
	});
	it('are no dates where the letters of one stand in quotes or brackets', async () => {
		const found = await optionsFrom(value('B2', 45, 1), value('C2', 46, 2), ['0 &quot;yards&quot;', '[Red]0']);
		expect(optionsOf(found.questions[0])).toEqual(['45', '46']);
		expect(rulesOf(found)).not.toContain('date-cell');
	});
	it('of truths, formulas and errors give what is seen, and errors are reported', async () => {
		const found = await optionsFrom(value('B2', 1, 0, 'b'), value('C2', '#REF!', 0, 'e'));
		expect(optionsOf(found.questions[0])).toEqual(['TRUE', '#REF!']);
		expect(rulesOf(found)).toContain('error-cell');
		const formula = await optionsFrom('<c r="B2" t="str"><f>A1&amp;"x"</f><v>Reef</v></c>', cell('C2', 'Bowline'));
		expect(optionsOf(formula.questions[0])).toEqual(['Reef', 'Bowline']);
	});
	it('show numbers without the dust of binary arithmetic', async () => {
		const found = await optionsFrom(value('B2', '0.30000000000000004'), value('C2', '1.2E+3'));
		expect(optionsOf(found.questions[0])).toEqual(['0.3', '1200']);
	});
	it('share texts, with their emphasis and without their reading aids', async () => {
		const found = await read(
			`${head}<row r="2"><c r="A2" t="s"><v>0</v></c><c r="B2" t="s"><v>1</v></c>${cell('C2', 'y')}${cell('D2', 'A')}</row>`,
			{
				'xl/sharedStrings.xml':
					'<sst><si><r><t xml:space="preserve">Which is </t></r><r><rPr><b/></rPr><t>not</t></r><r><t> H</t></r><r><rPr><vertAlign val="subscript"/></rPr><t>2</t></r><r><t>O?</t></r><rPh><t>aid</t></rPh></si><si><t>salt</t><rPh><t>aid</t></rPh></si></sst>'
			}
		);
		expect(found.questions[0]!.stem).toBe('Which is <b>not</b> H<sub>2</sub>O?');
		expect(optionsOf(found.questions[0])).toEqual(['salt', 'y']);
	});
	it('without their own address stand in their order', async () => {
		const plain = (text: string) => `<c t="inlineStr"><is><t>${text}</t></is></c>`;
		const row = (...texts: string[]) => `<row>${texts.map(plain).join('')}</row>`;
		const found = await read(row('Stem', 'A', 'B', 'Key') + row('Which?', 'x', 'y', 'B'));
		expect(found.questions.map(right)).toEqual([['y']]);
	});
	it('far beyond any column that people use are left out, with a word, and cost nothing', async () => {
		const found = await read(
			`${head}<row r="2">${cell('A2', 'Which?')}${cell('B2', 'x')}${cell('C2', 'y')}${cell('D2', 'B')}${cell('XFD2', 'far')}${cell('ZZZZZZ2', 'farther')}</row>`
		);
		expect(found.questions.map(right)).toEqual([['y']]);
		expect(found.reports.find((report) => report.rule === 'too-many-columns')!.message).toContain('2 cells');
	});
});

describe('the rows of a workbook', () => {
	it('that are hidden are read, and said to be hidden', async () => {
		const found = await read(
			`${head}<row r="2" hidden="1">${cell('A2', 'Which?')}${cell('B2', 'x')}${cell('C2', 'y')}${cell('D2', 'B')}</row>`
		);
		expect(found.questions.map(right)).toEqual([['y']]);
		expect(rulesOf(found)).toContain('hidden-row');
	});
	it('share what stands in a merged area', async () => {
		const found = await read(
			cells(1, 'Category', 'Stem', 'A', 'B', 'Key') +
				cells(2, 'Knots', 'One?', 'x', 'y', 'A') +
				cells(3, '', 'Two?', 'x', 'y', 'B') +
				cells(4, 'Ropes', 'Three?', 'x', 'y', 'B'),
			{},
			'<mergeCells count="1"><mergeCell ref="A2:A3"/></mergeCells>'
		);
		expect(found.questions.map((question) => question.category)).toEqual([['Knots'], ['Knots'], ['Ropes']]);
	});
	it('of an area that is merged to the last row of all are read at once', async () => {
		const found = await read(
			head + cells(2, 'One?', 'x', 'y', 'A'),
			{},
			'<mergeCells count="1"><mergeCell ref="F2:F1048576"/></mergeCells>'
		);
		expect(found.questions).toHaveLength(1);
	});
});

describe('the sheets of a workbook', () => {
	const list = (stem: string) => head + cells(2, stem, 'x', 'y', 'B');
	it('are read in the order of their tabs, hidden ones with a word, and others are named', async () => {
		const found = await readAll(
			await workbook([
				{ name: 'Knots', rows: list('Which knot?') },
				{ name: 'Old', rows: list('Which rope?'), state: 'hidden' },
				{ name: 'Berths', rows: cells(1, 'Boat', 'Length') + cells(2, 'Tern', '9 m') },
				{ name: 'Empty', rows: '' }
			])
		);
		expect(found.questions.map((question) => question.stem)).toEqual(['Which knot?', 'Which rope?']);
		expect(rulesOf(found)).toContain('hidden-sheet');
		const named = found.reports.filter((report) => report.rule === 'sheet-without-questions');
		expect(named.map((report) => report.message.includes('“Berths”'))).toEqual([true]);
	});
	it('are those of the recipe, where it names them', async () => {
		const book = () =>
			workbook([
				{ name: 'Knots', rows: list('Which knot?') },
				{ name: 'Ropes', rows: list('Which rope?') }
			]);
		const recipe: Recipe = {
			sheets: [{ sheet: 'Ropes', headerRow: 1, columns: { stem: 'Stem', options: ['A', 'B'], key: 'Key' } }]
		};
		expect((await readAll(await book(), recipe)).questions.map((question) => question.stem)).toEqual(['Which rope?']);
		const without: Recipe = { sheetsWithoutQuestions: ['Knots'] };
		expect((await readAll(await book(), without)).questions.map((question) => question.stem)).toEqual(['Which rope?']);
	});
	it('that hold no questions at all are said to hold none', async () => {
		const found = await read(cells(1, 'Boat', 'Length') + cells(2, 'Tern', '9 m'));
		expect(found.questions).toEqual([]);
		expect(rulesOf(found)).toContain('not-questions');
	});
	it('whose part is damaged are named, and the others are read', async () => {
		const found = await readAll(
			await workbook([
				{ name: 'Knots', rows: list('Which knot?') },
				{ name: 'Torn', rows: '<row r="1"><c' }
			])
		);
		expect(found.questions).toHaveLength(1);
		expect(
			found.reports.find((report) => report.rule === 'not-well-formed' || report.rule === 'cut-off')!.message
		).toContain('sheet1.xml');
	});
});

describe('a large workbook', () => {
	it('is read to its end, though its sheet is more than a part may be that is held at once', async () => {
		const padding = `<!--${' '.repeat(2 ** 20)}-->`;
		const rows = `${head}${cells(2, 'Which holds?', 'Bowline', 'Reef', 'A')}${padding.repeat(66)}${cells(3, 'Which slips?', 'Bowline', 'Reef', 'B')}`;
		const found = await readAll(await workbook([{ name: 'Knots', rows }], {}, '', false));
		expect(found.questions.map(right)).toEqual([['Bowline'], ['Reef']]);
	});
	it('may have more rows than a call takes arguments', async () => {
		const rows = Array.from({ length: 140_000 }, (_, at) => `<row r="${at + 3}"/>`).join('');
		const found = await readAll(
			await workbook([{ name: 'Knots', rows: head + cells(2, 'Which holds?', 'Bowline', 'Reef', 'A') + rows }])
		);
		expect(found.questions.map(right)).toEqual([['Bowline']]);
	});
});
