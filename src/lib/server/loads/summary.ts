import { createHash } from 'node:crypto';
import type { Pool, PoolConnection } from 'mysql2/promise';
import type { Kind } from '$core/kinds';
import type { Severity } from '$core/reports/report';
import { startingDecision, type Decision } from '$core/take-in/decision';
import { needsEach, planTakeIn, type PlanSummary } from '$core/take-in/plan';
import type { Match, PlannedQuestions } from '$core/take-in/planned-question';
import { bankNames } from '../banks/banks';
import { categoryPaths } from '../banks/tree';
import { row, run, transaction } from '../db/pool';
import { listedIn } from './take-in';
import { storedDecision } from './decide';
import { likelyBank, type LikelyBank } from './likely';
import { firstToLookAt, rulesIn } from './listed';
import { plannedQuestions, plannedTogether } from './planned';
import { rulesOf } from './rules';
import { sourcesOf, type CategorySource } from './sources';

/** A load that is under review, counted: what it holds, what is said of it, and what its decision comes to. */
export interface ReviewSummary {
	/** The decision as it is kept, or the one that a review begins with. */
	decision: Decision;
	found: number;
	/** The categories that questions are in, in the order of the file, each with how many. */
	categories: { key: string; own: number }[];
	kinds: { kind: Kind; questions: number }[];
	matches: { match: Match; questions: number }[];
	rules: { rule: string; severity: Severity; questions: number }[];
	/** How many questions stand in a quiz, and in no bank or category of their own. */
	quizOnly: number;
	/** The question to look at first: one with a snag, where there is one. */
	first: number | null;
	sources: { others: CategorySource[]; now: CategorySource | null };
	likely: LikelyBank | null;
	/** The paths of the bank that the decision takes questions to, as `pathKey` gives them. */
	existing: string[];
	plan: PlanSummary;
}

interface LoadNow {
	id: number;
	fileName: string;
	title: string;
	decision: string | null;
	/** The categories that its file lists, as they are kept. */
	categories: string | null;
	/** What the summary is of: the load, its course and the decision, as they are now. */
	state: string;
}

async function loadNow(db: Pool | PoolConnection, courseId: number, loadId: number): Promise<LoadNow | undefined> {
	const found = await row<Omit<LoadNow, 'state'> & { version: number; compared: string; stamp: number }>(
		db,
		"SELECT l.id, l.file_name AS fileName, l.package_title AS title, l.decision, l.categories, l.review_version AS version, COALESCE(DATE_FORMAT(l.compared, '%Y%m%d%H%i%s%f'), '') AS compared, c.stamp FROM loads l JOIN courses c ON c.id = l.course_id WHERE l.id = ? AND l.course_id = ?",
		[loadId, courseId]
	);
	if (!found) return undefined;
	const { version, compared, stamp, ...load } = found;
	const rules = JSON.stringify(await rulesOf(db, courseId));
	const said = createHash('sha256')
		.update(load.decision ?? rules)
		.digest('base64url')
		.slice(0, 40);
	return { ...load, state: `${version} ${stamp} ${compared} ${said}` };
}

/** How many questions have each value of something. */
function tallied<Key>(questions: PlannedQuestions[], of: (question: PlannedQuestions) => Key): [Key, number][] {
	const found = new Map<Key, number>();
	for (const question of questions) found.set(of(question), (found.get(of(question)) ?? 0) + question.many);
	return [...found];
}

/** A name for a new bank that none of the course has, as near as can be to the one that is wanted. */
function freeName(wanted: string, names: string[]): string {
	const taken = new Set(names.map((name) => name.toLowerCase()));
	const base = wanted.slice(0, 180);
	for (let at = 1; ; at += 1) {
		const name = at === 1 ? base : `${base} (${at})`;
		if (!taken.has(name.toLowerCase())) return name;
	}
}

/** The name that a load goes by where it is taken into a bank of its own. */
export function nameOfLoad(title: string, fileName: string): string {
	return title || fileName.replace(/\.[^.]+$/, '').replace(/[-_]+/g, ' ');
}

