import { ContainerError, type Container } from '../container/container';
import type { Question } from '../kinds';

/** Makes the SHA-256 of a file, in hex. */
export type Digest = (pieces: AsyncIterable<Uint8Array>) => Promise<string>;

/**
 * Fills in the hashes of a question's files, each file of the package read once however many questions use it.
 * A file that is damaged in the package counts as missing.
 */
export async function hashAttachments(
	question: Question,
	container: Container,
	digest: Digest,
	known: Map<string, string | null>
): Promise<void> {
	for (const attachment of question.attachments) {
		if (attachment.missing) continue;
		const { name } = attachment;
		if (!known.has(name)) {
			try {
				known.set(name, await digest(container.stream(name)));
			} catch (error) {
				if (!(error instanceof ContainerError)) throw error;
				known.set(name, null);
			}
		}
		attachment.hash = known.get(name) ?? null;
		attachment.missing = attachment.hash === null;
	}
}
