import { createHash, randomBytes } from 'node:crypto';
import { afterAll, describe, expect, it } from 'vitest';
import { row, rows, run } from '../db/pool';
import { arriving, decide, makeCourse, loadPackage, testPool } from '../test-support/world';
import { chunkSize, fileByHash, fileChunks, fileSource, storeFile, storeSmall } from './files';
import { throwAway } from '../loads/loads';
import { takeIn } from '../loads/take-in';
import { undo } from '../loads/undo';
import { courseFile, sweep } from './uses';

const pool = testPool();
afterAll(() => pool.end());
const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
async function whole(id: number): Promise<Buffer> {
	const out: Uint8Array[] = [];
	for await (const chunk of fileChunks(pool, id)) out.push(chunk);
	return Buffer.concat(out);
}

describe('a stored file', () => {
	it.each([0, 1, 1000, chunkSize, chunkSize + 1, 3 * chunkSize + 17])(
		'of %d bytes comes back as it was, in chunks',
		async (size) => {
			const bytes = randomBytes(size);
			const file = await storeFile(pool, arriving(bytes, 300_000));
			expect(file).toMatchObject({ hash: sha(bytes), size });
			expect((await whole(file.id)).equals(bytes)).toBe(true);
			const chunks = await rows<{ size: number }>(
				pool,
				'SELECT LENGTH(bytes) AS size FROM file_chunks WHERE file_id = ?',
				[file.id]
			);
			expect(Math.max(...chunks.map((chunk) => chunk.size))).toBeLessThanOrEqual(chunkSize);
			expect(await fileByHash(pool, file.hash)).toMatchObject({ id: file.id, size });
		}
	);
	it('can be read at any place', async () => {
		const bytes = randomBytes(2 * chunkSize + 500);
		const file = await storeFile(pool, arriving(bytes, 1 << 20));
		const source = fileSource(pool, file.id, file.size);
		for (const [offset, length] of [
			[0, 10],
			[chunkSize - 5, 10],
			[chunkSize, chunkSize + 400],
			[bytes.length - 3, 100],
			[bytes.length, 5]
		] as const)
			expect(Buffer.from(await source.read(offset, length)).equals(bytes.subarray(offset, offset + length))).toBe(true);
	});
	it.each([900, 2 * chunkSize])(
		'of %d bytes is stored once, also when many store it at the same moment',
		async (size) => {
			const bytes = randomBytes(size);
			const files = await Promise.all(Array.from({ length: 6 }, () => storeFile(pool, arriving(bytes, 1 << 20))));
			expect(new Set(files.map((file) => file.id)).size).toBe(1);
			expect(await row(pool, 'SELECT COUNT(*) AS n FROM files WHERE hash = UNHEX(?)', [sha(bytes)])).toEqual({ n: 1 });
			expect((await whole(files[0]!.id)).equals(bytes)).toBe(true);
		}
	);
	it('is cleared away where its upload broke off with the process, and not while it may still arrive', async () => {
		const { courseId, personId } = await makeCourse(pool);
		const begin = async (age: string) => {
			const file = (await run(pool, `INSERT INTO files (hash, begun) VALUES (NULL, DATE_SUB(NOW(3), INTERVAL ${age}))`))
				.id;
			await run(pool, 'INSERT INTO file_chunks (file_id, number, bytes) VALUES (?, 0, ?)', [file, 'half']);
			const load = (
				await run(
					pool,
					`INSERT INTO loads (course_id, person_id, file_name, state, created) VALUES (?, ?, 'half.zip', 'uploading', DATE_SUB(NOW(3), INTERVAL ${age}))`,
					[courseId, personId]
				)
			).id;
			return { file, load };
		};
		const old = await begin('2 DAY');
		const fresh = await begin('1 HOUR');
		await sweep(pool);
		expect(await rows(pool, 'SELECT id FROM files WHERE id IN (?)', [[old.file, fresh.file]])).toEqual([
			{ id: fresh.file }
		]);
		expect(await rows(pool, 'SELECT id FROM loads WHERE id IN (?)', [[old.load, fresh.load]])).toEqual([
			{ id: fresh.load }
		]);
		expect(await row(pool, 'SELECT COUNT(*) AS n FROM file_chunks WHERE file_id = ?', [old.file])).toEqual({ n: 0 });
		await run(pool, 'DELETE FROM files WHERE id = ?', [fresh.file]);
	});
	it('is seen only by the courses that use it', async () => {
		const picture = `<svg xmlns="http://www.w3.org/2000/svg" id="${randomBytes(8).toString('hex')}"/>`;
		const course = await makeCourse(pool);
		const bank =
			'<questestinterop><item ident="a" title="a"><presentation><material><mattext>Look.</mattext><matimage uri="a.svg"/></material></presentation></item></questestinterop>';
		await loadPackage(pool, course, { 'b.xml': bank, 'a.svg': picture });
		const hash = sha(Buffer.from(picture));
		expect(await courseFile(pool, course.courseId, hash)).toMatchObject({ size: picture.length });
		expect(await courseFile(pool, (await makeCourse(pool)).courseId, hash)).toBeUndefined();
	});
});

