import type { Pool } from 'mysql2/promise';
import { parseQuestion } from '$core/kinds/schema';
import type { Kind } from '$core/kinds';
import { adjusted, type Setting } from '$core/take-in/adjust';
import { parseDecision, plainRules, type Decision } from '$core/take-in/decision';
import { landings, pathKey, pathOfKey } from '$core/take-in/paths';
import { categoryTree, ensureCategories } from '../banks/tree';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { Refused } from './refused';
import type { ListedQuestion } from './listed';
import { checkSoon } from '../checks/course';
import { insertLanded, noteAdjusted, noteAuthor, noteLandings } from '../questions/landing';

/** A question that is kept out of the banks of a course until somebody deals with it. */
export interface AsideRow {
	id: number;
	loadId: number;
	fileName: string;
	number: number;
	title: string;
	kind: Kind;
	category: string;
	broken: boolean;
	/** Why it is kept out: the worst that is said of it. */
	why: string | null;
	settled: Date;
}

/** Everything that is set aside in a course, by load and in the order of its file. */
export async function asideRows(db: Database, courseId: number): Promise<AsideRow[]> {
	// by_course of loads, then by_outcome
	const found = await rows<Omit<AsideRow, 'broken'> & { broken: number }>(
		db,
		`SELECT s.id, s.load_id AS loadId, l.file_name AS fileName, s.number, s.title, s.kind, COALESCE(s.placed_path, s.category_path) AS category, s.broken, l.settled,
			(SELECT r.message FROM staged_reports r WHERE r.staged_id = s.id ORDER BY r.severity, r.id LIMIT 1) AS why
		FROM loads l JOIN staged_questions s ON s.load_id = l.id AND s.outcome = 'aside' WHERE l.course_id = ? AND l.state = 'taken' ORDER BY l.id DESC, s.number`,
		[courseId]
	);
	return found.map((one) => ({ ...one, broken: Boolean(one.broken) }));
}

/** How many questions are set aside in a course. */
export async function asideCount(db: Database, courseId: number): Promise<number> {
	return (await row<{ n: number }>(
		db,
		"SELECT COUNT(*) AS n FROM loads l JOIN staged_questions s ON s.load_id = l.id AND s.outcome = 'aside' WHERE l.course_id = ? AND l.state = 'taken'",
		[courseId]
	))!.n;
}

interface Aside {
	id: number;
	load_id: number;
	number: number;
	category: string;
	document: string;
	alone: string;
	broken: number;
}

const lock = `SELECT s.id, s.load_id, s.number, COALESCE(s.placed_path, s.category_path) AS category, s.document, s.set_alone AS alone, s.broken
	FROM staged_questions s WHERE s.load_id = ? AND s.id IN (?) AND s.outcome = 'aside' ORDER BY s.number FOR UPDATE`;

function decisionOf(text: string | null): Decision {
	try {
		return parseDecision(JSON.parse(text ?? ''));
	} catch {
		return { ...plainRules, bankId: null, bankName: '', quizBank: null, leftOut: [], landings: {} };
	}
}

/**
 * Takes questions that were set aside from one load into the bank of that load, by the rules that it was taken in by.
 * Throws Refused where one of them is still broken, or where the load is in no bank any more.
 */
export async function takeAside(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	ids: number[]
): Promise<number> {
	if (!ids.length) return 0;
	return transaction(pool, async (connection) => {
		const load = await row<{ state: string; file_name: string; bank_id: number | null; decision: string | null }>(
			connection,
			'SELECT state, file_name, bank_id, decision FROM loads WHERE id = ? AND course_id = ? FOR UPDATE',
			[loadId, courseId]
		);
		if (load?.state !== 'taken') throw new Refused('This load is not in the course any more. Review it again.');
		if (load.bank_id === null)
			throw new Refused('The bank that this load went into is gone. Take the load back, and take it in again.');
		const bankId = load.bank_id;
		await row(connection, 'SELECT id FROM banks WHERE id = ? FOR UPDATE', [bankId]);
		const found = await rows<Aside>(connection, lock, [loadId, ids]);
		const broken = found.filter((one) => one.broken);
		if (broken.length)
			throw new Refused(
				`${broken.length === 1 ? 'One question is' : `${broken.length} questions are`} still broken: number ${broken.map((one) => one.number).join(', ')} of ${load.file_name}. Put ${broken.length === 1 ? 'it' : 'them'} right first.`
			);
		if (!found.length) return 0;
		const decision = decisionOf(load.decision);
		const land = landings(
			decision,
			(await categoryTree(connection, bankId)).map((node) => node.key)
		);
		const paths = found.map((one) => land(pathOfKey(one.category)));
		const { ids: categories } = await ensureCategories(connection, bankId, paths, loadId);
		await noteLandings(
			connection,
			found.map(({ id }, at) => ({
				stagedId: id,
				outcome: 'taken',
				bankId,
				categoryId: categories.get(pathKey(paths[at]!)) ?? null,
				targetId: null
			}))
		);
		await noteAdjusted(
			connection,
			found.flatMap(({ id, document, alone }) => {
				const before = parseQuestion(JSON.parse(document));
				const question = adjusted(before, decision, JSON.parse(alone) as Setting[]);
				return question === before ? [] : [{ stagedId: id, question }];
			})
		);
		await noteAuthor(connection, loadId, decision.writtenBy === 'machine');
		await insertLanded(connection, courseId, loadId);
		await checkSoon(connection, courseId);
		await run(connection, "UPDATE staged_questions SET outcome = 'taken' WHERE id IN (?)", [
			found.map((one) => one.id)
		]);
		await record(connection, {
			courseId,
			personId,
			deed: 'took in later',
			subject: load.file_name,
			questions: found.length,
			address: `/courses/${courseId}/loads/${loadId}/receipt`
		});
		return found.length;
	});
}

/** Leaves questions that were set aside out for good, or sets those that were left out aside again. Gives how many. */
export async function settleAside(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	ids: number[],
	to: Extract<ListedQuestion['outcome'], 'left' | 'aside'>
): Promise<number> {
	if (!ids.length) return 0;
	return transaction(pool, async (connection) => {
		const load = await row<{ file_name: string }>(
			connection,
			"SELECT file_name FROM loads WHERE id = ? AND course_id = ? AND state = 'taken' FOR UPDATE",
			[loadId, courseId]
		);
		if (!load) throw new Refused('This load is not in the course any more.');
		const { count } = await run(
			connection,
			'UPDATE staged_questions SET outcome = ? WHERE load_id = ? AND id IN (?) AND outcome = ?',
			[to, loadId, ids, to === 'left' ? 'aside' : 'left']
		);
		if (count)
			await record(connection, {
				courseId,
				personId,
				deed: to === 'left' ? 'left out' : 'set aside',
				subject: load.file_name,
				questions: count,
				address: `/courses/${courseId}/loads/${loadId}/receipt`
			});
		return count;
	});
}
