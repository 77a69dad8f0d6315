import { escapeAttribute, escapeText } from '../../../xml/serialise';
import { parseXml } from '../../../xml/parse';
import type { XmlElement, XmlNode } from '../../../xml/tree';

/** Elements of the standard whose names have no capital, beside those of HTML. */
const plainNames = new Set(
	'prompt value mapping hottext gap match and or not sum product subtract divide power round truncate lt lte gt gte equal correct variable null multiple ordered contains member index delete random min max gcd lcm inside default selection ordering weight'.split(
		' '
	)
);
const holders = new Set(['rubricBlock', 'modalFeedback', 'testFeedback']);
const kebab = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
const isOurs = (name: string) => /[A-Z]/.test(name) || plainNames.has(name);

/** Names that were changed before, since a package has few of them and says each very often. */
const known = new Map<string, string>();
function nameOfThree(name: string): string {
	let found = known.get(name);
	if (found === undefined) {
		found = isOurs(name) ? `qti-${kebab(name)}` : name;
		known.set(name, found);
	}
	return found;
}

const tag = /<(\/?)([A-Za-z][\w.:-]*)((?:\s+[\w.:-]+="[^"<]*")*)\s*(\/?)>/g;
const attribute = /(\s+)([\w.:-]+)(="[^"]*")/g;
const capital = /[A-Z]/;

/** The text of our own writers with its tags renamed where they stand; null where it has others than plain tags. */
function renamed(xml: string): string | null {
	let maths = 0;
	let tags = 0;
	const out = xml.replace(tag, (whole: string, slash: string, name: string, attributes: string, empty: string) => {
		tags += 1;
		const math = name === 'math';
		if (math && slash) maths -= 1;
		const inside = maths > 0 || math;
		if (math && !slash && !empty) maths += 1;
		const holder = !inside && holders.has(name);
		const three = inside ? name : nameOfThree(name);
		if (slash) return three === name ? whole : `${holder ? '</qti-content-body>' : ''}</${three}>`;
		if (three === name) return whole;
		const said =
			capital.test(attributes) || name === 'printedVariable'
				? attributes.replace(attribute, (one: string, blank: string, key: string, value: string) => {
						if (name === 'printedVariable' && key === 'xmlns') return '';
						return key.includes(':') ? one : `${blank}${kebab(key)}${value}`;
					})
				: attributes;
		if (!holder) return `<${three}${said}${empty}>`;
		return `<${three}${said}><qti-content-body>${empty ? `</qti-content-body></${three}>` : ''}`;
	});
	const signs = xml.split('<').length - 1;
	return signs === tags ? out : null;
}

function write(node: XmlNode, inMath: boolean): string {
	if (typeof node === 'string') return escapeText(node);
	const math = inMath || node.name === 'math';
	const ours = !math && isOurs(node.name);
	const name = ours ? nameOfThree(node.name) : node.name;
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
	const body = xml.replace(/^\s*<\?xml[^>]*\?>\s*/, '').trimEnd();
	const text = renamed(body) ?? write(parseXml(xml).root as XmlElement, false);
	return `<?xml version="1.0" encoding="UTF-8"?>\n${text}\n`;
}
