import { lookup } from '../model/lookup';
import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { detached } from './detached';
import { bounds, keptOfSource } from '../model/bounds';
import { namedCharacter } from './entities';
import { repairStartTag } from './repair';
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
			/** The source of the damaged element as it came, from its start tag on, where one can be told; else null. */
			fragment: string | null;
			/** The lines that it begins and ends on. */
			from: number;
			to: number;
	  };

/** How a pass goes about its work. */
export interface StreamOptions {
	/** Names of elements that are given whole. Any other element is given as `open` and `close`. */
	collect: (name: string, depth: number) => boolean;
	/** The elements of this name are damaged each for itself: after a fault, go on behind the one that it stands in. */
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

// comments, CDATA, instructions and document types
const besideTags = /<!--[\s\S]*?-->|<!\[CDATA\[[\s\S]*?\]\]>|<\?[\s\S]*?\?>|<!DOCTYPE[^>[]*(?:\[[^\]]*\]\s*)?>/g;

/** Why a document is refused as a whole; the message is for people. */
export class RefusedDocument extends Error {
	constructor(
		readonly rule: 'external-entity' | 'entity-expansion',
		message: string
	) {
		super(message);
	}
}

/** Plain character entities of a document type. Throws a RefusedDocument for outside entities, and for entities made of entities. */
export function declaredEntities(doctype: string): Record<string, string> {
	const found = lookup<string>();
	for (const [, parameter, name, body] of doctype.matchAll(/<!ENTITY\s+(%\s+)?([^\s%]+)\s+([^>]*)>/g)) {
		const literal = /^\s*(["'])(.*)\1\s*$/s.exec(body!)?.[2];
		if (parameter || literal === undefined)
			throw new RefusedDocument('external-entity', `the document type declares the outside entity “${name}”`);
		const text = literal.replace(/&#(x?)([0-9a-f]+);/gi, (_, hex: string, digits: string) =>
			String.fromCodePoint(parseInt(digits, hex ? 16 : 10) || 32)
		);
		if (/[&%<]/.test(text) || text.length > 64)
			throw new RefusedDocument('entity-expansion', `the document type builds the entity “${name}” out of others`);
		found[name!] = text;
	}
	return found;
}

const predefined: Record<string, string> = Object.assign(Object.create(null) as Record<string, string>, {
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
	#declared = lookup<string>();
	readonly #entities = new Proxy(predefined, {
		get: (known, name: string) => known[name] ?? this.#declared[name] ?? this.#undeclared(name)
	});
	#text = '';
	#textStart = 0;
	/** Those of the start tag that is being read; the parser's own collection of them is slow to go through. */
	#attributes: Record<string, string> = {};
	#tree: XmlElement[] = [];
	#treeStart = 0;
	/** Where the last tag ended. */
	#tagEnd = 0;
	/** How much was written before; the parser's own position is true only while it reads. */
	#written = 0;
	/** Where a fault has ended it. */
	#readTo = Infinity;
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
		const around = containers.map((name) => `<${name}>`).join('');
		if (around) this.#parser.write(around);
		this.#textStart = this.#tagEnd = this.#written = around.length;
	}

	/** Makes a run that ended without a fault ready for another document with the same options. */
	renew(): void {
		this.events.length = 0;
		this.#unknown.clear();
		this.#declared = {};
		this.#within = this.#held = '';
		this.#written = this.#textStart = this.#tagEnd = 0;
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
				inside: this.#tree[0] ?? null,
				fragment: null,
				from: this.#line(),
				to: this.#line()
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
		this.#tagEnd = this.#parser.position;
		if (inside && name === this.options.resumeAt && this.#tree[0]!.name === name)
			throw new Error('another one begins in it, so that its end tag must be missing');
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
		this.#tagEnd = this.#parser.position;
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
		const before = this.#written;
		if (!this.options.withoutSource) {
			// only what has begun is kept: the element that is being collected, or what stands behind the last tag
			const begun = (this.#tree.length ? this.#treeStart : this.#tagEnd) - this.#textStart;
			this.#textStart += begun;
			this.#text = this.#text.slice(begun) + good;
		}
		if (this.#text.length > bounds.source && !this.options.withoutSource) {
			this.#readTo = before + good.length;
			this.#written += good.length;
			this.#fail(
				new Error(`it is longer than ${Math.round(bounds.source / 2 ** 20)} MB, which is the most for one question`)
			);
			return good.length;
		}
		try {
			this.#parser.write(good);
		} catch (error) {
			this.#fail(error);
			this.#readTo = Math.max(before, this.#parser.position);
			return this.#readTo - before;
		}
		this.#written += good.length;
		if (bare < 0) return piece.length;
		this.#readTo = this.#written;
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
		const line = this.#line();
		const place = { line, inside: this.#tree[0] ?? null, fragment: null, from: this.#tree[0]?.line ?? line, to: line };
		if (error instanceof RefusedDocument)
			this.fault = { type: 'fault', rule: error.rule, message: error.message, ...place };
		else {
			const words = (error as Error).message.replace(/^\d+:\d+:\s*/, '').replace(/\.$/, '');
			this.fault = {
				type: 'fault',
				rule: atEnd ? 'cut-off' : 'not-well-formed',
				message: atEnd ? 'the file ends too early' : words,
				...place
			};
		}
	}

	/** After a fault: what has been read of the element, or of the tag, in which it stands. */
	begun(): string {
		const text = this.#text.slice(0, this.#readTo - this.#textStart);
		if (this.#tree.length) return text.slice(this.#treeStart - this.#textStart);
		const behind = text.slice(Math.max(0, this.#tagEnd - this.#textStart));
		const from = behind.replace(besideTags, (beside) => ' '.repeat(beside.length)).indexOf('<');
		return from < 0 ? '' : behind.slice(from);
	}
}

const slice = 1 << 15;

/** The pieces, none of them large, so that few elements wait to be taken; and then null for their end. */
async function* withEnd(pieces: AsyncIterable<string> | Iterable<string>): AsyncGenerator<string | null> {
	for await (const piece of pieces) for (let at = 0; at < piece.length; at += slice) yield piece.slice(at, at + slice);
	yield null;
}

const linesIn = (text: string) => text.split('\n').length - 1;
type Fault = Extract<XmlEvent, { type: 'fault' }>;
/** The longest tag that may be split over two pieces while the end of a damaged element is looked for. */
const longestTag = 256;
/** After so many faults outside of elements no more of what stands between them is read. */
const mostOutside = 100;

/** A damaged element, while its end is looked for. */
class DamagedElement {
	#text = '';
	/** The beginning of what was too long to be kept, and the lines of it that were let go. */
	#head = '';
	#lines = 0;
	/** How much of the text has been looked through. */
	#seen = 1;
	readonly #end: RegExp;

	/** `containers` are the names of what stands around it. */
	constructor(
		readonly fault: Fault,
		readonly name: string,
		containers: string[]
	) {
		const around = [...new Set([name, ...containers])].map((one) => one.replace(/[.\\-]/g, '\\$&')).join('|');
		this.#end = new RegExp(`<(/)?(?:[\\w.-]+:)?(${around})(?=[\\s/>])`, 'g');
	}

	/**
	 * Takes the next piece of its text. Gives the fault with its source, and what stands behind it, as soon as its end is
	 * known; with `last` there is no more text, and where its end is still unknown then, the file is cut off in it.
	 */
	take(piece: string, last: boolean): { event: Fault; rest: string; cut: boolean } | null {
		this.#text += piece;
		this.#letGo();
		this.#end.lastIndex = this.#seen;
		const found = this.#end.exec(this.#text);
		const own = found?.[1] === '/' && found[2] === this.name;
		const closed = own ? this.#text.indexOf('>', found.index) + 1 : 0;
		if (found && (!own || closed)) return this.#ended(own ? closed : found.index, false);
		if (last) return this.#ended(this.#text.length, true);
		this.#seen = found ? found.index : Math.max(this.#seen, this.#text.length - longestTag);
		return null;
	}

	/** Of what is too long to be kept the beginning stays, and the lines of the rest are counted. */
	#letGo(): void {
		if (this.#seen < bounds.source) return;
		this.#head ||= this.#text.slice(0, keptOfSource);
		this.#lines += linesIn(this.#text.slice(0, this.#seen));
		this.#text = this.#text.slice(this.#seen);
		this.#seen = 0;
	}

	#ended(at: number, cut: boolean): { event: Fault; rest: string; cut: boolean } {
		const end = this.#text.slice(0, at);
		const fragment = this.#head || end;
		const to = this.fault.from + this.#lines + linesIn(end);
		return { event: { ...this.fault, fragment, to }, rest: this.#text.slice(at), cut };
	}
}

/** A pass over a document: a run, and what is done where it meets a fault. */
class Pass {
	#run: Run | null;
	#damaged: DamagedElement | null = null;
	/** Whether the next element is looked for, and what stands before it passed over. */
	#seeking = false;
	/** The names of what is open around the elements. */
	#containers: string[] = [];
	/** What is left of the last piece. */
	#rest = '';
	/** The lines before what is read next. */
	#lines = 0;
	#outside = 0;
	/** Whether a fault has ended it. */
	ended = false;
	readonly #begins: RegExp;

	constructor(readonly options: StreamOptions) {
		this.#run = new Run(options, [], 0);
		this.#begins = new RegExp(`<(?:[\\w.-]+:)?${options.resumeAt ?? ''}(?=[\\s/>])`);
	}

	/** Takes the next piece of the text, or null for its end. */
	*take(piece: string | null): Generator<XmlEvent> {
		const last = piece === null;
		let todo = this.#rest + (piece ?? '');
		this.#rest = '';
		const unfinished = last ? null : unfinishedReference.exec(todo);
		if (unfinished) {
			this.#rest = unfinished[0];
			todo = todo.slice(0, unfinished.index);
		}
		do {
			while (todo && !this.ended) todo = yield* this.#next(todo, last);
			if (last && !this.ended) todo = yield* this.#end();
		} while (todo);
	}

	/** Reads on in a text; gives what is left of it. */
	*#next(todo: string, last: boolean): Generator<XmlEvent, string> {
		if (this.#damaged) return yield* this.#throughDamaged(todo, last);
		if (this.#seeking) return this.#seek(todo, last);
		this.#run ??= new Run(this.options, this.#containers, this.#lines);
		const run = this.#run;
		const read = run.write(todo);
		yield* run.events.splice(0);
		return run.fault ? yield* this.#faulty(run, run.fault, todo.slice(read), todo.length, last) : '';
	}

	*#throughDamaged(todo: string, last: boolean): Generator<XmlEvent, string> {
		const found = this.#damaged!.take(todo, last);
		if (!found) return '';
		yield found.event;
		this.#lines = found.event.to - 1;
		this.#damaged = null;
		return found.rest;
	}

	#seek(todo: string, last: boolean): string {
		const at = this.#begins.exec(todo)?.index ?? -1;
		const passed = at < 0 ? todo.slice(0, last ? undefined : -longestTag) : todo.slice(0, at);
		this.#lines += linesIn(passed);
		if (at < 0) {
			this.#rest = todo.slice(passed.length) + this.#rest;
			return '';
		}
		this.#seeking = false;
		return todo.slice(at);
	}

	/** Deals with a fault; gives what is to be read next. */
	*#faulty(run: Run, fault: Fault, rest: string, before: number, last: boolean): Generator<XmlEvent, string> {
		const { resumeAt } = this.options;
		if (!resumeAt || fault.rule === 'external-entity' || fault.rule === 'entity-expansion') {
			yield fault;
			this.ended = true;
			return '';
		}
		this.#run = null;
		const begun = run.begun();
		this.#containers = run.open.filter((entry) => typeof entry === 'string');
		const from = fault.inside?.line ?? fault.line - linesIn(begun);
		this.#lines = from - 1;
		if (fault.inside?.name === resumeAt || (!fault.inside && this.#begins.exec(begun)?.index === 0)) {
			this.#damaged = new DamagedElement({ ...fault, from }, resumeAt, this.#containers);
			return begun + rest;
		}
		if (!fault.inside && begun.startsWith('<') && !/>/.test(rest) && !/>$/.test(begun) && !last) {
			// the tag goes on in the next piece
			this.#rest = begun + rest + this.#rest;
			return '';
		}
		yield fault;
		this.#outside += 1;
		const tag = fault.inside || begun.endsWith('>') ? null : repairStartTag(begun + rest);
		// a tag that needs no mending is refused for where it stands
		const mended = tag !== null && tag.xml !== (begun + rest).slice(0, tag.length);
		if (mended && this.#outside < mostOutside) return tag.xml + (begun + rest).slice(tag.length);
		this.#lines = fault.line - 1;
		const refused = tag !== null || /^<[^/!?][^>]*>$/.test(begun);
		this.#seeking = fault.inside !== null || refused || !this.#containers.length || this.#outside >= mostOutside;
		// an ampersand by itself has not been read yet; whatever it is, the same is not read twice
		return rest.startsWith('&') || rest.length === before ? rest.slice(1) : rest;
	}

	/** Ends the run; gives what is to be read again, where an element that never ended held others that follow it. */
	*#end(): Generator<XmlEvent, string> {
		const run = this.#run;
		this.#run = null;
		if (!run) return '';
		run.end();
		yield* run.events.splice(0);
		if (!run.fault) return '';
		const { resumeAt } = this.options;
		const { fault } = run;
		if (resumeAt && fault.inside?.name === resumeAt) {
			this.#containers = run.open.filter((entry) => typeof entry === 'string');
			const cause: Fault = {
				...fault,
				rule: 'not-well-formed',
				line: fault.inside.line,
				message: 'it is never closed: an end tag, a quotation mark or the end of a comment is missing'
			};
			const found = new DamagedElement(cause, resumeAt, this.#containers).take(run.begun(), true)!;
			if (!found.cut) {
				yield found.event;
				this.#lines = found.event.to - 1;
				return found.rest;
			}
		}
		yield { ...fault, fragment: fault.inside && run.begun() };
		return '';
	}
}

/**
 * Passes over an XML document that arrives in pieces, in bounded memory: one collected element at a time.
 * Nothing outside the document is ever fetched, and declared entities are taken only where they are plain characters.
 * A fault ends the pass or, with `resumeAt`, only the element that it stands in, which is given with its source; a tag
 * between those elements is put right.
 */
export async function* streamXml(
	pieces: AsyncIterable<string> | Iterable<string>,
	options: StreamOptions
): AsyncGenerator<XmlEvent> {
	const pass = new Pass(options);
	for await (const piece of withEnd(pieces)) {
		yield* pass.take(piece);
		if (pass.ended) return;
	}
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
