import { markupOfHtml, markupOfNodes, markupOfText, type CleanContext } from '../../markup/clean';
import type { Markup } from '../../model/question';
import { escapeAttribute, escapeText } from '../../xml/serialise';
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

/**
 * Material of the rarer kinds: pictures that stand in the file itself, files for other programs as a link, and the words
 * of applets and extensions, which themselves are taken out and noted.
 */
function otherMaterial(node: XmlElement, address: string, context: CleanContext): Markup {
	const text = textOf(node).trim();
	const { imagtype, apptype, label } = node.attributes;
	if (node.name === 'matimage') {
		const data = text.replace(/\s+/g, '');
		const html = `<img src="data:${escapeAttribute(imagtype ?? 'image/jpeg')};base64,${data}" alt=""/>`;
		return data && /^[A-Za-z\d+/]+=*$/.test(data) ? markupOfHtml(html, context) : '';
	}
	if (node.name === 'matapplication' && address) {
		const file = escapeAttribute(context.media(address) ?? address);
		const type = escapeAttribute(apptype ?? 'application/octet-stream');
		return `<object data="media:${file}" type="${type}">${escapeText(text || label || address)}</object>`;
	}
	if (!/^mat(applet|application|_extension)$/.test(node.name)) return '';
	context.removed(node.name);
	return text ? ` ${markupOfText(text)} ` : '';
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
				.map((side) => (node.attributes[side] ? ` ${side}="${escapeAttribute(node.attributes[side])}"` : ''))
				.join('');
			out += `<img src="media:${escapeAttribute(context.media(address) ?? address)}" alt=""${size}/>`;
		} else if ((node.name === 'mataudio' || node.name === 'matvideo') && address)
			out += `<object data="media:${escapeAttribute(context.media(address) ?? address)}" type="${escapeAttribute(node.attributes.audiotype ?? node.attributes.videotype ?? 'application/octet-stream')}"/>`;
		else out += otherMaterial(node, address, context);
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

/** Whether an element holds what belongs to single options or to a picture, and not to what is asked. */
export const isOfOptions = (name: string): boolean =>
	name === 'response_label' || (name.startsWith('render_') && name !== 'render_choice');

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
