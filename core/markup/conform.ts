import { isBlankMarker } from './markers';
import { element, type XmlElement, type XmlNode } from '../xml/tree';

/** Elements that hold only inline content, and may stand within a line. */
const inlineNames = new Set(
	'a abbr acronym b big br cite code dfn em i img kbd q samp small span strong sub sup tt var math object'.split(' ')
);
/** Blocks whose content is inline. */
const lineHolders = new Set('address h1 h2 h3 h4 h5 h6 p pre'.split(' '));
const sizes = new Set(['width', 'height']);
/** The form that values of some attributes have to be of. */
const forms = new Map([
	['scope', /^(?:row|col|rowgroup|colgroup)$/],
	['colspan', /^[1-9]\d*$/],
	['rowspan', /^[1-9]\d*$/],
	['span', /^[1-9]\d*$/],
	['xml:lang', /^[A-Za-z]{1,8}(-[A-Za-z0-9]{1,8})*$/]
]);

const isText = (node: XmlNode): node is string => typeof node === 'string';
const isBlank = (node: XmlNode) => isText(node) && !/[^\s]/.test(node);
const isInline = (node: XmlNode) => isText(node) || inlineNames.has(node.name);
const named = (nodes: XmlNode[], ...names: string[]) =>
	nodes.filter((node): node is XmlElement => !isText(node) && names.includes(node.name));

/** A paragraph, a heading or the like with nothing in it. */
const isHollow = (node: XmlNode) =>
	!isText(node) &&
	(lineHolders.has(node.name) || node.name === 'div' || node.name === 'blockquote') &&
	node.children.every(isBlank) &&
	!isBlankMarker(node);

/** Runs of inline nodes wrapped in paragraphs, so that only blocks are left. */
function asBlocks(nodes: XmlNode[]): XmlNode[] {
	const out: XmlNode[] = [];
	let run: XmlNode[] = [];
	const end = () => {
		if (run.some((node) => !isBlank(node))) out.push(element('p', {}, run));
		run = [];
	};
	for (const node of nodes) {
		if (isInline(node)) run.push(node);
		else {
			end();
			out.push(node);
		}
	}
	end();
	return out;
}

/** Content that may be inline or blocks, but not both side by side. */
function flow(nodes: XmlNode[]): XmlNode[] {
	if (nodes.every(isText)) return nodes;
	const fit: XmlNode[] = [];
	for (const node of nodes)
		if (isText(node)) fit.push(node);
		else for (const one of conformNode(node)) if (!isHollow(one)) fit.push(one);
	if (fit.every(isInline)) return fit;
	return asBlocks(fit);
}

/** Content that is inline: a block in it becomes its content, with a break before the next one. */
function line(nodes: XmlNode[]): XmlNode[] {
	return nodes.flatMap((node): XmlNode[] => {
		if (isText(node)) return [node];
		if (node.name === 'img' || node.name === 'object' || node.name === 'math' || node.name === 'br')
			return conformNode(node);
		if (!inlineNames.has(node.name)) return [' ', ...line(node.children), ' '];
		return [{ ...node, children: line(node.name === 'a' ? withoutLinks(node.children) : node.children) }];
	});
}

const holdsBlock = (nodes: XmlNode[]): boolean =>
	nodes.some(
		(node) =>
			!isText(node) &&
			(!inlineNames.has(node.name) || (node.name !== 'object' && node.name !== 'math' && holdsBlock(node.children)))
	);
const withoutLinks = (nodes: XmlNode[]): XmlNode[] =>
	nodes.flatMap((node) =>
		isText(node)
			? [node]
			: node.name === 'a'
				? withoutLinks(node.children)
				: [{ ...node, children: withoutLinks(node.children) }]
	);

function row(node: XmlElement): XmlElement {
	const cells = node.children
		.filter((child) => !isBlank(child))
		.map((child) =>
			!isText(child) && (child.name === 'td' || child.name === 'th')
				? { ...child, children: flow(child.children) }
				: element('td', {}, flow([child]))
		);
	return { ...node, children: cells };
}

