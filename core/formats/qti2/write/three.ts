import { escapeAttribute, escapeText } from '../../../xml/serialise';
import { parseXml } from '../../../xml/stream';
import type { XmlElement, XmlNode } from '../../../xml/tree';

/** Elements of the standard whose names have no capital, beside those of HTML. */
const plainNames = new Set(
	'prompt value mapping hottext gap match and or not sum product subtract divide power round truncate lt lte gt gte equal correct variable null multiple ordered contains member index delete random min max gcd lcm inside default selection ordering weight'.split(
		' '
	)
);
const holders = new Set(['rubricBlock', 'modalFeedback', 'testFeedback']);
const kebab = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

function write(node: XmlNode, inMath: boolean): string {
	if (typeof node === 'string') return escapeText(node);
	const math = inMath || node.name === 'math';
	const ours = !math && (/[A-Z]/.test(node.name) || plainNames.has(node.name));
	const name = ours ? `qti-${kebab(node.name)}` : node.name;
	const attributes = Object.entries(node.attributes)
		.filter(([key]) => !(node.name === 'printedVariable' && key === 'xmlns'))
		.map(([key, value]) => ` ${ours && !key.includes(':') ? kebab(key) : key}="${escapeAttribute(value)}"`)
		.join('');
	const children = node.children.map((child) => write(child, math)).join('');
	const inner = holders.has(node.name) && !inMath ? `<qti-content-body>${children}</qti-content-body>` : children;
	return inner ? `<${name}${attributes}>${inner}</${name}>` : `<${name}${attributes}/>`;
}

/** A document with the names of QTI 2.x under those of 3.0: `simpleChoice` as `qti-simple-choice`, attributes likewise. */
export function namesOfThree(xml: string): string {
	const { root } = parseXml(xml);
	return `<?xml version="1.0" encoding="UTF-8"?>\n${write(root as XmlElement, false)}\n`;
}
