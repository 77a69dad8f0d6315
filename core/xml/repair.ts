import { lookup } from '../model/lookup';
import { namedCharacter } from './entities';
import { escapeText } from './serialise';
import { knownNames } from './vocabulary';

/** Elements that never stand in one of their own name: a second one begins where the first was forgotten to be closed. */
const single = new Set([
	'p',
	'prompt',
	'qti-prompt',
	'simpleChoice',
	'qti-simple-choice',
	'simpleAssociableChoice',
	'qti-simple-associable-choice',
	'inlineChoice',
	'qti-inline-choice',
	'hottext',
	'gapText',
	'qti-gap-text',
	'value',
	'qti-value',
	'mapEntry',
	'qti-map-entry',
	'modalFeedback',
	'qti-modal-feedback',
	'response_label',
	'mattext',
	'varequal',
	'setvar',
	'respcondition',
	'itemfeedback',
	'option',
	'tr',
	'td',
	'th'
]);
/** Elements that stand in an item itself; whatever is open within it when one begins was forgotten to be closed. */
const ofItem = new Set([
	'responseDeclaration',
	'outcomeDeclaration',
	'templateDeclaration',
	'stylesheet',
	'itemBody',
	'responseProcessing',
	'modalFeedback',
	'itemmetadata',
	'presentation',
	'resprocessing',
	'itemfeedback',
	'qti-response-declaration',
	'qti-outcome-declaration',
	'qti-item-body',
	'qti-response-processing',
	'qti-modal-feedback'
]);
/** Blocks, which end a paragraph that is open (HTML, 13.2.6.4.7: a p element in button scope is closed). */
const block =
	/^(?:p|div|ul|ol|dl|table|blockquote|pre|h[1-6]|prompt|qti-prompt)$|(?<!inlineChoice|textEntry|text-entry|inline-choice|gap|end-attempt)(?:Interaction|-interaction)$/;
const emptyInHtml = new Set(['br', 'hr', 'img', 'col', 'wbr']);

const name = String.raw`[A-Za-z_][\w.-]*(?::[A-Za-z_][\w.-]*)?`;
const attribute = new RegExp(
	String.raw`\s*(?:(${name})(?:\s*=\s*(?:"([^"<]*)"|'([^'<]*)'|["']([^"'<>]*)(?=>|$)|([^\s"'<>/]+(?:/(?!>)[^\s"'<>/]*)*)))?|[^\s<>/]+?|/(?!>))`,
	'y'
);
// comments, CDATA, instructions and document types as they stand; then tags; then signs that are none
const token = new RegExp(
	String.raw`<!--[\s\S]*?-->|<!\[CDATA\[[\s\S]*?\]\]>|<\?[\s\S]*?\?>|<!DOCTYPE[^>\[]*(?:\[[^\]]*\]\s*)?>|</(${name})\s*>|<(${name})(?=[\s/>])|[<&]`,
	'g'
);
const reference = /&(?:#(\d{1,7})|#[xX]([\da-fA-F]{1,6})|([A-Za-z][\w.-]{0,63}));/y;
// XML 1.0, production 2
// eslint-disable-next-line no-control-regex
const forbidden = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;

/** A character that a reference stands for, as XML; or its ampersand escaped, where it stands for none. */
function referenceAt(text: string, at: number): { xml: string; end: number } {
	reference.lastIndex = at;
	const found = reference.exec(text);
	if (found) {
		const [whole, decimal, hex, named] = found;
		const end = at + whole.length;
		if (named) {
			if (/^(?:amp|lt|gt|quot|apos)$/.test(named)) return { xml: whole, end };
			const character = namedCharacter(named);
			if (character !== undefined) return { xml: escapeText(character), end };
		} else {
			const code = decimal ? Number(decimal) : parseInt(hex!, 16);
			const forbids = code !== 0xfffd && code <= 0x10ffff && escapeText(String.fromCodePoint(code)) === '\ufffd';
			if (code <= 0x10ffff) return { xml: forbids ? '\ufffd' : whole, end };
		}
	}
	return { xml: '&amp;', end: at + 1 };
}

function referencesIn(text: string): string {
	let out = '';
	for (let at = 0; at < text.length;) {
		const next = text.indexOf('&', at);
		if (next < 0) return out + text.slice(at);
		const { xml, end } = referenceAt(text, next);
		out += text.slice(at, next) + xml;
		at = end;
	}
	return out;
}

/**
 * A start tag whose name ends at `from`, with its attributes put right, and whether each of them has a value; null where
 * it never ends.
 */
function startTag(
	text: string,
	tag: string,
	from: number
): { xml: string; closed: boolean; end: number; plain: boolean } | null {
	let plain = true;
	const attributes = new Map<string, string>();
	let at = from;
	for (;;) {
		const gap = /\s*/y;
		gap.lastIndex = at;
		gap.exec(text);
		at = gap.lastIndex;
		if (text[at] === '>' || text.startsWith('/>', at)) break;
		if (at >= text.length || text[at] === '<') return null;
		attribute.lastIndex = at;
		const found = attribute.exec(text);
		if (!found || attribute.lastIndex === at) return null;
		at = attribute.lastIndex;
		const [, key, double, simple, unclosed, bare] = found;
		plain &&= (double ?? simple ?? unclosed ?? bare) !== undefined;
		// the first of two of one name counts, as in HTML
		if (key && !attributes.has(key)) attributes.set(key, referencesIn(double ?? simple ?? unclosed ?? bare ?? key));
	}
	const closed = text[at] === '/';
	const written = [...attributes].map(
		([key, value]) => ` ${key}="${value.replace(/</g, '&lt;').replace(/"/g, '&quot;')}"`
	);
	return { xml: `<${tag}${written.join('')}`, closed, end: at + (closed ? 2 : 1), plain };
}

/** Names that are closed somewhere in a text, or that stand in it as an element by themselves. */
function closedNames(text: string): Set<string> {
	return new Set([
		...Array.from(text.matchAll(new RegExp(`</(${name})\\s*>`, 'g')), (found) => found[1]!),
		...Array.from(text.matchAll(new RegExp(`<(${name})(?:\\s[^<>]*)?/>`, 'g')), (found) => found[1]!)
	]);
}

/** What is open while a text is put right, and what has been written of it. */
class Mending {
	readonly open: string[] = [];
	#out: string[] = [];
	/** Whether the root element has ended, after which nothing more may stand. */
	ended = false;

	get text(): string {
		return this.#out.join('');
	}

	write(xml: string): void {
		if (!this.ended && this.open.length) this.#out.push(xml);
	}

	/** Closes what is open down to `depth`. */
	closeTo(depth: number): void {
		while (this.open.length > depth) this.#out.push(`</${this.open.pop()!}>`);
		if (!this.open.length) this.ended = true;
	}

	start(tag: string, xml: string, closed: boolean): void {
		if (this.ended) return;
		this.#closeForgotten(tag);
		this.#out.push(closed ? `${xml}/>` : `${xml}>`);
		if (!closed) this.open.push(tag);
		else if (!this.open.length) this.ended = true;
	}

	end(tag: string): void {
		const depth = this.open.lastIndexOf(tag);
		// an end without a beginning says nothing
		if (depth >= 0) this.closeTo(depth);
	}

	#closeForgotten(tag: string): void {
		if (ofItem.has(tag) && this.open.length > 1) this.closeTo(1);
		if (block.test(tag)) {
			const paragraph = this.open.lastIndexOf('p');
			if (paragraph > 0 && !this.open.slice(paragraph).some((one) => /^(?:table|object|foreignObject)$/.test(one)))
				this.closeTo(paragraph);
		}
		if (!single.has(tag)) return;
		const before = this.open.lastIndexOf(tag);
		// a table within a cell begins anew
		if (before > 0 && !this.open.slice(before + 1).some((one) => /^(?:table|ul|ol)$/.test(one))) this.closeTo(before);
	}
}

