import type { Container } from './container';

/** A package in which some files are others, or there though they were not: by their paths, with their bytes. */
export function withFiles(container: Container, files: ReadonlyMap<string, Uint8Array>): Container {
	if (!files.size) return container;
	return {
		packaged: container.packaged,
		files: container.files,
		reports: container.reports,
		has: (path) => files.has(path) || container.has(path),
		size: (path) => files.get(path)?.length ?? container.size(path),
		find: (path) => (files.has(path) ? path : container.find(path)),
		async *stream(path) {
			const own = files.get(path);
			if (own) yield own;
			else yield* container.stream(path);
		},
		bytes: async (path, limit) => files.get(path) ?? container.bytes(path, limit)
	};
}
