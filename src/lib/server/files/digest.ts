import { createHash } from 'node:crypto';
import type { Digest } from '$core/formats/hash';

/** The machine's own SHA-256, in hex. */
export const digest: Digest = async (pieces) => {
	const hash = createHash('sha256');
	for await (const piece of pieces) hash.update(piece);
	return hash.digest('hex');
};
