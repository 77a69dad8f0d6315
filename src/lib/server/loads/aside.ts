import type { Pool, PoolConnection } from 'mysql2/promise';
import { parseQuestion } from '$core/kinds/schema';
import { adjusted, type Setting } from '$core/take-in/adjust';
import { parseDecision, plainRules, type Decision } from '$core/take-in/decision';
import { landings, pathKey, pathOfKey } from '$core/take-in/paths';
import { categoryTree, ensureCategories } from '../banks/tree';
import type { Changer } from '../banks/change';
import { row, rows, run, transaction } from '../db/pool';
import { record } from '../ledger/ledger';
import { tellProgress } from '../threads/progress';
import { asideByLoad, byLoadOf, type AsideChosen } from './aside-list';
import { Refused } from './refused';
import type { ListedQuestion } from './listed';
import { checkSoon } from '../checks/course';
import { insertLanded, noteAdjusted, noteAuthor, noteLandings } from '../questions/landing';

interface Aside {
	id: number;
	number: number;
	category: string;
	broken: number;
}

/** So many are worked on at once. */
const batch = 1000;
/** So many numbers of broken questions are named. */
const mostNamed = 20;

function decisionOf(text: string | null): Decision {
	try {
		return parseDecision(JSON.parse(text ?? ''));
	} catch {
		return { ...plainRules, bankId: null, bankName: '', quizBank: null, leftOut: [], landings: {} };
	}
}

/** A load, locked, that questions which were set aside from it may still be taken from. */
async function takenLoad(connection: PoolConnection, courseId: number, loadId: number) {
	const load = await row<{ state: string; file_name: string; bank_id: number | null; decision: string | null }>(
		connection,
		'SELECT state, file_name, bank_id, decision FROM loads WHERE id = ? AND course_id = ? FOR UPDATE',
		[loadId, courseId]
	);
	if (load?.state !== 'taken') throw new Refused('This load is not in the course any more. Review it again.');
	if (load.bank_id === null)
		throw new Refused(`The bank that ${load.file_name} went into is gone. Take the load back, and take it in again.`);
	await row(connection, 'SELECT id FROM banks WHERE id = ? FOR UPDATE', [load.bank_id]);
	return { ...load, bankId: load.bank_id };
}

/** Those of a load that are set aside, locked. Throws Refused where one of them is still broken. */
async function lockedAside(connection: PoolConnection, loadId: number, fileName: string, ids: number[]) {
	const found = await rows<Aside>(
		connection,
		"SELECT id, number, COALESCE(placed_path, category_path) AS category, broken FROM staged_questions WHERE load_id = ? AND id IN (?) AND outcome = 'aside' ORDER BY number FOR UPDATE",
		[loadId, ids]
	);
	const broken = found.filter((question) => question.broken);
	if (!broken.length) return found;
	const [are, them] = broken.length === 1 ? ['One question is', 'it'] : [`${broken.length} questions are`, 'them'];
	const named = broken.slice(0, mostNamed).map(({ number }) => number);
	const more = broken.length > mostNamed ? ` and ${broken.length - mostNamed} more` : '';
	throw new Refused(`${are} still broken: number ${named.join(', ')}${more} of ${fileName}. Put ${them} right first.`);
}

/** Notes those that land otherwise than they were staged, as the rules of their load want them. */
async function noteByRules(
	connection: PoolConnection,
	ids: number[],
	decision: Decision,
	tell: (done: number) => void
): Promise<void> {
	for (let at = 0; at < ids.length; at += batch) {
		tell(at);
		const staged = await rows<{ id: number; document: string; alone: string }>(
			connection,
			'SELECT id, document, set_alone AS alone FROM staged_questions WHERE id IN (?)',
			[ids.slice(at, at + batch)]
		);
		await noteAdjusted(
			connection,
			staged.flatMap(({ id, document, alone }) => {
				const before = parseQuestion(JSON.parse(document));
				const question = adjusted(before, decision, JSON.parse(alone) as Setting[]);
				return question === before ? [] : [{ stagedId: id, question }];
			})
		);
	}
}

