import { parseXml } from '../../xml/parse';
import { escapeText } from '../../xml/serialise';
import { childrenOf, descendants, type XmlElement, type XmlNode } from '../../xml/tree';
import type { Markup } from '../../model/question';
import { formula } from './math';

/** A picture that stands in a text: what it is in a run, and whether it is so high that words do not stand beside it. */
export type PictureRun = (name: string, alt: string) => { run: string; isHigh: boolean };

interface Style {
	bold?: boolean;
	italic?: boolean;
	underline?: boolean;
	script?: 'superscript' | 'subscript';
	mono?: boolean;
	/** In half points. */
	size?: number;
}

const styles: ReadonlyMap<string, Style> = new Map<string, Style>([
	['b', { bold: true }],
	['strong', { bold: true }],
	['th', { bold: true }],
	['i', { italic: true }],
	['em', { italic: true }],
	['var', { italic: true }],
	['u', { underline: true }],
	['sup', { script: 'superscript' }],
	['sub', { script: 'subscript' }],
	['code', { mono: true }],
	['pre', { mono: true }]
]);
const blocks = new Set([
	'p',
	'div',
	'li',
	'ul',
	'ol',
	'blockquote',
	'pre',
	'h1',
	'h2',
	'h3',
	'h4',
	'h5',
	'h6',
	'tr',
	'table',
	'tbody',
	'thead',
	'dl',
	'dt',
	'dd'
]);

/** A run of text in a style. */
export function textRun(text: string, { bold, italic, underline, script, mono, size }: Style = {}): string {
	if (!text) return '';
	const properties =
		(mono ? '<w:rFonts w:ascii="Courier New" w:hAnsi="Courier New"/>' : '') +
		(bold ? '<w:b/>' : '') +
		(italic ? '<w:i/>' : '') +
		(size ? `<w:sz w:val="${size}"/>` : '') +
		(underline ? '<w:u w:val="single"/>' : '') +
		(script ? `<w:vertAlign w:val="${script}"/>` : '');
	return `<w:r>${properties ? `<w:rPr>${properties}</w:rPr>` : ''}<w:t xml:space="preserve">${escapeText(text)}</w:t></w:r>`;
}

/** How a paragraph stands: what is before its text, how far it is set in (twentieths of a point), and whether it stays with the next. */
export interface ParagraphForm {
	before?: string;
	indent?: number;
	hanging?: number;
	keepNext?: boolean;
	pageBreak?: boolean;
	/** A tab in it is a line to write on, up to the edge. */
	ruled?: boolean;
	/** Hardly any height of its own: it parts two tables. */
	small?: boolean;
}

/** Where a line to write on ends, in twentieths of a point from the edge of the text: on A4 and on letter. */
const lineEnd = 9900;

/** A paragraph of runs. */
export function paragraph(runs: string, form: ParagraphForm = {}): string {
	const {
		before = '',
		indent = 0,
		hanging = 0,
		keepNext = true,
		pageBreak = false,
		ruled = false,
		small = false
	} = form;
	const properties =
		(keepNext ? '<w:keepNext/>' : '') +
		'<w:keepLines/>' +
		(pageBreak ? '<w:pageBreakBefore/>' : '') +
		(ruled ? `<w:tabs><w:tab w:val="right" w:leader="underscore" w:pos="${lineEnd}"/></w:tabs>` : '') +
		(small
			? '<w:spacing w:before="0" w:after="0" w:line="60" w:lineRule="exact"/>'
			: `<w:spacing w:before="${ruled ? 200 : 40}" w:after="40"${ruled ? ' w:line="480" w:lineRule="auto"' : ''}/>`) +
		(indent || hanging ? `<w:ind w:left="${indent + hanging}"${hanging ? ` w:hanging="${hanging}"` : ''}/>` : '');
	return `<w:p><w:pPr>${properties}</w:pPr>${before}${runs}</w:p>`;
}

/** A part of a text on paper: a paragraph of runs, a picture on its own, or a table for where it is set in. */
type TextBlock = { sort: 'runs' | 'picture'; runs: string } | { sort: 'table'; xml: (indent: number) => string };

const borders = ['top', 'left', 'bottom', 'right', 'insideH', 'insideV']
	.map((side) => `<w:${side} w:val="single" w:sz="4" w:space="0" w:color="A0A0A0"/>`)
	.join('');