/**
 * Makes a damaged text of one element well-formed and keeps every word of it: signs that begin no markup are escaped,
 * attributes are quoted, what was not closed is closed where it must end, and what was closed and not open is passed
 * over. Names of characters that HTML knows become those characters. A text without an element gives an empty text.
 */
export function repairXml(text: string): string {
	const clean = text.replace(/^\ufeff/, '').replace(forbidden, ' ');
	const closing = closedNames(clean);
	const known = (tag: string) => closing.has(tag) || knownNames.has(tag) || tag.includes(':');
	const mending = new Mending();
	token.lastIndex = 0;
	let at = 0;
	for (let found = token.exec(clean); found; found = token.exec(clean)) {
		mending.write(clean.slice(at, found.index).replace(/\]\]>/g, ']]&gt;'));
		const [whole, endName, startName] = found;
		at = token.lastIndex;
		if (endName !== undefined) {
			mending.end(endName);
		} else if (startName !== undefined) {
			const tag = known(startName) ? startTag(clean, startName, at) : null;
			// “a <b and c>” is no tag, though there is one of that name
			if (tag && (tag.plain || closing.has(startName))) {
				at = tag.end;
				mending.start(startName, tag.xml, tag.closed || emptyInHtml.has(startName));
			} else mending.write(`&lt;${startName}`);
		} else if (whole === '&') {
			const { xml, end } = referenceAt(clean, found.index);
			mending.write(xml);
			at = end;
		} else if (whole === '<') mending.write('&lt;');
		else if (whole.startsWith('<![CDATA[')) mending.write(whole);
		else if (whole.startsWith('<!--') && !/--(?!>)|--->$/.test(whole.slice(4))) mending.write(whole);
		token.lastIndex = at;
	}
	mending.write(clean.slice(at).replace(/\]\]>/g, ']]&gt;'));
	mending.closeTo(0);
	return mending.text;
}

/**
 * A start tag that stands at the beginning of a text, put right, with how much of the text it took; null where none can
 * be made out there.
 */
export function repairStartTag(text: string): { xml: string; length: number } | null {
	const found = new RegExp(`^<(${name})(?=[\\s/>])`).exec(text);
	const tag = found && startTag(text.replace(forbidden, ' '), found[1]!, found[0].length);
	return tag ? { xml: `${tag.xml}${tag.closed ? '/>' : '>'}`, length: tag.end } : null;
}

const own = lookup<string>({ amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" });

/** An attribute of the first element of a damaged text, as far as it can be made out. */
export function attributeIn(text: string, key: string): string {
	const found = new RegExp(`^[^<]*<[^<>]*?\\s${key}\\s*=\\s*(?:"([^"<>]*)"?|'([^'<>]*)'?|([^\\s"'<>/]+))`).exec(text);
	const value = found?.[1] ?? found?.[2] ?? found?.[3] ?? '';
	return value.replace(/&(amp|lt|gt|quot|apos);/g, (_, named: string) => own[named]!).trim();
}
