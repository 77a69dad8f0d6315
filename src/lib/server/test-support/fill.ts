import type { Pool } from 'mysql2/promise';
import { edition } from '$core/checks/edition';
import type { Question } from '$core/kinds';
import { emptyCommon, withCommon } from '$core/model/question';
import { run, transaction } from '../db/pool';
import { columnsOf } from '../questions/columns';
import { touchCourse } from '../courses/counts';

const chapters = 40;
/** How many courses were made, so that each has a code of its own. */
let made = 0;
const atOnce = 500;

/** A question by its number; every fifth is numeric, every tenth has no key. */
function numbered(number: number): Question {
	const common = {
		...emptyCommon(`Q${number}`, `Light ${number}`),
		stem: `What is the period of light number ${number}?`,
		points: 1
	};
	if (number % 5 === 0)
		return withCommon(common, {
			kind: 'numeric' as const,
			accepted: [{ value: number % 60, tolerance: 1, credit: 1 }],
			whole: true
		});
	const credit = (at: number) => (number % 10 === 1 ? 0 : at === 0 ? 1 : 0);
	return withCommon(common, {
		kind: 'multiple-choice' as const,
		options: ['Two seconds', 'Five seconds', 'Ten seconds'].map((text, at) => ({
			identifier: 'ABC'[at]!,
			text,
			credit: credit(at),
			pinned: false
		})),
		shuffle: true,
		combination: 'sum' as const,
		bounds: { lower: null, upper: null },
		lostKeys: []
	});
}

/** Makes a course with so many questions in forty categories, a tenth of them without a key, and a quiz that draws from one. */
export async function fillCourse(
	pool: Pool,
	personId: number,
	size: number
): Promise<{ id: number; bank: number; category: number; quiz: number }> {
	const { id } = await run(pool, 'INSERT INTO courses (code, name) VALUES (?, ?)', [
		`B-${size}-${(made += 1)}`,
		`Lights ${size}`
	]);
	await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'manage')", [personId, id]);
	const { id: bank } = await run(pool, 'INSERT INTO banks (course_id, name) VALUES (?, ?)', [id, 'Lights']);
	const { id: category } = await run(pool, 'INSERT INTO categories (bank_id, name, position) VALUES ?', [
		Array.from({ length: chapters }, (_, at) => [bank, `Chapter ${at + 1}`, at])
	]);
	for (let from = 0; from < size; from += atOnce)
		await transaction(pool, async (connection) => {
			const questions = Array.from({ length: Math.min(atOnce, size - from) }, (_, at) => numbered(from + at));
			const { id: first } = await run(
				connection,
				'INSERT INTO questions (course_id, bank_id, category_id, identifier, kind, title, stem_text, points, document, fingerprint, word_hashes, searched_words, checked) VALUES ?',
				[
					questions.map((question, at) => {
						const { identifier, title, stemText, document, fingerprint, wordHashes, searchedWords } =
							columnsOf(question);
						const chapter = category + ((from + at) % chapters);
						return [
							id,
							bank,
							chapter,
							identifier,
							question.kind,
							title,
							stemText,
							1,
							document,
							fingerprint,
							wordHashes,
							searchedWords,
							edition
						];
					})
				]
			);
			const snags = questions.flatMap((question, at) =>
				(from + at) % 10 === 1 && question.kind === 'multiple-choice'
					? [[id, first + at, 'no-key', 'broken', 'No option is marked as right. Mark the key.', '[]']]
					: []
			);
			if (snags.length)
				await run(connection, 'INSERT INTO snags (course_id, question_id, rule, severity, message, words) VALUES ?', [
					snags
				]);
		});
	await touchCourse(pool, id);
	const { id: quiz } = await run(pool, 'INSERT INTO quizzes (course_id, title) VALUES (?, ?)', [id, 'Lights']);
	const { id: part } = await run(pool, 'INSERT INTO quiz_parts (quiz_id, position, title, draw) VALUES (?, 0, ?, 10)', [
		quiz,
		'One chapter'
	]);
	await run(pool, 'INSERT INTO quiz_part_categories (part_id, category_id) VALUES (?, ?)', [part, category]);
	return { id, bank, category, quiz };
}

/** Makes a load under review with the questions of such a course over again, of which every second is held to be the same as its twin. */
export async function fillLoad(pool: Pool, personId: number, courseId: number): Promise<number> {
	const { id } = await run(
		pool,
		"INSERT INTO loads (course_id, person_id, file_name, state, format, compared) VALUES (?, ?, 'lights.zip', 'review', 'QTI 2.1 package', NOW(3))",
		[courseId, personId]
	);
	await run(
		pool,
		`INSERT INTO staged_questions (load_id, number, identifier, category_path, kind, title, stem_text, points, document, fingerprint, word_hashes, searched_words, source, broken, match_kind, match_question_id, match_likeness)
		SELECT ?, ROW_NUMBER() OVER (ORDER BY q.id), q.identifier, c.name, q.kind, q.title, q.stem_text, q.points, q.document, q.fingerprint, q.word_hashes, q.searched_words, '', EXISTS (SELECT 1 FROM snags s WHERE s.question_id = q.id),
			IF(q.id % 2, 'new', 'same'), IF(q.id % 2, NULL, q.id), IF(q.id % 2, NULL, 100)
		FROM questions q JOIN categories c ON c.id = q.category_id WHERE q.course_id = ?`,
		[id, courseId]
	);
	await run(
		pool,
		`INSERT INTO staged_reports (load_id, staged_id, rule, severity, message, words)
		SELECT ?, s.id, 'no-key', 'broken', 'No option is marked as right. Mark the key.', '[]' FROM staged_questions s WHERE s.load_id = ? AND s.broken`,
		[id, id]
	);
	return id;
}
