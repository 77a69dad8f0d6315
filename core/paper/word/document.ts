import { strToU8, zipSync } from 'fflate';
import { escapeAttribute } from '../../xml/serialise';
import type { Attachment } from '../../model/question';
import type { PaperBlock, PaperQuestion } from '..';
import { letterAt } from '../letters';
import { paragraph, paragraphRuns, textRun, type PictureRun } from './text';

/** A question of a form, with what stands on paper of it. */
export interface WordQuestion extends PaperQuestion {
	id: number;
	number: number | null;
	part: number;
	points: number;
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

/** A picture's bytes by its hash; undefined where it is not there. */
export type PictureBytes = (hash: string) => Uint8Array | undefined;

const endings: ReadonlyMap<string, string> = new Map([
	['image/png', 'png'],
	['image/jpeg', 'jpeg'],
	['image/gif', 'gif'],
	['image/bmp', 'bmp'],
	['image/svg+xml', 'svg']
]);
/** English metric units: 914,400 to the inch, 9,525 to the pixel. */
const perPixel = 9525;
const widest = 560 * perPixel;
/** A picture of one point, for programs that show no drawings of lines. */
const onePoint = Uint8Array.from(
	'89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c4890000000d4944415478da63fcffff3f030005fe02fe0def46b80000000049454e44ae426082'
		.match(/../g)!
		.map((pair) => parseInt(pair, 16))
);

/** The pictures of a document: each file once, with what a run says of it. */
class Pictures {
	readonly files = new Map<string, Uint8Array>();
	readonly relations: string[] = [];
	#count = 0;

	constructor(readonly bytesOf: PictureBytes) {}

	#add(path: string, bytes: Uint8Array): string {
		const id = `pic${this.relations.length + 1}`;
		this.files.set(`word/${path}`, bytes);
		this.relations.push(
			`<Relationship Id="${id}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="${path}"/>`
		);
		return id;
	}

	/** What finds the pictures of a question by their names. */
	of(attachments: readonly Attachment[]): PictureRun {
		return (name, alt) => {
			const file = attachments.find((other) => other.name === name);
			const ending = file && endings.get(file.mediaType);
			const bytes = file?.hash ? this.bytesOf(file.hash) : undefined;
			if (!ending || !bytes) return textRun(`[picture: ${alt || name}]`, { italic: true });
			return this.#run(bytes, ending, alt || name, file.width ?? 320, file.height ?? 200);
		};
	}

	#run(bytes: Uint8Array, ending: string, alt: string, width: number, height: number): string {
		this.#count += 1;
		const scale = Math.min(1, widest / (width * perPixel));
		const size = `cx="${Math.round(width * perPixel * scale)}" cy="${Math.round(height * perPixel * scale)}"`;
		const own = this.#add(`media/image${this.#count}.${ending}`, bytes);
		const isDrawing = ending === 'svg';
		const shown = isDrawing ? this.#add('media/point.png', onePoint) : own;
		const drawing = isDrawing
			? `<a:extLst><a:ext uri="{96DAC541-7B7A-43D3-8B79-37D633B846F1}"><asvg:svgBlip xmlns:asvg="http://schemas.microsoft.com/office/drawing/2016/SVG/main" r:embed="${own}"/></a:ext></a:extLst>`
			: '';
		return `<w:r><w:drawing><wp:inline distT="0" distB="0" distL="0" distR="0"><wp:extent ${size}/><wp:docPr id="${this.#count}" name="Picture ${this.#count}" descr="${escapeAttribute(alt)}"/><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/picture"><pic:pic><pic:nvPicPr><pic:cNvPr id="${this.#count}" name="Picture ${this.#count}"/><pic:cNvPicPr/></pic:nvPicPr><pic:blipFill><a:blip r:embed="${shown}">${drawing}</a:blip><a:stretch><a:fillRect/></a:stretch></pic:blipFill><pic:spPr><a:xfrm><a:off x="0" y="0"/><a:ext ${size}/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></pic:spPr></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>`;
	}
}

const indent = 480;
const tab = '<w:r><w:tab/></w:r>';

function lettered(texts: readonly string[], sign: string, picture: PictureRun): string {
	return texts
		.map((text, at) => {
			const [first = '', ...rest] = paragraphRuns(text, picture);
			const before = textRun(`${sign}${letterAt(at)}  `, { bold: true });
			return (
				paragraph(first, { before, indent, hanging: 400 }) +
				rest.map((runs) => paragraph(runs, { indent: indent + 400 })).join('')
			);
		})
		.join('');
}

