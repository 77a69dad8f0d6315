import type { XmlElement, XmlNode } from '../../xml/tree';

const camel = (name: string) => name.replace(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());

/** An element of QTI 3.0 under the names of QTI 2.x: `qti-simple-choice` as `simpleChoice`, attributes likewise. Other elements are as they are. */
export function withNamesOfTwo(source: XmlElement): XmlElement {
	const ours = source.name.startsWith('qti-');
	const attributes: Record<string, string> = {};
	for (const [name, value] of Object.entries(source.attributes))
		attributes[ours && !name.startsWith('data-') && !name.startsWith('aria-') ? camel(name) : name] = value;
	const children = source.children.flatMap((child): XmlNode[] => {
		if (typeof child === 'string') return [child];
		const renamed = withNamesOfTwo(child);
		return child.name === 'qti-content-body' ? renamed.children : [renamed];
	});
	return { name: ours ? camel(source.name.slice(4)) : source.name, attributes, children, line: source.line };
}
