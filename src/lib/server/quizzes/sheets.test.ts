import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { drawingRule } from '$core/draws/sheets/rule';
import { plainConditions, plainRules, plainSettings, type KeptQuota } from '$lib/forms/quiz';
import { banksOf } from '../banks/banks';
import { placeFindings } from '../checks/places';
import { copyCourse } from '../courses/copy';
import { rows, run } from '../db/pool';
import { Refused } from '../loads/refused';
import { takeIn } from '../loads/take-in';
import { bankXml, decide, item, loadPackage, makeCourse, testPool, makeQuiz } from '../test-support/world';
import { alikePairs } from './alike';
import { boundIn } from './bound';
import { findLost, rememberQuestions } from './lost';
import { lookIntoSheet } from './look';
import { blankPart } from './make';
import { poolPage } from './pool-page';
import { bankTrees } from './pools';
import { quizOf } from './quiz';
import { quizzesOf } from './quizzes';
import { saveQuiz, type EditedPart, type EditedQuiz } from './save';
import { sittingsOf } from './sittings';
import { versionOf, versionsOf } from './versions';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let ids = new Map<string, number>();
let places = new Map<string, number>();
let quizId = 0;

const id = (title: string) => ids.get(title)!;
const part = (more: Partial<EditedPart>) => blankPart('Part', more);
const quota = (more: Partial<KeptQuota> & Pick<KeptQuota, 'by' | 'values'>): KeptQuota => ({
	spread: null,
	least: null,
	most: null,
	...more
});
const quiz = (parts: EditedPart[], more: Partial<EditedQuiz> = {}): EditedQuiz => ({
	title: 'Watch',
	state: 'draft',
	version: 1,
	parts,
	...more
});
const figures = { figures: true, attempts: null };
const titlesOf = (keys: readonly number[]) =>
	keys.map((key) => [...ids].find(([, value]) => value === key)![0]).sort((a, b) => a.localeCompare(b));

beforeEach(async () => {
	course = await makeCourse(pool);
	const asked = (title: string) => item(title, `What does ${title} mean for the watch?`, [`It is ${title}`, 'Nothing']);
	await takeIn(
		pool,
		course.courseId,
		await loadPackage(pool, course, {
			'bank.xml': bankXml({ Lights: ['l1', 'l2', 'l3', 'l4'].map(asked), Sounds: ['s1', 's2'].map(asked) })
		}),
		course.personId,
		decide({ bankName: 'Rules of the road' })
	);
	const found = await rows<{ id: number; title: string }>(pool, 'SELECT id, title FROM questions WHERE course_id = ?', [
		course.courseId
	]);
	ids = new Map(found.map((question) => [question.title, question.id]));
	await run(pool, 'UPDATE questions SET points = 1 WHERE course_id = ?', [course.courseId]);
	const tree = await bankTrees(pool, course.courseId);
	places = new Map(tree.map((node) => [node.name, node.id]));
	quizId = await makeQuiz(pool, course.courseId, 'Watch');
});
const place = (name: string) => places.get(name)!;

