import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { plainSettings } from '$lib/forms/course-settings';
import { checkCourse } from '../checks/course';
import { saveSettings } from '../courses/settings';
import { row, rows } from '../db/pool';
import { unhindered } from '../jobs/control';
import { everySnag } from '../snags/filter';
import { snagRows } from '../snags/list';
import { waiversOf } from '../snags/waive';
import { bankXml, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { mendStaged } from './decide';
import { stagedQuestion } from './review';
import { takeIn } from './take-in';
import { takeStagedWaiverBack, waiveStaged } from './waive';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
beforeEach(async () => {
	course = await makeCourse(pool);
});
const long =
	'Which light does a sailing vessel of fifty metres show by night when she lies at anchor near the northern breakwater and the fog signal is on?';
const files = {
	'bank.xml': bankXml({
		Tides: [
			item('springs', 'When are springs? Select one:', ['Full moon', 'Half moon']),
			item('lost', 'When are neaps? Select one:', ['Half', 'Full'], null)
		],
		Lights: [
			item('north', long, ['White', 'Red']),
			item('south', long.replace('northern', 'southern'), ['White', 'Red'])
		]
	})
};
const load = () => loadPackage(pool, course, files);
const said = async (loadId: number) =>
	(
		await rows<{ title: string; rule: string }>(
			pool,
			'SELECT s.title, r.rule FROM staged_reports r JOIN staged_questions s ON s.id = r.staged_id WHERE r.load_id = ? ORDER BY s.number, r.rule',
			[loadId]
		)
	).map(({ title, rule }) => `${title}: ${rule}`);
const staged = async (loadId: number, title: string) =>
	(await row<{ id: number }>(pool, 'SELECT id FROM staged_questions WHERE load_id = ? AND title = ?', [loadId, title]))!
		.id;

describe('a load', () => {
	it('says what is found among its questions before they are taken in', async () => {
		expect(await said(await load())).toEqual([
			'springs: boilerplate',
			'lost: boilerplate',
			'lost: no-key',
			'north: near-duplicate',
			'south: near-duplicate'
		]);
	});
	it('says nothing of a check that is off in its course, and is as grave as the course has it', async () => {
		await saveSettings(pool, course.courseId, course.personId, {
			...plainSettings,
			checksOff: ['boilerplate', 'no-feedback'],
			severities: ['near-duplicate broken']
		});
		const id = await load();
		expect(await said(id)).toEqual(['lost: no-key', 'north: near-duplicate', 'south: near-duplicate']);
		const broken = await rows<{ title: string }>(
			pool,
			'SELECT title FROM staged_questions WHERE load_id = ? AND broken = 1 ORDER BY number',
			[id]
		);
		expect(broken.map(({ title }) => title)).toEqual(['lost', 'north', 'south']);
	});
	it('keeps what was found among many when a question is mended', async () => {
		const id = await load();
		await mendStaged(pool, course.courseId, id, course.personId, 'boilerplate', null);
		expect(await said(id)).toEqual(['lost: no-key', 'north: near-duplicate', 'south: near-duplicate']);
	});
});

describe('a snag of a load that is waived', () => {
	const set = async (loadId: number, rule: string, title: string | null) =>
		waiveStaged(
			pool,
			course.courseId,
			loadId,
			course.personId,
			{ rule, reason: 'Printed so.' },
			title === null ? null : { ids: [await staged(loadId, title)] }
		);
	it('is said no more, ends what was broken, and is open again once it is taken back', async () => {
		const id = await load();
		const lost = await staged(id, 'lost');
		expect(await set(id, 'no-key', 'lost')).toBe(1);
		expect(await said(id)).not.toContain('lost: no-key');
		const shown = (await stagedQuestion(pool, course.courseId, id, lost))!;
		expect(shown.waived).toMatchObject([{ rule: 'no-key', reason: 'Printed so.', by: 'Ines Carrow' }]);
		expect(shown.listed.broken).toBeFalsy();
		await mendStaged(pool, course.courseId, id, course.personId, 'boilerplate', null);
		expect(await said(id)).not.toContain('lost: no-key');
		await takeStagedWaiverBack(pool, id, course.personId, lost, 'no-key');
		expect(await said(id)).toContain('lost: no-key');
		await expect(takeStagedWaiverBack(pool, id, course.personId, lost, 'no-key')).rejects.toThrow('waived no more');
		await expect(set(id, 'mojibake', null)).rejects.toThrow('nothing to waive');
	});
	it('stays waived in the course, one as all of the load', async () => {
		const id = await load();
		expect(await set(id, 'boilerplate', null)).toBe(2);
		await set(id, 'no-key', 'lost');
		await takeIn(pool, course.courseId, id, course.personId, decide());
		await checkCourse(pool, course.courseId, unhindered);
		const open = await snagRows(pool, course.courseId, everySnag);
		expect(open.map(({ title, rule }) => `${title}: ${rule}`)).toEqual([
			'north: near-duplicate',
			'south: near-duplicate'
		]);
		expect(
			(await waiversOf(pool, course.courseId)).map(({ rule, subject, reason }) => [rule, subject, reason]).sort()
		).toEqual([
			['boilerplate', 'lost', 'Printed so.'],
			['boilerplate', 'springs', 'Printed so.'],
			['no-key', 'lost', 'Printed so.']
		]);
	});
});
