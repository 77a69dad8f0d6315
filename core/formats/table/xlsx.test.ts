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
		expect(optionsOf(other.questions[0])[0]).toBe('15/3/2023');
	});
	it('are no dates where the letters of one stand in quotes or brackets', async () => {
		const found = await optionsFrom(value('B2', 45, 1), value('C2', 46, 2), ['0 &quot;yards&quot;', '[Red]0']);
		expect(optionsOf(found.questions[0])).toEqual(['45 yards', '46']);
		expect(rulesOf(found)).not.toContain('date-cell');
	});
	it.each([
		['#,##0.00 &quot;€&quot;', 1250.5, '1,250.50 €'],
		['# ?/?', 0.5, '1/2'],
		['[h]:mm', 1.25, '30:00'],
		['h:mm AM/PM', 0.5, '12:00 PM'],
		['0.00E+00', 6.022e23, '6.02E+23'],
		['0.0;[Red](0.0)', -3.5, '(3.5)'],
		['0;-0;&quot;none&quot;', 0, 'none'],
		['_-£* #,##0.00_-;-£* #,##0.00_-', -1234.5, '-£1,234.50'],
		['000-0000', 5551234, '555-1234'],
		['General', 1e-9, '1E-09'],
		['General', 0.1 + 0.2, '0.3'],
		['nonsense[', 3.5, '3.5']
	])('are read as a sheet shows them by the format %s', async (code, number, shown) => {
		const found = await optionsFrom(value('B2', number, 1), cell('C2', 'x'), [code]);
		expect(optionsOf(found.questions[0])[0]).toBe(shown);
	});
	it('are numbers where a number is the answer or the points, however a sheet shows them', async () => {
		const found = await read(
			`${cells(1, 'Stem', 'Key', 'Points')}<row r="2">${cell('A2', 'How long is the quay in metres?')}${value('B2', 1250, 1)}${value('C2', 2, 2)}</row>`,
			styles(['#,##0', '0.0 &quot;points&quot;'])
		);
		const [question] = found.questions;
		expect(question).toMatchObject({ kind: 'numeric', points: 2 });
		expect(question?.kind === 'numeric' && question.accepted).toMatchObject([{ value: 1250, tolerance: 0 }]);
	});
	it('of formulas that nobody calculated are no question, and no other row is lost', async () => {
		const formula = (at: string, result: string) => `<c r="${at}"><f>6*7</f>${result}</c>`;
		const rows = (result: string) =>
			`${head}${cells(2, 'Which is red?', 'Port', 'Starboard', 'A')}<row r="3">${cell('A3', 'What is 6 times 7?')}${formula('B3', result)}${cell('C3', '41')}${cell('D3', 'A')}</row>`;
		for (const [result, properties] of [
			['', ''],
			['<v></v>', ''],
			['<v>0</v>', '<calcPr fullCalcOnLoad="1"/>']
		] as const) {
			const found = await read(rows(result), {}, '', properties);
			expect(found.questions.map(({ stem }) => stem)).toEqual(['Which is red?']);
			const [said] = found.reports.filter(({ rule }) => rule === 'formula-cell');
			expect(said?.message).toContain('Row 3 was not read. Cell B3 holds a formula');
		}
		const calculated = await read(rows('<v>42</v>'));
		expect(optionsOf(calculated.questions[1])).toEqual(['42', '41']);
		const nought = await read(rows('<v>0</v>'));
		expect(optionsOf(nought.questions[1])).toEqual(['0', '41']);
	});
	it('have signs that stand as their codes as these signs', async () => {
		const found = await read(`${head}${cells(2, 'Which?', 'bow_x000D_\nfore', '_x005F_x0041_', 'A')}`);
		expect(optionsOf(found.questions[0])).toEqual(['bow<br/>fore', '_x0041_']);
	});
	describe('that stand out', () => {
		const fonts = {
			'xl/styles.xml':
				'<styleSheet><fonts><font/><font><b/></font></fonts><fills><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="solid"><fgColor rgb="FFFFFF00"/></patternFill></fill></fills><cellXfs><xf/><xf fontId="1"/><xf fillId="1"/></cellXfs></styleSheet>'
		};
		const styled = (at: string, text: string, style: number) => cell(at, text).replace('<c ', `<c s="${style}" `);
		const heads = cells(1, 'Question', 'A', 'B');
		const row = (number: number, b: number, c: number) =>
			`<row r="${number}">${cell(`A${number}`, `Which of ${number}?`)}${styled(`B${number}`, 'bow', b)}${styled(`C${number}`, 'stern', c)}</row>`;
		it('are right where nothing else says which is', async () => {
			const found = await read(heads + row(2, 1, 0) + row(3, 0, 2), fonts);
			expect(found.questions.map(right)).toEqual([['bow'], ['stern']]);
			expect(rulesOf(found).filter((rule) => rule === 'guessed-key')).toHaveLength(2);
		});
		it('are the looks of a column where they always stand in the same one', async () => {
			const found = await read(heads + row(2, 1, 0) + row(3, 1, 0), fonts);
			expect(found.questions.map(right)).toEqual([[], []]);
		});
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
	it('across the table heads the rows below it', async () => {
		const found = await read(
			`${head}${cells(2, 'Lights')}${cells(3, 'Which is red?', 'Port', 'Starboard', 'A')}${cells(4, 'Sounds')}${cells(5, 'Which rings?', 'Bell', 'Horn', 'A')}`,
			{},
			'<mergeCells count="2"><mergeCell ref="A2:D2"/><mergeCell ref="A4:D4"/></mergeCells>'
		);
		expect(found.questions.map(({ stem, category }) => [stem, category])).toEqual([
			['Which is red?', ['Lights']],
			['Which rings?', ['Sounds']]
		]);
	});
	it('of a last row that sums the others up is left out with a word, and a question that begins so is not', async () => {
		const head3 = cells(1, 'Topic', 'Question', 'A', 'B', 'Key');
		const found = await read(
			`${head3}${cells(2, 'Lights', 'Which is red?', 'Port', 'Starboard', 'A')}${cells(3, 'Total', 'Which sum is right?', '4', '5', 'B')}${cells(4, 'Total', '2 questions')}`
		);
		expect(found.questions.map(({ stem }) => stem)).toEqual(['Which is red?', 'Which sum is right?']);
		expect(found.reports.map(({ message }) => message).join()).toContain('Row 4 sums the others up');
	});
});
