import { deflateSync, Inflate, inflateSync } from 'fflate';
import { crc32 } from './crc32';

/** The work on packed bytes that a machine may do faster than code can: a faster codec is handed in where there is one. */
export interface Codec {
	/** Unpacks raw deflate data (RFC 1951) whose size is known. Throws where it is damaged; a longer one may throw too. */
	inflate(packed: Uint8Array, size: number): Uint8Array;
	/** Unpacks raw deflate data piece by piece. Throws where it is damaged. */
	inflatePieces(packed: AsyncIterable<Uint8Array>): AsyncIterable<Uint8Array>;
	/** Packs bytes as raw deflate data. The same bytes give the same data. */
	deflate(bytes: Uint8Array): Uint8Array<ArrayBuffer>;
	/** The CRC-32 of bytes, signed or not; `soFar` is that of the bytes before them. */
	crc32(bytes: Uint8Array, soFar?: number): number;
}

/** How much memory finding what repeats may take: files in a package are small, and making it ready for each costs time. */
export const hashMemory = 2;

/** The codec that needs nothing of the machine. */
export const plainCodec: Codec = {
	// one byte more than is said, so that a file that is longer shows itself
	inflate: (packed, size) => inflateSync(packed, { out: new Uint8Array(size + 1) }),
	async *inflatePieces(packed) {
		const ready: Uint8Array[] = [];
		const inflate = new Inflate((piece) => ready.push(piece));
		for await (const piece of packed) {
			inflate.push(piece);
			yield* ready.splice(0);
		}
		inflate.push(new Uint8Array(), true);
		yield* ready.splice(0);
	},
	deflate: (bytes) => deflateSync(bytes, { level: 6, mem: hashMemory }),
	crc32
};
