import type { Pool, PoolConnection } from 'mysql2/promise';
import { parseQuestion } from '$core/kinds/schema';
import { visible } from '$core/markup/visible';
import { adjusted, adjustsQuestions, type Setting } from '$core/take-in/adjust';
import type { Decision } from '$core/take-in/decision';
import { landings, pathKey, pathOfKey } from '$core/take-in/paths';
import { goesToQuizBank, planTakeIn, type Plan } from '$core/take-in/plan';
import { categoryTree, ensureCategories } from '../banks/tree';
import { row, rows, run, transaction } from '../db/pool';
import { record } from '../ledger/ledger';
import { takeInQuizzes } from './quizzes';
import { receipt } from './receipt';
import { dropLoneTwins } from '../snags/twins';
import { findLost } from '../quizzes/lost';
import { Refused } from './refused';
import { carryWaivers } from './waive';
import { rememberRules } from './rules';
import { plannedQuestions } from './planned';
import { checkSoon } from '../checks/course';
import {
	insertLanded,
	noteAdjusted,
	noteAuthor,
	noteLandings,
	replaceLanded,
	type Landing
} from '../questions/landing';

const batch = 500;

/** The bank that a load lands in. */
type Landed = Awaited<ReturnType<typeof landingBank>>;

/**
 * Takes a load into its course by a decision, all in one transaction, and gives what was done. Throws Refused where the
 * decision cannot be carried out, or where somebody else was quicker.
 */
export async function takeIn(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	decision: Decision
): Promise<Plan> {
	return transaction(pool, async (connection) => {
		const load = await row<{ state: string; file_name: string; categories: string | null }>(
			connection,
			'SELECT state, file_name, categories FROM loads WHERE id = ? AND course_id = ? FOR UPDATE',
			[loadId, courseId]
		);
		if (!load) throw new Refused('This load is gone.');
		if (load.state === 'taken') throw new Refused('Somebody has taken this load in already. Look at its receipt.');
		if (load.state !== 'review' && load.state !== 'undone') throw new Refused('This load cannot be taken in now.');
		// before anything is read, so that what others have just put into the bank is seen
		await lockBanks(connection, courseId, [decision.bankId, decision.quizBank?.bankId ?? null]);
		const questions = await plannedQuestions(connection, courseId, loadId, decision);
		const quizzes = (await row<{ n: number }>(
			connection,
			'SELECT COUNT(*) AS n FROM staged_quizzes WHERE load_id = ?',
			[loadId]
		))!.n;
		// what goes where is known before any bank is made, so that none is made for nothing
		const shape = planTakeIn(questions, decision, []);
		const split = shape.quizBank;
		// a quiz whose questions are all there already needs no bank
		const wanted = shape.taken > (split?.taken ?? 0) || shape.replaced > 0 || (!split && !shape.skipped);
		const bank = wanted ? await landingBank(connection, courseId, loadId, decision, decision) : null;
		const quizBank = split ? await landingBank(connection, courseId, loadId, decision.quizBank!, decision) : null;
		const plan = planTakeIn(
			questions,
			decision,
			bank?.existing ?? [],
			quizBank?.existing ?? [],
			quizzes,
			listedIn(load)
		);
		if (plan.refusal) throw new Refused(plan.refusal);

		const bankId = (bank ?? quizBank)?.id ?? null;
		await noteOutcomes(connection, loadId, { questions, decision, plan, bank, quizBank });
		await putIn(connection, courseId, loadId, decision, plan);
		const landed = bank ?? (await knownBank(connection, courseId, decision));
		await takeInQuizzes(connection, { courseId, personId }, loadId, landed && { bankId: landed.id, land: landed.land });
		await findLost(connection, courseId);
		await dropLoneTwins(connection, courseId);
		await checkSoon(connection, courseId);
		await run(
			connection,
			"UPDATE loads SET state = 'taken', decision = ?, effects = ?, bank_id = ?, settled = NOW(3), told_count = NULL WHERE id = ?",
			[JSON.stringify(decision), JSON.stringify(plan.effects), bankId, loadId]
		);
		await rememberRules(connection, courseId, decision);
		await record(connection, {
			courseId,
			personId,
			deed: 'took in',
			subject: load.file_name,
			questions: plan.taken + plan.replaced,
			receipt: (await receipt(connection, loadId)).categories,
			address: `/courses/${courseId}/loads/${loadId}/receipt`
		});
		return plan;
	});
}

/** Makes the categories that a load lands in, and notes for each of its questions what becomes of it and where it lands. */
async function noteOutcomes(
	connection: PoolConnection,
	loadId: number,
	{
		questions,
		decision,
		plan,
		bank,
		quizBank
	}: {
		questions: Awaited<ReturnType<typeof plannedQuestions>>;
		decision: Decision;
		plan: Plan;
		bank: Landed | null;
		quizBank: Landed | null;
	}
): Promise<void> {
	const known = async (to: Landed | null, categories: readonly string[] | undefined) =>
		to && (await ensureCategories(connection, to.id, (categories ?? []).map(pathOfKey), loadId)).ids;
	const ids = await known(bank, plan.categories);
	const quizIds = await known(quizBank, plan.quizBank?.categories);
	await markOutcomes(
		connection,
		loadId,
		questions.map((question, at) => {
			const outcome = plan.outcomes[at]!;
			const target = plan.targets[at]!;
			const landing = { stagedId: question.id, outcome, bankId: null, categoryId: null, targetId: target };
			if (outcome !== 'taken') return landing;
			const [to, categories] = goesToQuizBank(question, decision) ? [quizBank!, quizIds!] : [bank!, ids!];
			const categoryId = categories.get(pathKey(to.land(pathOfKey(question.category)))) ?? null;
			return { ...landing, bankId: to.id, categoryId };
		})
	);
}

