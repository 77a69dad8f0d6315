import { Readable, pipeline } from 'node:stream';
import { crc32, createInflateRaw, deflateRawSync, inflateRawSync } from 'node:zlib';
import type { Codec } from '$core/container/codec';

const pieceSize = 1 << 18;

/** The bytes to make room for at once, so that what is small takes no more than it needs; zlib wants 64 at least. */
const sizeFor = (size: number) => Math.min(pieceSize, Math.max(64, size + 64));

/** The machine's own zlib, which is faster than the codec of the core. */
export const codec: Codec = {
	inflate: (packed, size) => inflateRawSync(packed, { maxOutputLength: Math.max(1, size), chunkSize: sizeFor(size) }),
	// what breaks the pipeline off is thrown to whoever reads its end
	inflatePieces: (packed) =>
		pipeline(Readable.from(packed), createInflateRaw({ chunkSize: pieceSize }), () => undefined),
	deflate: (bytes) => deflateRawSync(bytes, { level: 6, chunkSize: sizeFor(bytes.length) }),
	crc32: (bytes, soFar = 0) => crc32(bytes, soFar >>> 0)
};
