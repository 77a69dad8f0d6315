import { Jimp } from 'jimp';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { storedQuestion } from '../banks/banks';
import { plainSettings } from '$lib/forms/course-settings';
import { undoDeed } from '../changes/undo';
import { saveSettings } from '../courses/settings';
import { rows } from '../db/pool';
import { mendStaged } from '../loads/decide';
import { stagedQuestion } from '../loads/review';
import { takeIn } from '../loads/take-in';
import { everySnag } from '../snags/filter';
import { snagRows } from '../snags/list';
import { mend, mendableCount, mendPreview } from '../snags/mend';
import { allListed, bankXml, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { courseFile } from './uses';
import { smallerPicture, smallerSize } from './smaller';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let png: Uint8Array;
beforeAll(async () => {
	png = await new Jimp({ width: 3000, height: 30, color: 0x3366ffff }).getBuffer('image/png');
});
beforeEach(async () => {
	course = await makeCourse(pool);
});

const showing = (ident: string, picture: string) =>
	item(ident, `What does ${ident} show? &lt;img src="${picture}" alt="A chart"/&gt;`, ['A wreck', 'A rock']).replace(
		'<mattext>',
		'<mattext texttype="text/html">'
	);
/** A huge picture that is there, one that stands in another folder, one that two folders have, and one that nobody has. */
const package_ = () => ({
	'bank.xml': bankXml({
		Charts: [
			showing('huge', 'pictures/huge.png'),
			showing('moved', 'wrong/Plan%201.png'),
			showing('twice', 'wrong/twice.png'),
			showing('gone', 'wrong/gone.png')
		]
	}),
	'pictures/huge.png': png,
	'pictures/plan 1.PNG': png,
	'pictures/twice.png': png,
	'others/twice.png': png
});
const idOf = async (rule: string, title: string) =>
	(await snagRows(pool, course.courseId, { ...everySnag, check: rule })).find((snag) => snag.title === title)!
		.questionId;
const fileOf = async (id: number) =>
	(await storedQuestion(pool, course.courseId, id))!.question.attachments.map(
		({ hash, missing, bytes, width, height }) => ({ hash, missing, bytes, width, height })
	)[0]!;

describe('a picture that is made smaller', () => {
	it('has at most 2,000 pixels, and the shape that it had', async () => {
		const made = await smallerPicture(png, { mediaType: 'image/png', width: 3000, height: 30 });
		expect(made).toMatchObject({ width: 2000, height: 20 });
		expect(await Jimp.read(Buffer.from(made!.bytes))).toMatchObject({ width: 2000, height: 20 });
	});
	it('is none where it is damaged, a drawing, or too large to be unpacked', async () => {
		expect(await smallerPicture(png.slice(0, 60), { mediaType: 'image/png', width: 3000, height: 30 })).toBeNull();
		expect(smallerSize({ mediaType: 'image/svg+xml', width: 3000, height: 3000 })).toBeNull();
		expect(smallerSize({ mediaType: 'image/jpeg', width: 30_000, height: 30_000 })).toBeNull();
		expect(smallerSize({ mediaType: 'image/jpeg' })).toBeNull();
	});
});

describe('files that a mend asks for', () => {
	beforeEach(async () => {
		// what is broken does not come into a course by itself
		const settings = { ...plainSettings, severities: ['picture-missing doubtful'] };
		await saveSettings(pool, course.courseId, course.personId, settings);
		const load = await loadPackage(pool, course, package_());
		await takeIn(pool, course.courseId, load, course.personId, decide());
	});
	it('are a smaller picture in the place of a huge one, which comes back when that is taken back', async () => {
		const id = await idOf('picture-huge', 'huge');
		const before = await fileOf(id);
		expect(await mendableCount(pool, course.courseId, { ...everySnag, check: 'picture-huge' })).toBe(1);
		const preview = await mendPreview(pool, course.courseId, 'picture-huge', id);
		expect(preview!.after.attachments[0]).toMatchObject({ width: 2000, height: 20 });
		expect(await fileOf(id)).toEqual(before);
		const done = await mend(pool, course.courseId, course.personId, 'picture-huge', null, null);
		expect(done).toMatchObject({ mended: 1, left: 0 });
		const after = await fileOf(id);
		expect(after).toMatchObject({ width: 2000, height: 20, missing: false });
		expect(await courseFile(pool, course.courseId, after.hash!)).toMatchObject({ size: after.bytes });
		expect(await snagRows(pool, course.courseId, { ...everySnag, check: 'picture-huge' })).toEqual([]);
		await undoDeed(pool, course.courseId, course.personId, (done as { deedId: number }).deedId, false);
		expect(await fileOf(id)).toEqual(before);
		expect(await courseFile(pool, course.courseId, before.hash!)).toBeDefined();
	});
	it('are the one file of that name that came with the load, and none where several have it or nobody', async () => {
		const check = 'picture-missing';
		expect((await snagRows(pool, course.courseId, { ...everySnag, check })).map(({ title }) => title).sort()).toEqual([
			'gone',
			'moved',
			'twice'
		]);
		expect(await mendableCount(pool, course.courseId, { ...everySnag, check })).toBe(1);
		const id = await idOf(check, 'moved');
		expect(await mend(pool, course.courseId, course.personId, check, null, null)).toMatchObject({ mended: 1, left: 2 });
		expect(await fileOf(id)).toMatchObject({ missing: false, width: 3000, bytes: png.length });
		expect((await snagRows(pool, course.courseId, { ...everySnag, check })).map(({ title }) => title).sort()).toEqual([
			'gone',
			'twice'
		]);
	});
});

describe('files that a mend of a load asks for', () => {
	it('are kept with the load, and go into the course with it', async () => {
		const load = await loadPackage(pool, course, package_());
		for (const [rule, mended, left] of [
			['picture-huge', 1, 0],
			['picture-missing', 1, 2]
		] as const)
			expect(await mendStaged(pool, course.courseId, load, course.personId, rule, null)).toEqual({ mended, left });
		const [first] = await allListed(pool, course.courseId, load);
		const staged = (await stagedQuestion(pool, course.courseId, load, first!.id))!.question.attachments[0]!;
		expect(staged).toMatchObject({ width: 2000, missing: false });
		expect(await courseFile(pool, course.courseId, staged.hash!)).toBeDefined();
		await takeIn(pool, course.courseId, load, course.personId, decide());
		const found = await rows<{ id: number }>(pool, "SELECT id FROM questions WHERE course_id = ? AND title = 'huge'", [
			course.courseId
		]);
		expect(await fileOf(found[0]!.id)).toMatchObject({ hash: staged.hash, width: 2000 });
	});
});
