import type { Pool } from 'mysql2/promise';
import { mediaType } from '$core/formats/media';
import { parseQuestion } from '$core/kinds/schema';
import { row, rows, run, transaction } from '../db/pool';
import { storeFile } from '../files/files';
import { compareLoad } from './against';
import { saveStaged, type StagedDocument } from '../questions/staged';
import { openToChanges } from './decide';
import { Refused } from './refused';

const largest = 64 * 2 ** 20;

/** A file that somebody hands in for a question of a load. */
export interface HandedIn {
	stagedId: number;
	/** The name under which the question speaks of it. */
	name: string;
	/** The name of the file that is handed in, whose ending says what it is. */
	fileName: string;
	pieces: AsyncIterable<Uint8Array>;
}

/** A file that has arrived, to be put where questions of a load lack it. */
export interface Arrived {
	name: string;
	type: string;
	file: { id: number; hash: string };
}

const isMissing = (document: string, name: string) =>
	parseQuestion(JSON.parse(document)).attachments.some((one) => one.name === name && one.missing);

async function* bounded(pieces: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
	let size = 0;
	for await (const piece of pieces) {
		size += piece.length;
		if (size > largest) throw new Refused(`A picture has ${largest / 2 ** 20} MB at the most. Make it smaller first.`);
		yield piece;
	}
}

/**
 * Takes a picture or another file that a load lacks, for every question of it that speaks of a file of that name. Gives
 * how many those are. `put` puts it in its place once it has arrived, in a thread or here. Throws Refused where the file
 * is of no kind that questions can have, or is not missing.
 */
export async function handIn(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	given: HandedIn,
	put: (arrived: Arrived) => Promise<number> = (arrived) => putInPlace(pool, courseId, loadId, personId, arrived)
): Promise<number> {
	const type = mediaType(given.fileName);
	if (!/^(image|audio|video)\/|^application\/pdf$/.test(type))
		throw new Refused(`“${given.fileName}” is no picture, sound, video or PDF. Hand in one of those.`);
	const asked = await row<{ document: string }>(
		pool,
		'SELECT document FROM staged_questions WHERE load_id = ? AND id = ?',
		[loadId, given.stagedId]
	);
	if (!asked || !isMissing(asked.document, given.name))
		throw new Refused(`“${given.name}” is not missing in this question any more.`);
	const file = await storeFile(pool, bounded(given.pieces));
	return put({ name: given.name, type, file: { id: file.id, hash: file.hash } });
}

/** Puts a file that has arrived into every question of a load that lacks it, and checks those anew. Gives how many they are. */
export async function putInPlace(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	{ name, type, file }: Arrived
): Promise<number> {
	const changed = await transaction(pool, async (connection) => {
		await openToChanges(connection, loadId, personId);
		// by_load of the reports
		const found = await rows<StagedDocument>(
			connection,
			"SELECT id, load_id, document, version, number FROM staged_questions WHERE load_id = ? AND outcome IN ('waiting', 'aside') AND id IN (SELECT staged_id FROM staged_reports WHERE load_id = ? AND rule = 'picture-missing') FOR UPDATE",
			[loadId, loadId]
		);
		const these = found.filter((one) => isMissing(one.document, name));
		if (!these.length) return [];
		await run(
			connection,
			'INSERT INTO load_files (load_id, file_id, name, uses) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE uses = uses + VALUES(uses)',
			[loadId, file.id, name.slice(0, 500), these.length]
		);
		await saveStaged(
			connection,
			courseId,
			these.map((staged) => {
				const question = parseQuestion(JSON.parse(staged.document));
				return {
					staged: staged,
					question: {
						...question,
						attachments: question.attachments.map((attachment) =>
							attachment.name === name
								? { ...attachment, mediaType: type, hash: file.hash, missing: false }
								: attachment
						)
					}
				};
			}),
			false
		);
		return these.map((one) => one.id);
	});
	if (changed.length) await compareLoad(pool, loadId, changed);
	return changed.length;
}
