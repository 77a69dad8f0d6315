import { Readable } from 'node:stream';

/** Chunks of a file as the body of an answer: each is read when the one before it is sent. */
export function asBody(chunks: AsyncIterable<Uint8Array>): BodyInit {
	return Readable.toWeb(Readable.from(chunks, { objectMode: false, highWaterMark: 1 })) as unknown as BodyInit;
}
