import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { isChoice, type Question } from '../../kinds';
import { opened, readAll, type Files } from '../../test-support/packages';
import { paragraph, run, wordDocument, wordSpace } from '../../test-support/word-parts';

const read = async (body: string, more: Files = {}) => readAll(await wordDocument(body, more));
const lines = (...texts: string[]) => texts.map((text) => paragraph(run(text))).join('');
const cell = (inner: string) => `<w:tc>${inner.startsWith('<w:') ? inner : paragraph(run(inner))}</w:tc>`;
const row = (...cells: string[]) => `<w:tr>${cells.map(cell).join('')}</w:tr>`;
const table = (...rows: string[]) => `<w:tbl>${rows.join('')}</w:tbl>`;
const options = (question: Question | undefined) =>
	question && isChoice(question)
		? question.options.map(({ text, credit }) => `${credit > 0 ? '*' : ''}${plainText(text)}`)
		: [];

describe('what people make with a word processor', () => {
	it('boxes of forms are ticked or not, old ones and new ones', async () => {
		const modern = (isTicked: boolean) =>
			`<w:sdt><w:sdtPr><w14:checkbox xmlns:w14="http://schemas.microsoft.com/office/word/2010/wordml"><w14:checked w14:val="${isTicked ? 1 : 0}"/></w14:checkbox></w:sdtPr><w:sdtContent>${run('?')}</w:sdtContent></w:sdt>`;
		const legacy = (isTicked: boolean) =>
			`<w:r><w:fldChar w:fldCharType="begin"><w:ffData><w:checkBox><w:default w:val="${isTicked ? 1 : 0}"/></w:checkBox></w:ffData></w:fldChar></w:r><w:r><w:instrText> FORMCHECKBOX </w:instrText></w:r><w:r><w:fldChar w:fldCharType="end"/></w:r>`;
		for (const box of [modern, legacy]) {
			const { questions } = await read(
				lines('1. Which is a knot?') +
					paragraph(box(false) + run(' Cleat')) +
					paragraph(box(true) + run(' Bowline')) +
					lines('2. Which is a light?', 'a) A lamp', 'b) A bell', 'Answer: A')
			);
			expect(questions.map(options)).toEqual([
				['Cleat', '*Bowline'],
				['*A lamp', 'A bell']
			]);
		}
	});
	it('an answer that is hidden from students is read and told; other hidden words are left out and told', async () => {
		const hidden = (text: string) => paragraph(run(text, '<w:vanish/>'));
		const found = await read(
			lines('1. Which side is port?', 'a) left', 'b) right') +
				hidden('Answer: A') +
				hidden('Ask the mate about this one') +
				lines('2. Which end is the bow?', 'a) front', 'b) back', 'Answer: A')
		);
		expect(found.questions.map(options)).toEqual([
			['*left', 'right'],
			['*front', 'back']
		]);
		const told = [...found.reports, ...[...found.about.values()].flat()].filter(({ rule }) => rule === 'hidden-text');
		expect(told.map(({ message }) => message).join(' ')).toContain('“Ask the mate about this one”');
		expect(told).toHaveLength(2);
	});
	it('the option that is not struck through is right, where all others are', async () => {
		const struck = '<w:strike/>';
		const { questions } = await read(
			lines('1. Which is a fuel?') +
				[
					['A. ', 'Diesel', ''],
					['B. ', 'Coolant', struck],
					['C. ', 'Sea water', struck]
				]
					.map(([label, text, style]) => paragraph(run(label!) + run(text!, style)))
					.join('')
		);
		expect(options(questions[0])).toEqual(['*Diesel', 'Coolant', 'Sea water']);
	});
	it('lists of one kind count on together, and begin again where one says so', async () => {
		const { questions } = await read(
			[1, 2, 3]
				.flatMap((number) => [
					paragraph(run(`Which is number ${number}?`), [1, 0]),
					paragraph(run('fore'), [9 + number, 0]),
					paragraph(run('aft'), [2, 0])
				])
				.join('') + lines('Answer key', '1. B', '2. A', '3. B')
		);
		expect(questions.map(options)).toEqual([
			['fore', '*aft'],
			['*fore', 'aft'],
			['fore', '*aft']
		]);
	});
	it('a paragraph between two questions belongs to neither, and is told', async () => {
		const found = await read(
			paragraph(run('Which is fore?'), [1, 0]) +
				paragraph(run('Bow', '<w:b/>'), [1, 1]) +
				paragraph(run('Stern'), [1, 1]) +
				lines('Now look at the plan.') +
				paragraph(run('Which is aft?'), [1, 0]) +
				paragraph(run('Bow'), [1, 1]) +
				paragraph(run('Stern', '<w:b/>'), [1, 1])
		);
		expect(found.questions.map(options)).toEqual([
			['*Bow', 'Stern'],
			['Bow', '*Stern']
		]);
		expect(found.reports.map(({ message }) => message).join()).toContain('Now look at the plan.');
	});
	it('options may be pictures alone, and a picture above a question belongs to it', async () => {
		const picture = '<w:r><w:drawing><a:blip r:embed="P"/></w:drawing></w:r>';
		const { questions } = await read(
			lines('1. Which is a port mark?') +
				paragraph(run('a) ') + picture) +
				paragraph(run('b) ') + picture) +
				lines('Answer: A') +
				paragraph(picture) +
				lines('2. What does the mark above mean?', 'a) Pass to starboard', 'b) Pass to port', 'Answer: B'),
			{
				'word/_rels/document.xml.rels': '<Relationships><Relationship Id="P" Target="media/p.png"/></Relationships>',
				'word/media/p.png': 'x'
			}
		);
		expect(options(questions[0])).toEqual(['*', '']);
		expect(isChoice(questions[0]!) && questions[0].options[0]!.text).toMatch(/^<img [^>]*>$/);
		expect(questions[1]!.stem).toContain('<img');
		expect(questions[0]!.feedback).toEqual({});
	});
	it('the part that holds the text may have another name', async () => {
		const found = await readAll(
			await opened({
				'[Content_Types].xml': '<Types/>',
				'_rels/.rels':
					'<Relationships><Relationship Id="r" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document2.xml"/></Relationships>',
				'word/document2.xml': `<w:document ${wordSpace}><w:body>${lines('1. What is a hawser?', 'a) A thick rope', 'b) A bird', 'Answer: A')}</w:body></w:document>`
			})
		);
		expect(found.questions.map(options)).toEqual([['*A thick rope', 'A bird']]);
	});
});

