import { Readable, pipeline } from 'node:stream';
import { crc32, createInflateRaw, deflateRawSync, inflateRawSync } from 'node:zlib';
import type { Codec } from '../core/container/codec';

const pieceSize = 1 << 18;

/** The machine's own zlib, which is faster than the codec of the core. */
export const codec: Codec = {
	inflate: (packed, size) => inflateRawSync(packed, { maxOutputLength: Math.max(1, size) }),
	// what breaks the pipeline off is thrown to whoever reads its end
	inflatePieces: (packed) =>
		pipeline(Readable.from(packed), createInflateRaw({ chunkSize: pieceSize }), () => undefined),
	deflate: (bytes) => deflateRawSync(bytes, { level: 6 }),
	crc32: (bytes, soFar = 0) => crc32(bytes, soFar >>> 0)
};