/** Puts the questions of a load where they were noted to land, as the rules want them. */
async function putIn(
	connection: PoolConnection,
	courseId: number,
	loadId: number,
	decision: Decision,
	plan: Plan
): Promise<void> {
	await adjust(connection, loadId, decision);
	await noteAuthor(connection, loadId, decision.writtenBy === 'machine');
	if (plan.replaced) await replaceLanded(connection, courseId, loadId);
	if (plan.taken) await insertLanded(connection, courseId, loadId);
	await carryWaivers(connection, courseId, loadId);
}

/** The categories that the file of a load lists, as they are kept. */
export const listedIn = ({ categories }: { categories: string | null }): string[] =>
	categories === null ? [] : (JSON.parse(categories) as string[]);

/** Locks the banks that a load goes to, so that two loads that come at once do not both make the same category. */
async function lockBanks(connection: PoolConnection, courseId: number, ids: (number | null)[]): Promise<void> {
	const known = ids.filter((id) => id !== null);
	if (known.length)
		await rows(connection, 'SELECT id FROM banks WHERE course_id = ? AND id IN (?) ORDER BY id FOR UPDATE', [
			courseId,
			known
		]);
}

/** The bank that was chosen, where it is there already and nothing of the load had to go into it. */
async function knownBank(
	connection: PoolConnection,
	courseId: number,
	decision: Decision
): Promise<{ id: number; land: (path: string[]) => string[] } | null> {
	const { bankId } = decision;
	if (bankId === null) return null;
	const there = await row(connection, 'SELECT id FROM banks WHERE id = ? AND course_id = ?', [bankId, courseId]);
	if (!there) return null;
	const existing = (await categoryTree(connection, bankId)).map(({ key }) => key);
	return { id: bankId, land: landings(decision, existing) };
}

type Chosen = Pick<Decision, 'bankId' | 'bankName'>;

/** A bank that questions land in, with its categories, and where in it each path of the load lands. */
async function landingBank(
	connection: PoolConnection,
	courseId: number,
	loadId: number,
	chosen: Chosen,
	decision: Decision
): Promise<{ id: number; existing: string[]; land: (path: string[]) => string[] }> {
	const id = await ensureBank(connection, courseId, loadId, chosen);
	const existing = (await categoryTree(connection, id)).map((node) => node.key);
	return { id, existing, land: landings(decision, existing) };
}

async function ensureBank(
	connection: PoolConnection,
	courseId: number,
	loadId: number,
	decision: Chosen
): Promise<number> {
	if (decision.bankId !== null) {
		const bank = await row<{ id: number }>(connection, 'SELECT id FROM banks WHERE id = ? AND course_id = ?', [
			decision.bankId,
			courseId
		]);
		if (!bank) throw new Refused('The bank that was chosen is gone. Choose another.');
		return bank.id;
	}
	const name = visible(decision.bankName.trim()).slice(0, 190);
	if (!name) throw new Refused('Give the new bank a name.');
	// by_name
	const taken = await row(connection, 'SELECT id FROM banks WHERE course_id = ? AND name = ?', [courseId, name]);
	if (taken)
		throw new Refused(
			`There is a bank called “${name}” in this course already. Choose it, or give the new one another name.`
		);
	// two who make a bank of one name at once both find none of it; by_name lets one of them
	const made = await run(connection, 'INSERT IGNORE INTO banks (course_id, name, load_id) VALUES (?, ?, ?)', [
		courseId,
		name,
		loadId
	]);
	if (!made.count)
		throw new Refused(`Somebody has just made a bank called “${name}”. Choose it, or give the new one another name.`);
	return made.id;
}

/** Notes what becomes of each question, and the category that it lands in. */
async function markOutcomes(connection: PoolConnection, loadId: number, landings: Landing[]): Promise<void> {
	await noteLandings(connection, landings);
	await run(
		connection,
		'UPDATE staged_questions s JOIN landing_now n ON n.staged_id = s.id SET s.outcome = n.outcome, s.match_question_id = COALESCE(n.target_id, s.match_question_id) WHERE s.load_id = ?',
		[loadId]
	);
}

/** Notes the questions of a load that the rules change, as they want them. */
async function adjust(connection: PoolConnection, loadId: number, decision: Decision): Promise<void> {
	if (!adjustsQuestions(decision)) return;
	for (let last = 0; ;) {
		// a batch at a time, by key
		const found = await rows<{ id: number; document: string; alone: string }>(
			connection,
			`SELECT id, document, set_alone AS alone FROM staged_questions WHERE load_id = ? AND outcome IN ('taken', 'replaced') AND id > ? ORDER BY id LIMIT ${batch}`,
			[loadId, last]
		);
		if (!found.length) return;
		last = found.at(-1)!.id;
		await noteAdjusted(
			connection,
			found.flatMap(({ id, document, alone }) => {
				const before = parseQuestion(JSON.parse(document));
				const question = adjusted(before, decision, JSON.parse(alone) as Setting[]);
				return question === before ? [] : [{ stagedId: id, question }];
			})
		);
	}
}