/** A table of rich text (ECMA-376, 17.4). */
function tableXml(table: XmlElement, picture: PictureRun): (indent: number) => string {
	const lines = descendants(table, 'tr').map((line) =>
		childrenOf(line)
			.filter(({ name }) => name === 'td' || name === 'th')
			.map((cell) => ({
				span: Math.max(1, Math.min(60, Number(cell.attributes.colspan) || 1)),
				inner: written(blocksIn(cell.children, picture, cell.name === 'th' ? { bold: true } : {}), {})
			}))
	);
	const columns = Math.max(1, ...lines.map((cells) => cells.reduce((sum, { span }) => sum + span, 0)));
	const rowsXml = lines
		.filter((cells) => cells.length)
		.map(
			(cells) =>
				`<w:tr><w:trPr><w:cantSplit/></w:trPr>${cells.map(({ span, inner }) => `<w:tc><w:tcPr><w:tcW w:w="0" w:type="auto"/>${span > 1 ? `<w:gridSpan w:val="${span}"/>` : ''}</w:tcPr>${inner || '<w:p/>'}</w:tc>`).join('')}</w:tr>`
		)
		.join('');
	return (indent) =>
		rowsXml
			? `<w:tbl><w:tblPr><w:tblW w:w="0" w:type="auto"/><w:tblInd w:w="${indent + 108}" w:type="dxa"/><w:tblBorders>${borders}</w:tblBorders></w:tblPr><w:tblGrid>${'<w:gridCol w:w="1600"/>'.repeat(columns)}</w:tblGrid>${rowsXml}</w:tbl>${paragraph('', { small: true })}`
			: '';
}

/** The parts of rich text, one below the other. */
function blocksIn(nodes: readonly XmlNode[], picture: PictureRun, first: Style = {}): TextBlock[] {
	const parts: TextBlock[] = [];
	let runs = '';
	const part = () => {
		if (runs) parts.push({ sort: 'runs', runs });
		runs = '';
	};
	const show = ({ attributes }: XmlElement): void => {
		const { run, isHigh } = picture((attributes.src ?? '').replace(/^media:/, ''), attributes.alt ?? '');
		if (!isHigh) return void (runs += run);
		part();
		parts.push({ sort: 'picture', runs: run });
	};
	const walk = (node: XmlNode, style: Style): void => {
		if (typeof node === 'string') return void (runs += textRun(node.replace(/\s+/g, ' '), style));
		if (node.name === 'math') return void (runs += formula(node));
		if (node.name === 'br') return void (runs += '<w:r><w:br/></w:r>');
		if (node.name === 'img') {
			show(node);
			return;
		}
		if (node.name === 'table') {
			part();
			return void parts.push({ sort: 'table', xml: tableXml(node, picture) });
		}
		const isBlock = blocks.has(node.name);
		if (isBlock) part();
		if (node.name === 'li') runs += textRun('• ', style);
		for (const child of node.children) walk(child, { ...style, ...styles.get(node.name) });
		if (isBlock) part();
	};
	for (const node of nodes) walk(node, first);
	part();
	return parts;
}

/** How a rich text stands on paper: what is before and behind its first words, and how far it is set in. */
export interface RichForm {
	before?: string;
	after?: string;
	indent?: number;
	hanging?: number;
}

function written(parts: readonly TextBlock[], { before = '', after = '', indent = 0, hanging = 0 }: RichForm): string {
	const [first] = parts;
	const opens = first?.sort === 'runs';
	const head =
		opens || before || after ? paragraph((opens ? first.runs : '') + after, { before, indent, hanging }) : '';
	const rest = (opens ? parts.slice(1) : parts).map((block) =>
		block.sort === 'table' ? block.xml(indent + hanging) : paragraph(block.runs, { indent: indent + hanging })
	);
	return head + rest.join('');
}

/** A rich text as paragraphs and tables. A picture that is higher than a few lines stands below the words that it comes with. */
export function richText(markup: Markup, picture: PictureRun, form: RichForm = {}): string {
	const { root } = parseXml(`<div>${markup}</div>`);
	return written(root ? blocksIn(root.children, picture) : [{ sort: 'runs', runs: textRun(markup) }], form);
}
