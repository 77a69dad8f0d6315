import { lookup } from '../model/lookup';
import type { XmlNode } from './tree';

const inText = lookup<string>({ '&': '&amp;', '<': '&lt;', '>': '&gt;' });
const inAttribute = lookup<string>({ ...inText, '"': '&quot;', '\n': '&#10;', '\t': '&#9;', '\r': '&#13;' });
// XML 1.0, production 2: what may not stand in a document even as a reference
/* eslint-disable no-control-regex */
const forbidden =
	/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

// everything but what is forbidden or has to be written otherwise: most texts are known by one look to need nothing
const plain = /^[\t\n\r\u0020-%'-;=?-\ud7ff\ue000-\ufffd]*$/;

/** Text as it may stand between tags; “\ufffd” stands for characters that XML forbids. */
export function escapeText(text: string): string {
	if (plain.test(text)) return text;
	return text.replace(forbidden, '\ufffd').replace(/[&<>]/g, (sign) => inText[sign]!);
}

/** Text as it may stand in a double-quoted attribute; characters that XML forbids are left out, as in addresses. */
export function escapeAttribute(text: string): string {
	return text.replace(forbidden, '').replace(/[&<>"\n\t\r]/g, (sign) => inAttribute[sign]!);
}

/** Nodes as XML text, in the order given, with nothing added between them. */
export function serialise(nodes: XmlNode[]): string {
	let out = '';
	for (const node of nodes) {
		if (typeof node === 'string') {
			out += escapeText(node);
			continue;
		}
		out += `<${node.name}`;
		for (const name in node.attributes) out += ` ${name}="${escapeAttribute(node.attributes[name]!)}"`;
		out += node.children.length ? `>${serialise(node.children)}</${node.name}>` : '/>';
	}
	return out;
}
