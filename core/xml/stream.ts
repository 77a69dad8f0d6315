import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { detached } from '../container/detached';
import { namedCharacter } from './entities';
import type { XmlElement } from './tree';

/** What a pass over an XML document meets, in order. Lines count from 1. */
export type XmlEvent =
	| { type: 'open'; name: string; attributes: Record<string, string>; line: number }
	| { type: 'close'; name: string }
	| { type: 'element'; element: XmlElement; fragment: string; endLine: number }
	| {
			type: 'fault';
			rule: 'not-well-formed' | 'cut-off' | 'external-entity' | 'entity-expansion' | 'bad-entity';
			line: number;
			message: string;
			inside: XmlElement | null;
	  };

/** How a pass goes about its work. */
export interface StreamOptions {
	/** Names of elements that are given whole. Any other element is given as `open` and `close`. */
	collect: (name: string, depth: number) => boolean;
	/** After a fault, go on at the next start tag of this name. */
	resumeAt?: string;
	/** Whether collected elements are given without their source, for which the text need not be kept. */
	withoutSource?: boolean;
}

const local = (name: string) => {
	const colon = name.indexOf(':');
	return colon < 0 || name.startsWith('xml:') ? name : name.slice(colon + 1);
};

// XML 1.0, productions 66 to 68
const reference = '&(?!#\\d{1,8};|#[xX][\\da-fA-F]{1,8};|[A-Za-z_][\\w.:-]{0,64};)';
const bareReference = new RegExp(reference);
const notText = new RegExp(`<!\\[CDATA\\[[\\s\\S]*?(?:\\]\\]>|$)|<!--[\\s\\S]*?(?:-->|$)|${reference}`, 'g');
/** Deeper than any question that people make, and shallow enough to be walked through by calls. */
const deepestTree = 300;
const marks = [
	['<![CDATA[', ']]>'],
	['<!--', '-->']
] as const;
const unfinishedReference = /&[#\w.:-]{0,70}$/;

const met = new Map<string, string>();
const mostMet = 2000;

/**
 * The name without its prefix, as the engine keeps the names of the program: comparing it with one of those is comparing
 * addresses, which is done with each element many times over.
 */
function nameOf(name: string): string {
	let found = met.get(name);
	if (found === undefined) {
		found = Object.keys({ [local(name)]: 0 })[0]!;
		if (met.size < mostMet) met.set(detached(name), found);
	}
	return found;
}

class RefusedDocument extends Error {
	constructor(
		readonly rule: 'external-entity' | 'entity-expansion',
		message: string
	) {
		super(message);
	}
}

/** Plain character entities of a document type, or a refusal: of outside entities, and of entities made of entities. */
function declaredEntities(doctype: string): Record<string, string> {
	const found: Record<string, string> = {};
	for (const [, parameter, name, body] of doctype.matchAll(/<!ENTITY\s+(%\s+)?([^\s%]+)\s+([^>]*)>/g)) {
		const literal = /^\s*(["'])(.*)\1\s*$/s.exec(body!)?.[2];
		if (parameter || literal === undefined)
			throw new RefusedDocument('external-entity', `the document type declares the outside entity “${name}”`);
		const text = literal.replace(/&#(x?)([0-9a-f]+);/gi, (_, hex, digits) =>
			String.fromCodePoint(parseInt(digits, hex ? 16 : 10) || 32)
		);
		if (/[&%<]/.test(text) || text.length > 64)
			throw new RefusedDocument('entity-expansion', `the document type builds the entity “${name}” out of others`);
		found[name!] = text;
	}
	return found;
}

const predefined: Record<string, string> = Object.assign(Object.create(null), {
	amp: '&',
	lt: '<',
	gt: '>',
	quot: '"',
	apos: "'"
});

/** One parser's run. Faults end it; the pass may begin another one further on. */
class Run {
	readonly events: XmlEvent[] = [];
	fault: Extract<XmlEvent, { type: 'fault' }> | null = null;
	/** What is open: the names of those that are not collected, and the elements that are. */
	readonly open: (string | XmlElement)[] = [];
	readonly #parser = new SaxesParser({ position: true });
	readonly #unknown = new Set<string>();
	#declared: Record<string, string> = {};
	readonly #entities = new Proxy(predefined, {
		get: (known, name: string) => known[name] ?? this.#declared[name] ?? this.#undeclared(name)
	});
	#text = '';
	#textStart = 0;
	/** Those of the start tag that is being read; the parser's own collection of them is slow to go through. */
	#attributes: Record<string, string> = {};
	#tree: XmlElement[] = [];
	#treeStart = 0;
	#mute: number;
	/** What ends the CDATA or the comment in which the last piece broke off. */
	#within = '';
	#held = '';

	constructor(
		readonly options: StreamOptions,
		containers: string[],
		readonly lineBase: number
	) {
		this.#mute = containers.length;
		this.#parser.ENTITIES = this.#entities;
		this.#parser.on('doctype', (doctype) => (this.#declared = declaredEntities(doctype)));
		this.#parser.on('attribute', ({ name, value }) => (this.#attributes[nameOf(name)] = value));
		this.#parser.on('opentag', (tag) => this.#opened(tag as SaxesTagPlain));
		this.#parser.on('closetag', () => this.#closed());
		this.#parser.on('text', (text) => this.#tree.at(-1)?.children.push(text));
		this.#parser.on('cdata', (text) => this.#tree.at(-1)?.children.push(text));
		this.#parser.on('error', (error) => {
			throw error;
		});
		if (containers.length) this.#parser.write(containers.map((name) => `<${name}>`).join(''));
		this.#textStart = this.#parser.position;
	}

	/** Makes a run that ended without a fault ready for another document with the same options. */
	renew(): void {
		this.events.length = 0;
		this.#unknown.clear();
		this.#declared = {};
		this.#within = this.#held = '';
		// the parser is as new once it was closed, but for these
		this.#parser.ENTITIES = this.#entities;
	}

	/** The character that HTML gives a name which the document does not declare, told as such. */
	#undeclared(name: string): string | undefined {
		const character = namedCharacter(name);
		if (character !== undefined && !this.#unknown.has(name)) {
			this.#unknown.add(name);
			this.events.push({
				type: 'fault',
				rule: 'bad-entity',
				line: this.#line(),
				message: `&${name}; is not declared in this file; it was read as the character that HTML gives that name`,
				inside: this.#tree[0] ?? null
			});
		}
		return character;
	}

	#line(): number {
		return this.#parser.line + this.lineBase;
	}

	#opened(tag: SaxesTagPlain): void {
		const name = nameOf(tag.name);
		const attributes = this.#attributes;
		this.#attributes = {};
		if (this.#mute > 0) {
			this.#mute -= 1;
			this.open.push(name);
			return;
		}
		const line = this.#line();
		const inside = this.#tree.at(-1);
		if (!inside && !this.options.collect(name, this.open.length)) {
			if (this.open.length >= deepestTree) throw new Error(`sections are nested more than ${deepestTree} deep`);
			this.events.push({ type: 'open', name, attributes, line });
			this.open.push(name);
			return;
		}
		if (this.#tree.length >= deepestTree) throw new Error(`elements are nested more than ${deepestTree} deep`);
		const element: XmlElement = { name, attributes, children: [], line };
		if (inside) inside.children.push(element);
		else if (!this.options.withoutSource)
			this.#treeStart = this.#text.lastIndexOf('<', this.#parser.position - this.#textStart - 1) + this.#textStart;
		this.#tree.push(element);
		this.open.push(element);
	}

	#closed(): void {
		const closed = this.open.pop();
		if (closed === undefined) return;
		if (typeof closed === 'string') {
			this.events.push({ type: 'close', name: closed });
			return;
		}
		this.#tree.pop();
		if (this.#tree.length) return;
		const end = this.#parser.position - this.#textStart;
		const fragment = this.#text.slice(this.#treeStart - this.#textStart, end);
		this.events.push({ type: 'element', element: closed, fragment, endLine: this.#line() });
	}

	/** Takes the next piece of the text, or the whole of it at once. Returns how many characters of it were read before a fault, or all. */
	write(piece: string, whole = false): number {
		const bare = this.#bareAmpersand(piece, whole);
		const good = bare < 0 ? piece : piece.slice(0, bare);
		const before = this.#parser.position;
		if (!this.options.withoutSource) {
			// only what has begun is kept: the element that is being collected, or a start tag split over two pieces
			const begun = this.#tree.length ? this.#treeStart - this.#textStart : this.#text.lastIndexOf('<');
			this.#textStart = begun < 0 ? before : this.#textStart + begun;
			this.#text = (begun < 0 ? '' : this.#text.slice(begun)) + good;
		}
		try {
			this.#parser.write(good);
		} catch (error) {
			this.#fail(error);
			return Math.max(0, this.#parser.position - before);
		}
		if (bare < 0) return piece.length;
		this.#fail(new Error('an “&” stands there by itself; it has to be written “&amp;”'));
		return bare;
	}

	/**
	 * Where an ampersand begins no reference, outside of CDATA and comments, or -1. The parser would look for the end
	 * of the reference as far as the end of the file, and lose everything on the way.
	 */
	#bareAmpersand(piece: string, whole = false): number {
		if (whole && !piece.includes('&')) return -1;
		const within = this.#within;
		// the marks themselves may be split over two pieces
		const held = this.#held.length;
		const text = this.#held + piece;
		this.#held = text.slice(-8);
		for (const [begin, end] of marks) {
			// looking from the front is many times as fast as from the end, and most pieces have no mark at all
			if (this.#within !== end && !text.includes(begin)) continue;
			const [from, to] = [text.lastIndexOf(begin), text.lastIndexOf(end)];
			if (from > to) this.#within = end;
			else if (to > from && this.#within === end) this.#within = '';
		}
		if (!bareReference.test(piece)) return -1;
		const start = within ? text.indexOf(within) : 0;
		if (start < 0) return -1;
		notText.lastIndex = start;
		for (let found = notText.exec(text); found; found = notText.exec(text))
			if (found[0] === '&' && found.index >= held) return found.index - held;
		return -1;
	}

	/** Ends the document. */
	end(): void {
		try {
			this.#parser.close();
		} catch (error) {
			this.#fail(error, true);
		}
	}

	#fail(error: unknown, atEnd = false): void {
		const inside = this.#tree[0] ?? null;
		const line = this.#line();
		if (error instanceof RefusedDocument)
			this.fault = { type: 'fault', rule: error.rule, line, message: error.message, inside };
		else {
			const words = (error as Error).message.replace(/^\d+:\d+:\s*/, '').replace(/\.$/, '');
			this.fault = {
				type: 'fault',
				rule: atEnd ? 'cut-off' : 'not-well-formed',
				line,
				message: atEnd ? 'the file ends too early' : words,
				inside
			};
		}
	}
}

const slice = 1 << 15;

/** The pieces, none of them large, so that few elements wait to be taken; and then null for their end. */
async function* withEnd(pieces: AsyncIterable<string> | Iterable<string>): AsyncGenerator<string | null> {
	for await (const piece of pieces) for (let at = 0; at < piece.length; at += slice) yield piece.slice(at, at + slice);
	yield null;
}

/**
 * Passes over an XML document that arrives in pieces, in bounded memory: one collected element at a time.
 * Nothing outside the document is ever fetched, and declared entities are taken only where they are plain characters.
 * A fault ends the pass or, with `resumeAt`, only the element that it stands in.
 */
export async function* streamXml(
	pieces: AsyncIterable<string> | Iterable<string>,
	options: StreamOptions
): AsyncGenerator<XmlEvent> {
	let run: Run | null = new Run(options, [], 0);
	let containers: string[] = [];
	let line = 0;
	let rest = '';
	for await (const piece of withEnd(pieces)) {
		let todo = rest + (piece ?? '');
		rest = '';
		const unfinished = piece === null ? null : unfinishedReference.exec(todo);
		if (unfinished) {
			rest = unfinished[0];
			todo = todo.slice(0, unfinished.index);
		}
		while (todo) {
			if (!run) {
				const at = new RegExp(`<(?:[\\w.-]+:)?${options.resumeAt}[\\s>]`).exec(todo)?.index ?? -1;
				const skipped = at < 0 ? todo.slice(0, -64) : todo.slice(0, at);
				line += skipped.split('\n').length - 1;
				if (at < 0) {
					rest = todo.slice(skipped.length) + rest;
					break;
				}
				todo = todo.slice(at);
				run = new Run(options, containers, line);
			}
			const read = run.write(todo);
			yield* run.events.splice(0);
			if (!run.fault) break;
			yield run.fault;
			if (!options.resumeAt || run.fault.rule === 'external-entity' || run.fault.rule === 'entity-expansion') return;
			containers = run.open.filter((entry) => typeof entry === 'string');
			line = run.fault.line - 1;
			todo = todo.slice(Math.max(1, read));
			run = null;
		}
	}
	if (!run) return;
	run.end();
	yield* run.events.splice(0);
	if (run.fault) yield run.fault;
}

/** The run that read the last small document, where it ended well. */
let spare: Run | null = null;

/**
 * Reads a whole small document. Gives its root, or what is wrong with it.
 * An HTML entity that the file does not declare is a warning, not a fault.
 */
export function parseXml(text: string): {
	root: XmlElement | null;
	warnings: Extract<XmlEvent, { type: 'fault' }>[];
	fault: Extract<XmlEvent, { type: 'fault' }> | null;
} {
	// making a parser ready costs about as much as reading a short document with it
	const run = spare ?? new Run({ collect: () => true, withoutSource: true }, [], 0);
	spare = null;
	run.write(text, true);
	if (!run.fault) run.end();
	const warnings: Extract<XmlEvent, { type: 'fault' }>[] = [];
	let root: XmlElement | null = null;
	for (const event of run.events) {
		if (event.type === 'fault') warnings.push(event);
		else if (event.type === 'element') root ??= event.element;
	}
	if (!run.fault) {
		run.renew();
		spare = run;
	}
	return { root: run.fault ? null : root, warnings, fault: run.fault };
}
