import type { Pool, PoolConnection } from 'mysql2/promise';
import { parseQuestion } from '../../../../core/kinds/schema';
import { checkQuestion, checks } from '../../../../core/checks';
import { visible } from '../../../../core/markup/visible';
import type { Question } from '../../../../core/kinds';
import { adjusted, adjustsQuestions, type Setting } from '../../../../core/take-in/adjust';
import type { Decision } from '../../../../core/take-in/decision';
import { landings, pathKey, pathOfKey } from '../../../../core/take-in/paths';
import { goesToQuizBank, planTakeIn, type Plan } from '../../../../core/take-in/plan';
import { categoryTree, ensureCategories } from '../banks/tree';
import { row, rows, run, transaction } from '../db/pool';
import { keepFiles } from '../files/uses';
import { record } from '../ledger/ledger';
import { takeInQuizzes } from './quizzes';
import { receipt } from './receipt';
import { dropLoneTwins } from '../snags/twins';
import { findLost } from '../quizzes/lost';
import { Refused } from './refused';
import { rememberRules } from './rules';
import { planRows } from './review';
import { columnsOf, reportColumns } from './staging';

const batch = 500;

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
		const load = await row<{ state: string; file_name: string }>(
			connection,
			'SELECT state, file_name FROM loads WHERE id = ? AND course_id = ? FOR UPDATE',
			[loadId, courseId]
		);
		if (!load) throw new Refused('This load is gone.');
		if (load.state === 'taken') throw new Refused('Somebody has taken this load in already. Look at its receipt.');
		if (load.state !== 'review' && load.state !== 'undone') throw new Refused('This load cannot be taken in now.');
		// before anything is read, so that what others have just put into the bank is seen
		await lockBanks(connection, courseId, [decision.bankId, decision.quizBank?.bankId ?? null]);
		const questions = await planRows(connection, courseId, loadId);
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
		const plan = planTakeIn(questions, decision, bank?.existing ?? [], quizBank?.existing ?? [], quizzes);
		if (plan.refusal) throw new Refused(plan.refusal);

		const bankId = (bank ?? quizBank)?.id ?? null;
		const ids = bank && (await ensureCategories(connection, bank.id, plan.categories.map(pathOfKey), loadId)).ids;
		const quizIds =
			quizBank &&
			(await ensureCategories(connection, quizBank.id, plan.quizBank!.categories.map(pathOfKey), loadId)).ids;
		await markOutcomes(
			connection,
			loadId,
			questions.map((one, at) => {
				const outcome = plan.outcomes[at]!;
				const target = plan.targets[at]!;
				if (outcome !== 'taken') return [one.id, outcome, null, null, target];
				const [to, known] = goesToQuizBank(one, decision) ? [quizBank!, quizIds!] : [bank!, ids!];
				return [one.id, outcome, to.id, known.get(pathKey(to.land(pathOfKey(one.category)))) ?? null, target];
			})
		);
		await adjust(connection, loadId, decision);
		if (plan.replaced) await replace(connection, courseId, loadId);
		if (plan.taken) await insert(connection, courseId, loadId);
		await takeInQuizzes(connection, courseId, loadId);
		await findLost(connection, courseId);
		await dropLoneTwins(connection, courseId);
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

