import { lookup } from '../model/lookup';
/** A piece of a formula as text; one that is whole by itself needs no brackets in a fraction or under a root. */
interface Piece {
	text: string;
	whole: boolean;
}

interface Element {
	name: string;
	children: (Element | string)[];
}

const tag = /<(\/)?([A-Za-z][\w:.-]*)[^>]*?(\/)?>|([^<]+)/g;

/** The elements of well-formed MathML; attributes say nothing here. */
function treeOf(math: string): Element {
	const root: Element = { name: 'mrow', children: [] };
	const open = [root];
	for (const [, closes, name, empty, text] of math.matchAll(tag)) {
		const inside = open.at(-1)!;
		if (text !== undefined) inside.children.push(text);
		else if (closes) {
			if (open.length > 1) open.pop();
		} else {
			const element: Element = { name: name!.replace(/^.*:/, ''), children: [] };
			inside.children.push(element);
			if (!empty) open.push(element);
		}
	}
	return root;
}

const elementsOf = (element: Element): Element[] =>
	element.children.filter((child): child is Element => typeof child !== 'string');
const bracketed = ({ text, whole }: Piece) => (whole ? text : `(${text})`);
const joined = (pieces: Piece[]): Piece => {
	const filled = pieces.filter((piece) => piece.text !== '');
	return { text: filled.map((piece) => piece.text).join(''), whole: filled.length === 1 && filled[0]!.whole };
};
const nothing: Piece = { text: '', whole: true };
const ordinal = lookup<string>({ '3': '∛', '4': '∜' });

type Written = (parts: Piece[]) => Piece;

/** How each element of MathML 3 (chapter 3) is written in a line. */
const written = new Map<string, Written>([
	['mfrac', ([top = nothing, bottom = nothing]) => ({ text: `${bracketed(top)}/${bracketed(bottom)}`, whole: false })],
	['msup', ([base = nothing, over = nothing]) => ({ text: `${bracketed(base)}^${bracketed(over)}`, whole: false })],
	['msub', ([base = nothing, under = nothing]) => ({ text: `${bracketed(base)}_${bracketed(under)}`, whole: true })],
	[
		'msubsup',
		([base = nothing, under = nothing, over = nothing]) => ({
			text: `${bracketed(base)}_${bracketed(under)}^${bracketed(over)}`,
			whole: false
		})
	],
	['msqrt', (parts) => ({ text: `√(${joined(parts).text})`, whole: true })],
	[
		'mroot',
		([base = nothing, degree = nothing]) =>
			ordinal[degree.text]
				? { text: `${ordinal[degree.text]}(${base.text})`, whole: true }
				: { text: `${bracketed(base)}^(1/${bracketed(degree)})`, whole: false }
	],
	['mfenced', (parts) => ({ text: `(${parts.map((part) => part.text).join(', ')})`, whole: true })],
	['munder', ([base = nothing, under = nothing]) => ({ text: `${base.text}_${bracketed(under)}`, whole: false })],
	[
		'munderover',
		([base = nothing, under = nothing, over = nothing]) => ({
			text: `${base.text}_${bracketed(under)}^${bracketed(over)} `,
			whole: false
		})
	],
	['mover', ([base = nothing]) => base],
	['mtable', (parts) => ({ text: `[${parts.map((part) => part.text).join('; ')}]`, whole: true })],
	['mtr', (parts) => ({ text: parts.map((part) => part.text).join(', '), whole: false })]
]);
/** What is no part of what is read: other ways of saying the same. */
const silent = new Set(['annotation', 'annotation-xml', 'mphantom']);
/** Signs that are not seen: application of a function, invisible times, separator and plus. */
const invisible = /[\u2061-\u2064]/g;

function pieceOf(node: Element | string): Piece {
	if (typeof node === 'string') {
		const text = node.replace(invisible, '').replace(/\s+/g, ' ');
		return { text: text.trim() ? text : '', whole: true };
	}
	if (silent.has(node.name)) return nothing;
	if (node.name === 'mspace') return { text: ' ', whole: false };
	if (/^m[inos]$|^mtext$/.test(node.name)) {
		const { text } = joined(node.children.map(pieceOf));
		return { text: node.name === 'mtext' ? text : text.trim(), whole: node.name !== 'mo' };
	}
	const rule = written.get(node.name);
	if (rule) return rule(elementsOf(node).map(pieceOf));
	const piece = joined(node.children.map(pieceOf));
	// what stands in brackets of its own needs no others
	return /^\([^()]*\)$/.test(piece.text) ? { ...piece, whole: true } : piece;
}

/** MathML (its inside, well-formed, with its references as they are) as one line of text: d/t, v^2, √(gd). */
export function formulaText(math: string): string {
	return pieceOf(treeOf(math)).text.trim();
}
