import type { Pool } from 'mysql2/promise';
import type { FileWish, MendTools, OneCheck } from '$core/checks/check';
import { ContainerError, type Container } from '$core/container/container';
import { lookInto } from '$core/formats/hash';
import { mendTools } from '$core/formats/mend-tools';
import { fileNamedLike } from '$core/formats/named-file';
import { openContainer } from '$core/formats/open';
import type { Question } from '$core/kinds';
import type { Attachment } from '$core/model/question';
import { row } from '../db/pool';
import { codec } from './codec';
import { fileByHash, fileChunks, fileSource, storeFile } from './files';
import { smallerPicture, smallerSize } from './smaller';

/** A question that a mend asks files for, with the load that it came by. */
export interface Wishing {
	id: number;
	question: Question;
	loadId: number | null;
}

/** More bytes than that are not unpacked as a picture. */
const mostHeld = 64 * 2 ** 20;

/**
 * The files that a mend asks for. `plans` says only what it would come to, and stores nothing; else files are stored, and
 * whoever mends has to keep them with what they are for.
 */
export class GrantedFiles {
	readonly #packages = new Map<number, Promise<Container | null>>();
	readonly #granted = new Map<number, Map<FileWish['attachment']['name'], Attachment>>();
	readonly #made = new Map<string, Promise<Attachment | null>>();

	constructor(
		private readonly pool: Pool,
		private readonly mend: NonNullable<OneCheck['mend']>,
		private readonly plans: boolean
	) {}

	/** Has the files ready that some questions ask for. */
	async prepare(asking: readonly Wishing[]): Promise<void> {
		for (const { id, question, loadId } of asking)
			for (const wish of this.mend.wishes?.(question) ?? []) {
				const file = wish.wants === 'named' ? await this.#named(wish, loadId) : await this.#smaller(wish);
				if (!file) continue;
				const own = this.#granted.get(id) ?? new Map<string, Attachment>();
				this.#granted.set(id, own.set(wish.attachment.name, { ...file, name: wish.attachment.name }));
			}
	}

	/** What a mend of a question is given. */
	toolsFor(id: number): MendTools {
		return { ...mendTools, fileFor: ({ attachment }) => this.#granted.get(id)?.get(attachment.name) ?? null };
	}

	#once(key: string, make: () => Promise<Attachment | null>): Promise<Attachment | null> {
		const known = this.#made.get(key) ?? make();
		this.#made.set(key, known);
		return known;
	}

	#smaller({ attachment }: FileWish): Promise<Attachment | null> {
		const { hash } = attachment;
		if (!hash) return Promise.resolve(null);
		return this.#once(hash, async () => {
			const size = smallerSize(attachment);
			if (!size) return null;
			if (this.plans) {
				const { bytes: _, ...rest } = attachment;
				return { ...rest, ...size };
			}
			const stored = await fileByHash(this.pool, hash);
			if (!stored || stored.size > mostHeld) return null;
			const chunks: Uint8Array[] = [];
			for await (const chunk of fileChunks(this.pool, stored.id)) chunks.push(chunk);
			const made = await smallerPicture(Buffer.concat(chunks), attachment);
			if (!made) return null;
			const { bytes, width, height } = made;
			const kept = await storeFile(this.pool, only(bytes));
			return { ...attachment, hash: kept.hash, bytes: bytes.length, width, height };
		});
	}

	async #named({ attachment }: FileWish, loadId: number | null): Promise<Attachment | null> {
		const container = loadId === null ? null : await this.#packageOf(loadId);
		const path = container && fileNamedLike(container, attachment.name);
		if (!container || !path) return null;
		return this.#once(`${loadId} ${path} ${attachment.mediaType}`, async () => {
			try {
				const store = this.plans
					? null
					: async (pieces: AsyncIterable<Uint8Array>) => (await storeFile(this.pool, pieces)).hash;
				const facts = await lookInto({ name: path, mediaType: attachment.mediaType }, container, store);
				return { ...attachment, ...facts, missing: false };
			} catch (error) {
				if (!(error instanceof ContainerError)) throw error;
				return null;
			}
		});
	}

	/** The package that a load came as, where it is still there and can be opened. */
	#packageOf(loadId: number): Promise<Container | null> {
		const known =
			this.#packages.get(loadId) ??
			(async () => {
				const load = await row<{ name: string; fileId: number; size: number }>(
					this.pool,
					'SELECT l.file_name AS name, f.id AS fileId, f.size FROM loads l JOIN files f ON f.id = l.file_id WHERE l.id = ?',
					[loadId]
				);
				if (!load) return null;
				try {
					return await openContainer(load.name, fileSource(this.pool, load.fileId, load.size), codec);
				} catch (error) {
					if (!(error instanceof ContainerError)) throw error;
					return null;
				}
			})();
		this.#packages.set(loadId, known);
		return known;
	}
}

async function* only(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
	yield bytes;
}
