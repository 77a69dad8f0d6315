// Measures pages of courses of different sizes: node --import tsx bench/pages.ts [COUNT …]; wants a build
import { fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Pool } from 'mysql2/promise';
import { demoSignIn, fillDemo } from '../demo/fill';
import { Visitor } from '../e2e/browser';
import { startMariadb } from '../scripts/database/mariadb';
import { migrate } from '../src/lib/server/db/migrate';
import { makePool, row, rows, run } from '../src/lib/server/db/pool';
import { fillCourse, fillLoad } from '../src/lib/server/test-support/fill';

const counts = process.argv.slice(2).map(Number).filter(Boolean);
const sizes = counts.length ? counts : [1_000, 10_000, 100_000];
const times = 15;
const root = process.cwd();
const folder = mkdtempSync(join(tmpdir(), 'barrow-pages-'));
const database = await startMariadb(join(folder, 'mariadb'));
// what reads its settings from the environment reads those of this database
process.env.DATABASE_URL = database.url;

/** A page of a course, and the statements that it cannot do without: what it asks of the database, bare. */
interface Measured {
	name: string;
	path: (course: Filled) => string;
	sql: (course: Filled) => [string, unknown[]][];
}
interface Filled {
	id: number;
	bank: number;
	category: number;
	quiz: number;
	load: number;
	size: number;
}

const counted: [string, unknown[]] = ['SELECT document FROM course_counts WHERE course_id = ?', []];
const shell = ({ id }: Filled): [string, unknown[]][] => [
	['SELECT * FROM courses WHERE id = ?', [id]],
	[counted[0], [id]],
	["SELECT COUNT(*) FROM loads WHERE course_id = ? AND state = 'review'", [id]],
	['SELECT id, name FROM banks WHERE course_id = ?', [id]]
];
const listed = 'SELECT q.id, q.kind, q.title, q.points, q.category_id FROM questions q WHERE q.bank_id = ?';
const withSnags = (ids: string) =>
	`SELECT q.id, q.kind, q.title, q.points, q.category_id, (SELECT MIN(s.severity) FROM snags s WHERE s.question_id = q.id), (SELECT COUNT(*) FROM snags s WHERE s.question_id = q.id) FROM questions q WHERE q.id IN (SELECT id FROM (${ids}) x)`;
const stagedRows = (which: string) =>
	`SELECT s.id, s.number, s.title, s.kind, s.points, s.broken, (SELECT GROUP_CONCAT(r.rule) FROM staged_reports r WHERE r.staged_id = s.id) FROM staged_questions s WHERE s.id IN (SELECT id FROM (SELECT id FROM staged_questions WHERE load_id = ? ${which}) x)`;
