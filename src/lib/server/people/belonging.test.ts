import { afterAll, describe, expect, it } from 'vitest';
import { courseFor, coursesOf } from '../courses/courses';
import { makeCourse, moveCourse, renameCourse } from '../courses/make';
import { row, run } from '../db/pool';
import { deedsOf } from '../ledger/ledger';
import { testPool } from '../test-support/world';
import {
	accept,
	choosePassword,
	invitationOf,
	invite,
	inviteAgain,
	inviteFirst,
	join,
	openInvitations,
	withdraw
} from './invitations';
import { membersOf, othersManage, removeMember, setRole } from './members';
import { changePassword, everybody, leave, setKeeper } from './people';
import { deviceName } from './devices';
import { beginSession, devicesOf, personOf, signIn, signOutDevice } from './sessions';

const pool = testPool();
afterAll(() => pool.end());
let made = 0;
const password = 'a-long-quay-wall';
async function somebody(keeper = false): Promise<{ id: number; name: string; email: string }> {
	made += 1;
	const email = `ada-${process.pid}-${Date.now()}-${made}@gullhaven.example`;
	const { id } = await run(
		pool,
		"INSERT INTO people (name, email, password_hash, keeper) VALUES ('Ada Fenn', ?, 'x', ?)",
		[email, keeper ? 1 : 0]
	);
	return { id, name: 'Ada Fenn', email };
}
const details = (code = `C-${process.pid}-${Date.now()}-${(made += 1)}`) => ({
	code,
	name: 'Rope Work',
	intake: 'autumn'
});
async function aCourse(personId: number): Promise<number> {
	const course = await makeCourse(pool, personId, details());
	if ('taken' in course) throw new Error(course.taken);
	return course.id;
}
const joiningAs = (email: string) => ({ name: 'Bo Marsh', email, password });

describe('a course', () => {
	it('is managed by whoever makes it, and its code belongs to it alone', async () => {
		const { id } = await somebody();
		const first = details();
		const course = await makeCourse(pool, id, first);
		expect(course).toHaveProperty('id');
		expect(await makeCourse(pool, id, { ...details(), code: first.code })).toEqual({
			taken: `“Rope Work” has the code ${first.code} already.`
		});
		const courseId = (course as { id: number }).id;
		expect((await courseFor(pool, id, courseId))?.role).toBe('manage');
		const other = await aCourse(id);
		expect(await renameCourse(pool, other, id, first)).toHaveProperty('taken');
		expect(await renameCourse(pool, courseId, id, { ...first, name: 'Knots' })).toEqual({ id: courseId });
		expect((await courseFor(pool, id, courseId))?.name).toBe('Knots');
	});
	it('goes to the bin and comes back; while it is there nobody opens it, and its managers alone see it', async () => {
		const [manager, worker] = [await somebody(), await somebody()];
		const id = await aCourse(manager.id);
		await setRole(pool, id, worker.id, 'work');
		await moveCourse(pool, { id, name: 'Rope Work' }, manager.id, 'binned');
		expect(await courseFor(pool, manager.id, id)).toBeUndefined();
		expect((await coursesOf(pool, manager.id)).map(({ state }) => state)).toEqual(['binned']);
		expect(await coursesOf(pool, worker.id)).toEqual([]);
		await moveCourse(pool, { id, name: 'Rope Work' }, manager.id, 'open');
		expect((await courseFor(pool, worker.id, id))?.role).toBe('work');
		expect((await deedsOf(pool, id)).map(({ deed }) => deed)).toEqual([
			'opened the course again',
			'put the course in the bin',
			'made the course'
		]);
	});
	it('is managed by who keeps the installation, without belonging to it', async () => {
		const [manager, keeper, stranger] = [await somebody(), await somebody(true), await somebody()];
		const id = await aCourse(manager.id);
		expect((await courseFor(pool, keeper.id, id))?.role).toBe('manage');
		expect(await courseFor(pool, stranger.id, id)).toBeUndefined();
		expect((await membersOf(pool, id)).map((member) => member.id)).toEqual([manager.id]);
	});
});

