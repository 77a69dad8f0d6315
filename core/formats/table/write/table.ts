import { beginning, plainText } from '../../../markup/text';
import { isChoice, type Question } from '../../../kinds';
import { fit, type Limits } from '../../fit/fit';
import { tidy } from '../../../numbers/numbers';
import type { ToWrite } from '../../format';
import { ZipWriter } from '../../../container/write-zip';
import { escapeText } from '../../../xml/serialise';
import { numberText, textLimits } from '../../text/write/text';
import { byTrial } from '../../trial';
import { rowsOfText } from '../csv';
import { guessTable } from '../guess';
import { readRows } from '../table';
import { cellOf, type Row } from '../row';

const encoder = new TextEncoder();
const leading = ['Title', 'Kind', 'Stem'];
const trailing = [
	'Key',
	'Points',
	'Category',
	'Tags',
	'Difficulty',
	'Language',
	'Shuffle',
	'Feedback',
	'Correct feedback',
	'Incorrect feedback',
	'Hint'
];
const letterOf = (at: number) => String.fromCharCode(65 + at);
const mostOptions = 26;

/** The headings of a table with so many options. */
export const tableHeadings = (options: number) => [
	...leading,
	...Array.from({ length: Math.max(2, options) }, (_, at) => `Option ${letterOf(at)}`),
	...trailing
];

/** How many columns for options a question wants. */
export function optionCount(question: Question): number {
	if (isChoice(question)) return question.options.length;
	if (question.kind === 'matching') return question.pairs.length;
	return question.kind === 'ordering' ? question.items.length : 0;
}

/** The cells of a question, for a table with so many options. */
export function tableCells(question: Question, options: number): string[] {
	const texts: string[] = [];
	let key = '';
	if (isChoice(question)) {
		texts.push(...question.options.map((option) => plainText(option.text)));
		key = question.options.flatMap((option, at) => (option.credit > 0 ? [letterOf(at)] : [])).join(', ');
		if (question.kind === 'true-false' && texts.join() === 'True,False') {
			key = question.options.find((option) => option.credit > 0) ? (key === 'A' ? 'True' : 'False') : '';
			texts.length = 0;
		}
	} else if (question.kind === 'short-answer') key = question.accepted.map((one) => one.text).join(' / ');
	else if (question.kind === 'numeric') key = question.accepted.map(numberText).join(' / ');
	else if (question.kind === 'matching') {
		const text = (list: { identifier: string; text: string }[], identifier: string) =>
			plainText(list.find((one) => one.identifier === identifier)?.text ?? '');
		texts.push(
			...question.pairs
				.filter((one) => one.credit > 0)
				.map((pair) => `${text(question.left, pair.left)} = ${text(question.right, pair.right)}`)
		);
	} else if (question.kind === 'ordering') texts.push(...question.items.map((item) => plainText(item.text)));
	const { general, correct, incorrect } = question.feedback;
	return [
		question.title,
		question.kind,
		plainText(question.stem),
		...Array.from({ length: Math.max(2, options) }, (_, at) => texts[at] ?? ''),
		key,
		question.points === null ? '' : String(tidy(question.points)),
		question.category.join(' > '),
		question.tags.join(', '),
		question.difficulty ?? '',
		question.language ?? '',
		'shuffle' in question && question.shuffle !== null ? (question.shuffle ? 'yes' : 'no') : '',
		plainText(general ?? ''),
		plainText(correct ?? ''),
		plainText(incorrect ?? ''),
		plainText(question.hints.join(' '))
	];
}

/** A cell of CSV (RFC 4180); what a spreadsheet would take for a formula gets an apostrophe in front. */
const isFormula = (text: string) => /^[=+\-@\t\r]/.test(text) && !/^[+-]?\d+([.,]\d+)?$/.test(text);

