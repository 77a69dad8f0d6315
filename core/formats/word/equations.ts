import { lookup } from '../../model/lookup';
import { escapeText } from '../../xml/serialise';
import { childOf, childrenOf, textOf, type XmlElement } from '../../xml/tree';

const value = (node: XmlElement | undefined) => node?.attributes.val;
const row = (inner: string) => `<mrow>${inner}</mrow>`;

/** The words of an equation as MathML tokens: numbers, letters one by one, and signs. */
function tokens(text: string): string {
	return (text.match(/\d+(?:[.,]\d+)*|\p{L}\p{M}*|\s+|[^\s]/gu) ?? [])
		.map((piece) => {
			if (/^\s/.test(piece)) return '';
			if (/^\d/.test(piece)) return `<mn>${piece}</mn>`;
			return /^\p{L}/u.test(piece) ? `<mi>${piece}</mi>` : `<mo>${escapeText(piece)}</mo>`;
		})
		.join('');
}

function part(node: XmlElement, name: string): string {
	const found = childOf(node, name);
	return row(found ? inside(found) : '');
}

type Translation = (node: XmlElement) => string;

/** How each element of an equation is written in MathML 3 (ECMA-376 part 1, 22.1.2). */
const translations = lookup<Translation>({
	r: (node) => tokens(childrenOf(node, 't').map(textOf).join('')),
	f: (node) => `<mfrac>${part(node, 'num')}${part(node, 'den')}</mfrac>`,
	sSup: (node) => `<msup>${part(node, 'e')}${part(node, 'sup')}</msup>`,
	sSub: (node) => `<msub>${part(node, 'e')}${part(node, 'sub')}</msub>`,
	sSubSup: (node) => `<msubsup>${part(node, 'e')}${part(node, 'sub')}${part(node, 'sup')}</msubsup>`,
	sPre: (node) =>
		`<mmultiscripts>${part(node, 'e')}<mprescripts/>${part(node, 'sub')}${part(node, 'sup')}</mmultiscripts>`,
	rad: (node) => {
		const degree = childOf(node, 'deg');
		return degree && textOf(degree).trim()
			? `<mroot>${part(node, 'e')}${part(node, 'deg')}</mroot>`
			: `<msqrt>${part(node, 'e')}</msqrt>`;
	},
	d: (node) => {
		const properties = childOf(node, 'dPr');
		const sign = (name: string, otherwise: string) =>
			`<mo>${escapeText(value(properties && childOf(properties, name)) ?? otherwise)}</mo>`;
		return row(
			`${sign('begChr', '(')}${childrenOf(node, 'e')
				.map((one) => row(inside(one)))
				.join(sign('sepChr', '|'))}${sign('endChr', ')')}`
		);
	},
	nary: (node) => {
		const sign = `<mo>${escapeText(value(childOf(childOf(node, 'naryPr'), 'chr')) ?? '∫')}</mo>`;
		return row(`<munderover>${sign}${part(node, 'sub')}${part(node, 'sup')}</munderover>${part(node, 'e')}`);
	},
	func: (node) => row(`${part(node, 'fName')}${part(node, 'e')}`),
	acc: (node) =>
		`<mover>${part(node, 'e')}<mo>${escapeText(value(childOf(childOf(node, 'accPr'), 'chr')) ?? '̂')}</mo></mover>`,
	bar: (node) => `<mover>${part(node, 'e')}<mo>¯</mo></mover>`,
	limLow: (node) => `<munder>${part(node, 'e')}${part(node, 'lim')}</munder>`,
	limUpp: (node) => `<mover>${part(node, 'e')}${part(node, 'lim')}</mover>`,
	m: (node) => table(childrenOf(node, 'mr').map((one) => childrenOf(one, 'e'))),
	eqArr: (node) => table(childrenOf(node, 'e').map((one) => [one]))
});

const table = (rows: XmlElement[][]) =>
	`<mtable>${rows.map((cells) => `<mtr>${cells.map((cell) => `<mtd>${inside(cell)}</mtd>`).join('')}</mtr>`).join('')}</mtable>`;

const inside = (node: XmlElement): string =>
	childrenOf(node)
		.map((child) => (child.name.endsWith('Pr') ? '' : (translations[child.name] ?? inside)(child)))
		.join('');

const signs = lookup<string>({ '&amp;': '&', '&lt;': '<', '&gt;': '>' });

/** An equation of a Word document (ECMA-376 part 1, 22.1: Office Math) as MathML, and its signs in one line. */
export function equation(node: XmlElement): { markup: string; text: string } {
	const content = inside(node);
	return {
		markup: content ? `<math xmlns="http://www.w3.org/1998/Math/MathML">${content}</math>` : '',
		text: content.replace(/<[^>]+>/g, '').replace(/&(?:amp|lt|gt);/g, (sign) => signs[sign]!)
	};
}
