import { singleFile, type ByteSource, type Container } from './container';
import { withEmbedded } from './embedded';
import { looksZipped, openZip, type Unpack } from './zip';

/** Opens a file as what it is: a zip package by its first bytes, or else one bare file. Throws a ContainerError. */
export async function openContainer(name: string, source: ByteSource, unpack?: Unpack): Promise<Container> {
	return looksZipped(await source.read(0, 4)) ? openZip(source, unpack) : withEmbedded(singleFile(name, source));
}
