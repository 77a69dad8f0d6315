import { plainCodec, type Codec } from './codec';
import { buffered, type ByteSource, type Container } from './container';
import { readDirectory, zipLimits } from './zip-directory';
import { ZipMembers } from './zip-members';
import type { Report } from '../reports/report';

/** Whether bytes begin as a zip file does (APPNOTE.TXT, 4.3.7 and 4.3.16). */
export function looksZipped(start: Uint8Array): boolean {
	return (
		start[0] === 0x50 && start[1] === 0x4b && ((start[2] === 3 && start[3] === 4) || (start[2] === 5 && start[3] === 6))
	);
}

/**
 * Opens a zip. Only its directory is read; each file is unpacked when it is asked for.
 * Throws a ContainerError where the directory is gone, or where the package asks for more than `zipLimits`.
 */
export async function openZip(from: ByteSource, codec: Codec = plainCodec): Promise<Container> {
	const source = buffered(from);
	const reports: Report[] = [];
	const directory = await readDirectory(source, reports);
	const members = new ZipMembers(source, directory, codec, reports);
	const { files } = directory;
	return {
		packaged: true,
		files,
		has: (path) => files.number(path) >= 0,
		size: (path) => files.size(files.number(path)),
		find: (path) => files.find(path),
		stream: (path) => members.stream(path),
		bytes: (path, limit = zipLimits.whole) => members.bytes(path, limit),
		reports
	};
}
