import { open } from 'node:fs/promises';
import type { Container } from '../core/container/container';
import { openContainer } from '../core/formats/open';
import { codec } from '../src/lib/server/files/codec';

/** Opens a package or a bare file on disk. Throws a ContainerError, or the file system's own error. */
export async function openFile(path: string): Promise<{ container: Container; close: () => Promise<void> }> {
	const handle = await open(path, 'r');
	const { size } = await handle.stat();
	const read = async (offset: number, length: number) => {
		const buffer = Buffer.alloc(Math.max(0, Math.min(length, size - offset)));
		const { bytesRead } = await handle.read(buffer, 0, buffer.length, offset);
		return buffer.subarray(0, bytesRead);
	};
	try {
		return { container: await openContainer(path, { size, read }, codec), close: () => handle.close() };
	} catch (error) {
		await handle.close();
		throw error;
	}
}
