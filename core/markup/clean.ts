import { mathElements } from './mathml';
import { lookup } from '../model/lookup';
import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5';
import { element, textOf, type XmlElement, type XmlNode } from '../xml/tree';
import { conform } from './conform';
import { ownClasses } from './classes';
import { blankMarker, isBlankMarker } from './markers';
import { serialise } from '../xml/serialise';
import { parseXml } from '../xml/parse';
import type { Markup } from '../model/question';

/** Elements that are kept: those that QTI 2.1 (information model, section 8) and HTML have in common, and MathML. */
const kept = new Set(
	'a abbr acronym address b big blockquote br caption cite code col colgroup dd dfn div dl dt em h1 h2 h3 h4 h5 h6 hr i img kbd li object ol p pre q samp small span strong sub sup table tbody td tfoot th thead tr tt ul var'.split(
		' '
	)
);
/** Elements whose whole content goes with them: it is executed, or it is another document. */
const active = new Set(
	'script iframe frame frameset applet embed form input button select textarea style link meta base portal noscript template xml foreignobject'.split(
		' '
	)
);
/** Active elements whose loss changes nothing for the reader, and so is no finding. */
const inert = new Set('style link meta base noscript template xml'.split(' '));
const marked = lookup<string>({
	u: 'underlined',
	ins: 'underlined',
	s: 'struck',
	strike: 'struck',
	del: 'struck',
	mark: 'marked'
});
const renamed = lookup<string>({
	section: 'div',
	article: 'div',
	aside: 'div',
	header: 'div',
	footer: 'div',
	main: 'div',
	figure: 'div',
	figcaption: 'p',
	center: 'div'
});
const attributes = lookup<string[]>({
	'*': ['class', 'xml:lang', 'lang'],
	a: ['href'],
	img: ['src', 'alt', 'width', 'height', 'longdesc'],
	object: ['data', 'type', 'width', 'height'],
	td: ['colspan', 'rowspan', 'scope', 'abbr'],
	th: ['colspan', 'rowspan', 'scope', 'abbr'],
	col: ['span'],
	colgroup: ['span'],
	math: ['display'],
	mstyle: ['displaystyle'],
	mo: ['stretchy', 'fence', 'separator'],
	mi: ['mathvariant'],
	mfenced: ['open', 'close', 'separators'],
	mspace: ['width'],
	mtd: ['columnspan', 'rowspan'],
	annotation: ['encoding']
});

/** What cleaning needs from the place where the text stands. */
export interface CleanContext {
	/** The name of a packaged file for an address as written, or null where the address leads outside. */
	media: (address: string) => string | null;
	/** Told of active content that was taken out. */
	removed: (what: string) => void;
	/** The text is in our own form, in which blanks have places. */
	ours?: boolean;
	/** Gives other nodes for an element, or undefined to clean it as usual. */
	replace?: ((element: XmlElement) => XmlNode[] | undefined) | undefined;
}