describe('the sheet of a quiz', () => {
	it('keeps all that it says, and fills in what an earlier edition did not know', async () => {
		const said = quiz(
			[
				part({
					categories: [place('Lights'), place('Rules of the road')],
					draw: 2,
					order: 'easy first',
					conditions: { ...plainConditions(), kinds: ['multiple-choice'], difficulty: [0.2, 0.8], since: '2020-01-01' },
					include: [id('s1')],
					exclude: [id('l4')],
					quotas: [quota({ by: 'category', values: [{ category: place('Lights') }], least: 1, most: 2 })]
				})
			],
			{
				rules: {
					...plainRules(),
					never: [[id('l1'), id('l2')]],
					together: [[id('l3'), id('s2')]],
					partsShuffled: true
				},
				settings: { ...plainSettings(), minutes: 45, opens: '2027-03-02T08:00', gradeName: 'Watchkeeping' }
			}
		);
		expect(await saveQuiz(pool, course.courseId, quizId, said, course.personId)).toBe(2);
		const kept = (await quizOf(pool, course.courseId, quizId))!;
		expect(kept).toMatchObject({ rules: said.rules, settings: said.settings, drawingRule });
		const [only] = kept.parts;
		const { categories, ...rest } = said.parts[0]!;
		expect(only).toMatchObject(rest);
		expect([...only!.categories].sort()).toEqual([...categories].sort());
		await run(pool, "UPDATE quizzes SET rules = '{}', settings = '{}' WHERE id = ?", [quizId]);
		await run(pool, "UPDATE quiz_parts SET conditions = '{}', quotas = '[]' WHERE quiz_id = ?", [quizId]);
		const older = (await quizOf(pool, course.courseId, quizId))!;
		expect(older).toMatchObject({ rules: plainRules(), settings: plainSettings() });
		expect(older.parts[0]).toMatchObject({ conditions: plainConditions(), quotas: [] });
	});
	it('keeps each version that another person, or the same much later, has changed, and gives it back', async () => {
		const save = (title: string, version: number, personId: number) =>
			saveQuiz(pool, course.courseId, quizId, quiz([part({ title })], { version }), personId);
		await save('First', 1, course.personId);
		await save('Second', 2, course.personId);
		const other = (await makeCourse(pool)).personId;
		await save('Third', 3, other);
		const versions = await versionsOf(pool, course.courseId, quizId);
		expect(versions.map(({ parts }) => parts)).toEqual([['Second'], []]);
		expect(await versionOf(pool, course.courseId, quizId, versions[0]!.id)).toMatchObject({
			parts: [{ title: 'Second' }]
		});
		// whoever saves what is not the latest is told, and changes nothing
		expect(await save('Late', 2, course.personId)).toBeNull();
		expect((await quizOf(pool, course.courseId, quizId))!.parts[0]!.title).toBe('Third');
		// what the same person does much later is a version of its own
		await run(pool, 'UPDATE quiz_versions SET changed = NOW(3) - INTERVAL 1 HOUR WHERE quiz_id = ?', [quizId]);
		await save('Fourth', 4, other);
		expect((await versionsOf(pool, course.courseId, quizId)).map(({ parts }) => parts)).toEqual([
			['Third'],
			['Second'],
			[]
		]);
	});
});

describe('what a part draws from', () => {
	const poolTitles = async (more: Partial<EditedPart>) => {
		const given = await poolPage(
			pool,
			course.courseId,
			part({ categories: [place('Rules of the road')], ...more }),
			new Map(),
			{
				from: 0,
				sort: 'order'
			}
		);
		return titlesOf(given.rows.map((question) => question.id));
	};
	it('is what fits all that is asked of it', async () => {
		const set = (titles: string[], sql: string) =>
			run(pool, `UPDATE questions SET ${sql} WHERE id IN (?)`, [titles.map(id)]);
		await set(['l1', 'l2'], "difficulty = '0.3'");
		await set(['l3'], "difficulty = '0,7'");
		await set(['l4'], "difficulty = 'hard'");
		await set(['l1', 's1'], `verified = NOW(), verified_by = ${course.personId}`);
		await set(['s2'], `disputed = 'Is it?', disputed_by = ${course.personId}`);
		await set(['s1'], "created = '2020-05-01'");
		await run(pool, 'INSERT INTO question_tags (question_id, tag) VALUES ?', [
			[
				[id('l1'), 'night'],
				[id('l1'), 'oral'],
				[id('l2'), 'night'],
				[id('s1'), 'oral']
			]
		]);
		await run(
			pool,
			"INSERT INTO snags (course_id, question_id, rule, severity, message, words) VALUES (?, ?, 'no-key', 'broken', 'x', '[]')",
			[course.courseId, id('l2')]
		);
		const asking = (more: object) => poolTitles({ conditions: { ...plainConditions(), ...more } });
		const tags = (more: object) => asking({ tags: { any: [], all: [], none: [], ...more } });
		const all = ['l1', 'l2', 'l3', 'l4', 's1', 's2'];
		expect(await asking({})).toEqual(all);
		expect(await asking({ difficulty: [0.3, 0.7] })).toEqual(['l1', 'l2', 'l3']);
		expect(await asking({ difficulty: [0.31, 0.69] })).toEqual([]);
		expect(await asking({ key: 'verified' })).toEqual(['l1', 's1']);
		expect(await asking({ key: 'not disputed' })).toEqual(['l1', 'l2', 'l3', 'l4', 's1']);
		expect(await asking({ unbroken: true })).toEqual(['l1', 'l3', 'l4', 's1', 's2']);
		expect(await asking({ since: '2020-05-02' })).toEqual(['l1', 'l2', 'l3', 'l4', 's2']);
		expect(await asking({ since: '2020-05-01' })).toEqual(all);
		expect(await asking({ kinds: ['essay'] })).toEqual([]);
		expect(await tags({ any: ['night', 'oral'] })).toEqual(['l1', 'l2', 's1']);
		expect(await tags({ all: ['night', 'oral'] })).toEqual(['l1']);
		expect(await tags({ none: ['night'] })).toEqual(['l3', 'l4', 's1', 's2']);
		expect(await asking({ key: 'verified', tags: { any: ['night'], all: [], none: [] } })).toEqual(['l1']);
	});
	it('has what was taken in by hand, and not what was left out, which wins', async () => {
		const lights = { categories: [place('Lights')] };
		expect(await poolTitles({ ...lights, include: [id('s1')] })).toEqual(['l1', 'l2', 'l3', 'l4', 's1']);
		expect(await poolTitles({ ...lights, include: [id('s1'), id('l1')], exclude: [id('s1'), id('l2')] })).toEqual([
			'l1',
			'l3',
			'l4'
		]);
		expect(await poolTitles({ categories: [], include: [id('s2')] })).toEqual(['s2']);
	});
	it('remembers what was taken in and is gone, until it is back; what was left out is forgotten', async () => {
		await saveQuiz(
			pool,
			course.courseId,
			quizId,
			quiz([part({ categories: [place('Sounds')], include: [id('l1')], exclude: [id('s1')] })])
		);
		const connection = await pool.getConnection();
		await rememberQuestions(connection, 'q.id IN (?)', [[id('l1'), id('s1')]]);
		await run(pool, 'DELETE FROM quiz_part_questions WHERE question_id IN (?)', [[id('l1'), id('s1')]]);
		expect((await quizOf(pool, course.courseId, quizId))!.parts[0]).toMatchObject({
			include: [],
			exclude: [],
			lost: [{ kind: 'question', name: 'l1' }]
		});
		await findLost(connection, course.courseId);
		connection.release();
		expect((await quizOf(pool, course.courseId, quizId))!.parts[0]).toMatchObject({
			questions: [],
			include: [id('l1')],
			lost: []
		});
	});
});