/** Locks the banks that a load goes to, so that two loads that come at once do not both make the same category. */
async function lockBanks(connection: PoolConnection, courseId: number, ids: (number | null)[]): Promise<void> {
	const known = ids.filter((id) => id !== null);
	if (known.length)
		await rows(connection, 'SELECT id FROM banks WHERE course_id = ? AND id IN (?) ORDER BY id FOR UPDATE', [
			courseId,
			known
		]);
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

/** Notes what becomes of each question, and the category that it lands in, in a table that lives as long as the connection. */
async function markOutcomes(
	connection: PoolConnection,
	loadId: number,
	outcomes: [number, string, number | null, number | null, number | null][]
): Promise<void> {
	await run(
		connection,
		'CREATE TEMPORARY TABLE IF NOT EXISTS landing_now (staged_id BIGINT UNSIGNED NOT NULL PRIMARY KEY, outcome VARCHAR(12) CHARACTER SET ascii NOT NULL, bank_id INT UNSIGNED NULL, category_id INT UNSIGNED NULL, target_id BIGINT UNSIGNED NULL, KEY (target_id))'
	);
	await run(connection, 'DELETE FROM landing_now');
	for (let at = 0; at < outcomes.length; at += 4 * batch)
		await run(connection, 'INSERT INTO landing_now (staged_id, outcome, bank_id, category_id, target_id) VALUES ?', [
			outcomes.slice(at, at + 4 * batch)
		]);
	await run(
		connection,
		'UPDATE staged_questions s JOIN landing_now n ON n.staged_id = s.id SET s.outcome = n.outcome, s.match_question_id = COALESCE(n.target_id, s.match_question_id) WHERE s.load_id = ?',
		[loadId]
	);
}

/** Writes down the questions of a load that the rules change, as they want them, in a table that lives as long as the connection. */
async function adjust(connection: PoolConnection, loadId: number, decision: Decision): Promise<void> {
	await run(
		connection,
		'CREATE TEMPORARY TABLE IF NOT EXISTS adjusted_now (staged_id BIGINT UNSIGNED NOT NULL PRIMARY KEY, points DOUBLE NULL, document LONGTEXT NOT NULL, fingerprint BINARY(32) NOT NULL) CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci'
	);
	await run(
		connection,
		"CREATE TEMPORARY TABLE IF NOT EXISTS adjusted_snags_now (staged_id BIGINT UNSIGNED NOT NULL, rule VARCHAR(60) NOT NULL, severity ENUM('broken', 'doubtful', 'untidy') NOT NULL, message TEXT NOT NULL, words TEXT NOT NULL, place VARCHAR(1000) NOT NULL, line INT UNSIGNED NULL, KEY (staged_id)) CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci"
	);
	await run(connection, 'DELETE FROM adjusted_now');
	await run(connection, 'DELETE FROM adjusted_snags_now');
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
		const changed = found.flatMap((one) => {
			const before = parseQuestion(JSON.parse(one.document));
			const question = adjusted(before, decision, JSON.parse(one.alone) as Setting[]);
			return question === before ? [] : [{ id: one.id, question }];
		});
		if (!changed.length) continue;
		await run(connection, 'INSERT INTO adjusted_now VALUES ?', [
			changed.map(({ id, question }) => {
				const { document, fingerprint } = columnsOf(question);
				return [id, question.points, document, fingerprint];
			})
		]);
		const snags = changed.flatMap(({ id, question }) =>
			snagsOf(question).map((report) => [id, ...reportColumns(report)])
		);
		if (snags.length) await run(connection, 'INSERT INTO adjusted_snags_now VALUES ?', [snags]);
	}
}

/** What the checks find in a question by itself. */
const snagsOf = (question: Question) => checkQuestion(question, { duplicateOf: () => null });
/** What they find anew in a question that the rules have changed; that it is there twice is known from before. */
const foundAnew = [checks.map((one) => one.id).filter((id) => id !== 'exact-duplicate')];
/** What was said of a question when it was read, as far as it need not be found anew. */
const stillTrue = '(r.rule NOT IN (?) OR NOT EXISTS (SELECT 1 FROM adjusted_now x WHERE x.staged_id = r.staged_id))';

