import { createHash, randomBytes } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { row, run } from '../db/pool';
import { chunkSize, fileChunks } from '../files/files';
import { makeCourse, testPool } from '../test-support/world';
import { loadOf, loadsOf } from './loads';
import { Refused } from './refused';
import { addPiece, beginUpload, dropUpload } from './uploads';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
beforeEach(async () => {
	course = await makeCourse(pool);
});
const begin = (name: string, size: number) => beginUpload(pool, course.courseId, course.personId, name, size);
const add = (id: number, offset: number, bytes: Uint8Array) =>
	addPiece(pool, course.courseId, course.personId, id, offset, bytes);
const stored = async (fileId: number) => {
	const hash = createHash('sha256');
	for await (const chunk of fileChunks(pool, fileId)) hash.update(chunk);
	return hash.digest('hex');
};

describe('an upload in pieces', () => {
	const bytes = new Uint8Array(randomBytes(2 * chunkSize + 12_345));
	it('is put together, read, and known by its hash', async () => {
		const { id, received } = await begin('big.zip', bytes.length);
		expect(received).toBe(0);
		expect(await add(id, 0, bytes.subarray(0, chunkSize))).toMatchObject({ received: chunkSize });
		expect(await add(id, chunkSize, bytes.subarray(chunkSize))).toMatchObject({ received: bytes.length });
		const load = (await loadOf(pool, course.courseId, id))!;
		expect(load).toMatchObject({ state: 'waiting', size: bytes.length });
		const whole = createHash('sha256').update(bytes).digest('hex');
		expect(await stored(load.file_id!)).toBe(whole);
		const file = await row<{ hash: Buffer }>(pool, 'SELECT hash FROM files WHERE id = ?', [load.file_id]);
		expect(file!.hash.toString('hex')).toBe(whole);
		expect(await row(pool, "SELECT COUNT(*) AS n FROM jobs WHERE kind = 'read' AND subject_id = ?", [id])).toEqual({
			n: 1
		});
	});
	it('has the same hash where pieces came to another process, or came again', async () => {
		const { id } = await begin('big.zip', bytes.length);
		const ends = [chunkSize, 2 * chunkSize, bytes.length];
		for (const [at, end] of ends.entries()) {
			const begins = at ? ends[at - 1]! : 0;
			// the middle piece goes past the functions that remember, as if another process had taken it
			if (at === 1) {
				const { file_id: file } = (await row<{ file_id: number }>(pool, 'SELECT file_id FROM loads WHERE id = ?', [
					id
				]))!;
				await run(pool, 'INSERT INTO file_chunks (file_id, number, bytes) VALUES (?, 1, ?)', [
					file,
					Buffer.from(bytes.subarray(begins, end))
				]);
				await run(pool, 'UPDATE loads SET bytes_read = ? WHERE id = ?', [end, id]);
			} else await add(id, begins, bytes.subarray(begins, end));
		}
		const load = (await loadOf(pool, course.courseId, id))!;
		const file = await row<{ hash: Buffer }>(pool, 'SELECT hash FROM files WHERE id = ?', [load.file_id]);
		expect(file!.hash.toString('hex')).toBe(createHash('sha256').update(bytes).digest('hex'));
	});
	it('goes on where it broke off, and takes no piece twice', async () => {
		const { id } = await begin('big.zip', bytes.length);
		await add(id, 0, bytes.subarray(0, chunkSize));
		const again = await begin('big.zip', bytes.length);
		expect(again).toEqual({ id, received: chunkSize, size: bytes.length });
		// the answer to a piece was lost, and it is sent once more
		expect(await add(id, 0, bytes.subarray(0, chunkSize))).toMatchObject({ received: chunkSize });
		await add(id, chunkSize, bytes.subarray(chunkSize));
		expect(await stored((await loadOf(pool, course.courseId, id))!.file_id!)).toBe(
			createHash('sha256').update(bytes).digest('hex')
		);
	});
	it('does not go on with another file of the same name and size', async () => {
		const first = await beginUpload(pool, course.courseId, course.personId, 'big.zip', 10, 'Monday');
		const second = await beginUpload(pool, course.courseId, course.personId, 'big.zip', 10, 'Tuesday');
		expect(second.id).not.toBe(first.id);
		expect((await beginUpload(pool, course.courseId, course.personId, 'big.zip', 10, 'Monday')).id).toBe(first.id);
	});
	it('is ended by whoever comes back, where it was cut off at its very end', async () => {
		const { id } = await begin('big.zip', bytes.length);
		const half = await Promise.all([
			add(id, 0, bytes.subarray(0, chunkSize)),
			add(id, 0, bytes.subarray(0, chunkSize))
		]);
		expect(half.map((one) => one.received)).toEqual([chunkSize, chunkSize]);
		await add(id, chunkSize, bytes.subarray(chunkSize));
		await pool.query("UPDATE loads SET state = 'uploading', bytes_read = size WHERE id = ?", [id]);
		expect(await begin('big.zip', bytes.length)).toMatchObject({ id, received: bytes.length });
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({ state: 'waiting' });
	});
	it('of a file that came before is stored once, and says which load that was', async () => {
		const small = new Uint8Array(randomBytes(500));
		const first = await begin('one.zip', small.length);
		await add(first.id, 0, small);
		const second = await begin('two.zip', small.length);
		await add(second.id, 0, small);
		const loads = await loadsOf(pool, course.courseId);
		expect(loads.map((one) => [one.file_name, one.twin_id])).toEqual([
			['two.zip', first.id],
			['one.zip', null]
		]);
		expect(loads[0]!.file_id).toBe(loads[1]!.file_id);
	});
	it('is refused to others, where it grows, and once it is over', async () => {
		const { id } = await begin('x.zip', 10);
		const other = await makeCourse(pool);
		await expect(addPiece(pool, other.courseId, other.personId, id, 0, new Uint8Array(10))).rejects.toBeInstanceOf(
			Refused
		);
		await expect(add(id, 0, new Uint8Array(11))).rejects.toThrow('More arrives');
		await dropUpload(pool, course.courseId, course.personId, id);
		await expect(add(id, 0, new Uint8Array(10))).rejects.toThrow('thrown away');
		expect(await loadsOf(pool, course.courseId)).toEqual([]);
	});
	it('of a hundred small files at once all arrive, many of them the same', async () => {
		const files = Array.from({ length: 100 }, (_, at) => Buffer.from(`1. Which knot is number ${at % 60}?`));
		const ids = await Promise.all(
			files.map(async (content, at) => {
				const { id } = await begin(`knot-${at}.txt`, content.length);
				await add(id, 0, content);
				return id;
			})
		);
		expect(new Set(ids).size).toBe(100);
		const loads = await loadsOf(pool, course.courseId);
		expect(loads).toHaveLength(100);
		expect(loads.every((load) => load.state === 'waiting')).toBe(true);
		expect(new Set(loads.map((load) => load.file_id)).size).toBe(60);
	});
});
