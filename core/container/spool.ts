import { plainCodec, type Codec } from './codec';

const piece = 1 << 16;

/** Text that is put aside until later, packed in blocks, so that the list of a large package takes little memory. */
export class Spool {
	readonly #codec: Codec;
	readonly #packed: { bytes: Uint8Array; size: number }[] = [];
	readonly #encoder = new TextEncoder();
	#waiting = '';
	/** Whether nothing has been put aside. */
	empty = true;

	/** `codec` packs the blocks; without one it is done in code. */
	constructor(codec: Codec = plainCodec) {
		this.#codec = codec;
	}

	/** Puts a text behind the others. */
	push(text: string): void {
		this.empty = false;
		this.#waiting += text;
		if (this.#waiting.length < piece) return;
		const bytes = this.#encoder.encode(this.#waiting);
		this.#packed.push({ bytes: this.#codec.deflate(bytes), size: bytes.length });
		this.#waiting = '';
	}

	/** Gives everything back, once, as UTF-8. */
	*take(): Generator<Uint8Array> {
		for (const { bytes, size } of this.#packed.splice(0)) yield this.#codec.inflate(bytes, size).subarray(0, size);
		yield this.#encoder.encode(this.#waiting);
		this.#waiting = '';
	}
}
