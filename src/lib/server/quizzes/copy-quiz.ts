import type { Pool, PoolConnection } from 'mysql2/promise';
import { pathOfKey } from '$core/take-in/paths';
import { bankNames } from '../banks/banks';
import { categoryTree } from '../banks/tree';
import type { Changer } from '../banks/change';
import { rows, run, transaction } from '../db/pool';
import { record } from '../ledger/ledger';
import { Refused } from '../loads/refused';
import { carriedPart, carriedRules, type CarriedKeys } from './carried';
import { makeQuizzes } from './make';
import { quizOf, type Quiz } from './quiz';

/** What a copy of a quiz came to: its key, and what it draws from or names that the other course does not have. */
export interface QuizCopy {
	quizId: number;
	missing: string[];
}

interface Place {
	id: number;
	bank: string;
	/** The key of its path, as `pathKey` gives it; empty for the bank itself. */
	key: string;
}

/** The banks and categories of a course; a bank stands under its key made negative. */
async function placesOf(connection: PoolConnection, courseId: number): Promise<Place[]> {
	const banks = await bankNames(connection, courseId);
	const trees = await Promise.all(banks.map(({ id }) => categoryTree(connection, id)));
	return banks.flatMap(({ id, name }, at) => [
		{ id: -id, bank: name, key: '' },
		...trees[at]!.map((node) => ({ id: node.id, bank: name, key: node.key }))
	]);
}

const nameOf = ({ bank, key }: Place) => [bank, ...(key ? pathOfKey(key) : [])].join(' › ');
const categoriesIn = ({ parts }: Quiz) =>
	parts.flatMap((part) => [
		...part.categories,
		...part.quotas.flatMap(({ values }) => values.flatMap(({ category }) => category ?? []))
	]);
const questionsIn = ({ parts, rules }: Quiz) => [
	...parts.flatMap((part) => [...part.questions, ...part.include, ...part.exclude]),
	...rules.never.flat(),
	...rules.together.flat(),
	...rules.fixedOptions
];

/** What stands there for the places and questions of a quiz: places by their path, questions by what they say. */
async function keysThere(
	connection: PoolConnection,
	from: number,
	to: number,
	quiz: Quiz
): Promise<{ keys: CarriedKeys; missing: { places: Place[]; questions: Remembered[] } }> {
	const [here, there] = [await placesOf(connection, from), await placesOf(connection, to)];
	const meant = new Set(categoriesIn(quiz));
	const byName = new Map(there.map((place) => [`${place.bank}\n${place.key}`, place.id]));
	const pairs = here
		.filter(({ id }) => meant.has(id))
		.map((place) => ({ place, now: byName.get(`${place.bank}\n${place.key}`) }));
	const named = [...new Set(questionsIn(quiz))];
	// by_fingerprint
	const questions = named.length
		? await rows<Remembered & { now: number | null }>(
				connection,
				'SELECT q.id, q.title, q.fingerprint, b.name AS bank, MIN(o.id) AS now FROM questions q JOIN banks b ON b.id = q.bank_id LEFT JOIN questions o ON o.course_id = ? AND o.fingerprint = q.fingerprint WHERE q.course_id = ? AND q.id IN (?) GROUP BY q.id',
				[to, from, named]
			)
		: [];
	const found = <Of>(list: readonly Of[], now: (of: Of) => number | null | undefined, key: (of: Of) => number) =>
		new Map(list.flatMap((each) => (now(each) == null ? [] : [[key(each), now(each)!] as const])));
	const categories = pairs.filter(({ place }) => place.id > 0);
	return {
		keys: {
			questions: found(
				questions,
				({ now }) => now,
				({ id }) => id
			),
			categories: found(
				categories,
				({ now }) => now,
				({ place }) => place.id
			),
			banks: new Map(
				pairs.flatMap(({ place, now }) => (place.id < 0 && now !== undefined ? [[-place.id, -now] as const] : []))
			)
		},
		missing: {
			places: pairs.flatMap(({ place, now }) => (now === undefined ? [place] : [])),
			questions: questions.filter(({ now }) => now === null)
		}
	};
}

/** A question with what it is found by when it comes. */
interface Remembered {
	id: number;
	title: string;
	fingerprint: Buffer;
	bank: string;
}

/** Notes for the parts of a copy what it would draw from, so that it does when that comes to its course. */
async function remember(
	connection: PoolConnection,
	quiz: Quiz,
	quizId: number,
	{ places, questions }: { places: Place[]; questions: Remembered[] }
): Promise<void> {
	const parts = await rows<{ id: number }>(
		connection,
		'SELECT id FROM quiz_parts WHERE quiz_id = ? ORDER BY position',
		[quizId]
	);
	const lost = quiz.parts.flatMap((part, at) => [
		...places
			.filter(({ id }) => part.categories.includes(id))
			.map(({ id, bank, key }) => [parts[at]!.id, id < 0 ? 'bank' : 'category', bank, key, null, 0, 'listed']),
		...questions
			.filter(({ id }) => part.questions.includes(id) || part.include.includes(id))
			.map(({ id, title, fingerprint, bank }) => [
				parts[at]!.id,
				'question',
				bank,
				title,
				fingerprint,
				Math.max(0, part.questions.indexOf(id)),
				part.questions.includes(id) ? 'listed' : 'included'
			])
	]);
	if (lost.length)
		await run(
			connection,
			'INSERT INTO quiz_part_lost (part_id, kind, bank_name, name, fingerprint, position, role) VALUES ?',
			[lost]
		);
}

/**
 * Copies a quiz, in its course or to another one. There its pools are found by the names of banks and the paths of
 * categories, and the questions that it names by what they say; what is not there is told, and found when it comes.
 */
export async function copyQuiz(pool: Pool, from: Changer, quizId: number, toCourse: number): Promise<QuizCopy> {
	return transaction(pool, async (connection) => {
		const quiz = await quizOf(connection, from.courseId, quizId);
		if (!quiz) throw new Refused('That quiz is gone meanwhile.');
		const to = { courseId: toCourse, personId: from.personId };
		const isHere = toCourse === from.courseId;
		const there = isHere ? null : await keysThere(connection, from.courseId, toCourse, quiz);
		const [made] = await makeQuizzes(connection, to, [
			{
				title: isHere ? `${quiz.title} again` : quiz.title,
				settings: quiz.settings,
				rules: there ? carriedRules(quiz.rules, there.keys) : quiz.rules,
				parts: quiz.parts.map((part) => (there ? carriedPart(part, there.keys) : { ...part, lost: [] }))
			}
		]);
		if (there) await remember(connection, quiz, made!, there.missing);
		await record(connection, {
			...to,
			deed: isHere ? 'copied a quiz' : 'copied a quiz from another course',
			subject: quiz.title,
			questions: 0,
			address: `/courses/${toCourse}/quizzes/${made}`
		});
		const missing = there
			? [...there.missing.places.map(nameOf), ...there.missing.questions.map(({ title }) => `“${title}”`)]
			: [];
		return { quizId: made!, missing };
	});
}
