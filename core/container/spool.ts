import { plainCodec, type Codec } from './codec';

const block = 1 << 16;

/** Text or bytes put aside until later, packed in blocks, so that the list of a large package takes little memory. */
export class Spool {
	readonly #codec: Codec;
	readonly #packed: { bytes: Uint8Array; size: number }[] = [];
	readonly #encoder = new TextEncoder();
	#waiting = new Uint8Array(block);
	#size = 0;
	/** Whether nothing has been put aside. */
	empty = true;

	/** `codec` packs the blocks; without one it is done in code. */
	constructor(codec: Codec = plainCodec) {
		this.#codec = codec;
	}

	/** Puts a text, as UTF-8, or bytes behind the others. */
	push(what: string | Uint8Array): void {
		this.empty = false;
		const bytes = typeof what === 'string' ? this.#encoder.encode(what) : what;
		for (let at = 0; at < bytes.length;) {
			const piece = bytes.subarray(at, at + block - this.#size);
			this.#waiting.set(piece, this.#size);
			this.#size += piece.length;
			at += piece.length;
			if (this.#size === block) this.#pack();
		}
	}

	#pack(): void {
		// a copy, for what a codec gives may be the beginning of something much longer
		this.#packed.push({ bytes: new Uint8Array(this.#codec.deflate(this.#waiting)), size: this.#size });
		this.#size = 0;
	}

	/** Gives everything back, once. */
	*take(): Generator<Uint8Array> {
		for (const { bytes, size } of this.#packed.splice(0)) yield this.#codec.inflate(bytes, size).subarray(0, size);
		yield this.#waiting.slice(0, this.#size);
		this.#size = 0;
	}
}
