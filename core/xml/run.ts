import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { bounds } from '../model/bounds';
import { lookup } from '../model/lookup';
import { declaredEntities, RefusedDocument } from './declared';
import { namedCharacter } from './entities';
import type { StreamOptions, XmlEvent, XmlFault } from './events';
import { nameOf } from './names';
import type { XmlElement } from './tree';

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

// comments, CDATA, instructions and document types
const besideTags = /<!--[\s\S]*?-->|<!\[CDATA\[[\s\S]*?\]\]>|<\?[\s\S]*?\?>|<!DOCTYPE[^>[]*(?:\[[^\]]*\]\s*)?>/g;

const predefined: Record<string, string> = Object.assign(Object.create(null) as Record<string, string>, {
	amp: '&',
	lt: '<',
	gt: '>',
	quot: '"',
	apos: "'"
});

/** One parser's run. Faults end it; the pass may begin another one further on. */
export class Run {
	readonly events: XmlEvent[] = [];
	fault: XmlFault | null = null;
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