describe('tables of a word processor', () => {
	it('with a letter beside each option hold options, with the key from bold type', async () => {
		const { questions } = await read(
			lines('1. Which is a knot?') +
				table(row('a)', paragraph(run('Bowline', '<w:b/>'))), row('b)', 'Cleat')) +
				lines('2. Which is a block?') +
				table(row('A', 'Sheet'), row('B', 'Snatch')) +
				lines('Answer: B')
		);
		expect(questions.map(options)).toEqual([
			['*Bowline', 'Cleat'],
			['Sheet', '*Snatch']
		]);
	});
	it('within tables are read where they stand', async () => {
		const { questions } = await read(
			table(
				`<w:tr><w:tc>${lines('1. Match the flag with the meaning.')}${table(row('H', 'Pilot on board'), row('A', 'Diver down'))}${lines('2. Is the Q flag yellow?', 'Answer: True')}</w:tc></w:tr>`
			)
		);
		expect(questions.map(({ kind }) => kind)).toEqual(['matching', 'true-false']);
	});
	it('of questions have keys in bold type, rows in controls, and rows across them that head what follows', async () => {
		const bold = (text: string) => paragraph(run(text, '<w:b/>'));
		const { questions } = await read(
			table(
				row('Question', 'A', 'B'),
				row('Lights'),
				row('Which light is lit?', 'Red', bold('Green')),
				row('Bells'),
				`<w:sdt><w:sdtContent>${row('Which bell rings?', bold('Fore'), 'Aft')}</w:sdtContent></w:sdt>`
			)
		);
		expect(questions.map((question) => [question.category, options(question)])).toEqual([
			[['Lights'], ['Red', '*Green']],
			[['Bells'], ['*Fore', 'Aft']]
		]);
	});
	it('of answers may lie on their side', async () => {
		const { questions } = await read(
			lines('1. Which is fore?', 'a) bow', 'b) stern', '2. Which is aft?', 'a) bow', 'b) stern', 'Answer key') +
				table(row('Question', '1', '2'), row('Answer', 'A', 'B'))
		);
		expect(questions.map(options)).toEqual([
			['*bow', 'stern'],
			['bow', '*stern']
		]);
	});
	it('of figures that do not count on number no questions', async () => {
		const { questions } = await read(
			lines('1. When did the wind veer?') + table(row('0400', 'SW 4'), row('0800', 'W 5')) + lines('Answer: 0800')
		);
		expect(questions.map(({ kind, stem }) => [kind, plainText(stem).replace(/\s+/g, ' ')])).toEqual([
			['short-answer', 'When did the wind veer? 0400 SW 4 0800 W 5']
		]);
	});
});
