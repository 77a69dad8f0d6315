import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { run, row } from '../db/pool';
import { allListed, arriving, bankXml, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { decide } from './decide';
import { handIn } from './hand-in';
import { Refused } from './refused';
import { stagedQuestion } from './review';
import { usedFiles } from './used-files';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let loadId: number;
const lacking = '<matimage uri="flag.png" imagtype="image/png"/>';
beforeEach(async () => {
	course = await makeCourse(pool);
	loadId = await loadPackage(pool, course, {
		'bank.xml': bankXml({
			Flags: [
				item('a', 'Which flag?', ['Alfa', 'Bravo'], 'A', lacking),
				item('b', 'And on this?', ['Oscar', 'Papa'], 'A', lacking),
				item('c', 'Its lamp?', ['Red', 'Green'], 'A', lacking.replace('flag', 'lamp'))
			]
		})
	});
});

const staged = () => allListed(pool, course.courseId, loadId);
const give = async (fileName: string, at = 0, name = 'flag.png') =>
	handIn(pool, course.courseId, loadId, course.personId, {
		stagedId: (await staged())[at]!.id,
		name,
		fileName,
		pieces: arriving(new TextEncoder().encode('not really a picture'))
	});

describe('a picture that is handed in later', () => {
	it('is there for every question of the load that lacks it, and their snags are settled', async () => {
		expect((await staged()).map((one) => one.broken)).toEqual([true, true, true]);
		expect(await give('signal-flag.png')).toBe(2);
		const after = await staged();
		expect(after.map((one) => one.broken)).toEqual([false, false, true]);
		expect(after.map((one) => one.marks.some((mark) => mark.rule === 'picture-missing'))).toEqual([false, false, true]);
		const { question } = (await stagedQuestion(pool, course.courseId, loadId, after[1]!.id))!;
		expect(question.attachments).toMatchObject([{ name: 'flag.png', mediaType: 'image/png', missing: false }]);
		const kept = await row<{ size: number }>(pool, 'SELECT size FROM files WHERE hash = UNHEX(?)', [
			question.attachments[0]!.hash
		]);
		expect(kept!.size).toBe(20);
		expect((await usedFiles(pool, loadId)).shared).toMatchObject([{ name: 'flag.png', uses: 2 }]);
	});
	it('is refused where it is no picture, or where none is missing', async () => {
		await expect(give('flag.exe')).rejects.toThrow('no picture');
		await expect(give('flag.png', 0, 'other.png')).rejects.toBeInstanceOf(Refused);
		await give('flag.png');
		await expect(give('flag.png')).rejects.toThrow('not missing in this question any more');
		expect((await staged())[2]!.broken).toBe(true);
	});
	it('does not change what is in the course already', async () => {
		const [first] = await staged();
		await run(pool, "UPDATE staged_questions SET outcome = 'taken' WHERE id = ?", [first!.id]);
		expect(await give('flag.png', 1)).toBe(1);
		expect((await staged())[0]!.marks.some((mark) => mark.rule === 'picture-missing')).toBe(true);
	});
	it('leaves what a person has decided', async () => {
		const [, second] = await staged();
		await decide(
			pool,
			course.courseId,
			loadId,
			course.personId,
			{ ids: [second!.id] },
			{ do: 'choose', choice: 'leave' }
		);
		await give('flag.png');
		expect((await staged())[1]!.choice).toBe('leave');
	});
});
