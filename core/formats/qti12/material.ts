import { markupOfHtml, markupOfNodes, markupOfText, type CleanContext } from '../../markup/clean';
import type { Markup } from '../../model/question';
import { escapeAttribute } from '../../xml/serialise';
import { childrenOf, textOf, type XmlElement } from '../../xml/tree';

const looksLikeHtml = /<\/?(p|br|div|b|i|u|strong|em|img|span|ul|ol|li|table|sub|sup|font|a)\b[^>]*>/i;

/** What an element was read as, and where: the same text is asked for at several steps of reading a question. */
const known = new WeakMap<XmlElement, { context: CleanContext; markup: Markup }>();

function textMarkup(node: XmlElement, context: CleanContext): Markup {
	const before = known.get(node);
	if (before?.context === context) return before.markup;
	const markup = readText(node, context);
	known.set(node, { context, markup });
	return markup;
}

function readText(node: XmlElement, context: CleanContext): Markup {
	const type = (node.attributes.texttype ?? '').toLowerCase();
	if (childrenOf(node).length || type.includes('xhtml')) return markupOfNodes(node.children, context);
	const text = textOf(node);
	if (type.includes('html') || (!type && looksLikeHtml.test(text))) return markupOfHtml(text, context);
	return markupOfText(text);
}

/** What stands in a `material` (QTI 1.2 ASI binding, 3.4): text, emphasis, pictures and sound, as rich text. */
function materialMarkup(material: XmlElement, context: CleanContext): Markup {
	let out = '';
	const join = (piece: string, node: XmlElement) => {
		const text = textOf(node);
		const blank = (at: number) => /\s/.test(text.at(at) ?? '');
		out += `${blank(0) && out ? ' ' : ''}${piece}${blank(-1) ? ' ' : ''}`;
	};
	for (const node of childrenOf(material)) {
		const address = node.attributes.uri ?? node.attributes.entityref ?? '';
		if (node.name === 'mattext') join(textMarkup(node, context), node);
		else if (node.name === 'matemtext') join(`<em>${textMarkup(node, context)}</em>`, node);
		else if (node.name === 'matbreak') out += '<br/>';
		else if (node.name === 'matimage' && address) {
			const size = ['width', 'height']
				.map((side) => (node.attributes[side] ? ` ${side}="${escapeAttribute(node.attributes[side]!)}"` : ''))
				.join('');
			out += `<img src="media:${escapeAttribute(context.media(address) ?? address)}" alt=""${size}/>`;
		} else if ((node.name === 'mataudio' || node.name === 'matvideo') && address)
			out += `<object data="media:${escapeAttribute(context.media(address) ?? address)}" type="${escapeAttribute(node.attributes.audiotype ?? node.attributes.videotype ?? 'application/octet-stream')}"/>`;
	}
	return out.trim();
}

const blocks = /^<(p|div|table|ul|ol|dl|pre|blockquote|h[1-6]|hr)\b/;

/** Several pieces of rich text, one under the other. */
export function joinBlocks(pieces: Markup[]): Markup {
	const some = pieces.filter(Boolean);
	if (some.length < 2) return some[0] ?? '';
	return some.map((piece) => (blocks.test(piece) ? piece : `<p>${piece}</p>`)).join('');
}

/** All material below an element, in order, without that of responses unless they are asked for. */
export function materialBelow(
	parent: XmlElement,
	context: CleanContext,
	skip: (name: string) => boolean = () => false
): Markup[] {
	const found: Markup[] = [];
	const walk = (node: XmlElement) => {
		for (const child of node.children) {
			if (typeof child === 'string') continue;
			if (child.name === 'material') found.push(materialMarkup(child, context));
			else if (!skip(child.name)) walk(child);
		}
	};
	walk(parent);
	return found;
}
