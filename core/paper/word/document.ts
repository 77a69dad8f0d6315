import { strToU8, zipSync } from 'fflate';
import type { Attachment } from '../../model/question';
import type { PaperBlock, PaperQuestion } from '..';
import { letterAt } from '../letters';
import { pointsText, totalText, worthText } from '../worth';
import { Pictures, type DrawnPictures, type PictureBytes } from './pictures';
import { paragraph, richText, textRun, type PictureRun } from './text';

/** A question of a form, with what stands on paper of it. */
export interface WordQuestion extends PaperQuestion {
	id: number;
	number: number | null;
	part: number;
	/** What it is worth; null where nobody says. */
	points: number | null;
	/** What it is called in the bank. */
	title: string;
	stimulus: string;
	attachments: readonly Attachment[];
}

/** The forms of a quiz as they are written for Word. */
export interface WordForms {
	title: string;
	instructions: string;
	minutes: number | null;
	parts: readonly string[];
	paper: 'A4' | 'letter';
	/** The papers themselves, or their keys. */
	what: 'papers' | 'keys';
	forms: readonly { name: string; questions: readonly WordQuestion[] }[];
}

const indent = 480;
const tab = '<w:r><w:tab/></w:r>';

function lettered(texts: readonly string[], sign: string, picture: PictureRun): string {
	// a picture stands beside its letter, however high it is
	const beside: PictureRun = (name, alt) => ({ ...picture(name, alt), isHigh: false });
	return texts
		.map((text, at) =>
			richText(text, beside, {
				before: textRun(`${sign}${letterAt(at)}`, { bold: true }) + tab,
				indent,
				hanging: sign ? 600 : 400
			})
		)
		.join('');
}

/** How each block under a stem is written. */
function blockXml(block: PaperBlock, { attachments }: WordQuestion, pictures: Pictures): string {
	const picture = pictures.of(attachments);
	switch (block.sort) {
		case 'options':
			return lettered(block.options, block.several ? '☐ ' : '○ ', picture);
		case 'lines':
			// one paragraph, which no word processor tears; lines under paragraphs of their own are torn by some
			return paragraph(
				textRun(block.before) +
					Array.from({ length: block.count }, () => tab).join('<w:r><w:br/></w:r>') +
					textRun(block.after),
				{ indent, ruled: true }
			);
		case 'pairs':
			return (
				block.left
					.map((text, at) =>
						richText(text, picture, {
							before: textRun(`${at + 1}`, { bold: true }) + tab,
							after: textRun('   ______'),
							indent,
							hanging: 400
						})
					)
					.join('') + lettered(block.right, '', picture)
			);
		case 'order':
			return (
				lettered(block.items, '', picture) +
				paragraph(textRun(`In order: ${block.items.map(() => '____').join('  ')}`), { indent })
			);
		case 'picture':
			return paragraph(pictures.withPlaces(block.picture, block.places, attachments), { indent });
		case 'words':
			return paragraph(textRun(`${block.title}:`), { indent }) + lettered(block.words, '', picture);
		case 'say':
			return paragraph(textRun(block.text), { indent });
	}
}

function questionXml(question: WordQuestion, pictures: Pictures): string {
	const picture = pictures.of(question.attachments);
	const { number, stimulus, stem, blocks } = question;
	const worth = worthText(question);
	const opening = {
		before: number === null ? '' : textRun(`${number}`, { bold: true }) + tab,
		after: textRun(worth && `   (${worth})`, { italic: true }),
		hanging: number === null ? 0 : indent
	};
	return (
		(stimulus
			? richText(stimulus, picture, opening) + richText(stem, picture, { indent: opening.hanging })
			: richText(stem, picture, opening)) +
		blocks.map((block) => blockXml(block, question, pictures)).join('') +
		// what belongs to a question stays on its page; here the next one may begin
		paragraph('', { keepNext: false })
	);
}

const fieldsOf = (questions: readonly WordQuestion[]) => {
	const total = totalText(questions);
	return `Name ______________________________   Date ____________   Points ________${total && ` of ${total}`}`;
};

function paperXml(forms: WordForms, at: number, pictures: Pictures): string {
	const { name, questions } = forms.forms[at]!;
	const title = forms.forms.length > 1 ? `${forms.title} · form ${name}` : forms.title;
	const said = [forms.instructions, ...(forms.minutes ? [`Time: ${forms.minutes} minutes.`] : [])]
		.filter(Boolean)
		.join(' ');
	return (
		paragraph(textRun(title, { bold: true, size: 32 }), { pageBreak: at > 0 }) +
		paragraph(textRun(fieldsOf(questions))) +
		(said ? paragraph(textRun(said)) : '') +
		paragraph('', { keepNext: false }) +
		questions
			.map((question, place) => {
				const begins = place === 0 || questions[place - 1]!.part !== question.part;
				const part = forms.parts[question.part];
				const heading =
					begins && forms.parts.length > 1 && part ? paragraph(textRun(part, { bold: true, underline: true })) : '';
				return heading + questionXml(question, pictures);
			})
			.join('')
	);
}