describe('what students get of a sheet', () => {
	const look = (sheet: EditedQuiz) => lookIntoSheet(pool, course.courseId, sheet, figures);
	it('is counted exactly: sittings, chances, totals, what two share', async () => {
		await run(pool, 'UPDATE questions SET points = 3 WHERE id = ?', [id('l4')]);
		const given = await look(quiz([part({ categories: [place('Lights')], draw: 2 }), part({ questions: [id('s1')] })]));
		expect(given).toMatchObject({
			state: 'fillable',
			parts: [
				{ holds: 4, draws: 2, points: [2, 4], kinds: [{ name: 'multiple-choice', holds: 4 }] },
				{ holds: 1, draws: 1, points: [1, 1] }
			],
			figures: { isExact: true, sittings: '6', points: { least: 3, most: 5, equal: false }, never: 0 }
		});
		const { chances, figures: told } = given;
		expect(Object.fromEntries(chances.ids.map((key, at) => [titlesOf([key])[0], chances.chances[at]]))).toEqual({
			l1: 0.5,
			l2: 0.5,
			l3: 0.5,
			l4: 0.5,
			s1: 1
		});
		// two students share s1, and of the four lights none (1 of 6), one (4 of 6) or two (1 of 6)
		expect(told!.overlap.atLeast.map((chance) => Math.round(chance * 6))).toEqual([6, 6, 5, 1]);
		expect(told!.categories.map(({ path, holds }) => [path.join('/'), holds])).toEqual([
			['Rules of the road', 5],
			['Rules of the road/Lights', 4],
			['Rules of the road/Sounds', 1]
		]);
		expect(told!.attempts[0]).toMatchObject({ after: 1, again: 4 * 0.25 + 1, anyAgain: 1 });
		expect(told!.attempts[0]!.seen).toBeCloseTo((4 * 0.5 + 1) / 5);
	});
	it('tells of quotas what there is and what each sitting has, and what can never come', async () => {
		const both = [{ category: place('Lights') }, { category: place('Sounds') }];
		const given = await look(
			quiz([
				part({
					categories: [place('Rules of the road')],
					draw: 4,
					quotas: [quota({ by: 'category', values: both, spread: 'equal' })]
				})
			])
		);
		expect(given.parts[0]!.quotas).toEqual([
			[
				{ holds: 4, least: 2, most: 2 },
				{ holds: 2, least: 2, most: 2 }
			]
		]);
		expect(given.figures).toMatchObject({ sittings: '6' });
		const none = await look(
			quiz([
				part({
					categories: [place('Rules of the road')],
					draw: 2,
					quotas: [quota({ by: 'category', values: [both[1]!], least: 2 })]
				})
			])
		);
		expect(none.figures).toMatchObject({ never: 4, sittings: '1' });
	});
	it('says in words and with titles why it cannot be filled, and of which parts', async () => {
		const lacking = await look(
			quiz([
				part({ title: 'Warm-up', questions: [id('s1')] }),
				part({ title: 'By night', categories: [place('Lights')], draw: 3 }),
				part({ title: 'Again', categories: [place('Lights')], draw: 2 })
			])
		);
		expect(lacking).toMatchObject({ state: 'unfillable', stops: { parts: [1, 2] }, figures: null });
		expect(lacking.stops.message).toContain('By night and Again want 5');
		const twice = await look(quiz([part({ questions: [id('s1')] }), part({ questions: [id('s1')] })]));
		expect(twice.stops.message).toContain('“s1”');
	});
	it('never gives both of a pair, and gives a group whole, in its order', async () => {
		const rules = { ...plainRules(), never: [[id('l1'), id('l2')]], together: [[id('l4'), id('l3')]] };
		const sheet = quiz([part({ categories: [place('Lights')], draw: 3 })], { rules });
		expect((await look(sheet)).figures).toMatchObject({ sittings: '2' });
		const drawn = await sittingsOf(
			pool,
			course.courseId,
			{ ...sheet, drawingRule },
			Array.from({ length: 40 }, (_, at) => `watch-${at}`)
		);
		for (const { parts } of drawn) {
			const [given] = parts;
			expect(given!.indexOf(id('l3'))).toBe(given!.indexOf(id('l4')) + 1);
			expect(given!.filter((key) => key === id('l1') || key === id('l2'))).toHaveLength(1);
		}
		expect(new Set(drawn.map(({ parts }) => [...parts[0]!].sort().join())).size).toBe(2);
	});
	it('takes a group of which a pool has only some as not in it', async () => {
		const rules = { ...plainRules(), together: [[id('l1'), id('s1')]] };
		expect(await look(quiz([part({ categories: [place('Lights')], draw: 3 })], { rules }))).toMatchObject({
			parts: [{ holds: 3 }],
			figures: { sittings: '1' }
		});
	});
});

