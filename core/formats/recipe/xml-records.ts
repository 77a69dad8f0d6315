import type { Document as DomDocument, Element as DomElement, Node as DomNode } from '@xmldom/xmldom';
import * as xpath from 'xpath';

/** What the library gives besides what its types say: a node-set in the order in which it was found. */
interface Parsed {
	evaluate: (options: { node: DomNode; namespaces: Record<string, string> }) => { toUnsortedArray?: () => DomNode[] };
}
const { parse } = xpath as unknown as { parse: (expression: string) => Parsed };

/** Whether something that a path leads to is an element. */
export const isElement = (node: unknown): node is DomElement => (node as DomNode | null)?.nodeType === 1;

/**
 * The elements that an XPath leads to, in the order of the document. The library's own way to that order takes the square
 * of their number. Throws where the path cannot be followed.
 */
export function elementsAt(path: string, document: DomDocument, namespaces: Record<string, string>): DomElement[] {
	const found = new Set(parse(path).evaluate({ node: document, namespaces }).toUnsortedArray?.());
	const elements: DomElement[] = [];
	let node: DomNode | null = document.documentElement;
	while (node) {
		if (isElement(node) && found.has(node)) elements.push(node);
		let next: DomNode | null = node.firstChild;
		for (let at: DomNode | null = node; !next && at; at = at.parentNode) next = at.nextSibling;
		node = next;
	}
	return elements;
}
