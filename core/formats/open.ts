import { singleFile, type ByteSource, type Container } from '../container/container';
import { withEmbedded } from './own/embedded';
import type { Codec } from '../container/codec';
import { looksZipped, openZip } from '../container/zip';

/** Opens a file as what it is: a zip package by its first bytes, or else one bare file. Throws a ContainerError. */
export async function openContainer(name: string, source: ByteSource, codec?: Codec): Promise<Container> {
	return looksZipped(await source.read(0, 4)) ? openZip(source, codec) : withEmbedded(singleFile(name, source));
}
