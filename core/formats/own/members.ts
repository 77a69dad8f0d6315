/** An entry of a list in a JSON object, or a value that is no list, under its key. */
export interface Member {
	key: string;
	/** The entry as it stands, to be parsed; cut off where the file ends, or as far as the next entry, where it is damaged. */
	text: string;
	/** The line at which it begins, from 1. */
	line: number;
	/** It is an entry of a list. */
	entry: boolean;
	/** It does not end as it should. */
	damaged: boolean;
}

/** How much of a text that is done with is kept before it is let go. */
const mostDone = 1 << 18;
/** No value stands further in than this. */
const longestIndent = 256;
const sign = /["{}[\]]/g;
const plainEnd = /[\s,\]}]/g;

/** A text that comes in pieces, of which no more is held than the value at hand. */
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
			const { done, value } = await this.#pieces.next();
			if (done) return false;
			if (!value) continue;
			this.text += value;
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
			if (!(await this.more())) return null;
		}
	}

	#skipMark(): Promise<string | null> {
		this.advance(this.at + 1);
		return this.peek();
	}

	/** The end of the string that begins at a place, behind its quote; -1 where it does not end here, -2 where it is damaged. */
	#endOfString(from: number): number {
		for (let end = this.text.indexOf('"', from + 1); end >= 0; end = this.text.indexOf('"', end + 1)) {
			let before = end;
			while (this.text[before - 1] === '\\') before -= 1;
			if ((end - before) % 2) continue;
			// a string holds no line end (RFC 8259, 7): one that seems to has lost its quote
			const broken = this.text.indexOf('\n', from);
			return broken >= 0 && broken < end ? -2 : end + 1;
		}
		const broken = this.text.indexOf('\n', from);
		return broken >= 0 ? -2 : -1;
	}

	/** The text of the value that begins here, which is passed over; null where it does not end as it should. */
	async value(): Promise<string | null> {
		const first = this.text[this.at]!;
		if (first !== '"' && first !== '{' && first !== '[') return this.#plain();
		let scan = this.at;
		const open: string[] = [];
		for (;;) {
			sign.lastIndex = scan;
			const found = sign.exec(this.text);
			const end = found?.[0] === '"' ? this.#endOfString(found.index) : found ? found.index + 1 : -1;
			if (end === -2) return null;
			if (end === -1) {
				scan = found ? found.index : this.text.length;
				if (!(await this.more())) return null;
				continue;
			}
			scan = end;
			const [one] = found!;
			if (one === '{' || one === '[') open.push(one === '{' ? '}' : ']');
			else if (one !== '"' && open.pop() !== one) return null;
			if (open.length) continue;
			const text = this.text.slice(this.at, end);
			this.advance(end);
			return text;
		}
	}

	async #plain(): Promise<string | null> {
		for (;;) {
			plainEnd.lastIndex = this.at;
			const found = plainEnd.exec(this.text);
			if (found) {
				if (found.index === this.at) return null;
				const text = this.text.slice(this.at, found.index);
				this.advance(found.index);
				return text;
			}
			if (!(await this.more())) return null;
		}
	}

	/** Passes over a damaged entry, to the next line that begins as its own does; gives what was passed over. */
	async skipDamage(): Promise<string> {
		const indent = /[^\S\n]*$/.exec(this.text.slice(Math.max(0, this.at - longestIndent), this.at))![0];
		const next = `\n${indent}{`;
		for (let from = this.at; ;) {
			const found = this.text.indexOf(next, from);
			if (found >= 0) {
				const passed = this.text.slice(this.at, found);
				this.advance(found + 1);
				return passed;
			}
			from = Math.max(this.at, this.text.length - next.length);
			if (await this.more()) continue;
			const passed = this.text.slice(this.at);
			this.advance(this.text.length);
			return passed;
		}
	}
}

/**
 * The values of a JSON object (RFC 8259), those of its lists one entry at a time, so that a large file is never held
 * whole, and one that is damaged or cut short loses no more than what is damaged. Values are not parsed.
 */
export async function* membersOf(pieces: AsyncIterable<string>): AsyncGenerator<Member> {
	const from = new Source(pieces);
	const take = async (key: string, entry: boolean): Promise<Member> => {
		const { line } = from;
		const text = await from.value();
		return text === null
			? { key, text: await from.skipDamage(), line, entry, damaged: true }
			: { key, text, line, entry, damaged: false };
	};
	const cut = (key: string): Member => ({ key, text: '', line: from.line, entry: false, damaged: true });
	if ((await from.peek()) !== '{') return;
	from.advance(from.at + 1);
	for (;;) {
		const next = await from.peek();
		if (next === '}') return;
		if (next === ',') {
			from.advance(from.at + 1);
			continue;
		}
		const name = next === '"' ? await from.value() : null;
		if (name === null || (await from.peek()) !== ':') {
			yield cut('');
			return;
		}
		const key = name.slice(1, -1);
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
