type Numbers = Float64Array<ArrayBuffer> | Int32Array<ArrayBuffer> | Uint8Array<ArrayBuffer>;

const fewest = 16;
/** How much room is made at once: little more than is needed, for what is not filled is memory too. */
const step = 1.25;

/** The same numbers with room for at least so many. */
function grown<T extends Numbers>(numbers: T, least: number): T {
	if (least <= numbers.length) return numbers;
	const larger = new (numbers.constructor as new (size: number) => T)(Math.max(fewest, Math.ceil(least * step)));
	larger.set(numbers);
	return larger;
}

/** A list of numbers of one kind, each of which takes no more than its own bytes. */
export class Column {
	#numbers: Numbers;
	/** How many there are. */
	length = 0;

	/** `kind` is the array that holds them; a number that is not one of its kind becomes one. */
	constructor(kind: Float64ArrayConstructor | Int32ArrayConstructor | Uint8ArrayConstructor) {
		this.#numbers = new kind(0);
	}

	/** The number at a place; 0 where there is none yet. */
	at(place: number): number {
		return this.#numbers[place] ?? 0;
	}

	/** Sets the number at a place, which may lie behind the last one. */
	set(place: number, value: number): void {
		this.#numbers = grown(this.#numbers, place + 1);
		this.#numbers[place] = value;
		if (place >= this.length) this.length = place + 1;
	}

	/** Puts a number behind the others. */
	push(value: number): void {
		this.set(this.length, value);
	}
}

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });
/** UTF-8 takes at most so many bytes for a unit of UTF-16. */
const widest = 3;

/** A list of texts, kept as UTF-8 one behind the other: a short text takes a third of what it takes by itself. */
export class Texts {
	#bytes = new Uint8Array(0);
	readonly #ends = new Column(Int32Array);

	/** How many there are. */
	get length(): number {
		return this.#ends.length;
	}

	/** Puts a text behind the others; gives its place. */
	push(text: string): number {
		const from = this.#ends.at(this.length - 1);
		this.#bytes = grown(this.#bytes, from + text.length * widest);
		const { written } = encoder.encodeInto(text, this.#bytes.subarray(from));
		this.#ends.push(from + written);
		return this.length - 1;
	}

	/** The text at a place. */
	at(place: number): string {
		return decoder.decode(this.#bytes.subarray(this.#ends.at(place - 1), this.#ends.at(place)));
	}

	/** Whether the text at a place is the one that is given. */
	is(place: number, text: string): boolean {
		const from = this.#ends.at(place - 1);
		const length = this.#ends.at(place) - from;
		if (length < text.length) return false;
		for (let at = 0; at < text.length; at += 1) {
			const unit = text.charCodeAt(at);
			// beyond ASCII the units are no bytes
			if (unit > 127) return this.at(place) === text;
			if (this.#bytes[from + at] !== unit) return false;
		}
		return length === text.length;
	}
}

/** FNV-1a (Fowler, Noll and Vo), 32 bits, over the units of UTF-16, so that looking for a text makes no bytes of it. */
function hashOf(text: string): number {
	let hash = 0x811c9dc5;
	for (let at = 0; at < text.length; at += 1) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
	return hash >>> 0;
}

/** How full the slots may be before they become twice as many. */
const fullest = 0.7;

/** A set of texts, each with a number from 0 in the order in which they came, for many times as many as a Map can hold. */
export class Names {
	readonly #texts = new Texts();
	/** Numbers from 1 by their hash, with open addressing; 0 is an empty slot. */
	#slots = new Int32Array(32);

	/** How many there are. */
	get length(): number {
		return this.#texts.length;
	}

	/** The number of a text, which is put in where it is new. */
	add(text: string): number {
		const slot = this.#slotOf(text);
		const known = this.#slots[slot]!;
		if (known) return known - 1;
		const number = this.#texts.push(text);
		this.#slots[slot] = number + 1;
		if (this.length > this.#slots.length * fullest) this.#spread();
		return number;
	}

	/** The number of a text, or -1 where it is not there. */
	find(text: string): number {
		return this.#slots[this.#slotOf(text)]! - 1;
	}

	/** The text of a number. */
	at(number: number): string {
		return this.#texts.at(number);
	}

	/** The slot of a text, or the empty one where it would stand. */
	#slotOf(text: string): number {
		const mask = this.#slots.length - 1;
		for (let slot = hashOf(text) & mask; ; slot = (slot + 1) & mask) {
			const number = this.#slots[slot]! - 1;
			if (number < 0 || this.#texts.is(number, text)) return slot;
		}
	}

	#spread(): void {
		this.#slots = new Int32Array(this.#slots.length * 2);
		const mask = this.#slots.length - 1;
		for (let number = 0; number < this.length; number += 1) {
			let slot = hashOf(this.at(number)) & mask;
			while (this.#slots[slot]) slot = (slot + 1) & mask;
			this.#slots[slot] = number + 1;
		}
	}
}
