import * as xpath from 'xpath';
import type { Element as DomElement, Node as DomNode } from '@xmldom/xmldom';
import type { RecordAccess, Value } from './record';
import { isElement } from './xml-records';

function xmlValue(node: unknown): Value {
	if (!isElement(node)) {
		const text = typeof node === 'object' && node !== null ? ((node as DomNode).nodeValue ?? '') : String(node);
		return { text, html: null, plain: text };
	}
	const inner = Array.from(node.childNodes);
	const rich = inner.some((child) => child.nodeType === 1);
	const text = node.textContent ?? '';
	// an empty element says something by being there
	return {
		text: text.trim(),
		html: rich ? inner.map((child) => child.toString()).join('') : null,
		plain: inner.length ? text : true
	};
}

/** What stands under a name in an element, or in its attribute of that name; looked for once, since all records of a list ask the same. */
export class Labels {
	readonly #known = new WeakMap<DomElement, Map<string, string>>();

	of(around: DomElement, label: string): string {
		let known = this.#known.get(around);
		if (!known) this.#known.set(around, (known = new Map<string, string>()));
		let value = known.get(label);
		if (value === undefined) {
			let own = around.firstChild;
			while (own && !(isElement(own) && own.nodeName === label)) own = own.nextSibling;
			value = own?.textContent?.trim() || around.getAttribute(label.replace(/^@/, '')) || '';
			known.set(label, value);
		}
		return value;
	}
}

/** A record of an XML document. */
export function xmlRecord(node: DomNode, select: xpath.XPathSelect, labels: Labels): RecordAccess {
	const find = (path: string): unknown[] => {
		const found = select(path, node as unknown as Node);
		return Array.isArray(found) ? found : [found];
	};
	return {
		values: (path) => find(path).map(xmlValue),
		parts: (path) =>
			find(path)
				.filter(isElement)
				.map((one) => xmlRecord(one, select, labels)),
		fields: () => {
			const texts = new Map<string, string>();
			if (!isElement(node)) return [];
			for (const attribute of Array.from(node.attributes))
				if (!/^xml(ns)?(:|$)/.test(attribute.name)) texts.set(`@${attribute.name}`, attribute.value);
			for (const child of Array.from(node.childNodes))
				if (isElement(child))
					texts.set(child.nodeName, `${texts.get(child.nodeName) ?? ''} ${child.textContent ?? ''}`.trim());
			return [...texts].filter(([, text]) => text.trim());
		},
		ancestors: (label) => {
			const found: string[] = [];
			for (let around = node.parentNode; around && around.nodeType === 1; around = around.parentNode) {
				const value = labels.of(around as DomElement, label);
				if (value) found.unshift(value);
			}
			return found;
		}
	};
}
