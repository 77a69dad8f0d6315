import { createHash } from 'node:crypto';
import type { Pool, PoolConnection } from 'mysql2/promise';
import type { ByteSource } from '$core/container/container';
import { row, rows, run, transaction, type Database } from '../db/pool';

/** The size of all chunks of a file but the last, in bytes. */
export const chunkSize = 1 << 20;

/** A stored file: its key, its SHA-256 in hex, its size in bytes. */
export interface StoredFile {
	id: number;
	hash: string;
	size: number;
}

/**
 * Stores a file from pieces as they arrive, a chunk at a time; the same content is stored once.
 * `told` hears how many bytes are stored. Where the pieces end in an error, nothing is left behind.
 */
export async function storeFile(
	pool: Pool,
	pieces: AsyncIterable<Uint8Array>,
	told: (size: number) => void = () => undefined
): Promise<StoredFile> {
	const digest = createHash('sha256');
	let id: number | null = null;
	let size = 0;
	let number = 0;
	let held: Uint8Array[] = [];
	let length = 0;
	const flush = async (bytes: Buffer) => {
		id ??= (await run(pool, 'INSERT INTO files (hash) VALUES (NULL)')).id;
		await run(pool, 'INSERT INTO file_chunks (file_id, number, bytes) VALUES (?, ?, ?)', [id, number, bytes]);
		number += 1;
		told(size);
	};
	try {
		for await (const piece of pieces) {
			digest.update(piece);
			size += piece.length;
			held.push(piece);
			length += piece.length;
			while (length > chunkSize) {
				const all = Buffer.concat(held);
				await flush(all.subarray(0, chunkSize));
				held = [all.subarray(chunkSize)];
				length = all.length - chunkSize;
			}
		}
		if (id === null) return await storeWhole(pool, digest.digest(), Buffer.concat(held));
		await flush(Buffer.concat(held));
		return await settle(pool, id, digest.digest(), size);
	} catch (error) {
		if (id !== null) await run(pool, 'DELETE FROM files WHERE id = ?', [id]).catch(() => undefined);
		throw error;
	}
}

/** The most bytes that go to the database in one statement, whose text is twice as long. */
const mostSent = 2 << 20;

/**
 * Stores files of one chunk each, by their SHA-256 in hex, in one transaction, or in none where all are there already:
 * most pictures are such. Gives their keys by their hashes.
 */
export async function storeSmall(pool: Pool, files: Map<string, Uint8Array>): Promise<Map<string, number>> {
	// in one order everywhere, so that two who store the same never wait for one another
	const hashes = [...files.keys()].sort();
	const ids = new Map<string, number>();
	const find = async (db: Database, wanted: string[]) => {
		if (!wanted.length) return;
		// by_hash
		const found = await rows<{ id: number; hash: Buffer }>(db, 'SELECT id, hash FROM files WHERE hash IN (?)', [
			wanted.map((hash) => Buffer.from(hash, 'hex'))
		]);
		for (const one of found) ids.set(one.hash.toString('hex'), one.id);
	};
	await find(pool, hashes);
	const fresh = hashes.filter((hash) => !ids.has(hash));
	if (!fresh.length) return ids;
	await transaction(pool, async (connection) => {
		// where another has just stored the same, nothing is added
		await run(connection, 'INSERT IGNORE INTO files (hash, size) VALUES ?', [
			fresh.map((hash) => [Buffer.from(hash, 'hex'), files.get(hash)!.length])
		]);
		await find(connection, fresh);
		let chunks: [number, number, Buffer][] = [];
		let length = 0;
		const send = async () => {
			if (chunks.length)
				await run(connection, 'INSERT IGNORE INTO file_chunks (file_id, number, bytes) VALUES ?', [chunks]);
			chunks = [];
			length = 0;
		};
		for (const hash of fresh) {
			const bytes = files.get(hash)!;
			if (length + bytes.length > mostSent) await send();
			chunks.push([ids.get(hash)!, 0, Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)]);
			length += bytes.length;
		}
		await send();
	});
	return ids;
}

/** Stores a file of one chunk. */
async function storeWhole(pool: Pool, hash: Buffer, bytes: Buffer): Promise<StoredFile> {
	const name = hash.toString('hex');
	const ids = await storeSmall(pool, new Map([[name, bytes]]));
	return { id: ids.get(name)!, hash: name, size: bytes.length };
}

async function settle(pool: Pool, id: number, hash: Buffer, size: number): Promise<StoredFile> {
	const kept = await transaction(pool, (connection) => settleFile(connection, id, hash, size), 'READ COMMITTED');
	return { id: kept, hash: hash.toString('hex'), size };
}

/**
 * Gives a file that has arrived in full its hash; where the same content is stored already, that one stays and this one
 * goes. Gives the key of the one that stays. `loadId` is a load that still points at the one that goes.
 */
export async function settleFile(
	connection: PoolConnection,
	id: number,
	hash: Buffer,
	size: number,
	loadId: number | null = null
): Promise<number> {
	// by_hash, which lets one of several through that settle the same content at once
	try {
		await run(connection, 'UPDATE files SET hash = ?, size = ? WHERE id = ?', [hash, size, id]);
		return id;
	} catch (error) {
		if ((error as { code?: string }).code !== 'ER_DUP_ENTRY') throw error;
	}
	const known = await row<{ id: number }>(connection, 'SELECT id FROM files WHERE hash = ? LOCK IN SHARE MODE', [hash]);
	if (!known || known.id === id) return id;
	if (loadId !== null) await run(connection, 'UPDATE loads SET file_id = ? WHERE id = ?', [known.id, loadId]);
	await run(connection, 'DELETE FROM files WHERE id = ?', [id]);
	return known.id;
}

/** A stored file as a source of bytes for the core. */
export function fileSource(db: Database, id: number, size: number): ByteSource {
	return {
		size,
		async read(offset, length) {
			const end = Math.min(size, offset + length);
			if (end <= offset) return new Uint8Array();
			const [first, last] = [Math.floor(offset / chunkSize), Math.floor((end - 1) / chunkSize)];
			const found = await rows<{ bytes: Buffer }>(
				db,
				'SELECT bytes FROM file_chunks WHERE file_id = ? AND number BETWEEN ? AND ? ORDER BY number',
				[id, first, last]
			);
			const all = found.length === 1 ? found[0]!.bytes : Buffer.concat(found.map((chunk) => chunk.bytes));
			return all.subarray(offset - first * chunkSize, end - first * chunkSize);
		}
	};
}

/** The bytes of a stored file, a chunk at a time. */
export async function* fileChunks(db: Database, id: number): AsyncGenerator<Uint8Array> {
	for (let number = 0; ; number += 1) {
		const chunk = await row<{ bytes: Buffer }>(db, 'SELECT bytes FROM file_chunks WHERE file_id = ? AND number = ?', [
			id,
			number
		]);
		if (!chunk) return;
		yield chunk.bytes;
	}
}

/** Finds a stored file by its hash in hex. */
export async function fileByHash(db: Database, hash: string): Promise<StoredFile | undefined> {
	// by_hash
	const found = await row<{ id: number; size: number }>(db, 'SELECT id, size FROM files WHERE hash = UNHEX(?)', [hash]);
	return found && { ...found, hash };
}
