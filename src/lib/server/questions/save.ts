import type { PoolConnection } from 'mysql2/promise';
import type { Question } from '$core/kinds';
import { checkAround } from '../checks/around';
import { run } from '../db/pool';
import { columnsOf } from './columns';

/** A question of a course with what it is to be from now on. */
export interface ChangedQuestion {
	id: number;
	bankId: number;
	question: Question;
}

/** Writes questions anew, each with a version more, and checks them and those that they are held against. */
export async function saveQuestions(
	connection: PoolConnection,
	courseId: number,
	changed: readonly ChangedQuestion[]
): Promise<void> {
	if (!changed.length) return;
	await checkAround(
		connection,
		courseId,
		changed.map(({ id }) => id),
		async () => {
			await run(
				connection,
				`INSERT INTO questions (id, course_id, bank_id, identifier, kind, title, stem_text, points, document, fingerprint, word_hashes) VALUES ?
				ON DUPLICATE KEY UPDATE identifier = VALUES(identifier), kind = VALUES(kind), points = VALUES(points), title = VALUES(title), stem_text = VALUES(stem_text),
					document = VALUES(document), fingerprint = VALUES(fingerprint), word_hashes = VALUES(word_hashes), version = version + 1`,
				[
					changed.map(({ id, bankId, question }) => {
						const { identifier, title, stemText, document, fingerprint, wordHashes } = columnsOf(question);
						const { kind, points } = question;
						return [id, courseId, bankId, identifier, kind, title, stemText, points, document, fingerprint, wordHashes];
					})
				]
			);
		}
	);
}
