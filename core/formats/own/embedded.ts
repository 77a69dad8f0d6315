import { bytesOfBase64 } from './base64';
import { isOwnJson } from './json';
import { membersOf } from './members';
import { ownNamespace } from './xml';
import { streamXml } from '../../xml/stream';
import { textOf } from '../../xml/tree';
import type { Container } from '../../container/container';
import { streamText } from '../../container/decode';
import { FileList } from '../../container/file-list';

const looked = 400;

/** The files that our own JSON or XML carries within it, by their names; null for any other file. */
async function embeddedFiles(container: Container): Promise<Map<string, Uint8Array> | null> {
	const path = container.files.first.path;
	let start = '';
	for await (const piece of container.stream(path)) {
		start = new TextDecoder().decode(piece.subarray(0, looked));
		break;
	}
	const json = isOwnJson(start);
	if (!json && !start.includes(`"${ownNamespace}"`)) return null;
	const files = new Map<string, Uint8Array>();
	const take = (name: unknown, data: unknown) => {
		if (typeof name !== 'string' || typeof data !== 'string' || name === path) return;
		const bytes = bytesOfBase64(data);
		if (bytes) files.set(name, bytes);
	};
	if (json) {
		for await (const { key, text, damaged } of membersOf(
			streamText(container, path, () => undefined),
			(name) => (name === 'files' ? Infinity : 1000)
		)) {
			if (key !== 'files' || damaged) continue;
			try {
				const { name, data } = JSON.parse(text) as { name?: unknown; data?: unknown };
				take(name, data);
			} catch {
				// what is wrong with it is said by the reader
			}
		}
	} else
		for await (const event of streamXml(
			streamText(container, path, () => undefined),
			{ collect: (name, depth) => depth === 1 && name === 'file', withoutSource: true }
		))
			if (event.type === 'element') take(event.element.attributes.name, textOf(event.element));
	return files;
}

/** A bare file with the files that it carries within it beside it, where it is one of our own. */
export async function withEmbedded(container: Container): Promise<Container> {
	const files = await embeddedFiles(container);
	if (!files?.size) return container;
	return {
		...container,
		files: FileList.of([...container.files, ...[...files].map(([path, bytes]) => ({ path, size: bytes.length }))]),
		has: (path) => files.has(path) || container.has(path),
		size: (path) => files.get(path)?.length ?? container.size(path),
		find: (path) => (files.has(path) ? path : container.find(path)),
		async *stream(path) {
			const bytes = files.get(path);
			if (bytes) yield bytes;
			else yield* container.stream(path);
		},
		bytes: async (path) => files.get(path) ?? container.bytes(path)
	};
}