function keysXml(forms: WordForms, at: number): string {
	const { name, questions } = forms.forms[at]!;
	const asked = questions.filter(({ number }) => number !== null);
	const cell = (text: string, bold = false) =>
		`<w:tc><w:tcPr><w:tcW w:w="0" w:type="auto"/></w:tcPr><w:p>${textRun(text, { bold })}</w:p></w:tc>`;
	const line = (cells: string[], bold = false) =>
		`<w:tr><w:trPr><w:cantSplit/></w:trPr>${cells.map((text) => cell(text, bold)).join('')}</w:tr>`;
	const borders = ['top', 'left', 'bottom', 'right', 'insideH', 'insideV']
		.map((side) => `<w:${side} w:val="single" w:sz="4" w:space="0" w:color="A0A0A0"/>`)
		.join('');
	return (
		paragraph(textRun(`${forms.title}, form ${name}: the key`, { bold: true, size: 32 }), { pageBreak: at > 0 }) +
		`<w:tbl><w:tblPr><w:tblW w:w="5000" w:type="pct"/><w:tblBorders>${borders}</w:tblBorders></w:tblPr><w:tblGrid>${'<w:gridCol w:w="1600"/>'.repeat(5)}</w:tblGrid>` +
		line(['No.', 'Key', 'Points', 'Question of the bank', 'Earned'], true) +
		asked
			.map(({ number, key, points, title, id }) =>
				line([String(number), key, points === null ? '' : pointsText(points), `${title} #${id}`, ''])
			)
			.join('') +
		line(['', 'in all', totalText(asked), '', ''], true) +
		'</w:tbl>' +
		paragraph('', { keepNext: false })
	);
}

const sizes = { A4: [11906, 16838], letter: [12240, 15840] } as const;
const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const names =
	'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture" xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006" xmlns:wpg="http://schemas.microsoft.com/office/word/2010/wordprocessingGroup" xmlns:wps="http://schemas.microsoft.com/office/word/2010/wordprocessingShape"';
const types = `${head}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Default Extension="png" ContentType="image/png"/><Default Extension="jpeg" ContentType="image/jpeg"/><Default Extension="gif" ContentType="image/gif"/><Default Extension="bmp" ContentType="image/bmp"/><Default Extension="svg" ContentType="image/svg+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.styles+xml"/></Types>`;
const relations = (inner: string) =>
	`${head}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${inner}</Relationships>`;
const officeDocument = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const styleSheet = `${head}<w:styles ${names}><w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii="Arial" w:hAnsi="Arial" w:cs="Arial"/><w:sz w:val="22"/></w:rPr></w:rPrDefault></w:docDefaults></w:styles>`;

/**
 * Forms of a quiz as a Word document (WordprocessingML, ECMA-376): one form or key a page and on, a question never torn
 * by a page where it fits on one. The same forms give the same bytes.
 */
export function wordDocument(
	forms: WordForms,
	bytesOf: PictureBytes,
	drawnOf: DrawnPictures = () => undefined
): Uint8Array {
	const pictures = new Pictures(bytesOf, drawnOf);
	const body = forms.forms
		.map((_, at) => (forms.what === 'keys' ? keysXml(forms, at) : paperXml(forms, at, pictures)))
		.join('');
	const [width, height] = sizes[forms.paper];
	const section = `<w:sectPr><w:pgSz w:w="${width}" w:h="${height}"/><w:pgMar w:top="900" w:right="900" w:bottom="900" w:left="900" w:header="450" w:footer="450" w:gutter="0"/></w:sectPr>`;
	const files = new Map<string, Uint8Array>([
		['[Content_Types].xml', strToU8(types)],
		[
			'_rels/.rels',
			strToU8(relations(`<Relationship Id="doc" Type="${officeDocument}/officeDocument" Target="word/document.xml"/>`))
		],
		['word/document.xml', strToU8(`${head}<w:document ${names}><w:body>${body}${section}</w:body></w:document>`)],
		['word/styles.xml', strToU8(styleSheet)],
		[
			'word/_rels/document.xml.rels',
			strToU8(
				relations(
					`<Relationship Id="styles" Type="${officeDocument}/styles" Target="styles.xml"/>${pictures.relations.join('')}`
				)
			)
		],
		...pictures.files
	]);
	return zipSync(Object.fromEntries(files), { mtime: new Date('1990-01-01T00:00:00Z') });
}
