import { escapeAttribute, escapeText } from '../../../xml/serialise';
import type { Markup } from '../../../model/question';

const voids = new Set(['br', 'hr', 'img', 'col']);
const decoded = (text: string) =>
	text
		.replace(/&quot;/g, '"')
		.replace(/&lt;/g, '<')
		.replace(/&gt;/g, '>')
		.replace(/&amp;/g, '&');

/** Rich text of ours as HTML, with the addresses of its files made anew. */
export function htmlOf(markup: Markup, address: (name: string) => string): string {
	return markup
		.replace(/="media:([^"]*)"/g, (_, name: string) => `="${escapeAttribute(address(decoded(name)))}"`)
		.replace(/<([a-z][a-z0-9]*)((?:\s+[\w:.-]+="[^"]*")*)\s*\/>/gi, (whole, name: string, rest: string) =>
			voids.has(name) ? whole : `<${name}${rest}></${name}>`
		)
		.replace(/\sxml:lang="/g, ' lang="');
}

/** Rich text as `material`: HTML, escaped as the binding wants it. */
export function material(markup: Markup, address: (name: string) => string): string {
	return `<material><mattext texttype="text/html">${escapeText(htmlOf(markup, address))}</mattext></material>`;
}
