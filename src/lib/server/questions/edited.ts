import { cleanOwn } from '$core/kinds/clean-own';
import type { Question } from '$core/kinds';
import { overBounds } from '$core/kinds/over-bounds';
import { parseQuestion } from '$core/kinds/schema';
import type { Attachment } from '$core/model/question';
import { rows, type Database } from '../db/pool';
import { Refused } from '../loads/refused';

/**
 * A question that a person has written, out of what came from outside: cleaned, within bounds, and without what is not a
 * person's to write. Throws Refused where it is out of bounds, and Yup's ValidationError where it is no question.
 */
export function cleanEdited(value: unknown): Question {
	const question = cleanOwn(parseQuestion(value));
	const over = overBounds(question);
	if (over) throw new Refused(`${over} Nothing was changed.`);
	return question;
}

/** Those files of a question that it speaks of still. */
export function filesSpokenOf(question: Question, files: readonly Attachment[]): Attachment[] {
	const text = JSON.stringify({ ...question, attachments: [], source: null });
	return files.filter(({ name }) => text.includes(JSON.stringify(name).slice(1, -1)));
}

/**
 * The files that a question may have that was edited: those that it had, and those that were handed in for the course or
 * that other questions of it have, where it speaks of them.
 */
export async function ownFiles(
	db: Database,
	courseId: number,
	before: Question | null,
	edited: Question
): Promise<Attachment[]> {
	const had = new Map((before?.attachments ?? []).map((file) => [file.name, file]));
	const others = edited.attachments.filter(
		({ name, hash }) => !had.has(name) && typeof hash === 'string' && /^[0-9a-f]{64}$/.test(hash)
	);
	const known = others.length
		? await rows<{ hash: string }>(
				db,
				`SELECT LOWER(HEX(f.hash)) AS hash FROM files f WHERE f.hash IN (?) AND (EXISTS (SELECT 1 FROM course_files c WHERE c.file_id = f.id AND c.course_id = ?)
				OR EXISTS (SELECT 1 FROM question_files u JOIN questions q ON q.id = u.question_id WHERE u.file_id = f.id AND q.course_id = ?))`,
				[others.map(({ hash }) => Buffer.from(hash!, 'hex')), courseId, courseId]
			)
		: [];
	const hashes = new Set(known.map(({ hash }) => hash));
	const more = others
		.filter(({ hash }) => hashes.has(hash!))
		.map(({ name, mediaType, hash, bytes, width, height }) => ({
			name,
			mediaType: mediaType.slice(0, 100),
			hash,
			missing: false,
			...(bytes === undefined ? {} : { bytes }),
			...(width === undefined || height === undefined ? {} : { width, height })
		}));
	return filesSpokenOf(edited, [...had.values(), ...more]);
}