describe('sittings', () => {
	const seeds = ['harbour-1', 'harbour-2', 'harbour-3'];
	it('are the same for the same seed, and none is drawn of what cannot be filled', async () => {
		const sheet = { ...quiz([part({ categories: [place('Rules of the road')], draw: 3 })]), drawingRule };
		const drawn = await sittingsOf(pool, course.courseId, sheet, seeds);
		expect(await sittingsOf(pool, course.courseId, sheet, seeds)).toEqual(drawn);
		for (const { parts, points, order } of drawn) {
			expect(new Set(parts[0]).size).toBe(3);
			expect(points).toBe(3);
			expect(order).toEqual([0]);
		}
		await expect(
			sittingsOf(
				pool,
				course.courseId,
				{ ...quiz([part({ categories: [place('Sounds')], draw: 3 })]), drawingRule },
				seeds
			)
		).rejects.toThrow(Refused);
	});
	it('of a quiz that is older than draw sheets are those that it had, until somebody changes the rule', async () => {
		await run(pool, 'UPDATE quizzes SET drawing_rule = 1 WHERE id = ?', [quizId]);
		await saveQuiz(
			pool,
			course.courseId,
			quizId,
			quiz([part({ categories: [place('Lights')], draw: 2, order: 'kept' })])
		);
		const kept = (await quizOf(pool, course.courseId, quizId))!;
		expect(kept.drawingRule).toBe(1);
		const { drawSitting } = await import('$core/draws/sitting');
		const lights = ['l1', 'l2', 'l3', 'l4'].map(id);
		const drawn = await sittingsOf(pool, course.courseId, kept, seeds);
		expect(drawn.map(({ parts }) => parts)).toEqual(
			seeds.map((seed) => drawSitting([{ pool: lights, draw: 2, shuffle: false }], seed)!.parts)
		);
		await saveQuiz(pool, course.courseId, quizId, { ...kept, parts: [], drawingRule });
		await saveQuiz(pool, course.courseId, quizId, { ...kept, parts: [], drawingRule: 1, version: kept.version + 1 });
		expect((await quizOf(pool, course.courseId, quizId))!.drawingRule).toBe(drawingRule);
	});
	it('have their parts in an order by the seed, where the sheet says so', async () => {
		const parts = ['l1', 'l2', 'l3'].map((title) => part({ questions: [id(title)] }));
		const sheet = { ...quiz(parts, { rules: { ...plainRules(), partsShuffled: true } }), drawingRule };
		const drawn = await sittingsOf(
			pool,
			course.courseId,
			sheet,
			Array.from({ length: 60 }, (_, at) => `order-${at}`)
		);
		expect(new Set(drawn.map(({ order }) => order.join())).size).toBe(6);
	});
});