function csvCell(text: string): string {
	const safe = isFormula(text) ? `'${text}` : text;
	return /[",\r\n]|^\s|\s$/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
}

const csvLine = (cells: string[]) => `${cells.map(csvCell).join(',')}\r\n`;

function again(question: Question, rows: Row[]): Question[] {
	const recipe = guessTable(rows);
	if (!recipe) return [];
	return [...readRows(rows, recipe, { file: '', format: 'csv', label: '' })].flatMap((one) =>
		'question' in one ? [one.question] : []
	);
}

const tableLimits = (rowsFor: (question: Question) => Row[]): Limits => ({
	...textLimits,
	features: textLimits.features.filter((name) => name !== 'option-feedback'),
	settle: (question) =>
		byTrial(question, (one) => again(one, rowsFor(one))) ?? {
			question: { ...question, kind: 'unreadable', reason: '', fragment: '' },
			what: []
		},
	refuses: 'a row of a table does not bring it back as one question'
});

const tableOfText = tableLimits((question) => {
	const options = optionCount(question);
	return rowsOfText(csvLine(tableHeadings(options)) + csvLine(tableCells(question, options)), ',');
});

/** What a table of text holds. */
export const csvLimits: Limits = {
	...tableOfText,
	settle: (question) => {
		const settled = tableOfText.settle!(question);
		if (settled.question.kind === 'unreadable') return settled;
		const formula = tableCells(settled.question, optionCount(settled.question)).find(isFormula);
		return formula === undefined
			? settled
			: {
					...settled,
					note: `“${beginning(formula, 40)}” gets an apostrophe in front in the file, so that no spreadsheet runs it as a formula`
				};
	}
};

/** What a workbook holds. */
export const xlsxLimits: Limits = tableLimits((question) => {
	const options = optionCount(question);
	return [tableHeadings(options), tableCells(question, options)].map((cells, at) => ({
		cells: cells.map(cellOf),
		number: at + 1
	}));
});

/** The most options of any question; reading each back, which may take a question out but adds no option, is not needed for it. */
async function widest(
	{ count, question: ask, options }: ToWrite,
	{ holds, features, carries }: Limits
): Promise<number> {
	let most = 2;
	for (let at = 0; at < count; at += 1)
		for (const question of fit(await ask(at), { holds, features, carries }, options).fitted)
			most = Math.max(most, Math.min(mostOptions, optionCount(question)));
	return most;
}

/** Writes a table of text: CSV with commas, UTF-8 with a byte order mark, so that spreadsheets know its letters. */
export async function* writeCsv(
	what: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const most = await widest(what, csvLimits);
	yield encoder.encode(`\ufeff${csvLine(tableHeadings(most))}`);
	for (let at = 0; at < what.count; at += 1) {
		for (const question of fit(await what.question(at), csvLimits, what.options).fitted)
			yield encoder.encode(csvLine(tableCells(question, most)));
		written(at + 1);
	}
}

function columnName(at: number): string {
	return at < 26 ? letterOf(at) : `${columnName(Math.floor(at / 26) - 1)}${letterOf(at % 26)}`;
}

function sheetRow(cells: string[], number: number, style = ''): string {
	const inner = cells
		.map((text, at) =>
			text === ''
				? ''
				: `<c r="${columnName(at)}${number}" t="inlineStr"${style}><is><t xml:space="preserve">${escapeText(text)}</t></is></c>`
		)
		.join('');
	return `<row r="${number}">${inner}</row>\n`;
}

const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const packaging = 'http://schemas.openxmlformats.org/package/2006';

/** Writes a workbook with one sheet (ECMA-376); every cell is text, so that nothing is taken for a date or a formula. */
export async function* writeXlsx(
	what: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const zip = new ZipWriter(what.codec);
	const bytesOf = (text: string) => [encoder.encode(head + text)];
	yield* zip.add(
		'[Content_Types].xml',
		bytesOf(
			`<Types xmlns="${packaging}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml"/></Types>`
		)
	);
	yield* zip.add(
		'_rels/.rels',
		bytesOf(
			`<Relationships xmlns="${packaging}/relationships"><Relationship Id="rId1" Type="${office}/officeDocument" Target="xl/workbook.xml"/></Relationships>`
		)
	);
	yield* zip.add(
		'xl/workbook.xml',
		bytesOf(
			`<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="Questions" sheetId="1" r:id="rId1"/></sheets></workbook>`
		)
	);
	yield* zip.add(
		'xl/_rels/workbook.xml.rels',
		bytesOf(
			`<Relationships xmlns="${packaging}/relationships"><Relationship Id="rId1" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="${office}/styles" Target="styles.xml"/></Relationships>`
		)
	);
	yield* zip.add(
		'xl/styles.xml',
		bytesOf(
			`<styleSheet xmlns="${main}"><fonts count="2"><font><sz val="11"/><name val="Calibri"/></font><font><b/><sz val="11"/><name val="Calibri"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills><borders count="1"><border><left/><right/><top/><bottom/><diagonal/></border></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="2"><xf xfId="0"/><xf fontId="1" applyFont="1" xfId="0"/></cellXfs></styleSheet>`
		)
	);
	const most = await widest(what, xlsxLimits);
	const rows = async function* () {
		yield encoder.encode(
			`${head}<worksheet xmlns="${main}"><sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews><sheetData>\n${sheetRow(tableHeadings(most), 1, ' s="1"')}`
		);
		let number = 1;
		for (let at = 0; at < what.count; at += 1) {
			for (const question of fit(await what.question(at), xlsxLimits, what.options).fitted) {
				number += 1;
				yield encoder.encode(sheetRow(tableCells(question, most), number));
			}
			written(at + 1);
		}
		yield encoder.encode('</sheetData></worksheet>\n');
	};
	yield* zip.add('xl/worksheets/sheet1.xml', rows());
	yield* zip.end();
}
