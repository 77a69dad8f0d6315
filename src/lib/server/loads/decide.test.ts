import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { plainText } from '$core/markup/text';
import type { Question } from '$core/kinds';
import { banksOf, storedQuestion } from '../banks/banks';
import { allListed, allRows, wholeBank } from '../test-support/world';
import { categoryTree } from '../banks/tree';
import { row, rows, run } from '../db/pool';
import { mend } from '../snags/mend';
import { bankXml, decide as decision, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { leaveOut, setAsideAgain, takeAside } from './aside';
import { asideByLoad, asideChosen, asideLoads, asidePage } from './aside-list';
import { decide, editStaged, keepDecision, mendStaged, reviewState } from './decide';
import { receipt } from './receipt';
import { Refused } from './refused';
import { stagedQuestion } from './review';
import { plannedQuestions } from './planned';
import { ruleSets, rulesOf, saveRules } from './rules';
import { takeIn } from './take-in';
import { undo, undoPreview } from './undo';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
beforeEach(async () => {
	course = await makeCourse(pool);
});

const gm = 'What does the metacentric height of a small vessel tell her master before she sails?';
const first = {
	'bank.xml': bankXml({
		Stability: [
			item('s1', gm, ['How stiff she is', 'How deep she lies']),
			item('s2', 'What lowers the centre of gravity?', ['Ballast', 'Deck cargo'])
		]
	})
};
const load = (files: Parameters<typeof loadPackage>[2]) => loadPackage(pool, course, files);
const take = (id: number, more: Parameters<typeof decision>[0] = {}) =>
	takeIn(pool, course.courseId, id, course.personId, decision(more));
const staged = (id: number) => allListed(pool, course.courseId, id);
async function taken(): Promise<number> {
	await take(await load(first));
	return (await banksOf(pool, course.courseId))[0]!.id;
}
const inBank = async (bankId: number) =>
	(await allRows(pool, course.courseId, wholeBank(bankId))).map((one) => one.title);
const again = {
	'bank.xml': bankXml({
		Stability: [
			item('s1', gm.replace('sails', 'leaves'), ['How stiff she is', 'How deep she lies']),
			item('s2', 'What lowers the centre of gravity?', ['Ballast', 'Deck cargo']),
			item('x1', `Now: ${gm}`, ['How stiff she is', 'How deep she lies']),
			item('x2', 'Which knot makes a loop?', ['Bowline', 'Sheet bend'])
		]
	})
};

describe('a load held against its course', () => {
	it('tells what is new, the same, changed, and nearly the same, and how like it is', async () => {
		await taken();
		const found = await staged(await load(again));
		expect(found.map((one) => [one.title, one.match])).toEqual([
			['s1', 'changed'],
			['s2', 'same'],
			['x1', 'near'],
			['x2', 'new']
		]);
		expect(found[0]!.likeness).toBeGreaterThan(80);
		expect(found[1]!.likeness).toBe(100);
		expect(found[2]!.likeness).toBeGreaterThan(75);
	});
	it('shows the counterpart', async () => {
		await taken();
		const id = await load(again);
		const [changed] = await staged(id);
		const full = await stagedQuestion(pool, course.courseId, id, changed!.id);
		expect(plainText(full!.against!.question.stem)).toBe(gm);
	});
	it('is not taken for a change where only the identifier is the same', async () => {
		await taken();
		const other = item('s1', 'Which flag means that a diver is down?', ['A', 'B']).replace(
			'title="s1"',
			'title="Divers"'
		);
		expect((await staged(await load({ 'b.xml': bankXml({ '': [other] }) }))).map((one) => one.match)).toEqual(['new']);
	});
});

describe('the rules for what is there already', () => {
	it('skip the same, put the changed in the place of the old, and keep the old as a version', async () => {
		const bankId = await taken();
		const id = await load(again);
		const plan = await take(id, { bankId, same: 'skip', changed: 'replace', near: 'skip' });
		expect(plan).toMatchObject({ found: 4, taken: 1, replaced: 1, skipped: 2, aside: 0, left: 0 });
		expect((await inBank(bankId)).sort()).toEqual(['s1', 's2', 'x2']);
		const changed = (
			await rows<{ id: number; version: number; document: string }>(
				pool,
				'SELECT id, version, document FROM questions WHERE bank_id = ? AND title = ?',
				[bankId, 's1']
			)
		)[0]!;
		expect(changed.version).toBe(2);
		expect(changed.document).toContain('leaves');
		expect(
			await row(pool, 'SELECT version, title, load_id FROM question_versions WHERE question_id = ?', [changed.id])
		).toEqual({ version: 1, title: 's1', load_id: id });
		const shown = (await storedQuestion(pool, course.courseId, changed.id))!;
		expect(shown.history).toMatchObject([{ version: 1, by: 'package.zip' }]);
		expect(plainText(shown.history[0]!.question.stem)).toBe(gm);
		const lines = await receipt(pool, id);
		expect(lines.categories).toMatchObject([{ found: 4, taken: 1, replaced: 1, skipped: 2 }]);
		expect(lines.kinds).toMatchObject([{ key: 'multiple-choice', found: 4 }]);
	});
	it('give back what was there when the load is taken back', async () => {
		const bankId = await taken();
		const before = await rows(
			pool,
			'SELECT id, title, document, fingerprint FROM questions WHERE bank_id = ? ORDER BY id',
			[bankId]
		);
		const id = await load(again);
		await take(id, { bankId, same: 'skip', changed: 'replace', near: 'beside' });
		expect(await undo(pool, course.courseId, id, course.personId)).toBe(3);
		expect(
			await rows(pool, 'SELECT id, title, document, fingerprint FROM questions WHERE bank_id = ? ORDER BY id', [bankId])
		).toEqual(before);
		expect(await rows(pool, 'SELECT id FROM question_versions WHERE load_id = ?', [id])).toEqual([]);
	});
	it('leave the history to what was changed since, where that is kept', async () => {
		const bankId = await taken();
		const id = await load(again);
		await take(id, { bankId, same: 'skip', changed: 'replace', near: 'skip' });
		const [changed] = await rows<{ id: number }>(pool, 'SELECT id FROM questions WHERE bank_id = ? AND version = 2', [
			bankId
		]);
		await run(pool, 'UPDATE questions SET version = version + 1 WHERE id = ?', [changed!.id]);
		await undo(pool, course.courseId, id, course.personId, true);
		const kept = (await storedQuestion(pool, course.courseId, changed!.id))!;
		expect(kept.question.stem).toContain('leaves');
		expect(kept.history.map((one) => plainText(one.question.stem))).toEqual([gm]);
	});
	it('can be another for one question alone', async () => {
		const bankId = await taken();
		const id = await load(again);
		const same = (await staged(id)).find((one) => one.match === 'same')!;
		await decide(pool, course.courseId, id, course.personId, { ids: [same.id] }, { do: 'match', rule: 'beside' });
		expect(await take(id, { bankId, same: 'skip' })).toMatchObject({ taken: 4, skipped: 0 });
	});
});

describe('what the rules of taking in change', () => {
	it('is written into every question: points, tags and shuffle', async () => {
		const id = await load(first);
		await take(id, { points: 4, tags: ['spring'], shuffle: 'off' });
		const [bank] = await banksOf(pool, course.courseId);
		const found = await rows<{ points: number; document: string }>(
			pool,
			'SELECT points, document FROM questions WHERE bank_id = ?',
			[bank!.id]
		);
		expect(found).toHaveLength(2);
		for (const one of found) {
			expect(one.points).toBe(4);
			expect(JSON.parse(one.document)).toMatchObject({ points: 4, tags: ['spring'], shuffle: false });
		}
	});
	it('is remembered by the course, and can be saved by name', async () => {
		await take(await load(first), {
			points: 4,
			shuffle: 'on',
			tags: ['spring'],
			errors: 'each',
			creditSteps: [100, 0]
		});
		// what changes questions is never inherited
		expect(await rulesOf(pool, course.courseId)).toMatchObject({
			points: null,
			shuffle: 'keep',
			tags: [],
			errors: 'each',
			creditSteps: [100, 0]
		});
		await saveRules(pool, course.courseId, 'Spring', { ...(await rulesOf(pool, course.courseId)), points: 2 });
		expect(await ruleSets(pool, course.courseId)).toMatchObject([{ name: 'Spring', rules: { points: 2 } }]);
	});
	it('is where a category lands, with what is under it', async () => {
		const bankId = await taken();
		const id = await load({
			'b.xml': bankXml({ Trim: [item('t1', 'Which trim is by the stern?', ['Aft', 'Forward'])] })
		});
		await take(id, { bankId, landings: { Trim: 'Stability\nTrim and list' } });
		expect((await categoryTree(pool, bankId)).map((node) => node.key)).toEqual([
			'Stability',
			'Stability\nTrim and list'
		]);
	});
});

describe('decisions on a load', () => {
	it('are seen by everybody, with who made them', async () => {
		const id = await load(first);
		const before = (await reviewState(pool, id))!;
		await keepDecision(pool, id, course.personId, decision({ bankName: 'Mine' }));
		const [one] = await staged(id);
		await decide(pool, course.courseId, id, course.personId, { ids: [one!.id] }, { do: 'choose', choice: 'leave' });
		await decide(pool, course.courseId, id, course.personId, { ids: [one!.id] }, { do: 'place', category: 'Other' });
		await decide(pool, course.courseId, id, course.personId, { ids: [one!.id] }, { do: 'verify', verified: true });
		const after = (await reviewState(pool, id))!;
		expect(after.version).toBe(before.version + 4);
		expect(after).toMatchObject({ by: 'Ines Carrow', decision: { bankName: 'Mine' } });
		expect((await staged(id))[0]).toMatchObject({
			choice: 'leave',
			category: 'Other',
			foundIn: 'Stability',
			verified: true
		});
		expect(await take(id)).toMatchObject({ taken: 1, left: 1 });
	});
	it('are refused once the load is in the course', async () => {
		const id = await load(first);
		const [one] = await staged(id);
		await take(id);
		await expect(
			decide(pool, course.courseId, id, course.personId, { ids: [one!.id] }, { do: 'choose', choice: 'leave' })
		).rejects.toBeInstanceOf(Refused);
		await expect(keepDecision(pool, id, course.personId, decision())).rejects.toBeInstanceOf(Refused);
	});
	it('carry into the bank that a language model wrote it', async () => {
		const machine = async (writtenBy: 'machine' | 'unsaid') => {
			const id = await load(first);
			await take(id, { writtenBy, same: 'beside', bankName: writtenBy });
			return rows(pool, 'SELECT DISTINCT machine FROM questions WHERE load_id = ?', [id]);
		};
		expect(await machine('machine')).toEqual([{ machine: 1 }]);
		expect(await machine('unsaid')).toEqual([{ machine: 0 }]);
	});
	it('carry the verification into the bank', async () => {
		const id = await load(first);
		const [one] = await staged(id);
		await decide(pool, course.courseId, id, course.personId, { ids: [one!.id] }, { do: 'verify', verified: true });
		await take(id);
		const [kept] = await rows<{ id: number }>(pool, 'SELECT id FROM questions WHERE load_id = ? ORDER BY id', [id]);
		expect((await storedQuestion(pool, course.courseId, kept!.id))!.verified).toMatchObject({ by: 'Ines Carrow' });
		expect(await rows(pool, 'SELECT title, verified_by FROM questions WHERE load_id = ? ORDER BY id', [id])).toEqual([
			{ title: 's1', verified_by: course.personId },
			{ title: 's2', verified_by: null }
		]);
	});
});

describe('a load put right before it is taken in', () => {
	const troubled = {
		'b.xml': bankXml({
			'': [
				item('e1', 'The chart shows &amp;quot;Wk&amp;quot;. What is it?', ['A wreck', 'A tank']),
				item('k1', 'Which side is port?', ['Left', 'Right'], null)
			]
		})
	};
	it('is mended in bulk', async () => {
		const id = await load(troubled);
		expect(await mendStaged(pool, course.courseId, id, course.personId, 'escaped-twice', null)).toEqual({
			mended: 1,
			left: 0
		});
		const [one] = await staged(id);
		expect(one).toMatchObject({ marks: [], edited: true });
		expect(plainText((await stagedQuestion(pool, course.courseId, id, one!.id))!.question.stem)).toBe(
			'The chart shows "Wk". What is it?'
		);
	});
	describe('where questions are held against one another', () => {
		const twins = {
			'b.xml': bankXml({
				Lights: [
					item('a', 'Which light is red?', ['Port', 'Starboard']).replace('title="a"', 'title="same"'),
					item('b', 'Which light is green?', ['Starboard', 'Port']).replace('title="b"', 'title="same"'),
					item('own', 'Which light is white?', ['Stern', 'Port'])
				]
			})
		};
		const rulesIn = async (id: number) => (await staged(id)).map(({ marks }) => marks.map(({ rule }) => rule));
		it('is mended in bulk, and what was found among them is found no more', async () => {
			const id = await load(twins);
			expect((await rulesIn(id)).slice(0, 2)).toEqual([['same-title'], ['same-title']]);
			const done = await mendStaged(pool, course.courseId, id, course.personId, 'same-title', null);
			expect(done.mended).toBeGreaterThan(0);
			expect(await rulesIn(id)).toEqual([[], [], []]);
			expect(new Set((await staged(id)).map(({ title }) => title)).size).toBe(3);
		});
		it('is held against the others again once one is edited', async () => {
			const id = await load(twins);
			const [first, , third] = await staged(id);
			const edit = async (stagedId: number, title: string) => {
				const { question, version } = (await stagedQuestion(pool, course.courseId, id, stagedId))!;
				return editStaged(pool, course.courseId, id, course.personId, stagedId, version, { ...question, title });
			};
			expect(await edit(first!.id, 'red light')).toBe('kept');
			expect(await rulesIn(id)).toEqual([[], [], []]);
			expect(await edit(third!.id, 'red light')).toBe('kept');
			expect(await rulesIn(id)).toEqual([['same-title'], [], ['same-title']]);
		});
	});
	it('is edited by hand, with its findings found anew, and not over what somebody else has written', async () => {
		const id = await load(troubled);
		const broken = (await staged(id)).find((one) => one.broken)!;
		const full = (await stagedQuestion(pool, course.courseId, id, broken.id))!;
		const question = structuredClone(full.question) as Extract<Question, { options: unknown }>;
		question.options[0]!.credit = 1;
		question.stem = '<p>Which side is <script>alert(1)</script>port?</p>';
		const edit = (version: number) =>
			editStaged(pool, course.courseId, id, course.personId, broken.id, version, question);
		expect(await edit(full.version)).toBe('kept');
		expect(await edit(full.version)).toBe('changed');
		const after = (await stagedQuestion(pool, course.courseId, id, broken.id))!;
		expect(after.question.stem).toBe('Which side is port?');
		expect((await staged(id)).find((one) => one.id === broken.id)).toMatchObject({ broken: false });
		await expect(
			editStaged(pool, course.courseId, id, course.personId, broken.id, after.version, { kind: 'x' })
		).rejects.toThrow();
	});
});

describe('what is set aside', () => {
	const files = {
		'b.xml': bankXml({
			Lights: [
				item('k1', 'Which side is green?', ['Starboard', 'Port'], null),
				item('k2', 'Which is red?', ['Port', 'Starboard'])
			]
		})
	};
	const aside = async () => (await asidePage(pool, course.courseId, { loadId: null, from: 0 })).rows;
	it('is listed with its reason, put right, and taken in later where the load went', async () => {
		const id = await load(files);
		await take(id, { points: 2 });
		const [first] = await aside();
		expect(first).toMatchObject({
			title: 'k1',
			fileName: 'package.zip',
			broken: true,
			why: expect.stringContaining('No option is marked')
		});
		const chosen = asideChosen.cast({ ids: [first!.id] });
		await expect(takeAside(pool, course, chosen)).rejects.toThrow('still broken');
		const full = (await stagedQuestion(pool, course.courseId, id, first!.id))!;
		const question = structuredClone(full.question) as Extract<Question, { options: unknown }>;
		question.options[0]!.credit = 1;
		await editStaged(pool, course.courseId, id, course.personId, first!.id, full.version, question);
		expect(await takeAside(pool, course, chosen)).toBe(1);
		expect(await takeAside(pool, course, chosen)).toBe(0);
		expect(await aside()).toEqual([]);
		const [bank] = await banksOf(pool, course.courseId);
		expect((await inBank(bank!.id)).sort()).toEqual(['k1', 'k2']);
		expect(await rows(pool, 'SELECT points FROM questions WHERE bank_id = ?', [bank!.id])).toEqual([
			{ points: 2 },
			{ points: 2 }
		]);
		expect((await receipt(pool, id)).categories).toMatchObject([{ found: 2, taken: 2, aside: 0 }]);
		expect(await undo(pool, course.courseId, id, course.personId)).toBe(2);
	});
	it('leaves only where somebody says so, and comes back', async () => {
		const id = await load(files);
		await take(id);
		const [first] = await aside();
		const left = await leaveOut(pool, course, asideChosen.cast({ ids: [first!.id] }));
		expect(left).toEqual({ questions: 1, ids: [first!.id] });
		expect(await aside()).toEqual([]);
		expect((await setAsideAgain(pool, course, left.ids)).questions).toBe(1);
		expect((await setAsideAgain(pool, course, left.ids)).questions).toBe(0);
		expect(await aside()).toHaveLength(1);
	});
	it('is counted by load, and chosen as all of a load but for some', async () => {
		const loads = [
			await load(files),
			await load({
				'c.xml': bankXml({
					Buoys: [item('k3', 'Which top mark?', ['Ball', 'Cone'], null), item('k4', 'Which is a cone?', ['Up', 'Down'])]
				})
			})
		];
		for (const [at, id] of loads.entries()) await take(id, { bankName: `Bank ${at}` });
		expect(await asideLoads(pool, course.courseId)).toMatchObject(
			[...loads].reverse().map((id) => ({ id, aside: 1, broken: 1 }))
		);
		const listed = await aside();
		expect(listed.map(({ title }) => title)).toEqual(['k3', 'k1']);
		const chosen = async (which: object) => [...(await asideByLoad(pool, course.courseId, asideChosen.cast(which)))];
		expect(await chosen({})).toEqual([...listed].reverse().map(({ id, loadId }) => [loadId, [id]]));
		expect(await chosen({ load: loads[1] })).toEqual([[loads[1], [listed[0]!.id]]]);
		expect(await chosen({ except: [listed[0]!.id] })).toEqual([[loads[0], [listed[1]!.id]]]);
		expect(await chosen({ ids: [] })).toEqual([]);
		const { courseId: other } = await makeCourse(pool);
		expect(await asideByLoad(pool, other, asideChosen.cast({ ids: listed.map(({ id }) => id) }))).toEqual(new Map());
		// nothing of either is taken while one of them is broken
		await expect(takeAside(pool, course, asideChosen.cast({}))).rejects.toThrow('still broken');
		expect(await aside()).toHaveLength(2);
	});
});

describe('taking a load back days later', () => {
	it('lists what was changed since, and keeps it where that is wanted', async () => {
		const id = await load({
			'b.xml': bankXml({
				'': [item('e1', 'Shows &amp;quot;Wk&amp;quot;?', ['Yes', 'No']), item('e2', 'Two?', ['a', 'b'])]
			})
		});
		await take(id);
		await mend(pool, course.courseId, course.personId, 'escaped-twice', null, null);
		const preview = await undoPreview(pool, id);
		expect(preview).toMatchObject({ questions: 2, changed: [{ title: 'e1' }] });
		expect(await undo(pool, course.courseId, id, course.personId, true)).toBe(1);
		const [bank] = await banksOf(pool, course.courseId);
		expect(await inBank(bank!.id)).toEqual(['e1']);
		expect(await storedQuestion(pool, course.courseId, preview.changed[0]!.id)).toMatchObject({ from: null });
		expect((await plannedQuestions(pool, course.courseId, id, decision())).every((one) => !one.broken)).toBe(true);
	});
});

describe('twenty loads at once by five people', () => {
	it('stay correct: every question once, and every receipt adds up', async () => {
		const people = [course.personId];
		for (let n = 1; n < 5; n += 1) people.push((await makeCourse(pool)).personId);
		const ids = await Promise.all(
			Array.from({ length: 20 }, (_, n) =>
				load({
					'b.xml': bankXml({
						Shared: [
							item(`q${n}a`, `What is sign ${n} of the first row?`, ['This', 'That']),
							item(`q${n}b`, `Which lamp ${n} burns?`, ['One', 'Two'], null)
						]
					})
				})
			)
		);
		const bankId = (await run(pool, 'INSERT INTO banks (course_id, name) VALUES (?, ?)', [course.courseId, 'All'])).id;
		await Promise.all(
			ids.map((id, n) =>
				takeIn(pool, course.courseId, id, people[n % 5]!, decision({ bankId, near: 'beside', changed: 'beside' }))
			)
		);
		expect((await inBank(bankId)).sort()).toEqual(ids.map((_, n) => `q${n}a`).sort());
		expect((await categoryTree(pool, bankId)).map((node) => [node.key, node.own])).toEqual([['Shared', 20]]);
		for (const id of ids)
			expect((await receipt(pool, id)).categories).toMatchObject([{ found: 2, taken: 1, aside: 1 }]);
	});
});
