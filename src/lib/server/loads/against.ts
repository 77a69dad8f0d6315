import type { Pool } from 'mysql2/promise';
import { likeness, NearIndex, wordSet, type WordSet } from '$core/compare/near';
import { wordingOf } from '$core/compare/wording';
import { parseQuestion } from '$core/kinds/schema';
import type { Match } from '$core/take-in/planned-question';
import { row, rows, run, type Database } from '../db/pool';
import { wordsOfColumn } from '../questions/columns';

/** From how much on a question is said to be nearly the same as another. */
export const leastNear = 0.75;
/** How much a question has to have in common with one of the same name or identifier to be a change of it. */
const leastChanged = 0.4;
const batch = 1000;

/** A question that is there, as others are held against it. */
export interface Known {
	id: number;
	identifier: string;
	title: string;
	words: WordSet;
}

/** A question that comes, with the one that says the same, where there is one. */
export interface Coming extends Known {
	same: number | null;
}

/** Works out the words of questions that were taken in before words were kept. */
export async function fillWords(db: Database, courseId: number): Promise<void> {
	for (;;) {
		const found = await rows<{ id: number; document: string }>(
			db,
			`SELECT id, document FROM questions WHERE course_id = ? AND word_hashes IS NULL LIMIT ${batch}`,
			[courseId]
		);
		if (!found.length) return;
		const values = found.map(({ id, document }) => {
			const words = wordSet(wordingOf(parseQuestion(JSON.parse(document))));
			return [id, Buffer.from(words.buffer, words.byteOffset, words.byteLength)];
		});
		await run(
			db,
			`UPDATE questions q JOIN (${values.map(() => 'SELECT ? AS id, ? AS words').join(' UNION ALL ')}) w ON w.id = q.id SET q.word_hashes = w.words`,
			values.flat()
		);
	}
}

const byOne = <Key>(list: Known[], key: (one: Known) => Key | null): Map<Key, Known | null> => {
	const found = new Map<Key, Known | null>();
	for (const entry of list) {
		const name = key(entry);
		// a name that several have tells none of them
		if (name !== null) found.set(name, found.has(name) ? null : entry);
	}
	return found;
};

/** How a question stands to those that are there: to which, and how alike the two are, in percent. */
interface Found {
	match: Match;
	target: number | null;
	likeness: number | null;
}

/** Gives what tells of a question that comes how it stands to those that are there. */
export function matcher(known: Known[]): (one: Coming) => Found {
	const byIdentifier = byOne(known, (one) => one.identifier || null);
	const byTitle = byOne(known, (one) => one.title.toLowerCase() || null);
	const near = new NearIndex(
		known.map((one) => one.words),
		leastNear
	);
	const percent = (value: number) => Math.min(99, Math.round(value * 100));
	return (staged) => {
		if (staged.same !== null) return { match: 'same', target: staged.same, likeness: 100 };
		const named = [byIdentifier.get(staged.identifier), byTitle.get(staged.title.toLowerCase())].flatMap(
			(other) => other ?? []
		);
		for (const other of named) {
			const value = likeness(staged.words, other.words);
			const both = named.length === 2 && named[0] === named[1];
			if (both || value >= leastChanged) return { match: 'changed', target: other.id, likeness: percent(value) };
		}
		const found = near.nearest(staged.words);
		return found
			? { match: 'near', target: known[found.at]!.id, likeness: percent(found.likeness) }
			: { match: 'new', target: null, likeness: null };
	};
}

/**
 * Holds the questions of a load against those of its course: each is new, the same by content, a change of one with its
 * identifier or title, or nearly the same as one. With `only`, just these are held against it.
 */
export async function compareLoad(pool: Pool, loadId: number, only?: number[]): Promise<void> {
	const load = await row<{ course_id: number }>(pool, 'SELECT course_id FROM loads WHERE id = ?', [loadId]);
	if (!load) return;
	await fillWords(pool, load.course_id);
	const known = (
		await rows<Omit<Known, 'words'> & { words: Buffer }>(
			pool,
			'SELECT id, identifier, title, word_hashes AS words FROM questions WHERE course_id = ? ORDER BY id',
			[load.course_id]
		)
	).map((one) => ({ ...one, words: wordsOfColumn(one.words) }));
	const match = matcher(known);
	let last = 0;
	for (;;) {
		// by_fingerprint of the course, for a batch of the load at a time
		const found = await rows<Omit<Coming, 'words'> & { words: Buffer | null }>(
			pool,
			`SELECT s.id, s.identifier, s.title, s.word_hashes AS words, (SELECT MIN(q.id) FROM questions q WHERE q.course_id = ? AND q.fingerprint = s.fingerprint) AS same
			FROM staged_questions s WHERE s.load_id = ? AND s.id > ?${only ? ' AND s.id IN (?)' : ''} ORDER BY s.id LIMIT ${batch}`,
			[load.course_id, loadId, last, ...(only ? [only] : [])]
		);
		if (!found.length) break;
		last = found.at(-1)!.id;
		const values = found.map((staged) => {
			const against = match({ ...staged, words: staged.words ? wordsOfColumn(staged.words) : new Uint32Array() });
			return [staged.id, against.match, against.target, against.likeness];
		});
		// what is new need not be written where it is so already
		const known = only ? values : values.filter((one) => one[1] !== 'new');
		if (!only)
			await run(
				pool,
				"UPDATE staged_questions SET match_kind = 'new', match_question_id = NULL, match_likeness = NULL WHERE load_id = ? AND id BETWEEN ? AND ? AND match_kind <> 'new'",
				[loadId, found[0]!.id, last]
			);
		if (known.length)
			await run(
				pool,
				`UPDATE staged_questions s JOIN (${known.map(() => 'SELECT ? AS id, ? AS kind, ? AS target, ? AS likeness').join(' UNION ALL ')}) m ON m.id = s.id
				SET s.match_kind = m.kind, s.match_question_id = m.target, s.match_likeness = m.likeness WHERE s.load_id = ?`,
				[...known.flat(), loadId]
			);
	}
	// what is counted of the load is counted anew
	await run(
		pool,
		`UPDATE loads SET ${only ? 'review_version = review_version + 1' : 'compared = NOW(3)'} WHERE id = ?`,
		[loadId]
	);
}

/** Whether something has been done in the course since a load was last held against it. */
export async function isStale(db: Database, courseId: number, loadId: number): Promise<boolean> {
	const stale = await row(
		db,
		'SELECT l.id FROM loads l WHERE l.id = ? AND (l.compared IS NULL OR l.compared < (SELECT MAX(d.done) FROM ledger d WHERE d.course_id = ?))',
		[loadId, courseId]
	);
	return stale !== undefined;
}

/** Holds a load against its course again where something has been done in the course since it last was. */
export async function compareAgain(pool: Pool, courseId: number, loadId: number): Promise<void> {
	if (await isStale(pool, courseId, loadId)) await compareLoad(pool, loadId);
}
