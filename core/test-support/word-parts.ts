import { escapeText } from '../xml/serialise';
import { opened, type Files } from './packages';
import type { Container } from '../container/container';

/** The namespaces of the parts of a made Word document. */
export const wordSpace =
	'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"';
const level = (at: number, format: string) =>
	`<w:lvl w:ilvl="${at}"><w:start w:val="1"/><w:numFmt w:val="${format}"/></w:lvl>`;
const abstract = (at: number, ...levels: string[]) =>
	`<w:abstractNum w:abstractNumId="${at}">${levels.map((format, place) => level(place, format)).join('')}</w:abstractNum>`;
const restarted = (id: number, of: number) =>
	`<w:num w:numId="${id}"><w:abstractNumId w:val="${of}"/><w:lvlOverride w:ilvl="0"><w:startOverride w:val="1"/></w:lvlOverride></w:num>`;

/** Lists of a made document: 1 numbers with letters below, 2 letters, 3 bullets; from 10 on letters that begin again. */
const numbering = `<w:numbering ${wordSpace}>${abstract(0, 'decimal', 'lowerLetter')}${abstract(1, 'upperLetter')}${abstract(2, 'bullet')}${[
	[1, 0],
	[2, 1],
	[3, 2]
]
	.map(([id, of]) => `<w:num w:numId="${id}"><w:abstractNumId w:val="${of}"/></w:num>`)
	.join('')}${Array.from({ length: 12 }, (_, at) => restarted(10 + at, 1)).join('')}</w:numbering>`;
const styles = `<w:styles ${wordSpace}><w:style w:styleId="H1"><w:name w:val="heading 1"/></w:style><w:style w:styleId="H2"><w:name w:val="heading 2"/></w:style><w:style w:styleId="T"><w:name w:val="Title"/></w:style></w:styles>`;

/** A run of text in a made Word document (ECMA-376 part 1, 17.3.2), with its properties as they are written; tabs are elements. */
export const run = (words: string, style = ''): string =>
	`<w:r>${style ? `<w:rPr>${style}</w:rPr>` : ''}${words
		.split('\t')
		.map((text) => (text ? `<w:t xml:space="preserve">${escapeText(text)}</w:t>` : ''))
		.join('<w:tab/>')}</w:r>`;

/** A paragraph of a made Word document: what is in it, the list and the level in it, and the identifier of its style. */
export const paragraph = (inner: string, list?: [number, number], style = ''): string =>
	`<w:p><w:pPr>${style ? `<w:pStyle w:val="${style}"/>` : ''}${list ? `<w:numPr><w:ilvl w:val="${list[1]}"/><w:numId w:val="${list[0]}"/></w:numPr>` : ''}</w:pPr>${inner}</w:p>`;

/** A Word document of such a body, opened; `more` are files beside those that every document has. */
export const wordDocument = (body: string, more: Files = {}): Promise<Container> =>
	opened({
		'word/document.xml': `<w:document ${wordSpace}><w:body>${body}</w:body></w:document>`,
		'word/numbering.xml': numbering,
		'word/styles.xml': styles,
		...more
	});
