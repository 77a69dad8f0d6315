import { Deflate, Inflate } from 'fflate';

const piece = 1 << 16;

/** Text that is put aside until the end of a long piece of work: it is held packed, and given back in pieces. */
export class Spool {
	readonly #packed: Uint8Array[] = [];
	readonly #deflate = new Deflate({ level: 6 }, (bytes) => this.#packed.push(bytes));
	readonly #encoder = new TextEncoder();
	#waiting = '';
	/** Whether nothing has been put aside. */
	empty = true;

	/** Puts a text behind the others. */
	push(text: string): void {
		this.empty = false;
		this.#waiting += text;
		if (this.#waiting.length < piece) return;
		this.#deflate.push(this.#encoder.encode(this.#waiting));
		this.#waiting = '';
	}

	/** Gives everything back, once, as UTF-8. */
	*take(): Generator<Uint8Array> {
		this.#deflate.push(this.#encoder.encode(this.#waiting), true);
		const ready: Uint8Array[] = [];
		const inflate = new Inflate((bytes) => ready.push(bytes));
		for (const bytes of this.#packed.splice(0)) {
			inflate.push(bytes);
			yield* ready.splice(0);
		}
	}
}