/** Takes questions that were set aside from one load into its bank, by the rules that it was taken in by. */
async function takeFromLoad(
	connection: PoolConnection,
	{ courseId, personId }: Changer,
	loadId: number,
	ids: number[],
	tell: (done: number) => void
): Promise<number> {
	const load = await takenLoad(connection, courseId, loadId);
	const found = await lockedAside(connection, loadId, load.file_name, ids);
	if (!found.length) return 0;
	const decision = decisionOf(load.decision);
	const land = landings(
		decision,
		(await categoryTree(connection, load.bankId)).map((node) => node.key)
	);
	const paths = found.map(({ category }) => land(pathOfKey(category)));
	const { ids: categories } = await ensureCategories(connection, load.bankId, paths, loadId);
	await noteLandings(
		connection,
		found.map(({ id }, at) => ({
			stagedId: id,
			outcome: 'taken',
			bankId: load.bankId,
			categoryId: categories.get(pathKey(paths[at]!)) ?? null,
			targetId: null
		}))
	);
	const keys = found.map(({ id }) => id);
	await noteByRules(connection, keys, decision, tell);
	await noteAuthor(connection, loadId, decision.writtenBy === 'machine');
	await insertLanded(connection, courseId, loadId);
	await run(connection, "UPDATE staged_questions SET outcome = 'taken' WHERE id IN (?)", [keys]);
	await record(connection, {
		courseId,
		personId,
		deed: 'took in later',
		subject: load.file_name,
		questions: found.length,
		address: `/courses/${courseId}/loads/${loadId}/receipt`
	});
	return found.length;
}

/**
 * Takes questions that were set aside into the banks of their loads, as one. Throws Refused where one of them is still
 * broken, or where a load is in no bank any more.
 */
export async function takeAside(pool: Pool, changer: Changer, chosen: AsideChosen): Promise<number> {
	return transaction(pool, async (connection) => {
		const byLoad = await asideByLoad(connection, changer.courseId, chosen);
		const total = [...byLoad.values()].reduce((sum, ids) => sum + ids.length, 0);
		let taken = 0;
		// each load for itself: its rules and its bank are its own
		for (const [loadId, ids] of byLoad)
			taken += await takeFromLoad(connection, changer, loadId, ids, (done) => tellProgress(taken + done, total));
		if (taken) await checkSoon(connection, changer.courseId);
		return taken;
	});
}

/** What came of leaving questions out, or of setting them aside again: how many, and which. */
export interface Settled {
	questions: number;
	ids: number[];
}

/** Leaves questions that were set aside out of the banks. */
export async function leaveOut(pool: Pool, changer: Changer, chosen: AsideChosen): Promise<Settled> {
	return transaction(pool, async (connection) =>
		settle(connection, changer, await asideByLoad(connection, changer.courseId, chosen), 'left')
	);
}

/** Sets questions that were left out of the banks aside again. */
export async function setAsideAgain(pool: Pool, changer: Changer, ids: number[]): Promise<Settled> {
	return transaction(pool, async (connection) => {
		const left = ids.length
			? await rows<{ id: number; loadId: number }>(
					connection,
					"SELECT s.id, s.load_id AS loadId FROM staged_questions s JOIN loads l ON l.id = s.load_id WHERE s.id IN (?) AND s.outcome = 'left' AND l.course_id = ? AND l.state = 'taken'",
					[ids, changer.courseId]
				)
			: [];
		return settle(connection, changer, byLoadOf(left), 'aside');
	});
}

async function settle(
	connection: PoolConnection,
	{ courseId, personId }: Changer,
	byLoad: Map<number, number[]>,
	to: Extract<ListedQuestion['outcome'], 'left' | 'aside'>
): Promise<Settled> {
	const settled: Settled = { questions: 0, ids: [] };
	for (const [loadId, ids] of byLoad) {
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
		if (!count) continue;
		settled.questions += count;
		settled.ids.push(...ids);
		await record(connection, {
			courseId,
			personId,
			deed: to === 'left' ? 'left out' : 'set aside',
			subject: load.file_name,
			questions: count,
			address: `/courses/${courseId}/loads/${loadId}/receipt`
		});
	}
	return settled;
}
