import { createHash, type Hash } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import { visible } from '$core/markup/visible';
import { row, run, transaction } from '../db/pool';
import { chunkSize, fileChunks, settleFile } from '../files/files';
import { enqueue } from '../jobs/jobs';
import { Refused } from './refused';

/**
 * The hashes of uploads whose pieces have all come to this process so far, so that the last one need not wait until the
 * whole file was gone through again. It is no more than that: where one is missing, the stored pieces are gone through.
 */
const hashes = new Map<number, { digest: Hash; upTo: number }>();
const mostHashes = 200;

function addToHash(id: number, offset: number, bytes: Uint8Array): void {
	const known = offset === 0 ? { digest: createHash('sha256'), upTo: 0 } : hashes.get(id);
	if (known?.upTo !== offset) {
		hashes.delete(id);
		return;
	}
	known.digest.update(bytes);
	known.upTo += bytes.length;
	hashes.set(id, known);
	if (hashes.size > mostHashes) hashes.delete(hashes.keys().next().value!);
}

/** How far an upload has come. Sizes in bytes. */
export interface Upload {
	/** The load that it becomes. */
	id: number;
	received: number;
	size: number;
}

/**
 * Begins an upload, or finds one of the same person with the same name, size and mark that broke off, so that it goes
 * on where it stopped. The mark tells files of one name and size apart: when the file was last changed.
 */
export async function beginUpload(
	pool: Pool,
	courseId: number,
	personId: number,
	name: string,
	size: number,
	mark = ''
): Promise<Upload> {
	const upload = await transaction(
		pool,
		async (connection) => {
			const fileName = visible(name).slice(0, 255);
			// by_course
			const known = await row<Upload & { file_id: number }>(
				connection,
				"SELECT id, bytes_read AS received, size, file_id FROM loads WHERE course_id = ? AND person_id = ? AND state = 'uploading' AND file_name = ? AND size = ? AND upload_mark = ? AND file_id IS NOT NULL ORDER BY id DESC LIMIT 1 FOR UPDATE",
				[courseId, personId, fileName, size, mark]
			);
			if (known) return known;
			const file = (await run(connection, 'INSERT INTO files (hash) VALUES (NULL)')).id;
			const { id } = await run(
				connection,
				"INSERT INTO loads (course_id, person_id, file_name, upload_mark, state, size, file_id) VALUES (?, ?, ?, ?, 'uploading', ?, ?)",
				[courseId, personId, fileName, mark, size, file]
			);
			return { id, received: 0, size, file_id: file };
		},
		'READ COMMITTED'
	);
	// one that was cut off between its last piece and its end is ended now
	if (upload.received === upload.size) await finish(pool, upload);
	return { id: upload.id, received: upload.received, size: upload.size };
}

/**
 * Adds a piece to an upload, at the place where it has come to; the last one ends it and puts its reading in the queue.
 * A piece for another place changes nothing: the answer says where to go on. Pieces but the last are whole mebibytes.
 * Throws Refused where there is no such upload.
 */
export async function addPiece(
	pool: Pool,
	courseId: number,
	personId: number,
	loadId: number,
	offset: number,
	bytes: Uint8Array
): Promise<Upload> {
	const { added, ...upload } = await transaction(
		pool,
		async (connection) => {
			const found = await row<Upload & { file_id: number }>(
				connection,
				"SELECT id, bytes_read AS received, size, file_id FROM loads WHERE id = ? AND course_id = ? AND person_id = ? AND state = 'uploading' FOR UPDATE",
				[loadId, courseId, personId]
			);
			if (!found) throw new Refused('This upload is over or was thrown away. Drop the file again.');
			const end = offset + bytes.length;
			if (offset !== found.received || !bytes.length) return { ...found, added: false };
			if (end > found.size)
				throw new Refused('More arrives than the file is long. It has changed on its way; drop it again.');
			if (end < found.size && bytes.length % chunkSize)
				throw new Refused('This piece is no whole number of mebibytes.');
			const chunks: [number, number, Buffer][] = [];
			for (let at = 0; at < bytes.length; at += chunkSize)
				chunks.push([found.file_id, (offset + at) / chunkSize, Buffer.from(bytes.subarray(at, at + chunkSize))]);
			await run(connection, 'INSERT INTO file_chunks (file_id, number, bytes) VALUES ?', [chunks]);
			await run(connection, 'UPDATE loads SET bytes_read = ? WHERE id = ?', [end, loadId]);
			return { ...found, received: end, added: true };
		},
		'READ COMMITTED'
	);
	if (added) addToHash(loadId, offset, bytes);
	if (upload.received === upload.size) await finish(pool, upload);
	return { id: upload.id, received: upload.received, size: upload.size };
}

/** Ends an upload: the file gets its hash, is stored once, and waits to be read. Done twice, it is done once. */
async function finish(pool: Pool, { id, size, file_id: fileId }: Upload & { file_id: number }): Promise<void> {
	const known = hashes.get(id);
	hashes.delete(id);
	const digest = known?.upTo === size ? known.digest : createHash('sha256');
	if (digest !== known?.digest) for await (const chunk of fileChunks(pool, fileId)) digest.update(chunk);
	const hash = digest.digest();
	await transaction(
		pool,
		async (connection) => {
			const open = await row(connection, "SELECT id FROM loads WHERE id = ? AND state = 'uploading' FOR UPDATE", [id]);
			if (!open) return;
			const kept = await settleFile(connection, fileId, hash, size, id);
			await run(
				connection,
				"UPDATE loads SET file_id = ?, bytes_read = 0, bytes_total = ?, state = 'waiting' WHERE id = ?",
				[kept, size, id]
			);
			await enqueue(connection, 'read', id);
		},
		'READ COMMITTED'
	);
}

/** Throws an upload away that its person does not want to go on with. */
export async function dropUpload(pool: Pool, courseId: number, personId: number, loadId: number): Promise<void> {
	await transaction(pool, async (connection) => {
		const found = await row<{ file_id: number }>(
			connection,
			"SELECT file_id FROM loads WHERE id = ? AND course_id = ? AND person_id = ? AND state = 'uploading' FOR UPDATE",
			[loadId, courseId, personId]
		);
		if (!found) return;
		hashes.delete(loadId);
		await run(connection, 'DELETE FROM loads WHERE id = ?', [loadId]);
		await run(connection, 'DELETE FROM files WHERE id = ? AND hash IS NULL', [found.file_id]);
	});
}