describe('the files of a load', () => {
	const bank = (name: string) =>
		`<questestinterop><item ident="a" title="a"><presentation><material><mattext>Look.</mattext><matimage uri="${name}"/></material></presentation></item></questestinterop>`;
	const drawn = () => `<svg xmlns="http://www.w3.org/2000/svg" id="${randomBytes(8).toString('hex')}"/>`;
	const there = async (hash: string) => (await fileByHash(pool, hash)) !== undefined;

	it('go with it when it is thrown away, and stay where another load has them', async () => {
		const course = await makeCourse(pool);
		const [own, shared] = [drawn(), drawn()];
		const first = await loadPackage(pool, course, { 'b.xml': bank('own.svg'), 'own.svg': own });
		const second = await loadPackage(pool, course, { 'b.xml': bank('shared.svg'), 'shared.svg': shared });
		await loadPackage(pool, await makeCourse(pool), { 'c.xml': bank('shared.svg'), 'shared.svg': shared });
		const packages = await rows<{ hash: Buffer }>(
			pool,
			'SELECT f.hash FROM loads l JOIN files f ON f.id = l.file_id WHERE l.id IN (?)',
			[[first, second]]
		);
		expect(await throwAway(pool, first)).toBe(true);
		expect(await throwAway(pool, second)).toBe(true);
		expect(await there(sha(Buffer.from(own)))).toBe(false);
		expect(await there(sha(Buffer.from(shared)))).toBe(true);
		for (const { hash } of packages) expect(await there(hash.toString('hex'))).toBe(false);
	});
	it('stay with a question that an undo has left, when the load is thrown away', async () => {
		const course = await makeCourse(pool);
		const picture = drawn();
		const hash = sha(Buffer.from(picture));
		const id = await loadPackage(pool, course, { 'b.xml': bank('a.svg'), 'a.svg': picture });
		await run(pool, "UPDATE staged_questions SET broken = 0, match_kind = 'new' WHERE load_id = ?", [id]);
		await takeIn(pool, course.courseId, id, course.personId, decide({ bankName: 'Kept' }));
		await run(pool, 'UPDATE questions SET version = 2 WHERE load_id = ?', [id]);
		await undo(pool, course.courseId, id, course.personId, true);
		expect(await throwAway(pool, id)).toBe(true);
		expect(await courseFile(pool, course.courseId, hash)).toMatchObject({ size: picture.length });
		await run(pool, "UPDATE files SET begun = '2020-01-01' WHERE hash = UNHEX(?)", [hash]);
		await sweep(pool);
		expect(await there(hash)).toBe(true);
		await run(pool, 'DELETE FROM questions WHERE course_id = ?', [course.courseId]);
		await sweep(pool);
		expect(await there(hash)).toBe(false);
	});
});

describe('small files', () => {
	const made = (count: number, size: number) =>
		new Map(
			Array.from({ length: count }, () => {
				const bytes = new Uint8Array(randomBytes(size));
				return [sha(bytes), bytes] as const;
			})
		);
	it('are stored together, also where they are more than one statement holds', async () => {
		const files = made(5, 900_000);
		const ids = await storeSmall(pool, files);
		expect([...ids.keys()].sort()).toEqual([...files.keys()].sort());
		for (const [hash, id] of ids) expect(sha(await whole(id))).toBe(hash);
		expect(await storeSmall(pool, files)).toEqual(ids);
	});
	it('are stored once, though several store the same at once in another order', async () => {
		const files = made(40, 2000);
		const turned = new Map([...files].reverse());
		const results = await Promise.all([files, turned, files, turned].map((one) => storeSmall(pool, one)));
		for (const ids of results) expect(new Map([...ids].sort())).toEqual(new Map([...results[0]!].sort()));
		const found = await row<{ n: number }>(pool, 'SELECT COUNT(*) AS n FROM file_chunks WHERE file_id IN (?)', [
			[...results[0]!.values()]
		]);
		expect(found).toEqual({ n: 40 });
	});
});