function countsOfQuestions(
	questions: PlannedQuestions[]
): Pick<ReviewSummary, 'found' | 'categories' | 'kinds' | 'matches' | 'quizOnly'> {
	return {
		found: questions.reduce((sum, { many }) => sum + many, 0),
		categories: tallied(questions, ({ category }) => category).map(([key, own]) => ({ key, own })),
		kinds: tallied(questions, ({ kind }) => kind).map(([kind, many]) => ({ kind, questions: many })),
		matches: tallied(questions, ({ match }) => match).map(([match, many]) => ({ match, questions: many })),
		quizOnly: questions.reduce((sum, { quizOnly, many }) => sum + (quizOnly ? many : 0), 0)
	};
}

async function counted(db: PoolConnection, courseId: number, load: LoadNow): Promise<ReviewSummary> {
	const banks = await bankNames(db, courseId);
	const paths = await categoryPaths(
		db,
		banks.map(({ id }) => id)
	);
	const together = await plannedTogether(db, courseId, load.id);
	const likely = likelyBank(
		together,
		banks.map(({ id }) => ({ id, paths: paths.get(id) ?? [] }))
	);
	const decision =
		storedDecision(load.decision) ??
		startingDecision(await rulesOf(db, courseId), {
			bankId: likely?.bankId ?? null,
			bankName: freeName(
				nameOfLoad(load.title, load.fileName),
				banks.map(({ name }) => name)
			)
		});
	const each = needsEach(decision) || together.some(({ matchRule }) => matchRule === 'replace');
	const questions = each ? await plannedQuestions(db, courseId, load.id, decision) : together;
	const pathsOf = (bankId: number | null | undefined) => (bankId == null ? [] : (paths.get(bankId) ?? []));
	const existing = pathsOf(decision.bankId);
	const quizzes = await row<{ n: number }>(db, 'SELECT COUNT(*) AS n FROM staged_quizzes WHERE load_id = ?', [load.id]);
	const {
		outcomes: _outcomes,
		targets: _targets,
		...plan
	} = planTakeIn(questions, decision, existing, pathsOf(decision.quizBank?.bankId), quizzes?.n ?? 0, listedIn(load));
	return {
		decision,
		...countsOfQuestions(together),
		rules: await rulesIn(db, courseId, load.id),
		first: await firstToLookAt(db, courseId, load.id),
		sources: await sourcesOf(db, load.id),
		likely,
		existing,
		plan
	};
}

async function kept(pool: Pool, load: LoadNow): Promise<ReviewSummary | undefined> {
	const found = await row<{ document: string }>(
		pool,
		'SELECT document FROM load_summaries WHERE load_id = ? AND state = ?',
		[load.id, load.state]
	);
	return found && (JSON.parse(found.document) as ReviewSummary);
}

/** The summary of a load as it was counted last, where nothing has changed since; undefined where it has to be counted. */
export async function keptSummary(pool: Pool, courseId: number, loadId: number): Promise<ReviewSummary | undefined> {
	const load = await loadNow(pool, courseId, loadId);
	return load && kept(pool, load);
}

/** The summary of a load: as it is kept, else counted now and kept. Undefined where there is no such load. */
export async function reviewSummary(pool: Pool, courseId: number, loadId: number): Promise<ReviewSummary | undefined> {
	const summary = await keptSummary(pool, courseId, loadId);
	if (summary) return summary;
	return transaction(pool, async (connection) => {
		// one moment for the state and for all that is counted under it
		const load = await loadNow(connection, courseId, loadId);
		if (!load) return undefined;
		const fresh = await counted(connection, courseId, load);
		await run(
			connection,
			'INSERT INTO load_summaries (load_id, state, document) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE state = VALUES(state), document = VALUES(document)',
			[loadId, load.state, JSON.stringify(fresh)]
		);
		return fresh;
	});
}