/** How each block under a stem is written. */
function blockXml(block: PaperBlock, picture: PictureRun): string {
	switch (block.sort) {
		case 'options':
			return lettered(block.options, block.several ? '☐ ' : '○ ', picture);
		case 'lines':
			return Array.from({ length: block.count }, (_, at) =>
				paragraph(
					textRun(at === 0 ? block.before : '') +
						(at === block.count - 1 && block.after ? tab + textRun(block.after) : ''),
					{
						indent,
						ruled: true
					}
				)
			).join('');
		case 'pairs':
			return (
				block.left
					.map((text, at) =>
						paragraph(paragraphRuns(text, picture).join('') + textRun('   ______'), {
							before: textRun(`${at + 1}  `, { bold: true }),
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
			return paragraph(picture(block.picture.name, block.picture.alt), { indent });
		case 'words':
			return paragraph(textRun(`${block.title}:`), { indent }) + lettered(block.words, '', picture);
		case 'say':
			return paragraph(textRun(block.text), { indent });
	}
}

const two = (value: number) => String(Math.round(value * 100) / 100);
const totalOf = (questions: readonly WordQuestion[]) => two(questions.reduce((sum, { points }) => sum + points, 0));

function questionXml(question: WordQuestion, pictures: Pictures): string {
	const picture = pictures.of(question.attachments);
	const { number, points, stimulus, stem, blocks } = question;
	const [first = '', ...rest] = [
		...(stimulus ? paragraphRuns(stimulus, picture) : []),
		...paragraphRuns(stem, picture)
	];
	const worth =
		number === null ? '' : textRun(`   (${two(points)} ${points === 1 ? 'point' : 'points'})`, { italic: true });
	return (
		paragraph(first + worth, {
			before: number === null ? '' : textRun(`${number}  `, { bold: true }),
			hanging: indent
		}) +
		rest.map((runs) => paragraph(runs, { indent })).join('') +
		blocks.map((block) => blockXml(block, picture)).join('') +
		// what belongs to a question stays on its page; here the next one may begin
		paragraph('', { keepNext: false })
	);
}

function paperXml(forms: WordForms, at: number, pictures: Pictures): string {
	const { name, questions } = forms.forms[at]!;
	const title = forms.forms.length > 1 ? `${forms.title} · form ${name}` : forms.title;
	const said = [forms.instructions, ...(forms.minutes ? [`Time: ${forms.minutes} minutes.`] : [])]
		.filter(Boolean)
		.join(' ');
	return (
		paragraph(textRun(title, { bold: true }), { pageBreak: at > 0 }) +
		paragraph(
			textRun(`Name ______________________________   Date ____________   Points ________ of ${totalOf(questions)}`)
		) +
		(said ? paragraph(textRun(said), { keepNext: false }) : '') +
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
		paragraph(textRun(`${forms.title}, form ${name}: the key`, { bold: true }), { pageBreak: at > 0 }) +
		`<w:tbl><w:tblPr><w:tblW w:w="5000" w:type="pct"/><w:tblBorders>${borders}</w:tblBorders></w:tblPr><w:tblGrid>${'<w:gridCol w:w="1600"/>'.repeat(5)}</w:tblGrid>` +
		line(['No.', 'Key', 'Points', 'Question of the bank', 'Earned'], true) +
		asked
			.map(({ number, key, points, title, id }) => line([String(number), key, two(points), `${title} #${id}`, '']))
			.join('') +
		line(['', 'in all', totalOf(asked), '', ''], true) +
		'</w:tbl>' +
		paragraph('', { keepNext: false })
	);
}

const sizes = { A4: [11906, 16838], letter: [12240, 15840] } as const;
const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const names =
	'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture"';
const types = `${head}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Default Extension="png" ContentType="image/png"/><Default Extension="jpeg" ContentType="image/jpeg"/><Default Extension="gif" ContentType="image/gif"/><Default Extension="bmp" ContentType="image/bmp"/><Default Extension="svg" ContentType="image/svg+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.styles+xml"/></Types>`;
const relations = (inner: string) =>
	`${head}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${inner}</Relationships>`;
const officeDocument = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const styleSheet = `${head}<w:styles ${names}><w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii="Arial" w:hAnsi="Arial" w:cs="Arial"/><w:sz w:val="22"/></w:rPr></w:rPrDefault></w:docDefaults></w:styles>`;

/**
 * Forms of a quiz as a Word document (WordprocessingML, ECMA-376): one form or key a page and on, a question never torn
 * by a page where it fits on one. The same forms give the same bytes.
 */
export function wordDocument(forms: WordForms, bytesOf: PictureBytes): Uint8Array {
	const pictures = new Pictures(bytesOf);
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
