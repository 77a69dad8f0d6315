import type { Pool, PoolConnection } from 'mysql2/promise';
import { checkOf } from '$core/checks';
import { parseQuestion } from '$core/kinds/schema';
import { withKeyMarked } from '$core/scoring/keys';
import { parseDecision, type Decision, type MatchRule } from '$core/take-in/decision';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { menderOfOne, type Mender } from '../files/mender';
import { compareLoad } from './against';
import { heldAgainst, holdAgain } from './among';
import { keepLoadFiles } from './load-files';
import { Refused } from './refused';
import { cleanEdited, filesSpokenOf } from '../questions/edited';
import { saveStaged, type StagedDocument } from '../questions/staged';
import { keysOfChosen, type Chosen } from './listed';
import type { CategorySource } from './sources';

const batch = 300;

/** How far the decisions on a load have come, and what they are. */
export interface ReviewState {
	version: number;
	state: string;
	decision: Decision | null;
	/** Who decided last. */
	by: string | null;
}

/** A decision as it was stored; null where there is none, or one of an older make that no longer fits. */
export function storedDecision(text: string | null): Decision | null {
	try {
		return text ? parseDecision(JSON.parse(text)) : null;
	} catch {
		return null;
	}
}

/** The decisions on a load as they stand. */
export async function reviewState(db: Database, loadId: number): Promise<ReviewState | undefined> {
	const found = await row<{ version: number; state: string; decision: string | null; by: string | null }>(
		db,
		'SELECT l.review_version AS version, l.state, l.decision, p.name AS `by` FROM loads l LEFT JOIN people p ON p.id = l.decided_by WHERE l.id = ?',
		[loadId]
	);
	return found && { ...found, decision: storedDecision(found.decision) };
}

/** Notes that somebody has decided something on a load that is under review. Throws Refused where it is not. */
async function touch(connection: PoolConnection, loadId: number, personId: number): Promise<void> {
	const { count } = await run(
		connection,
		"UPDATE loads SET review_version = review_version + 1, decided_by = ? WHERE id = ? AND state IN ('review', 'undone')",
		[personId, loadId]
	);
	if (!count)
		throw new Refused(
			'This load is not under review any more. Somebody may have taken it in: look at the list of loads.'
		);
}

/** Keeps a decision for everybody who looks at the load. Throws Refused. */
export async function keepDecision(pool: Pool, loadId: number, personId: number, decision: Decision): Promise<void> {
	await transaction(pool, async (connection) => {
		await touch(connection, loadId, personId);
		await run(connection, 'UPDATE loads SET decision = ? WHERE id = ?', [JSON.stringify(decision), loadId]);
	});
}

/** What can be decided for questions one by one or many at once. */
export type Change =
	| { do: 'choose'; choice: 'leave' | 'aside' | null }
	| { do: 'place'; category: string | null }
	| { do: 'match'; rule: MatchRule | null }
	| { do: 'verify'; verified: boolean };

/** Decides something for chosen questions of a load. Throws Refused where it is not under review. */
export async function decide(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	chosen: Chosen,
	change: Change
): Promise<void> {
	const keys = keysOfChosen(courseId, loadId, chosen);
	const [set, values] = {
		choose: () => ['choice = ?', [(change as { choice: unknown }).choice]] as const,
		place: () => ['placed_path = ?', [(change as { category: unknown }).category]] as const,
		match: () => ['match_rule = ?', [(change as { rule: unknown }).rule]] as const,
		verify: () =>
			(change as { verified: boolean }).verified
				? (['verified_by = ?, verified = NOW(3)', [personId]] as const)
				: (['verified_by = NULL, verified = NULL', []] as const)
	}[change.do]();
	await transaction(pool, async (connection) => {
		await touch(connection, loadId, personId);
		await run(connection, `UPDATE staged_questions SET ${set} WHERE load_id = ? AND id IN ${keys.sql}`, [
			...values,
			loadId,
			...keys.parameters
		]);
	});
}

/** Takes the categories of all questions of a load from another source. Throws Refused where it is not under review. */
export async function chooseSource(
	pool: Pool,
	loadId: number,
	personId: number,
	source: CategorySource
): Promise<void> {
	const columns = {
		package: 'NULL',
		folders: 'folder_path',
		sections: "COALESCE(section_path, '')",
		metadata: "COALESCE(metadata_path, '')"
	};
	await transaction(pool, async (connection) => {
		await touch(connection, loadId, personId);
		await run(connection, `UPDATE staged_questions SET placed_path = ${columns[source]} WHERE load_id = ?`, [loadId]);
	});
}

/** What a mend of staged questions has done. */
export interface StagedMend {
	mended: number;
	left: number;
}

