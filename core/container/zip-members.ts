import { ContainerError, type ByteSource } from './container';
import type { Codec } from './codec';
import type { Directory, Member } from './zip-directory';
import type { Report } from '../reports/report';

const localHeader = 30;
const step = 1 << 18;

/** The files of a zip, unpacked as they are asked for; what is odd about one of them is told once. */
export class ZipMembers {
	readonly #source: ByteSource;
	readonly #directory: Directory;
	readonly #codec: Codec;
	readonly #reports: Report[];
	readonly #doubted = new Set<string>();

	constructor(source: ByteSource, directory: Directory, codec: Codec, reports: Report[]) {
		this.#source = source;
		this.#directory = directory;
		this.#codec = codec;
		this.#reports = reports;
	}

	/** A file in pieces. Throws a ContainerError where it is not there, or damaged. */
	async *stream(path: string): AsyncGenerator<Uint8Array> {
		const found = this.#member(path);
		const begin = await this.#start(found);
		const packed = this.#packed(found, begin);
		let given = 0;
		let checksum = 0;
		const pieces = (found.method === 8 ? this.#codec.inflatePieces(packed.pieces) : packed.pieces)[
			Symbol.asyncIterator
		]();
		try {
			for (;;) {
				let next: IteratorResult<Uint8Array>;
				try {
					next = await pieces.next();
				} catch {
					// what the source itself could not give is no damage of the zip
					throw packed.failure() ?? damaged(path); // eslint-disable-line @typescript-eslint/only-throw-error
				}
				if (next.done) break;
				given += next.value.length;
				checksum = this.#codec.crc32(next.value, checksum);
				if (given > found.size) throw damaged(path);
				yield next.value;
			}
		} finally {
			await pieces.return?.();
		}
		if (given !== found.size) throw damaged(path);
		if (found.checksum && (checksum | 0) !== found.checksum) this.#doubt(path);
	}

	/** A file as a whole, of so many bytes at the most. Throws a ContainerError where it is not there, damaged, or too large. */
	async bytes(path: string, limit: number): Promise<Uint8Array> {
		const found = this.#member(path);
		if (found.size > limit)
			throw new ContainerError('too-large', `“${path}” is larger than ${Math.round(limit / 2 ** 20)} MB.`);
		// the name is nearly always as long in the local header, and the extra field short: one read for both
		const guess = await this.#source.read(found.offset, localHeader + 512 + found.packed);
		const begin = (await this.#start(found)) - found.offset;
		const packed =
			guess.length >= begin + found.packed
				? guess.subarray(begin, begin + found.packed)
				: await this.#source.read(found.offset + begin, found.packed);
		if (packed.length < found.packed) throw damaged(path);
		let out = packed;
		if (found.method === 8) {
			try {
				out = this.#codec.inflate(packed, found.size);
			} catch {
				throw damaged(path);
			}
			if (out.length !== found.size) throw damaged(path);
		}
		if (found.checksum && (this.#codec.crc32(out) | 0) !== found.checksum) this.#doubt(path);
		return out;
	}

	#member(path: string): Member {
		const found = this.#directory.get(path);
		if (!found) throw new ContainerError('missing-file', `“${path}” is not in the package.`);
		if (found.method !== 0 && found.method !== 8)
			throw new ContainerError(
				'unknown-compression',
				`“${path}” is packed in a way that few programs can read. Pack it again as an ordinary zip.`
			);
		return found;
	}

	/** Where the bytes of a file begin, behind its local header (APPNOTE.TXT, 4.3.7). */
	async #start(found: Member): Promise<number> {
		const header = await this.#source.read(found.offset, localHeader);
		if (header.length < localHeader || header[0] !== 0x50 || header[1] !== 0x4b || header[2] !== 3)
			throw damaged(found.path);
		return found.offset + localHeader + (header[26]! | (header[27]! << 8)) + (header[28]! | (header[29]! << 8));
	}

	/** The packed bytes of a file in pieces, and why the source could not give them, where it could not. */
	#packed(found: Member, begin: number): { pieces: AsyncGenerator<Uint8Array>; failure: () => unknown } {
		const source = this.#source;
		let failure: unknown = null;
		const pieces = (async function* () {
			try {
				for (let at = 0; at < found.packed; at += step)
					yield await source.read(begin + at, Math.min(step, found.packed - at));
			} catch (error) {
				failure = error;
				throw error;
			}
		})();
		return { pieces, failure: () => failure };
	}

	/** Says once that a file is not what was packed; what can be read of it is read all the same. */
	#doubt(path: string): void {
		if (this.#doubted.has(path)) return;
		this.#doubted.add(path);
		this.#reports.push({
			rule: 'damaged-entry',
			severity: 'broken',
			message: `“${path}” is damaged inside the zip file: its checksum is not the one that was written with it. What could be read of it was read, and part of it may be missing or wrong. Fetch or export the package again.`,
			place: { file: path }
		});
	}
}

const damaged = (path: string) =>
	new ContainerError('damaged-entry', `“${path}” is damaged inside the zip file and cannot be unpacked.`);
