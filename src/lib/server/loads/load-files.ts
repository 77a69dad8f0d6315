import { createHash } from 'node:crypto';
import type { Pool, PoolConnection } from 'mysql2/promise';
import type { Question } from '$core/kinds';
import { rows, run } from '../db/pool';
import { chunkSize, storeFile, storeSmall } from '../files/files';

const mostInOneStatement = 400;

/** The files that the questions of a load use, while it is read: stored once each, and linked to the load with a batch. */
export class LoadFiles {
	/** Small files that wait to be stored with the next batch, by their hash. */
	#waiting = new Map<string, Uint8Array>();
	/** How many bytes of small files wait for the next batch. */
	waitingBytes = 0;
	/** The keys of all files of the load, by their hash, and those that are not linked to it yet. */
	readonly #fileIds = new Map<string, number>();
	#unlinked: number[] = [];
	/** What the package calls a file, and how many questions use it, by its hash. */
	readonly #uses = new Map<string, { name: string; uses: number }>();

	constructor(
		readonly pool: Pool,
		readonly loadId: number
	) {}

	/** Takes over what another process has stored for the questions that it staged. */
	async goOn(): Promise<void> {
		const files = await rows<{ id: number; hash: string }>(
			this.pool,
			'SELECT f.id, LOWER(HEX(f.hash)) AS hash FROM load_files u JOIN files f ON f.id = u.file_id WHERE u.load_id = ?',
			[this.loadId]
		);
		for (const { hash, id } of files) this.#fileIds.set(hash, id);
		const uses = await rows<{ name: string; hash: string }>(
			this.pool,
			`SELECT a.name, a.hash FROM staged_questions s JOIN JSON_TABLE(s.document, '$.attachments[*]' COLUMNS (name VARCHAR(1000) PATH '$.name', hash CHAR(64) PATH '$.hash')) a
			WHERE s.load_id = ? AND s.document LIKE '%"hash":"%' AND a.hash IS NOT NULL ORDER BY s.number`,
			[this.loadId]
		);
		for (const { hash, name } of uses) this.used(hash, name);
	}

	/** Counts that a question uses the file with this hash, and what the package calls it. */
	used(hash: string, name: string): void {
		const before = this.#uses.get(hash);
		if (before) before.uses += 1;
		else this.#uses.set(hash, { name: name.slice(0, 500), uses: 1 });
	}

	/** Gives the hash of a file; it is stored with the next batch where it is small, and at once where it is not. */
	async store(pieces: AsyncIterable<Uint8Array>): Promise<string> {
		const held: Uint8Array[] = [];
		let length = 0;
		const rest = pieces[Symbol.asyncIterator]();
		let ended = false;
		while (!ended && length <= chunkSize) {
			const next = await rest.next();
			ended = next.done === true;
			if (next.done) break;
			held.push(next.value);
			length += next.value.length;
		}
		if (ended && length <= chunkSize) {
			const bytes = Buffer.concat(held);
			const hash = createHash('sha256').update(bytes).digest('hex');
			if (!this.#fileIds.has(hash) && !this.#waiting.has(hash)) {
				this.#waiting.set(hash, bytes);
				this.waitingBytes += length;
			}
			return hash;
		}
		const file = await storeFile(
			this.pool,
			(async function* () {
				yield* held.splice(0);
				for (let next = await rest.next(); !next.done; next = await rest.next()) yield next.value;
			})()
		);
		this.#linked(file.hash, file.id);
		return file.hash;
	}

	#linked(hash: string, id: number): void {
		if (!this.#fileIds.has(hash)) this.#unlinked.push(id);
		this.#fileIds.set(hash, id);
	}

	/** Keeps what the package calls each file, and in how many questions it is used. */
	async keepUses(): Promise<void> {
		const found = [...this.#uses].flatMap(([hash, one]) => {
			const id = this.#fileIds.get(hash);
			return id === undefined ? [] : [{ ...one, id }];
		});
		for (let at = 0; at < found.length; at += mostInOneStatement)
			await run(
				this.pool,
				'INSERT INTO load_files (load_id, file_id, name, uses) VALUES ? ON DUPLICATE KEY UPDATE name = VALUES(name), uses = VALUES(uses)',
				[found.slice(at, at + mostInOneStatement).map((one) => [this.loadId, one.id, one.name, one.uses])]
			);
	}

	/** The small files that wait, which are waited for no more: whoever takes them stores them. */
	takeWaiting(): Map<string, Uint8Array> {
		const files = this.#waiting;
		this.#waiting = new Map();
		this.waitingBytes = 0;
		return files;
	}

	/** Stores small files, by their hash. */
	async storeWaiting(files: Map<string, Uint8Array>): Promise<void> {
		if (files.size) for (const [hash, id] of await storeSmall(this.pool, files)) this.#linked(hash, id);
	}

	/** Links the files that were stored since the last batch to the load, in the transaction of the batch. */
	async link(connection: PoolConnection): Promise<void> {
		const ids = this.#unlinked.splice(0);
		if (ids.length)
			await run(connection, 'INSERT IGNORE INTO load_files (load_id, file_id) VALUES ?', [
				ids.map((id) => [this.loadId, id])
			]);
	}
}

/** Notes the files that questions of a load have come to have as those of the load, so that they are kept as long as it is. */
export async function keepLoadFiles(
	connection: PoolConnection,
	loadId: number,
	changed: readonly { question: Pick<Question, 'attachments'> }[]
): Promise<void> {
	const hashes = [
		...new Set(changed.flatMap(({ question }) => question.attachments.flatMap(({ hash }) => hash ?? [])))
	];
	if (hashes.length)
		await run(
			connection,
			'INSERT IGNORE INTO load_files (load_id, file_id) SELECT ?, f.id FROM files f WHERE f.hash IN (?)',
			[loadId, hashes.map((hash) => Buffer.from(hash, 'hex'))]
		);
}
