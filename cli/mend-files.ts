import { checkOf } from '../core/checks';
import type { FileWish, MendTools } from '../core/checks/check';
import { ContainerError, memorySource, singleFile, type Container } from '../core/container/container';
import { lookInto } from '../core/formats/hash';
import { fileNamedLike } from '../core/formats/named-file';
import type { Question } from '../core/kinds';
import type { Attachment } from '../core/model/question';
import { smallerPicture } from '../src/lib/server/files/smaller';
import { openFile } from './open';

/** What mends ask for beside the questions of a file: the attachments that they are given, and the bytes of these by path. */
export interface MendedFiles {
	fileFor: NonNullable<MendTools['fileFor']>;
	files: Map<string, Uint8Array>;
}

/** More bytes than that are not unpacked as one file. */
const mostHeld = 64 * 2 ** 20;

const keyOf = ({ wants, attachment }: FileWish) => `${wants} ${attachment.name}`;

async function bytesFor({ wants, attachment }: FileWish, container: Container): Promise<Uint8Array | null> {
	const path = wants === 'named' ? fileNamedLike(container, attachment.name) : attachment.name;
	if (path === null) return null;
	try {
		const bytes = await container.bytes(path, mostHeld);
		return wants === 'named' ? bytes : ((await smallerPicture(bytes, attachment))?.bytes ?? null);
	} catch (error) {
		if (!(error instanceof ContainerError)) throw error;
		return null;
	}
}

/** Has the files ready that the mends of some checks ask for in the questions of a file. */
export async function mendFiles(
	file: string,
	questions: readonly Question[],
	ids: ReadonlySet<string>
): Promise<MendedFiles> {
	const asking = [...ids].flatMap((id) => {
		const check = checkOf(id);
		return check?.scope === 'one' ? (check.mend?.wishes ?? []) : [];
	});
	const given = new Map<string, Attachment | null>();
	const files = new Map<string, Uint8Array>();
	if (!asking.length) return { fileFor: () => null, files };
	const { container, close } = await openFile(file);
	try {
		for (const wish of questions.flatMap((question) => asking.flatMap((wishes) => wishes(question)))) {
			const { name, mediaType } = wish.attachment;
			const key = keyOf(wish);
			if (given.has(key)) continue;
			const bytes = await bytesFor(wish, container);
			given.set(key, null);
			if (!bytes) continue;
			files.set(name, bytes);
			const facts = await lookInto({ name: 'file', mediaType }, singleFile('file', memorySource(bytes)), null);
			given.set(key, { ...wish.attachment, ...facts, missing: false });
		}
	} finally {
		await close();
	}
	return { fileFor: (wish) => given.get(keyOf(wish)) ?? null, files };
}
