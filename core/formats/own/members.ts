/** An entry of a list in a JSON object, or a value that is no list, under its key. */
export interface Member {
	key: string;
	/** The entry as it stands, to be parsed, or its beginning; cut off where the file ends, or as far as the next entry, where it is damaged. */
	text: string;
	/** How long it is in the file, in letters, of which the text has no more than was asked for. */
	length: number;
	/** The line at which it begins, from 1. */
	line: number;
	/** It is an entry of a list. */
	entry: boolean;
	/** It does not end as it should. */
	damaged: boolean;
}

/** How much of a text that is done with is kept before it is let go. */
const mostDone = 1 << 18;
const longestKey = 1000;
/** No value stands further in than this. */
const longestIndent = 256;
const sign = /["{}[\]]/g;
const plainEnd = /[\s,\]}]/g;

/** A text of which no more than so many letters are kept, while all are counted. */
class Held {
	readonly #parts: string[] = [];
	readonly #most: number;
	length = 0;

	constructor(most: number) {
		this.#most = most;
	}

	add(text: string): void {
		if (this.length < this.#most) this.#parts.push(text.slice(0, this.#most - this.length));
		this.length += text.length;
	}

	get whole(): boolean {
		return this.length <= this.#most;
	}

	get text(): string {
		return this.#parts.join('');
	}
}

const inString = /["\\\n]/g;
/** No value is read that stands in more lists and objects than that. */
const deepest = 10_000;

/** How far into a value one has come: what is open around the place, and whether it is in a string. */
class Scan {
	readonly #open: string[] = [];
	#string = false;
	#escaped = false;

	/** Goes on through a text from a place; gives the place behind the value, -1 where it goes on behind the text, -2 where it is damaged. */
	through(text: string, from: number): number {
		for (let at = from; ;) {
			if (this.#escaped) {
				if (at >= text.length) return -1;
				if (text[at] === '\n') return -2;
				this.#escaped = false;
				at += 1;
			}
			const wanted = this.#string ? inString : sign;
			wanted.lastIndex = at;
			const found = wanted.exec(text);
			if (!found) return -1;
			at = found.index + 1;
			const [character] = found;
			if (this.#string) {
				// a string holds no line end (RFC 8259, 7): one that seems to has lost its quote
				if (character === '\n') return -2;
				if (character === '\\') this.#escaped = true;
				else this.#string = false;
			} else if (character === '"') this.#string = true;
			else if (character === '{' || character === '[') {
				if (this.#open.push(character === '{' ? '}' : ']') > deepest) return -2;
			} else if (this.#open.pop() !== character) return -2;
			if (!this.#string && !this.#open.length) return at;
		}
	}
}

/** The same for a value that is neither text nor list nor object. */
class PlainScan {
	#begun = false;

	through(text: string, from: number): number {
		plainEnd.lastIndex = from;
		const found = plainEnd.exec(text);
		if (found) return found.index === from && !this.#begun ? -2 : found.index;
		this.#begun ||= text.length > from;
		return -1;
	}
}

type Value = Pick<Member, 'text' | 'length' | 'damaged'>;

/** A text that comes in pieces, of which no more is held than the value at hand, and of that no more than is asked for. */
class Source {
	text = '';
	at = 0;
	line = 1;
	readonly #pieces: AsyncIterator<string>;

	constructor(pieces: AsyncIterable<string>) {
		this.#pieces = pieces[Symbol.asyncIterator]();
	}

	/** Takes the next piece in; false where there is none. */
	async more(): Promise<boolean> {
		for (;;) {
			const next = await this.#pieces.next();
			if (next.done) return false;
			if (!next.value) continue;
			this.text += next.value;
			return true;
		}
	}

	/** Passes on to a place; the beginning of its line is kept, since it tells where the next entry begins. */
	advance(to: number): void {
		const passed = this.text.slice(this.at, to);
		for (let found = passed.indexOf('\n'); found >= 0; found = passed.indexOf('\n', found + 1)) this.line += 1;
		this.at = to;
		if (to < mostDone) return;
		const cut = Math.max(this.text.lastIndexOf('\n', to - 1), to - longestIndent);
		this.text = this.text.slice(cut);
		this.at = to - cut;
	}

	/** The next sign that is no white space; null at the end. */
	async peek(): Promise<string | null> {
		for (;;) {
			const rest = /\S/g;
			rest.lastIndex = this.at;
			const found = rest.exec(this.text);
			if (found) {
				this.advance(found.index);
				return found[0] === '\ufeff' ? this.#skipMark() : found[0];
			}
			this.advance(this.text.length);
			if (!(await this.more())) return null;
		}
	}

	#skipMark(): Promise<string | null> {
		this.advance(this.at + 1);
		return this.peek();
	}

	/**
	 * Passes over the value that begins here, and gives its first `most` letters. One that does not end as it should goes on
	 * to the next line that begins as its own does.
	 */
	async value(most: number): Promise<Value> {
		const { line } = this;
		const indent = /[^\S\n]*$/.exec(this.text.slice(Math.max(0, this.at - longestIndent), this.at))![0];
		const next = `\n${indent}{`;
		const held = new Held(most);
		const scan = '"{['.includes(this.text[this.at]!) ? new Scan() : new PlainScan();
		for (;;) {
			const end = scan.through(this.text, this.at);
			if (end >= 0) {
				held.add(this.text.slice(this.at, end));
				this.advance(end);
				return { text: held.text, length: held.length, damaged: false };
			}
			if (end === -2) break;
			const rest = this.text.slice(this.at);
			// what is longer than is wanted is looked through for the next one, which shows that it has lost its end
			if (!held.whole) {
				if (this.text.includes(next, this.at - Math.min(this.at, next.length, held.length))) break;
			} else if (held.length + rest.length > most && (held.text + rest).includes(next)) break;
			held.add(rest);
			this.advance(this.text.length);
			if (!(await this.more())) break;
		}
		if (!held.whole) return this.#skipDamage(next, held);
		this.text = held.text + this.text.slice(this.at);
		this.at = 0;
		this.line = line;
		return this.#skipDamage(next, new Held(most));
	}

	/** Passes over what is damaged, to the next line that begins so, and adds it to what was passed over before. */
	async #skipDamage(next: string, held: Held): Promise<Value> {
		for (;;) {
			const found = this.text.indexOf(next, this.at - Math.min(this.at, next.length, held.length));
			const to = found >= 0 ? found : Math.max(this.at, this.text.length - next.length);
			held.add(this.text.slice(this.at, to));
			this.advance(found >= 0 ? found + 1 : to);
			if (found < 0 && (await this.more())) continue;
			if (found < 0) {
				held.add(this.text.slice(this.at));
				this.advance(this.text.length);
			}
			return { text: held.text, length: held.length, damaged: true };
		}
	}
}

/**
 * The values of a JSON object (RFC 8259), those of its lists one entry at a time, so that a large file is never held
 * whole, and one that is damaged or cut short loses no more than what is damaged. Values are not parsed. `most` says how
 * many letters are wanted of what stands under a key; no more of them are held.
 */
export async function* membersOf(pieces: AsyncIterable<string>, most: (key: string) => number): AsyncGenerator<Member> {
	const from = new Source(pieces);
	const take = async (key: string, entry: boolean): Promise<Member> => {
		const { line } = from;
		return { key, line, entry, ...(await from.value(most(key))) };
	};
	const cut = (key: string): Member => ({ key, text: '', length: 0, line: from.line, entry: false, damaged: true });
	if ((await from.peek()) !== '{') return;
	from.advance(from.at + 1);
	for (;;) {
		const next = await from.peek();
		if (next === '}') return;
		if (next === ',') {
			from.advance(from.at + 1);
			continue;
		}
		const name = next === '"' ? await from.value(longestKey) : null;
		if (name === null || name.damaged || (await from.peek()) !== ':') {
			yield cut('');
			return;
		}
		const key = name.text.slice(1, -1);
		from.advance(from.at + 1);
		const begins = await from.peek();
		if (begins === null) {
			yield cut(key);
			return;
		}
		if (begins !== '[') {
			yield await take(key, false);
			continue;
		}
		from.advance(from.at + 1);
		for (;;) {
			const sign = await from.peek();
			if (sign === null) {
				yield cut(key);
				return;
			}
			if (sign !== ',' && sign !== ']') {
				yield await take(key, true);
				continue;
			}
			from.advance(from.at + 1);
			if (sign === ']') break;
		}
	}
}
