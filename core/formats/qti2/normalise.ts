import type { XmlElement } from '../../xml/tree';

/** Names that were turned already: a package has the same few over and over. */
const turned = new Map<string, string>();
const mostTurned = 2000;

function camel(name: string): string {
	let found = turned.get(name);
	if (found === undefined) {
		found = name.replace(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
		if (turned.size < mostTurned) turned.set(name, found);
	}
	return found;
}

const ownAttribute = (name: string) => name.includes('-') && !name.startsWith('data-') && !name.startsWith('aria-');

/**
 * Gives an element of QTI 3.0, and all that is in it, the names of QTI 2.x: `qti-simple-choice` becomes `simpleChoice`,
 * attributes likewise. Other elements are left as they are. The element itself is changed, and given back.
 */
export function withNamesOfTwo(element: XmlElement): XmlElement {
	if (element.name.startsWith('qti-')) {
		element.name = camel(element.name.slice(4));
		const names = Object.keys(element.attributes);
		if (names.some(ownAttribute)) {
			const attributes: Record<string, string> = {};
			for (const name of names) attributes[ownAttribute(name) ? camel(name) : name] = element.attributes[name]!;
			element.attributes = attributes;
		}
	}
	let flattened = false;
	for (const child of element.children) {
		if (typeof child === 'string') continue;
		flattened ||= child.name === 'qti-content-body';
		withNamesOfTwo(child);
	}
	if (flattened)
		element.children = element.children.flatMap((child) =>
			typeof child !== 'string' && child.name === 'contentBody' ? child.children : [child]
		);
	return element;
}