const measured: Measured[] = [
	{
		name: 'bank',
		path: ({ bank }) => `banks?bank=${bank}`,
		sql: (course) => [
			...shell(course),
			['SELECT id, parent_id, name FROM categories WHERE bank_id = ?', [course.bank]],
			[withSnags('SELECT id FROM questions WHERE bank_id = ? ORDER BY category_id, id LIMIT 100'), [course.bank]]
		]
	},
	{
		name: 'bank, last rows',
		path: ({ bank, size }) => `banks/rows?bank=${bank}&from=${size - 100}`,
		sql: (course) => [
			[counted[0], [course.id]],
			['SELECT id, parent_id, name FROM categories WHERE bank_id = ?', [course.bank]],
			[withSnags('SELECT id FROM questions WHERE bank_id = ? ORDER BY id DESC LIMIT 100'), [course.bank]]
		]
	},
	{
		name: 'bank, one category',
		path: ({ bank, category }) => `banks?bank=${bank}&category=${category}&kind=numeric`,
		sql: (course) => [
			...shell(course),
			['SELECT id, parent_id, name FROM categories WHERE bank_id = ?', [course.bank]],
			[
				withSnags("SELECT id FROM questions WHERE bank_id = ? AND category_id = ? AND kind = 'numeric' LIMIT 100"),
				[course.bank, course.category]
			]
		]
	},
	{
		name: 'bank, words',
		path: ({ bank }) => `banks?bank=${bank}&words=number+77`,
		sql: (course) => [
			...shell(course),
			['SELECT id, parent_id, name FROM categories WHERE bank_id = ?', [course.bank]],
			[`${listed} AND q.searched_words LIKE '% number%' AND q.searched_words LIKE '% 77%' LIMIT 100`, [course.bank]]
		]
	},
	...(
		[
			['by title', 'sort=title', 'ORDER BY title, id LIMIT 100'],
			['by title, far down', 'sort=title&from=50000', 'ORDER BY title, id LIMIT 50000, 100'],
			['by changed', 'sort=changed&down=1', 'ORDER BY changed DESC, id DESC LIMIT 100'],
			['not verified', 'key=unverified&sort=title', 'AND verified IS NULL ORDER BY title, id LIMIT 100'],
			['with snags', 'snag=any', 'AND EXISTS (SELECT 1 FROM snags s WHERE s.question_id = questions.id) LIMIT 100'],
			['of points', 'points=2', 'AND points = 2 LIMIT 100']
		] as const
	).map(([name, query, end]): Measured => ({
		name: `bank ${name}`,
		path: ({ bank }) => `banks/rows?bank=${bank}&${query}`,
		sql: ({ bank }) => [[`SELECT id FROM questions WHERE bank_id = ? ${end}`, [bank]]]
	})),
	{
		name: 'weave',
		path: ({ bank }) => `banks?bank=${bank}&view=weave`,
		sql: (course) => [
			...shell(course),
			['SELECT category_id, kind, COUNT(*) FROM questions WHERE bank_id = ? GROUP BY category_id, kind', [course.bank]]
		]
	},
	{
		name: 'snags',
		path: () => 'snags',
		sql: (course) => [
			...shell(course),
			[
				'SELECT s.*, q.title, q.bank_id FROM snags s JOIN questions q ON q.id = s.question_id WHERE s.course_id = ? AND s.rule = ? ORDER BY s.question_id LIMIT 50',
				[course.id, 'no-key']
			]
		]
	},
	{
		name: 'quizzes',
		path: () => 'quizzes',
		sql: (course) => [...shell(course), ['SELECT * FROM quizzes WHERE course_id = ?', [course.id]]]
	},
	{
		name: 'quiz',
		path: ({ quiz }) => `quizzes/${quiz}`,
		sql: (course) => [
			...shell(course),
			['SELECT * FROM quiz_parts WHERE quiz_id = ?', [course.quiz]],
			['SELECT id, parent_id, name FROM categories WHERE bank_id = ?', [course.bank]]
		]
	},
	{
		name: 'loads',
		path: () => 'loads',
		sql: (course) => [...shell(course), ['SELECT * FROM loads WHERE course_id = ?', [course.id]]]
	},
	{
		name: 'review',
		path: ({ load }) => `loads/${load}`,
		sql: (course) => [
			...shell(course),
			['SELECT document FROM load_summaries WHERE load_id = ?', [course.load]],
			[stagedRows('ORDER BY number LIMIT 100'), [course.load]]
		]
	},
	{
		name: 'review, last rows',
		path: ({ load, size }) => `loads/${load}/rows?from=${size - 100}`,
		sql: (course) => [[stagedRows('ORDER BY number DESC LIMIT 100'), [course.load]]]
	},
	{
		name: 'review, by snag',
		path: ({ load }) => `loads/${load}/rows?order=snag&words=light`,
		sql: (course) => [[stagedRows("AND title LIKE '%light%' ORDER BY number LIMIT 100"), [course.load]]]
	},
	{
		name: 'ledger',
		path: () => 'ledger',
		sql: (course) => [...shell(course), ['SELECT * FROM ledger WHERE course_id = ? LIMIT 200', [course.id]]]
	},
	{
		name: 'dispatch',
		path: ({ bank }) => `dispatch?bank=${bank}&as=qti21`,
		sql: (course) => [...shell(course), ['SELECT * FROM dispatches WHERE course_id = ?', [course.id]]]
	}
];

const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
async function timed(what: () => Promise<unknown>, often = times): Promise<number> {
	await what();
	const taken: number[] = [];
	for (let at = 0; at < often; at += 1) {
		const from = performance.now();
		await what();
		taken.push(performance.now() - from);
	}
	return median(taken);
}

async function bareSql(pool: Pool, statements: [string, unknown[]][]): Promise<number> {
	return timed(async () => {
		for (const [sql, parameters] of statements) await rows(pool, sql, parameters);
	});
}

