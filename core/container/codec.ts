import { Inflate, inflateSync } from 'fflate';
import { crc32 } from './crc32';

/** The work on packed bytes that a machine may do faster than code can: a faster codec is handed in where there is one. */
export interface Codec {
	/** Unpacks raw deflate data (RFC 1951) whose size is known. Throws where it is damaged; a longer one may throw too. */
	inflate(packed: Uint8Array, size: number): Uint8Array;
	/** Unpacks raw deflate data piece by piece. Throws where it is damaged. */
	inflatePieces(packed: AsyncIterable<Uint8Array>): AsyncIterable<Uint8Array>;
	/** The CRC-32 of bytes, signed or not; `soFar` is that of the bytes before them. */
	crc32(bytes: Uint8Array, soFar?: number): number;
}

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
	crc32
};