describe('a quiz among all else', () => {
	const findings = async () =>
		(await placeFindings(pool, course.courseId)).flatMap(({ rule, message, place: where }) =>
			'quizId' in where ? [{ rule, message }] : []
		);
	const save = (sheet: EditedQuiz) => saveQuiz(pool, course.courseId, quizId, sheet);
	it('is a snag as soon as its quotas cannot hold', async () => {
		const sounds = quota({ by: 'category', values: [{ category: place('Sounds') }], least: 3 });
		await save(quiz([part({ title: 'Mixed', categories: [place('Rules of the road')], draw: 4, quotas: [sounds] })]));
		const [found] = await findings();
		expect(found).toMatchObject({ rule: 'quiz-unfillable' });
		expect(found!.message).toContain('Mixed wants at least 3 of');
		await save(
			quiz([part({ categories: [place('Rules of the road')], draw: 4, quotas: [{ ...sounds, least: 2 }] })], {
				version: 2
			})
		);
		expect(await findings()).toEqual([]);
	});
	it('is told uneven only where the whole of it can be', async () => {
		await run(pool, 'UPDATE questions SET points = 3 WHERE id = ?', [id('l4')]);
		const all = { categories: [place('Lights')] };
		// both together give all four lights, whichever gives which
		await save(quiz([part({ ...all, draw: 2 }), part({ ...all, draw: 2 })]));
		expect(await findings()).toEqual([]);
		await save(quiz([part({ ...all, draw: 1 }), part({ ...all, draw: 2 })], { version: 2 }));
		expect(await findings()).toMatchObject([
			{ rule: 'quiz-totals', message: expect.stringContaining('3 points in all and another 5') }
		]);
	});
	it('goes along with a copy of its course, with its pools, quotas and rules found there', async () => {
		const rules = { ...plainRules(), never: [[id('l1'), id('l2')]], fixedOptions: [id('s1')] };
		const settings = { ...plainSettings(), minutes: 20 };
		const balance = quota({ by: 'category', values: [{ category: place('Lights') }], least: 1 });
		await save(
			quiz([part({ categories: [place('Rules of the road')], draw: 3, exclude: [id('s2')], quotas: [balance] })], {
				rules,
				settings
			})
		);
		const copy = await copyCourse(
			pool,
			course.courseId,
			course.personId,
			{ code: `C-${Date.now()}`, name: 'Copy', intake: '' },
			{ quizzes: true, rules: false }
		);
		if ('taken' in copy) throw new Error(copy.taken);
		const [listed] = await quizzesOf(pool, copy.id);
		const there = (await quizOf(pool, copy.id, listed!.id))!;
		const titles = async (keys: number[]) =>
			(
				await rows<{ title: string }>(
					pool,
					'SELECT title FROM questions WHERE course_id = ? AND id IN (?) ORDER BY title',
					[copy.id, keys]
				)
			).map(({ title }) => title);
		expect(await titles(there.rules.never[0]!)).toEqual(['l1', 'l2']);
		expect(await titles(there.rules.fixedOptions)).toEqual(['s1']);
		expect(await titles(there.parts[0]!.exclude)).toEqual(['s2']);
		expect(there.settings.minutes).toBe(20);
		expect(await lookIntoSheet(pool, copy.id, there, figures)).toMatchObject({
			state: 'fillable',
			parts: [{ holds: 5, quotas: [[{ holds: 4, least: 1 }]] }]
		});
		expect(await banksOf(pool, copy.id)).toHaveLength(1);
	});
	it('is told of pairs of its pools that are alike, and of options that must not be shuffled', async () => {
		await run(
			pool,
			"INSERT INTO check_pairs (rule, question_id, other_id) VALUES ('near-duplicate', ?, ?), ('near-duplicate', ?, ?)",
			[id('l1'), id('l2'), id('l1'), id('s1')]
		);
		await run(
			pool,
			"INSERT INTO snags (course_id, question_id, rule, severity, message, words) VALUES (?, ?, 'option-letters', 'doubtful', 'It says “A and B”.', '[]')",
			[course.courseId, id('l3')]
		);
		const sheet = quiz([part({ categories: [place('Lights')], draw: 2 })]);
		expect(await alikePairs(pool, course.courseId, sheet)).toEqual([
			{ one: id('l1'), other: id('l2'), rule: 'near-duplicate' }
		]);
		expect(await boundIn(pool, course.courseId, sheet)).toEqual([{ id: id('l3'), reason: 'It says “A and B”.' }]);
		expect(await boundIn(pool, course.courseId, quiz([part({ ...sheet.parts[0], shuffleOptions: false })]))).toEqual(
			[]
		);
	});
});