function table(node: XmlElement): XmlNode[] {
	const body: XmlElement[] = [];
	const rows = (group: XmlElement) => named(group.children, 'tr').map(row);
	let loose: XmlElement[] = [];
	const end = () => {
		if (loose.length) body.push(element('tbody', {}, loose));
		loose = [];
	};
	for (const child of node.children) {
		if (isText(child)) continue;
		if (child.name === 'tr') loose.push(row(child));
		else if (child.name === 'tbody') {
			end();
			if (rows(child).length) body.push({ ...child, children: rows(child) });
		}
	}
	end();
	const group = (name: string) =>
		named(node.children, name)
			.slice(0, 1)
			.map((one) => ({ ...one, children: rows(one) }))
			.filter((one) => one.children.length);
	const columns = named(node.children, 'colgroup').length
		? named(node.children, 'colgroup').map((one) => ({ ...one, children: named(one.children, 'col') }))
		: named(node.children, 'col');
	const caption = named(node.children, 'caption')
		.slice(0, 1)
		.map((one) => ({ ...one, children: line(one.children) }));
	if (!body.length) {
		const [head] = group('thead');
		if (!head)
			return flow(
				node.children
					.filter((child) => !isText(child) && !['col', 'colgroup'].includes(child.name))
					.flatMap((child) => (isText(child) ? [] : child.children))
			);
		return [{ ...node, children: [...caption, ...columns, element('tbody', {}, head.children)] }];
	}
	return [{ ...node, children: [...caption, ...columns, ...group('thead'), ...group('tfoot'), ...body] }];
}

/** The attributes of an element, without values that the standards do not allow. */
function fitAttributes(name: string, given: Record<string, string>): Record<string, string> {
	const fit: Record<string, string> = {};
	for (const key in given) {
		const value = given[key]!;
		const plain = value.trim();
		if (name === 'math') fit[key] = value;
		else if (sizes.has(key)) {
			const size = /^\d+%?$/.test(plain) ? value : /^(\d+)(\.\d+)?(px)?$/.exec(plain)?.[1];
			if (size) fit[key] = size;
		} else if (key === 'class') {
			if (plain) fit[key] = plain.replace(/\s+/g, ' ');
		} else if (['href', 'src', 'data', 'cite'].includes(key))
			fit[key] = value.startsWith('media:') ? value : value.replace(/\s/g, (sign) => encodeURIComponent(sign));
		else if (forms.get(key)?.test(value) ?? true) fit[key] = value;
	}
	return fit;
}

function conformNode(node: XmlNode): XmlNode[] {
	if (isText(node)) return [node];
	const { name } = node;
	const attributes = fitAttributes(name, node.attributes);
	const fit = { ...node, attributes };
	if (name === 'math' || name === 'img' || name === 'br' || name === 'hr' || name === 'object')
		return [name === 'object' ? { ...fit, children: line(fit.children) } : fit];
	if (name === 'a')
		return holdsBlock(node.children) ? flow(node.children) : [{ ...fit, children: line(withoutLinks(node.children)) }];
	if (inlineNames.has(name))
		return holdsBlock(node.children) ? flow(node.children) : [{ ...fit, children: line(node.children) }];
	if (name === 'p' && holdsBlock(node.children)) return [{ ...fit, name: 'div', children: flow(node.children) }];
	if (lineHolders.has(name)) return [{ ...fit, children: line(node.children) }];
	if (name === 'ul' || name === 'ol') {
		const items = node.children
			.filter((child) => !isBlank(child))
			.map((child) =>
				!isText(child) && child.name === 'li'
					? { ...child, children: flow(child.children) }
					: element('li', {}, flow([child]))
			);
		return items.length ? [{ ...fit, children: items }] : [];
	}
	if (name === 'dl')
		return [
			{
				...fit,
				children: node.children
					.filter((child) => !isBlank(child))
					.map((child) =>
						!isText(child) && child.name === 'dt'
							? { ...child, children: line(child.children) }
							: element('dd', {}, flow(isText(child) ? [child] : child.name === 'dd' ? child.children : [child]))
					)
			}
		];
	if (name === 'blockquote') return [{ ...fit, children: asBlocks(node.children.flatMap(conformNode)) }];
	if (name === 'table') return table(fit);
	if (name === 'div') return [{ ...fit, children: flow(node.children) }];
	// a row, a cell, a list item or the like outside of what it belongs to
	return flow(node.children);
}

/**
 * Cleaned nodes in the one shape that rich text of ours has: all inline or all blocks at the top, each element only
 * where QTI 2.1 (information model, section 8.2) lets it stand, no paragraph around the whole.
 */
export function conform(nodes: XmlNode[]): XmlNode[] {
	const fit = flow(nodes);
	if (fit.length && !fit.every(isInline)) {
		const blocks = fit.filter((node) => !isBlank(node));
		const [only] = blocks;
		if (blocks.length === 1 && only && !isText(only) && only.name === 'p' && !Object.keys(only.attributes).length)
			return only.children;
		return blocks;
	}
	return fit;
}
