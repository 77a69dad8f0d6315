import type { Pool } from 'mysql2/promise';
import { exactDuplicate } from '$core/checks/exact-duplicate';
import { manyChecks, pairChecks } from '$core/checks';
import type { CheckedCategory, ManyCheck, Noted } from '$core/checks/check';
import { Gathering, withinKey } from '$core/checks/many';
import { called } from '$core/kinds/called';
import { findInTree } from '$core/checks/places';
import type { Question } from '$core/kinds';
import { parseQuestion } from '$core/kinds/schema';
import { languagesOf } from '$core/language/detect';
import type { Report } from '$core/reports/report';
import { ruleOf } from '$core/reports/rules';
import { checkRules, type CheckRules } from '../courses/kept';
import { row, rows, run, transaction, type Database } from '../db/pool';
import type { Control } from '../jobs/control';
import { enqueueOnce } from '../jobs/jobs';
import { writeReports } from '../questions/staged';
import { waivedOf } from './waived-of';

const batch = 1000;
const amongMany = [...manyChecks, ...pairChecks].map(({ id }) => id).filter((id) => id !== exactDuplicate.id);

/** The checks that look at more than one question, over all that a load holds: they speak once everything is read. */
export class LoadChecks {
	readonly #gathering: Gathering;
	readonly #places = new Map<number, { file: string; line: number }>();
	readonly #categories = new Map<string, CheckedCategory>();

	constructor(readonly rules: CheckRules) {
		// of what is there twice something is said as it is read
		const checks = [...manyChecks, ...pairChecks].filter(({ id }) => id !== exactDuplicate.id && !rules.off.has(id));
		this.#gathering = new Gathering({ languagesOf }, checks);
	}

	/** Adds a question by its number in the load. */
	add(number: number, question: Question): void {
		this.#gathering.add(number, question, { bank: '', category: question.category });
		if (question.source) this.#places.set(number, { file: question.source.file, line: question.source.line });
		this.#count(question.category, 1);
	}

	/** Adds a category that the file lists, whether anything stands in it or not. */
	category(path: readonly string[]): void {
		this.#count(path, 0);
	}

