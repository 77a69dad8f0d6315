import { imageSize } from 'image-size';
import { ContainerError, type Container } from '../container/container';
import type { Attachment } from '../model/question';
import type { Question } from '../kinds';

/** Makes the SHA-256 of a file, in hex. */
export type Digest = (pieces: AsyncIterable<Uint8Array>) => Promise<string>;

/** What is known of a file of a package: its hash where it was asked for, its size in bytes, and in pixels where it is a picture. */
export interface FileFacts {
	hash: string | null;
	bytes: number;
	width?: number;
	height?: number;
}

/** The files of a package that were looked into, by their paths; null for those that cannot be read. */
export type KnownFiles = Map<string, FileFacts | null>;

/** So much of the beginning of a picture says how large it is, also behind the notes that a camera puts there. */
const headSize = 512 * 1024;

/** The size of a picture in pixels by its first bytes; empty where they do not say. */
function pixelsOf(head: Uint8Array): { width?: number; height?: number } {
	try {
		const { width, height } = imageSize(head);
		return width > 0 && height > 0 ? { width, height } : {};
	} catch {
		return {};
	}
}

/** The first bytes of a file, while its pieces go by. */
class Head {
	readonly #pieces: Uint8Array[] = [];
	#held = 0;
	bytes = 0;

	async *passing(pieces: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
		for await (const piece of pieces) {
			this.bytes += piece.length;
			if (this.#held < headSize) {
				this.#pieces.push(piece.slice(0, headSize - this.#held));
				this.#held += piece.length;
			}
			yield piece;
		}
	}
	get isFull(): boolean {
		return this.#held >= headSize;
	}
	get start(): Uint8Array {
		const whole = new Uint8Array(this.#pieces.reduce((sum, { length }) => sum + length, 0));
		let at = 0;
		for (const piece of this.#pieces) {
			whole.set(piece, at);
			at += piece.length;
		}
		return whole;
	}
}

const isPicture = ({ mediaType }: Pick<Attachment, 'mediaType'>) => mediaType.startsWith('image/');

/**
 * What is known of one file of a package: its size, its hash where a digest is given, and its size in pixels where it is a
 * picture. Throws a ContainerError where it cannot be read.
 */
export async function lookInto(
	attachment: Pick<Attachment, 'name' | 'mediaType'>,
	container: Container,
	digest: Digest | null
): Promise<FileFacts> {
	const head = new Head();
	const pieces = head.passing(container.stream(attachment.name));
	if (digest) {
		const hash = await digest(pieces);
		return { hash, bytes: head.bytes, ...(isPicture(attachment) ? pixelsOf(head.start) : {}) };
	}
	const bytes = container.size(attachment.name);
	if (!isPicture(attachment)) return { hash: null, bytes };
	for await (const _ of pieces) if (head.isFull) break;
	return { hash: null, bytes: bytes || head.bytes, ...pixelsOf(head.start) };
}

/**
 * Fills in what is known of a question's files, each file of the package read once however many questions use it: its
 * size, and its hash where a digest is given. A file that is damaged in the package counts as missing.
 */
export async function hashAttachments(
	question: Question,
	container: Container,
	digest: Digest | null,
	known: KnownFiles
): Promise<void> {
	for (const attachment of question.attachments) {
		if (attachment.missing) continue;
		const { name } = attachment;
		if (!known.has(name)) {
			try {
				known.set(name, await lookInto(attachment, container, digest));
			} catch (error) {
				if (!(error instanceof ContainerError)) throw error;
				known.set(name, null);
			}
		}
		const facts = known.get(name) ?? null;
		attachment.missing = facts === null;
		Object.assign(attachment, facts ?? { hash: null });
	}
}