async function insert(connection: PoolConnection, courseId: number, loadId: number): Promise<void> {
	await run(
		connection,
		`INSERT INTO questions (course_id, bank_id, category_id, load_id, staged_id, identifier, kind, title, stem_text, points, document, fingerprint, word_hashes, verified_by, verified)
		SELECT ?, n.bank_id, n.category_id, s.load_id, s.id, s.identifier, s.kind, s.title, s.stem_text, IF(a.staged_id IS NULL, s.points, a.points),
			COALESCE(a.document, s.document), COALESCE(a.fingerprint, s.fingerprint), s.word_hashes, s.verified_by, s.verified
		FROM staged_questions s JOIN landing_now n ON n.staged_id = s.id LEFT JOIN adjusted_now a ON a.staged_id = s.id
		WHERE s.load_id = ? AND n.outcome = 'taken' ORDER BY s.number`,
		[courseId, loadId]
	);
	await keepFiles(connection, { loadId });
	await run(
		connection,
		`INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line)
		SELECT ?, q.id, r.rule, r.severity, r.message, r.words, r.place, r.line FROM questions q JOIN staged_reports r ON r.staged_id = q.staged_id WHERE q.load_id = ? AND ${stillTrue}`,
		[courseId, loadId, ...foundAnew]
	);
	await run(
		connection,
		`INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line)
		SELECT ?, q.id, a.rule, a.severity, a.message, a.words, a.place, a.line FROM questions q JOIN adjusted_snags_now a ON a.staged_id = q.staged_id WHERE q.load_id = ?`,
		[courseId, loadId]
	);
}

/** Puts questions of a load in the place of those that they are like; what was there before is kept as a version, with its snags. */
async function replace(connection: PoolConnection, courseId: number, loadId: number): Promise<void> {
	const replacing = "staged_questions s JOIN landing_now n ON n.staged_id = s.id AND n.outcome = 'replaced'";
	await run(
		connection,
		`INSERT INTO question_versions (question_id, version, kind, title, stem_text, points, document, fingerprint, word_hashes, identifier, verified_by, verified, snags, load_id, staged_id)
		SELECT q.id, q.version, q.kind, q.title, q.stem_text, q.points, q.document, q.fingerprint, q.word_hashes, q.identifier, q.verified_by, q.verified,
			(SELECT JSON_ARRAYAGG(JSON_ARRAY(g.rule, g.severity, g.message, g.words, g.place, g.line)) FROM snags g WHERE g.question_id = q.id), s.load_id, s.id
		FROM ${replacing} JOIN questions q ON q.id = n.target_id AND q.course_id = ? WHERE s.load_id = ?`,
		[courseId, loadId]
	);
	await run(
		connection,
		`UPDATE questions q JOIN landing_now n ON n.target_id = q.id AND n.outcome = 'replaced' JOIN staged_questions s ON s.id = n.staged_id LEFT JOIN adjusted_now a ON a.staged_id = s.id
		SET q.kind = s.kind, q.title = s.title, q.stem_text = s.stem_text, q.points = IF(a.staged_id IS NULL, s.points, a.points), q.document = COALESCE(a.document, s.document),
			q.fingerprint = COALESCE(a.fingerprint, s.fingerprint), q.word_hashes = s.word_hashes, q.identifier = s.identifier,
			q.verified_by = s.verified_by, q.verified = s.verified, q.version = q.version + 1
		WHERE q.course_id = ?`,
		[courseId]
	);
	const replaced = await rows<{ id: number }>(
		connection,
		"SELECT target_id AS id FROM landing_now WHERE outcome = 'replaced' AND target_id IS NOT NULL"
	);
	await keepFiles(connection, { ids: replaced.map((one) => one.id) });
	await run(
		connection,
		"DELETE g FROM snags g JOIN landing_now n ON n.target_id = g.question_id AND n.outcome = 'replaced' WHERE g.course_id = ?",
		[courseId]
	);
	await run(
		connection,
		`INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line)
		SELECT ?, n.target_id, r.rule, r.severity, r.message, r.words, r.place, r.line FROM ${replacing} JOIN staged_reports r ON r.staged_id = s.id AND ${stillTrue}`,
		[courseId, ...foundAnew]
	);
	await run(
		connection,
		`INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line)
		SELECT ?, n.target_id, a.rule, a.severity, a.message, a.words, a.place, a.line FROM ${replacing} JOIN adjusted_snags_now a ON a.staged_id = s.id`,
		[courseId]
	);
}