describe('an invitation', () => {
	it('lets one person in, once, with the role that it names', async () => {
		const manager = await somebody();
		const courseId = await aCourse(manager.id);
		const token = await invite(
			pool,
			{ email: 'bo@gullhaven.example', courseId, role: 'work', keeper: false },
			manager.id
		);
		expect(token.length).toBeGreaterThanOrEqual(32);
		expect(await invitationOf(pool, token)).toMatchObject({
			role: 'work',
			by: 'Ada Fenn',
			first: false,
			keeper: false
		});
		expect(await openInvitations(pool, courseId)).toHaveLength(1);
		const email = `bo-${Date.now()}@gullhaven.example`;
		// two at once: one of them is let in
		const both = await Promise.all([join(pool, token, joiningAs(email)), join(pool, token, joiningAs(`2-${email}`))]);
		expect(both.filter((joined) => typeof joined === 'object')).toHaveLength(1);
		expect(both.filter((joined) => joined === 'gone')).toHaveLength(1);
		const { personId } = both.find((joined) => typeof joined === 'object') as { personId: number };
		expect((await courseFor(pool, personId, courseId))?.role).toBe('work');
		expect(await invitationOf(pool, token)).toBeUndefined();
		expect(await accept(pool, token, manager.id)).toBe('gone');
		expect(await openInvitations(pool, courseId)).toEqual([]);
	});
	it('ends by its day, by being taken back, and is none for an address that is known', async () => {
		const manager = await somebody();
		const courseId = await aCourse(manager.id);
		const to = { email: '', courseId, role: 'look' as const, keeper: false };
		const late = await invite(pool, to, manager.id);
		await run(pool, 'UPDATE invitations SET expires = DATE_SUB(NOW(3), INTERVAL 1 SECOND) WHERE course_id = ?', [
			courseId
		]);
		expect(await join(pool, late, joiningAs('late@gullhaven.example'))).toBe('gone');
		const token = await invite(pool, to, manager.id);
		expect(await join(pool, token, joiningAs(manager.email))).toBe('known');
		const [waiting] = await openInvitations(pool, courseId);
		await withdraw(pool, courseId + 1, waiting!.id);
		expect(await invitationOf(pool, token), 'another course takes nothing back').toBeDefined();
		await withdraw(pool, courseId, waiting!.id);
		expect(await invitationOf(pool, token)).toBeUndefined();
	});
	it('never makes a role less than it is', async () => {
		const manager = await somebody();
		const courseId = await aCourse(manager.id);
		const token = await invite(pool, { email: '', courseId, role: 'look', keeper: false }, manager.id);
		await accept(pool, token, manager.id);
		expect((await courseFor(pool, manager.id, courseId))?.role).toBe('manage');
		const looker = await somebody();
		await setRole(pool, courseId, looker.id, 'look');
		await accept(pool, await invite(pool, { email: '', courseId, role: 'work', keeper: false }, manager.id), looker.id);
		expect((await courseFor(pool, looker.id, courseId))?.role).toBe('work');
	});
	it('for a new password lets its person in alone, and ends what was open', async () => {
		const [keeper, person] = [await somebody(true), await somebody()];
		const session = await beginSession(pool, person.id, 1, '');
		const token = await inviteAgain(pool, person.id, keeper.id);
		expect(await join(pool, token, joiningAs('other@gullhaven.example'))).toBe('gone');
		expect(await accept(pool, token, keeper.id)).toBe('gone');
		expect(await choosePassword(pool, token, password)).toEqual({ personId: person.id });
		expect(await personOf(pool, session)).toBeNull();
		expect(await signIn(pool, { email: person.email, password, address: '192.0.2.77' }, 1)).toHaveProperty('token');
		expect(await choosePassword(pool, token, 'another-long-one')).toBe('gone');
	});
	it('for the first person is made only where nobody is', async () => {
		await somebody();
		expect(await inviteFirst(pool)).toBeNull();
	});
});

describe('a person', () => {
	it('sees where they are signed in, and signs out there', async () => {
		const { id } = await somebody();
		const here = await beginSession(
			pool,
			id,
			1,
			'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
		);
		const there = await beginSession(
			pool,
			id,
			1,
			'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) Version/18.0 Safari/604.1'
		);
		const devices = await devicesOf(pool, id, here);
		expect(devices.map(({ device, here: own }) => [device, own])).toEqual([
			['Firefox on Linux', true],
			['Safari on iOS', false]
		]);
		const { id: other } = await somebody();
		expect(await signOutDevice(pool, other, devices[1]!.id, here), 'of another person').toBe(0);
		expect(await signOutDevice(pool, id, devices[1]!.id, here)).toBe(1);
		expect(await personOf(pool, there)).toBeNull();
		expect(await personOf(pool, here)).not.toBeNull();
		expect(deviceName('')).toBe('A browser');
	});
	it('changes their password with the old one, and is signed out everywhere else', async () => {
		const { id } = await somebody();
		const token = await inviteAgain(pool, id, id);
		await choosePassword(pool, token, password);
		const [here, there] = [await beginSession(pool, id, 1, ''), await beginSession(pool, id, 1, '')];
		expect(await changePassword(pool, id, 'wrong-old-one', 'a-new-long-one', here)).toBe(false);
		expect(await changePassword(pool, id, password, 'a-new-long-one', here)).toBe(true);
		expect(await personOf(pool, there)).toBeNull();
		expect((await personOf(pool, here))?.id).toBe(id);
	});
	it('leaves without their deeds leaving the ledger, and somebody always keeps the installation', async () => {
		const [keeper, person] = [await somebody(true), await somebody()];
		const courseId = await aCourse(person.id);
		expect(await othersManage(pool, courseId, person.id), 'a keeper can').toBe(true);
		expect(await leave(pool, person.id)).toBe(true);
		expect((await deedsOf(pool, courseId))[0]).toMatchObject({ person: 'Ada Fenn', deed: 'made the course' });
		expect(await membersOf(pool, courseId)).toEqual([]);
		expect(await signIn(pool, { email: person.email, password: 'x', address: '192.0.2.78' }, 1)).toHaveProperty(
			'refused'
		);
		expect((await everybody(pool)).find(({ id }) => id === person.id)?.gone).not.toBeNull();
		await run(pool, 'UPDATE people SET keeper = 0 WHERE id <> ?', [keeper.id]);
		expect(await leave(pool, keeper.id)).toBe(false);
		expect(await setKeeper(pool, keeper.id, false)).toBe(false);
		expect((await row<{ keeper: number }>(pool, 'SELECT keeper FROM people WHERE id = ?', [keeper.id]))!.keeper).toBe(
			1
		);
	});
	it('is taken out of a course and told which role they had', async () => {
		const [manager, worker] = [await somebody(), await somebody()];
		const id = await aCourse(manager.id);
		await setRole(pool, id, worker.id, 'work');
		expect(await removeMember(pool, id, worker.id)).toBe('work');
		expect(await courseFor(pool, worker.id, id)).toBeUndefined();
	});
});
