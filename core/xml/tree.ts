/** An element with what stands in it; `name` and the attribute names are without their prefix, except `xml:…`. */
export interface XmlElement {
	name: string;
	attributes: Record<string, string>;
	children: XmlNode[];
	/** The line of the start tag, from 1; 0 where it was made here. */
	line: number;
}

/** An element or a piece of text. */
export type XmlNode = XmlElement | string;

/** A new element that came from no file. */
export function element(name: string, attributes: Record<string, string> = {}, children: XmlNode[] = []): XmlElement {
	return { name, attributes, children, line: 0 };
}

/** The child elements, all of them or those of one name. */
export function childrenOf(parent: XmlElement, name?: string): XmlElement[] {
	const found: XmlElement[] = [];
	for (const child of parent.children)
		if (typeof child !== 'string' && (name === undefined || child.name === name)) found.push(child);
	return found;
}

/** The first child element of a name. */
export function childOf(parent: XmlElement | undefined, name: string): XmlElement | undefined {
	for (const child of parent?.children ?? []) if (typeof child !== 'string' && child.name === name) return child;
	return undefined;
}

function gather(node: XmlElement, found: XmlElement[], wanted: (name: string) => boolean): void {
	for (const child of node.children) {
		if (typeof child === 'string') continue;
		if (wanted(child.name)) found.push(child);
		if (child.children.length) gather(child, found, wanted);
	}
}

/** Every element below, in the order of the document, that has one of the names. */
export function descendants(parent: XmlElement, ...names: string[]): XmlElement[] {
	const found: XmlElement[] = [];
	const [only] = names;
	gather(parent, found, names.length === 1 ? (name) => name === only : (name) => names.includes(name));
	return found;
}

/** The same for a set of many names. */
export function descendantsIn(parent: XmlElement, names: ReadonlySet<string>): XmlElement[] {
	const found: XmlElement[] = [];
	gather(parent, found, (name) => names.has(name));
	return found;
}

/** All the text in an element, as it stands. */
export function textOf(node: XmlNode | undefined): string {
	if (node === undefined) return '';
	if (typeof node === 'string') return node;
	let text = '';
	for (const child of node.children) text += textOf(child);
	return text;
}

/** All the text in an element without the white space around it. */
export function trimmed(node: XmlNode | undefined): string {
	return textOf(node).trim();
}
