import { Deflate, Zip, ZipPassThrough } from 'fflate';
import { hashMemory, plainCodec, type Codec } from './codec';

const stored = /\.(png|jpe?g|gif|webp|avif|mp3|mp4|m4a|ogg|webm|zip)$/i;
/** Files up to this size are packed at once. */
const small = 1 << 18;
/** APPNOTE.TXT, 4.4.5 */
const deflated = 8;

/** A file of a zip that is packed: at once where it is small, and else as its pieces come. */
class PackedFile extends ZipPassThrough {
	readonly #codec: Codec;
	#held: Uint8Array<ArrayBuffer>[] = [];
	#size = 0;
	#stream: Deflate | null = null;

	constructor(path: string, codec: Codec) {
		super(path);
		this.compression = deflated;
		this.#codec = codec;
	}

	protected override process(piece: Uint8Array<ArrayBuffer>, final: boolean): void {
		if (!this.#stream) {
			this.#held.push(piece);
			this.#size += piece.length;
			if (this.#size > small) {
				this.#stream = new Deflate({ level: 6, mem: hashMemory }, (packed, last) => this.ondata(null, packed, last));
				for (const held of this.#held.splice(0)) this.#stream.push(held);
			} else if (final) this.ondata(null, this.#codec.deflate(this.#whole()), true);
		} else this.#stream.push(piece);
		if (!final) return;
		this.#stream?.push(new Uint8Array(), true);
		// the zip keeps its files for the list at its end, and their content is not wanted there
		this.#held = [];
		this.#stream = null;
	}

	#whole(): Uint8Array {
		const [first] = this.#held;
		if (this.#held.length === 1) return first!;
		const whole = new Uint8Array(this.#size);
		let at = 0;
		for (const piece of this.#held) {
			whole.set(piece, at);
			at += piece.length;
		}
		return whole;
	}
}

/** Writes a zip in pieces. The same files in the same order give the same bytes: all carry the first day of 1980. */
export class ZipWriter {
	readonly #ready: Uint8Array[] = [];
	readonly #codec: Codec;
	readonly #zip = new Zip((error, piece) => {
		if (error) throw error;
		this.#ready.push(piece);
	});

	/** `codec` packs small files; without one it is done in code. */
	constructor(codec: Codec = plainCodec) {
		this.#codec = codec;
	}

	/** Adds a file; gives what is ready of the zip. */
	async *add(path: string, pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>): AsyncGenerator<Uint8Array> {
		const entry = stored.test(path) ? new ZipPassThrough(path) : new PackedFile(path, this.#codec);
		entry.mtime = new Date(1980, 0, 1);
		this.#zip.add(entry);
		for await (const piece of pieces) {
			entry.push(piece);
			yield* this.#ready.splice(0);
		}
		entry.push(new Uint8Array(), true);
		yield* this.#ready.splice(0);
	}

	/** Ends the zip; gives the rest of it. */
	*end(): Generator<Uint8Array> {
		this.#zip.end();
		yield* this.#ready.splice(0);
	}
}