/** Mends staged questions by a check: those that are chosen, or all that it speaks of. Throws Refused. */
export async function mendStaged(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	rule: string,
	only: Chosen | null
): Promise<StagedMend> {
	const mender = await stagedMender(pool, loadId, rule);
	const { done, touched } = await transaction(pool, async (connection) => {
		const done: StagedMend = { mended: 0, left: 0 };
		const touched: number[] = [];
		await openToChanges(connection, loadId, personId);
		const keys = only && keysOfChosen(courseId, loadId, only);
		for (let last = 0; ;) {
			// a batch at a time, by key
			const found = await rows<StagedDocument>(
				connection,
				`SELECT id, load_id, document, version, number FROM staged_questions WHERE load_id = ? AND id > ? AND id IN (SELECT staged_id FROM staged_reports WHERE load_id = ? AND rule = ?)${keys ? ` AND id IN ${keys.sql}` : ''} ORDER BY id LIMIT ${batch} FOR UPDATE`,
				[loadId, last, loadId, rule, ...(keys?.parameters ?? [])]
			);
			if (!found.length) break;
			last = found.at(-1)!.id;
			const read = found.map((staged) => ({ staged, question: parseQuestion(JSON.parse(staged.document)) }));
			await mender.prepare?.(read.map(({ staged: { id }, question }) => ({ id, question, loadId })));
			const changed = read.flatMap(({ staged, question: before }) => {
				const after = mender.apply(staged.id, before);
				return JSON.stringify(after) === JSON.stringify(before) ? [] : [{ staged, question: after }];
			});
			done.mended += changed.length;
			done.left += found.length - changed.length;
			touched.push(...changed.map(({ staged }) => staged.id));
			if (changed.length) await saveStaged(connection, courseId, changed, false);
			if (mender.prepare) await keepLoadFiles(connection, loadId, changed);
		}
		return { done, touched };
	});
	if (!touched.length) return done;
	await compareLoad(pool, loadId, touched);
	await holdAgain(pool, courseId, loadId);
	return done;
}

/** What mends the questions of a load by a check. Throws Refused where it has no mend. */
async function stagedMender(pool: Pool, loadId: number, rule: string): Promise<Mender> {
	const check = checkOf(rule);
	if (check?.scope === 'one' && check.mend) return menderOfOne(pool, check.mend, false);
	if (check?.scope !== 'many' || !check.mend)
		throw new Refused('There is no safe mend for this. Set it right by hand.');
	const held = await heldAgainst(pool, loadId, check);
	return {
		apply: (id, question) => {
			const group = held.get(id);
			return group ? check.mend!.apply(question, group.own, group.noted) : question;
		}
	};
}

/** Opens a load to changes of its questions: one that is under review, or in the course with some set aside. */
export async function openToChanges(connection: PoolConnection, loadId: number, personId: number): Promise<void> {
	const load = await row<{ state: string }>(connection, 'SELECT state FROM loads WHERE id = ? FOR UPDATE', [loadId]);
	if (load?.state === 'taken')
		await run(connection, 'UPDATE loads SET review_version = review_version + 1, decided_by = ? WHERE id = ?', [
			personId,
			loadId
		]);
	else await touch(connection, loadId, personId);
}

/**
 * Keeps a staged question as a person has edited it. `version` guards it against a change made in between: then nothing
 * is kept, and `changed` is given. Throws Yup's ValidationError where it is of no right shape, and Refused.
 */
export async function editStaged(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	stagedId: number,
	version: number,
	value: unknown
): Promise<'kept' | 'changed'> {
	const question = cleanEdited(value);
	const outcome = await transaction(pool, async (connection) => {
		await openToChanges(connection, loadId, personId);
		const found = await row<StagedDocument & { outcome: string }>(
			connection,
			'SELECT id, load_id, document, version, number, outcome FROM staged_questions WHERE load_id = ? AND id = ? FOR UPDATE',
			[loadId, stagedId]
		);
		if (!found) throw new Refused('This question is gone.');
		if (found.outcome !== 'waiting' && found.outcome !== 'aside')
			throw new Refused('This question is in the course. Edit it in its bank.');
		if (found.version !== version) return 'changed' as const;
		const before = parseQuestion(JSON.parse(found.document));
		// where it came from, and the files that it has, are not a person's to write; a file that it speaks of no more is gone
		const attachments = filesSpokenOf(question, before.attachments);
		const kept = withKeyMarked(before, { ...question, source: before.source, attachments });
		await saveStaged(connection, courseId, [{ staged: found, question: kept }], true);
		return 'kept' as const;
	});
	if (outcome === 'changed') return outcome;
	await compareLoad(pool, loadId, [stagedId]);
	await holdAgain(pool, courseId, loadId);
	return outcome;
}