// browsers skip control characters in front of and inside a scheme (WHATWG URL, basic URL parser)
// eslint-disable-next-line no-control-regex
const withoutControls = (address: string) => address.replace(/[\u0000-\u0020]/g, '');
const safeLink = /^(https?:|mailto:|tel:|#|media:)/i;
const safePicture = /^data:image\/(png|gif|jpeg|webp);base64,[A-Za-z0-9+/=\s]*$/;

function cleanElement(source: XmlElement, context: CleanContext, inMath: boolean): XmlNode[] {
	const replaced = context.replace?.(source);
	if (replaced) return replaced;
	if (context.ours && isBlankMarker(source) && (source.name === 'span' || source.name === 'div'))
		return [blankMarker(source.attributes.id!, source.name === 'div')];
	let name = source.name.includes('-') ? source.name : source.name.toLowerCase();
	if (active.has(name)) {
		if (!inert.has(name)) context.removed(name === 'foreignobject' ? 'foreign content' : name);
		return name === 'form' || name === 'noscript' || name === 'button'
			? cleanNodes(source.children, context, inMath)
			: [];
	}
	let hasAttributes = false;
	for (const attribute in source.attributes) {
		hasAttributes = true;
		if (/^on/i.test(attribute)) context.removed(`${attribute.toLowerCase()} handler`);
	}
	if (name === 'audio' || name === 'video') {
		const child = source.children.find(
			(node): node is XmlElement => typeof node !== 'string' && node.name === 'source'
		);
		const data = source.attributes.src ?? child?.attributes.src;
		if (data)
			return cleanElement(
				element('object', { data, type: child?.attributes.type ?? (name === 'audio' ? 'audio/mpeg' : 'video/mp4') }),
				context,
				false
			);
	}
	const children = cleanNodes(source.children, context, inMath || name === 'math');
	const isMath = mathElements.has(name) && (inMath || name === 'math');
	const className = marked[name];
	name = className ? 'span' : (renamed[name] ?? name);
	if (!kept.has(name) && !isMath) return children;
	const out: Record<string, string> = className ? { class: className } : {};
	// in this order whatever the order in the source, so that the same text is the same
	for (const attribute of hasAttributes ? [...attributes['*']!, ...(attributes[name] ?? [])] : []) {
		const value = source.attributes[attribute];
		if (value === undefined || (attribute === 'class' && className)) continue;
		if (attribute === 'href') {
			const address = value.trim();
			if (safeLink.test(address)) out.href = address;
			else if (/^[a-z][a-z0-9+.-]*:/i.test(withoutControls(address)))
				context.removed(`${address.split(':')[0]!.toLowerCase()} link`);
			else {
				const file = context.media(address);
				if (file) out.href = `media:${file}`;
			}
		} else if (attribute === 'src' || attribute === 'data') {
			const address = value.trim();
			if (safePicture.test(address) || address.startsWith('media:')) out[attribute] = address;
			else if (/^(javascript|vbscript|data):/i.test(address))
				context.removed(`${address.split(':')[0]!.toLowerCase()} address`);
			else out[attribute] = `media:${context.media(address) ?? address}`;
		} else if (attribute === 'class') {
			const ours = ownClasses(value);
			if (ours) out.class = ours;
		} else out[attribute === 'lang' ? 'xml:lang' : attribute] = value;
	}
	if (name === 'math') out.xmlns = 'http://www.w3.org/1998/Math/MathML';
	if (name === 'img') {
		if (!out.src) return [];
		// a picture that says it is decoration has an empty text; one of which nothing is said has none
		const { role = '', 'aria-hidden': hidden, 'aria-label': label } = source.attributes;
		if (out.alt === undefined && label?.trim()) out.alt = label.trim();
		else if (out.alt === undefined && (/^(?:presentation|none)$/i.test(role) || hidden === 'true')) out.alt = '';
		return [element('img', out)];
	}
	if (name === 'object') {
		if (!out.data) return children;
		if (out.type?.startsWith('image/')) {
			const { data, type: _type, ...rest } = out;
			// an object has no way to say that it is decoration, so nothing in it is nothing said
			const alt = textOf(source).trim();
			return [element('img', { src: data, ...(alt ? { alt } : {}), ...rest })];
		}
		out.type ??= 'application/octet-stream';
	}
	if (name === 'a' && !out.href) return children;
	return [element(name, out, name === 'br' || name === 'hr' || name === 'col' ? [] : children)];
}

/** Nodes with nothing in them that could be executed or could reach outside. */
export function cleanNodes(nodes: XmlNode[], context: CleanContext, inMath = false): XmlNode[] {
	const out: XmlNode[] = [];
	for (const node of nodes) {
		if (typeof node === 'string') out.push(node);
		else out.push(...cleanElement(node, context, inMath));
	}
	return out;
}

/** Rich text out of nodes of a document: cleaned, and trimmed of white space at its ends. */
export function markupOfNodes(nodes: XmlNode[], context: CleanContext): Markup {
	const [only] = nodes;
	if (nodes.length === 1 && typeof only === 'string') return markupOfText(only);
	return serialise(conform(cleanNodes(nodes, context))).trim();
}

/** Deeper nesting than this is flattened: no person makes it, and each level is a call. */
const deepestHtml = 150;

/** The text below a node, without calling itself. */
function flattened(node: DefaultTreeAdapterTypes.ChildNode): XmlNode[] {
	let text = '';
	for (let queue = [node]; queue.length;) {
		const node = queue.pop()!;
		if (node.nodeName === '#text') text += (node as DefaultTreeAdapterTypes.TextNode).value;
		else if ('childNodes' in node && !active.has(node.nodeName)) queue = queue.concat([...node.childNodes].reverse());
	}
	return text ? [text] : [];
}

function fromHtml(node: DefaultTreeAdapterTypes.ChildNode, depth = 0): XmlNode[] {
	if (node.nodeName === '#text') return [(node as DefaultTreeAdapterTypes.TextNode).value];
	if (!('childNodes' in node) || !('attrs' in node)) return [];
	if (depth >= deepestHtml) return flattened(node);
	const given: Record<string, string> = {};
	for (const { name, value } of node.attrs) if (/^[a-zA-Z_][\w:.-]*$/.test(name)) given[name] = value;
	return [
		element(
			node.nodeName,
			given,
			node.childNodes.flatMap((child) => fromHtml(child, depth + 1))
		)
	];
}

const pairedNames = 'b|i|em|strong|u|sub|sup|span|code|p|div';
const attribute = '(?:\\s+[a-z]+="[^"<>&\\r]*")*\\s*';
/** HTML that reads the same as XML: a few elements that are opened and closed, and nothing that the rules of HTML would repair. */
const plainHtml = new RegExp(
	`^(?:[^<>&\\0\\r]|&(?:amp|lt|gt|quot);|<(?:${pairedNames})${attribute}>|</(?:${pairedNames})>|<(?:br|img)${attribute}/>)*$`
);

const longestPlain = 20_000;

/** Whether paragraphs hold nothing that ends them in HTML. */
function keepsParagraphs(nodes: XmlNode[], inParagraph = false): boolean {
	for (const node of nodes) {
		if (typeof node === 'string') continue;
		const block = node.name === 'p' || node.name === 'div';
		if (block && inParagraph) return false;
		if (!keepsParagraphs(node.children, inParagraph || node.name === 'p')) return false;
	}
	return true;
}

/** The nodes of plain HTML, by the reader of XML, which is several times as fast; null where HTML has rules of its own. */
function nodesOfPlainHtml(html: string): XmlNode[] | null {
	if (html.length > longestPlain || !plainHtml.test(html)) return null;
	const { root } = parseXml(`<x>${html}</x>`);
	return root && keepsParagraphs(root.children) ? root.children : null;
}

const openOrClose = /<(\/?)([A-Za-z][A-Za-z0-9]*)[^<>]*?(\/?)>/g;
/** Elements may stand so deep in one another before they are counted: fewer are not worth the counting. */
const mostTags = 2 * deepestHtml;

/** Whether elements of HTML are nested deeper than anybody writes them: taking such a text apart needs time and memory without measure. */
function isTooDeep(html: string): boolean {
	if (html.length < mostTags * 3) return false;
	let depth = 0;
	for (const [, closes, , empty] of html.matchAll(openOrClose)) {
		if (closes) depth = Math.max(0, depth - 1);
		else if (!empty) depth += 1;
		if (depth > mostTags) return true;
	}
	return false;
}

/** Rich text out of HTML as people and editors write it, with the repairs that the HTML standard prescribes. */
export function markupOfHtml(html: string, context: CleanContext): Markup {
	if (!/[<&]/.test(html)) return markupOfText(html);
	if (isTooDeep(html)) {
		context.removed('markup that is nested too deep');
		return markupOfText(
			html
				.replace(/<(script|style)\b[\s\S]*?<\/\1\s*>/gi, ' ')
				.replace(/<[^<>]*>/g, ' ')
				.replace(/\s+/g, ' ')
		);
	}
	return markupOfNodes(
		nodesOfPlainHtml(html) ?? parseFragment(html).childNodes.flatMap((child) => fromHtml(child)),
		context
	);
}

/** Rich text out of plain text: every sign stands for itself. */
export function markupOfText(text: string): Markup {
	return serialise([text]).trim();
}
