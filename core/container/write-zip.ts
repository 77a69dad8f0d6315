import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/** How much memory finding what repeats may take: files in a package are small, and making it ready for each costs time. */
const hashMemory = 2;
const packed = /\.(png|jpe?g|gif|webp|avif|mp3|mp4|m4a|ogg|webm|zip)$/i;

/** Writes a zip in pieces. The same files in the same order give the same bytes: all carry the first day of 1980. */
export class ZipWriter {
	readonly #ready: Uint8Array[] = [];
	readonly #zip = new Zip((error, piece) => {
		if (error) throw error;
		this.#ready.push(piece);
	});

	/** Adds a file; gives what is ready of the zip. */
	async *add(path: string, pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>): AsyncGenerator<Uint8Array> {
		const entry = packed.test(path) ? new ZipPassThrough(path) : new ZipDeflate(path, { level: 6, mem: hashMemory });
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
