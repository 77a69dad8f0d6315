import { inflateRawSync } from 'node:zlib';
import type { Unpack } from '../../../../core/container/zip';

/** Unpacks one file of a zip; throws where it is larger than the zip says. */
export const unpack: Unpack = (packed, size) => inflateRawSync(packed, { maxOutputLength: Math.max(1, size) });