	#count(category: readonly string[], questions: number): void {
		for (let depth = 1; depth <= category.length; depth += 1) {
			const path = category.slice(0, depth);
			const key = JSON.stringify(path);
			const known = this.#categories.get(key);
			if (known) known.questions += questions;
			else this.#categories.set(key, { path, questions });
		}
	}

	/** What is found among the questions, by their numbers, as the course has it. */
	*#among(): Generator<{ number: number; report: Report }> {
		for (const { check, id, message, words } of this.#gathering.findings()) {
			const place = this.#places.get(id);
			const severity = this.rules.severities.get(check.id) ?? check.severity;
			const report = { rule: ruleOf(check), severity, message, ...(words ? { words } : {}) };
			yield { number: id, report: place ? { ...report, place } : report };
		}
	}

	/** What is wrong with the categories of the file. */
	ofFile(): Report[] {
		return [...findInTree([...this.#categories.values()])]
			.filter(({ check }) => !this.rules.off.has(check.id))
			.map(({ check, message, words }) => ({
				rule: ruleOf(check),
				severity: this.rules.severities.get(check.id) ?? check.severity,
				message,
				...(words ? { words } : {})
			}));
	}

	/** Writes what is found to the questions of a load; gives how much it is. */
	async write(pool: Pool, loadId: number): Promise<number> {
		// a reading that is gone on with finds it once more
		await run(pool, 'DELETE FROM staged_reports WHERE load_id = ? AND rule IN (?)', [loadId, amongMany]);
		let written = 0;
		let some: { number: number; report: Report }[] = [];
		const flush = async () => {
			if (some.length) written += await writeAmong(pool, loadId, some);
			some = [];
		};
		for (const found of this.#among()) if (some.push(found) >= batch) await flush();
		await flush();
		return written;
	}
}

/** Reads the questions of a load as they are now, one at a time; those that stay in it, where it has been taken in. */
async function* stagedOf(
	db: Database,
	loadId: number
): AsyncGenerator<{ number: number; id: number; question: Question }> {
	for (let last = 0; ;) {
		// by_number
		const found = await rows<{ id: number; number: number; document: string }>(
			db,
			`SELECT id, number, document FROM staged_questions WHERE load_id = ? AND number > ? AND outcome IN ('waiting', 'aside') ORDER BY number LIMIT ${batch}`,
			[loadId, last]
		);
		for (const { id, number, document } of found) yield { id, number, question: parseQuestion(JSON.parse(document)) };
		if (found.length < batch) return;
		last = found.at(-1)!.number;
	}
}

/** A question of a load among those that a check holds it against, by the numbers of the load. */
export interface HeldAgainst {
	own: Noted<unknown>;
	noted: readonly Noted<unknown>[];
}

/** The questions of a load as a check over many sees them, each with those that it is held against, by their keys. */
export async function heldAgainst(db: Database, loadId: number, check: ManyCheck): Promise<Map<number, HeldAgainst>> {
	const groups = new Map<string, { id: number; own: Noted<unknown> }[]>();
	for await (const { id, number, question } of stagedOf(db, loadId)) {
		const note = check.note(question, { languagesOf });
		if (note === null) continue;
		const { category } = question;
		const key = JSON.stringify([withinKey(check, { bank: '', category }), check.key?.(note) ?? '']);
		const own = { id: number, name: called(question), category, note };
		const group = groups.get(key);
		if (group) group.push({ id, own });
		else groups.set(key, [{ id, own }]);
	}
	return new Map(
		[...groups.values()].flatMap((group) => {
			const noted = group.map(({ own }) => own);
			return group.map(({ id, own }) => [id, { own, noted }] as const);
		})
	);
}

/** More questions than that are held against one another in the background. */
const mostWaitedFor = 3000;

/** Holds the questions of a load against one another anew, since some of them have changed: at once, or in the background. */
export async function holdAgain(pool: Pool, courseId: number, loadId: number): Promise<void> {
	const counted = await row<{ count: number }>(
		pool,
		"SELECT COUNT(*) AS count FROM staged_questions WHERE load_id = ? AND outcome IN ('waiting', 'aside')",
		[loadId]
	);
	if ((counted?.count ?? 0) > mostWaitedFor) await enqueueOnce(pool, 'among', loadId);
	else await findAmongLoad(pool, courseId, loadId, () => undefined);
}

/** Holds the questions of a load against one another anew, and has those who look at it see what is found. `check` may throw. */
async function findAmongLoad(pool: Pool, courseId: number, loadId: number, check: () => void): Promise<void> {
	const found = new LoadChecks(await checkRules(pool, courseId));
	for await (const { number, question } of stagedOf(pool, loadId)) {
		check();
		found.add(number, question);
	}
	await found.write(pool, loadId);
	await run(
		pool,
		"UPDATE loads SET review_version = review_version + 1 WHERE id = ? AND state IN ('review', 'undone', 'taken')",
		[loadId]
	);
}

/** The work of the background: holds the questions of a load against one another anew. Throws Stopped. */
export async function holdLoadAgain(pool: Pool, loadId: number, control: Control): Promise<void> {
	const load = await row<{ course_id: number }>(pool, 'SELECT course_id FROM loads WHERE id = ?', [loadId]);
	if (load) await findAmongLoad(pool, load.course_id, loadId, () => control.check());
}

async function writeAmong(
	pool: Pool,
	loadId: number,
	found: readonly { number: number; report: Report }[]
): Promise<number> {
	// by_number
	const staged = await rows<{ id: number; number: number }>(
		pool,
		'SELECT id, number FROM staged_questions WHERE load_id = ? AND number IN (?)',
		[loadId, [...new Set(found.map(({ number }) => number))]]
	);
	const ids = new Map(staged.map(({ id, number }) => [number, id]));
	const waived = staged.length ? await waivedOf(pool, [...ids.values()]) : new Set<string>();
	const reports = found.flatMap(({ number, report }) => {
		const stagedId = ids.get(number);
		return stagedId === undefined || waived.has(`${stagedId} ${report.rule}`) ? [] : [{ stagedId, report }];
	});
	const broken = reports.flatMap(({ stagedId, report }) => (report.severity === 'broken' ? [stagedId] : []));
	await transaction(pool, async (connection) => {
		await writeReports(connection, loadId, reports);
		if (broken.length) await run(connection, 'UPDATE staged_questions SET broken = 1 WHERE id IN (?)', [broken]);
	});
	return reports.length;
}
