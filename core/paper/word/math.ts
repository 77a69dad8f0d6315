import { escapeText } from '../../xml/serialise';
import { textOf, type XmlElement, type XmlNode } from '../../xml/tree';

const run = (text: string) => (text ? `<m:r><m:t xml:space="preserve">${escapeText(text)}</m:t></m:r>` : '');
const part = (name: string, inner: string) => `<m:${name}>${inner}</m:${name}>`;
const elementsOf = (node: XmlElement) =>
	node.children.filter((child): child is XmlElement => typeof child !== 'string');

/** What the children of an element are as Office Math, each by itself. */
const each = (node: XmlElement) => elementsOf(node).map(mathOf);
const all = (node: XmlElement) => node.children.map(mathOf).join('');

function scripts(name: 'sSub' | 'sSup' | 'sSubSup', [base = '', first = '', second = '']: string[]): string {
	const below = name === 'sSup' ? '' : part('sub', first);
	const above = name === 'sSub' ? '' : part('sup', name === 'sSup' ? first : second);
	return part(name, part('e', base) + below + above);
}

function limits(node: XmlElement): string {
	const [base = '', first = '', second = ''] = each(node);
	if (node.name === 'munder') return part('limLow', part('e', base) + part('lim', first));
	if (node.name === 'mover') return part('limUpp', part('e', base) + part('lim', first));
	return part('limUpp', part('e', part('limLow', part('e', base) + part('lim', first))) + part('lim', second));
}

function fenced(node: XmlElement): string {
	const { open = '(', close = ')' } = node.attributes;
	const signs = `<m:begChr m:val="${escapeText(open)}"/><m:endChr m:val="${escapeText(close)}"/>`;
	return part(
		'd',
		part('dPr', signs) +
			each(node)
				.map((inner) => part('e', inner))
				.join('')
	);
}

function table(node: XmlElement): string {
	const rows = elementsOf(node).map((line) =>
		part(
			'mr',
			elementsOf(line)
				.map((cell) => part('e', all(cell)))
				.join('')
		)
	);
	return part('m', rows.join(''));
}

/** How each element of presentation MathML is written as Office Math (ECMA-376 part 1, 22.1). */
const writers: ReadonlyMap<string, (node: XmlElement) => string> = new Map<string, (node: XmlElement) => string>([
	[
		'mfrac',
		(node) => {
			const [above = '', below = ''] = each(node);
			return part('f', part('num', above) + part('den', below));
		}
	],
	['msub', (node) => scripts('sSub', each(node))],
	['msup', (node) => scripts('sSup', each(node))],
	['msubsup', (node) => scripts('sSubSup', each(node))],
	['msqrt', (node) => part('rad', '<m:radPr><m:degHide m:val="1"/></m:radPr><m:deg/>' + part('e', all(node)))],
	[
		'mroot',
		(node) => {
			const [base = '', degree = ''] = each(node);
			return part('rad', part('deg', degree) + part('e', base));
		}
	],
	['munder', limits],
	['mover', limits],
	['munderover', limits],
	['mfenced', fenced],
	['mtable', table],
	['semantics', (node) => mathOf(elementsOf(node)[0] ?? '')],
	['annotation', () => ''],
	['mspace', () => run(' ')]
]);
const leaves = new Set(['mi', 'mn', 'mo', 'mtext', 'ms']);

/** A piece of MathML as Office Math; what is not known is written as what stands in it. */
export function mathOf(node: XmlNode): string {
	if (typeof node === 'string') return run(node.trim());
	if (leaves.has(node.name)) return run(textOf(node).trim());
	return writers.get(node.name)?.(node) ?? all(node);
}

/** A formula as a run of a paragraph. */
export const formula = (math: XmlElement): string => part('oMath', all(math));
