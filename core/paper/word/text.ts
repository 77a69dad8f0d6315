import { parseXml } from '../../xml/stream';
import { escapeText } from '../../xml/serialise';
import type { XmlElement, XmlNode } from '../../xml/tree';
import type { Markup } from '../../model/question';
import { formula } from './math';

/** A picture that stands in a text: gives what it is in a run; nothing where its file is not there. */
export type PictureRun = (name: string, alt: string) => string;

interface Style {
	bold?: boolean;
	italic?: boolean;
	underline?: boolean;
	script?: 'superscript' | 'subscript';
	mono?: boolean;
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
export function textRun(text: string, { bold, italic, underline, script, mono }: Style = {}): string {
	if (!text) return '';
	const properties =
		(mono ? '<w:rFonts w:ascii="Courier New" w:hAnsi="Courier New"/>' : '') +
		(bold ? '<w:b/>' : '') +
		(italic ? '<w:i/>' : '') +
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
	size?: number;
	/** A line under it, to write on. */
	ruled?: boolean;
}

/** A paragraph of runs. */
export function paragraph(runs: string, form: ParagraphForm = {}): string {
	const { before = '', indent = 0, hanging = 0, keepNext = true, pageBreak = false, ruled = false } = form;
	const properties =
		(keepNext ? '<w:keepNext/>' : '') +
		'<w:keepLines/>' +
		(pageBreak ? '<w:pageBreakBefore/>' : '') +
		(ruled ? '<w:pBdr><w:bottom w:val="single" w:sz="4" w:space="1" w:color="808080"/></w:pBdr>' : '') +
		`<w:spacing w:before="${ruled ? 260 : 40}" w:after="40"/>` +
		(indent || hanging ? `<w:ind w:left="${indent + hanging}"${hanging ? ` w:hanging="${hanging}"` : ''}/>` : '');
	return `<w:p><w:pPr>${properties}</w:pPr>${before}${runs}</w:p>`;
}

/** The runs of rich text, parted into paragraphs. */
export function paragraphRuns(markup: Markup, picture: PictureRun): string[] {
	const { root } = parseXml(`<div>${markup}</div>`);
	if (!root) return [textRun(markup)];
	const paragraphs: string[] = [''];
	const add = (runs: string) => paragraphs.push(`${paragraphs.pop() ?? ''}${runs}`);
	const part = () => {
		if (paragraphs.at(-1)) paragraphs.push('');
	};
	const walk = (node: XmlNode, style: Style): void => {
		if (typeof node === 'string') return void add(textRun(node.replace(/\s+/g, ' '), style));
		if (node.name === 'math') return void add(formula(node));
		if (node.name === 'br') return void add('<w:r><w:br/></w:r>');
		if (node.name === 'img') return void add(pictureOf(node));
		if (node.name === 'td' || node.name === 'th') add('<w:r><w:tab/></w:r>');
		const isBlock = blocks.has(node.name);
		if (isBlock) part();
		if (node.name === 'li') add(textRun('• ', style));
		for (const child of node.children) walk(child, { ...style, ...styles.get(node.name) });
		if (isBlock) part();
	};
	const pictureOf = ({ attributes }: XmlElement) =>
		picture((attributes.src ?? '').replace(/^media:/, ''), attributes.alt ?? '');
	for (const child of root.children) walk(child, {});
	return paragraphs.filter((runs, at) => runs || (at === 0 && paragraphs.length === 1));
}