const table: Record<string, string | number>[] = [];
let server: ChildProcess | null = null;
try {
	await migrate(database.url, join(root, 'db/migrations'));
	await fillDemo(database.url);
	const pool = makePool(database.url, 4);
	const { person_id: person } = (await row<{ person_id: number }>(
		pool,
		"SELECT person_id FROM memberships WHERE role = 'manage' LIMIT 1"
	))!;
	const filled: Filled[] = [];
	for (const size of sizes) {
		const course = await fillCourse(pool, person, size);
		filled.push({ ...course, load: await fillLoad(pool, person, course.id), size });
	}
	await run(pool, "UPDATE jobs SET state = 'done'");
	// after so sudden a fill the database would plan by what it knew of empty tables, for some seconds
	await rows(pool, 'ANALYZE TABLE questions, staged_questions, staged_reports, snags');
	const child = (server = fork(join(root, 'test-support/serve-for-tests.ts'), {
		execArgv: ['--import', 'tsx'],
		env: { ...process.env, DATABASE_URL: database.url },
		stdio: ['ignore', 'ignore', 'inherit', 'ipc']
	}));
	const address = await new Promise<string>((resolve) => child.on('message', (words) => resolve(String(words))));
	const answer = await fetch(`${address}/signin`, {
		method: 'POST',
		redirect: 'manual',
		body: new URLSearchParams({ email: demoSignIn.email, password: demoSignIn.password }),
		headers: { origin: address }
	});
	const cookie = answer.headers.get('set-cookie')!.split(';')[0]!;
	const first = new Map<string, number>();
	for (const course of filled)
		for (const { name, path, sql } of measured) {
			let bytes = 0;
			const ask = async () => {
				const response = await fetch(`${address}/courses/${course.id}/${path(course)}`, {
					headers: { cookie, accept: 'text/html,application/json' }
				});
				if (!response.ok) throw new Error(`${name}: ${response.status}`);
				bytes = (await response.arrayBuffer()).byteLength;
			};
			const ours = await timed(ask, name === 'dispatch' ? 3 : times);
			const bare = await bareSql(pool, sql(course));
			if (!first.has(name)) first.set(name, ours);
			table.push({
				page: name,
				questions: course.size,
				'bare SQL ms': bare.toFixed(1),
				'ours ms': ours.toFixed(1),
				ratio: (ours / bare).toFixed(2),
				'to the smallest': (ours / first.get(name)!).toFixed(2),
				KB: (bytes / 1024).toFixed(0)
			});
		}
	for (const course of filled) {
		const counted = async () => {
			await run(pool, 'UPDATE loads SET review_version = review_version + 1 WHERE id = ?', [course.load]);
			await fetch(`${address}/courses/${course.id}/loads/${course.load}/review?since=0`, { headers: { cookie } });
		};
		table.push({
			page: 'review, counted anew',
			questions: course.size,
			'ours ms': (await timed(counted, 3)).toFixed(0)
		});
	}
	const visitor = await Visitor.open(address);
	try {
		await visitor.signIn(demoSignIn.email, demoSignIn.password);
		for (const course of filled) {
			const from = performance.now();
			await visitor.driver.get(`${address}/courses/${course.id}/banks?bank=${course.bank}`);
			await visitor.find('[data-row]');
			const toFirst = performance.now() - from;
			const toEnd = await visitor.driver.executeAsyncScript<number>(`
				const done = arguments[arguments.length - 1];
				const list = document.querySelector('[role=rowgroup]');
				const from = performance.now();
				list.scrollTop = list.scrollHeight;
				const last = ${course.size} + 1;
				(function look() {
					if (document.querySelector('[data-row][aria-rowindex="' + last + '"]')) done(performance.now() - from);
					else requestAnimationFrame(look);
				})();`);
			table.push({ page: 'bank, to the first row', questions: course.size, 'ours ms': toFirst.toFixed(0) });
			table.push({ page: 'bank, to its end', questions: course.size, 'ours ms': toEnd.toFixed(0) });
		}
	} finally {
		await visitor.close();
	}
	await pool.end();
} finally {
	server?.kill();
	await database.stop();
	rmSync(folder, { recursive: true, force: true });
}
console.table(table);
