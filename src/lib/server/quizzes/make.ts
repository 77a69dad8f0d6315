import type { Pool, PoolConnection } from 'mysql2/promise';
import { drawingRule } from '$core/draws/sheets/rule';
import { plainConditions, plainRules, plainSettings, type KeptConditions } from '$lib/forms/quiz';
import { chosenIds } from '../banks/pages';
import { filtersIn } from '../banks/conditions';
import { chosenShape, type Chosen } from '../banks/filter';
import type { Changer } from '../banks/change';
import { touchCourse } from '../courses/counts';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { Refused } from '../loads/refused';
import { quizOf, type Quiz } from './quiz';
import { writeParts, type EditedPart, type EditedQuiz } from './save';

/** A part that draws all there is, in random order, of nothing yet. */
export const blankPart = (title: string, more: Partial<EditedPart> = {}): EditedPart => ({
	title,
	draw: null,
	pointsEach: null,
	order: 'shuffled',
	shuffleOptions: true,
	withUnder: true,
	categories: [],
	questions: [],
	...more
});

/** What a new quiz is made of; what is not said is as a new quiz has it. */
export type NewQuiz = Pick<EditedQuiz, 'title' | 'parts'> &
	Partial<Pick<Quiz, 'rules' | 'settings'>> & {
		/** The load that it came with. */
		loadId?: number;
		/** What of it had no place here when it came with that load, in sentences. */
		lacks?: string[];
	};

/** Makes quizzes with their parts; gives their keys, in their order. */
export async function makeQuizzes(
	connection: PoolConnection,
	{ courseId, personId }: Changer,
	quizzes: readonly NewQuiz[]
): Promise<number[]> {
	if (!quizzes.length) return [];
	const { id: first } = await run(
		connection,
		'INSERT INTO quizzes (course_id, title, rules, settings, changed_by, load_id, lacks) VALUES ?',
		[
			quizzes.map(({ title, rules = plainRules(), settings = plainSettings(), loadId = null, lacks = [] }) => [
				courseId,
				title.slice(0, 255),
				JSON.stringify(rules),
				JSON.stringify(settings),
				personId,
				loadId,
				lacks.length ? JSON.stringify(lacks) : null
			])
		]
	);
	for (const [at, { parts }] of quizzes.entries()) await writeParts(connection, courseId, first + at, parts);
	await touchCourse(connection, courseId);
	return quizzes.map((_, at) => first + at);
}

/** The same for one quiz, in a transaction of its own. */
export async function makeWholeQuiz(pool: Pool, who: Changer, quiz: NewQuiz): Promise<number> {
	return transaction(pool, async (connection) => (await makeQuizzes(connection, who, [quiz]))[0]!);
}

/**
 * Makes a quiz that draws from a category with all under it, or from a whole bank; `asked` is what it asks of their
 * questions, and how the quiz is called then. Throws Refused where the place is gone.
 */
export async function quizOfPlace(
	pool: Pool,
	who: Changer,
	{ bankId, categoryId }: { bankId: number; categoryId: number | null },
	asked: { title: string; conditions: KeptConditions } | null = null
): Promise<number> {
	const place = await row<{ name: string; bank: string }>(
		pool,
		'SELECT b.name AS bank, COALESCE(c.name, b.name) AS name FROM banks b LEFT JOIN categories c ON c.id = ? AND c.bank_id = b.id WHERE b.course_id = ? AND b.id = ? AND (? IS NULL OR c.id IS NOT NULL)',
		[categoryId, who.courseId, bankId, categoryId]
	);
	if (!place) throw new Refused('That place is gone meanwhile. Load the page anew.');
	const title = asked?.title ?? place.name;
	const part = { categories: [categoryId ?? -bankId], ...(asked ? { conditions: asked.conditions } : {}) };
	return makeWholeQuiz(pool, who, { title, parts: [blankPart(title, part)] });
}

/**
 * What a filter asks for as what a pool can ask for; null where it asks for more than a pool can, such as words, or for a
 * state that a pool does not know.
 */
function asConditions(query: string): KeptConditions | null {
	const asked = new URLSearchParams(query);
	if (asked.get('words')?.trim()) return null;
	const filters = filtersIn((name) => asked.get(name));
	const conditions = plainConditions();
	for (const [name, value] of Object.entries(filters)) {
		const difficulty = Number(value.replace(',', '.'));
		if (name === 'kind') conditions.kinds = [value];
		else if (name === 'tag') conditions.tags.any = [value];
		else if (name === 'since') conditions.since = value;
		else if (name === 'key' && value === 'verified') conditions.key = 'verified';
		else if (name === 'difficulty' && Number.isFinite(difficulty)) conditions.difficulty = [difficulty, difficulty];
		else return null;
	}
	return conditions;
}

/** A quiz that was made by a filter: its key, how many questions it lists, or null where it draws from a pool with the same conditions. */
export interface QuizOfFilter {
	quizId: number;
	listed: number | null;
}

/**
 * Makes a quiz of what a saved filter finds in a category with all under it, or in a bank: as a pool that asks for the
 * same, so that what fits later comes in, and where a pool cannot, as a list of the questions that fit now. Throws Refused
 * where the filter or the place is gone, or nothing fits.
 */
export async function quizOfFilter(
	pool: Pool,
	who: Changer,
	place: { bankId: number; categoryId: number | null; filterId: number }
): Promise<QuizOfFilter> {
	const { bankId, categoryId, filterId } = place;
	const saved = await row<{ name: string; query: string }>(
		pool,
		'SELECT name, document AS query FROM saved_filters WHERE id = ? AND course_id = ?',
		[filterId, who.courseId]
	);
	if (!saved) throw new Refused('That filter is gone meanwhile. Load the page anew.');
	const conditions = asConditions(saved.query);
	if (conditions) {
		const quizId = await quizOfPlace(pool, who, place, { title: saved.name, conditions });
		return { quizId, listed: null };
	}
	const asked = new URLSearchParams(saved.query);
	const chosen = chosenShape.cast({
		bankId,
		categoryId,
		words: asked.get('words') ?? '',
		filters: filtersIn((name) => asked.get(name))
	});
	const { quizId, questions } = await quizOfChosen(pool, who, chosen, saved.name);
	return { quizId, listed: questions };
}

/** How many questions a part lists at the most. */
const mostListed = 10_000;

/**
 * Adds chosen questions to a quiz, behind those of the list of a part, or as a new part that lists them. Throws Refused
 * where the part draws from a pool.
 */
export async function addToQuiz(
	pool: Pool,
	{ courseId, personId }: Changer,
	chosen: Chosen,
	to: { quizId: number; part: number | null }
): Promise<{ quizId: number; questions: number }> {
	return transaction(pool, async (connection) => {
		await row(connection, 'SELECT id FROM quizzes WHERE id = ? AND course_id = ? FOR UPDATE', [to.quizId, courseId]);
		const quiz = await quizOf(connection, courseId, to.quizId);
		if (!quiz) throw new Refused('That quiz is gone meanwhile.');
		const ids = await chosenIds(connection, courseId, chosen);
		const listed = to.part === null ? null : quiz.parts[to.part];
		if (to.part !== null && (!listed || (listed.categories.length && !listed.questions.length)))
			throw new Refused('That part draws from categories. Choose one that lists its questions, or a new one.');
		const fresh = ids.filter((id) => !listed?.questions.includes(id));
		const parts = quiz.parts.map((part) => ({ ...part, lost: part.lost.map(({ id }) => id) }));
		const next: EditedPart[] = listed
			? parts.map((part, at) =>
					at === to.part ? { ...part, questions: [...part.questions, ...fresh].slice(0, mostListed) } : part
				)
			: [...parts, blankPart('Chosen questions', { order: 'kept', questions: fresh.slice(0, mostListed) })];
		await writeParts(connection, courseId, to.quizId, next);
		await run(connection, 'UPDATE quizzes SET version = version + 1, changed = NOW(3), changed_by = ? WHERE id = ?', [
			personId,
			to.quizId
		]);
		await touchCourse(connection, courseId);
		return { quizId: to.quizId, questions: fresh.length };
	});
}

/** Makes a quiz with one part that lists the chosen questions. Throws Refused where nothing of them is there. */
export async function quizOfChosen(
	pool: Pool,
	who: Changer,
	chosen: Chosen,
	title: string
): Promise<{ quizId: number; questions: number }> {
	return transaction(pool, async (connection) => {
		const questions = (await chosenIds(connection, who.courseId, chosen)).slice(0, mostListed);
		if (!questions.length) throw new Refused('Nothing is chosen that is still there.');
		const part = blankPart('Chosen questions', { questions });
		const [quizId] = await makeQuizzes(connection, who, [{ title, parts: [part] }]);
		return { quizId: quizId!, questions: questions.length };
	});
}

/** Throws a quiz away, and notes it in the ledger; gives it as it was, so that it can be put back. Null where there is none. */
export async function throwAway(pool: Pool, { courseId, personId }: Changer, quizId: number): Promise<Quiz | null> {
	return transaction(pool, async (connection) => {
		const quiz = await quizOf(connection, courseId, quizId);
		if (!quiz) return null;
		await run(connection, 'DELETE FROM quizzes WHERE id = ? AND course_id = ?', [quizId, courseId]);
		await record(connection, { courseId, personId, deed: 'threw away a quiz', subject: quiz.title, questions: 0 });
		await touchCourse(connection, courseId);
		return quiz;
	});
}

/** Puts a quiz back that was thrown away, as it was; gives its key, which is a new one. */
export async function putQuizBack(pool: Pool, who: Changer, quiz: EditedQuiz): Promise<number> {
	return transaction(pool, async (connection) => {
		const [id] = await makeQuizzes(connection, who, [
			{
				title: quiz.title,
				parts: quiz.parts,
				...(quiz.rules ? { rules: quiz.rules } : {}),
				...(quiz.settings ? { settings: quiz.settings } : {})
			}
		]);
		await run(connection, 'UPDATE quizzes SET state = ?, drawing_rule = ? WHERE id = ?', [
			quiz.state,
			quiz.drawingRule ?? drawingRule,
			id
		]);
		await record(connection, {
			...who,
			deed: 'put back a quiz',
			subject: quiz.title,
			questions: 0,
			address: `/courses/${who.courseId}/quizzes/${id}`
		});
		return id!;
	});
}

/** The quizzes of a course with their parts, for a choice of where questions go. */
export async function quizChoices(
	db: Database,
	courseId: number
): Promise<{ id: number; title: string; parts: { at: number; title: string; questions: number }[] }[]> {
	const found = await rows<{ id: number; title: string; at: number | null; part: string | null; questions: number }>(
		db,
		`SELECT z.id, z.title, p.position AS at, p.title AS part, (SELECT COUNT(*) FROM quiz_part_questions u WHERE u.part_id = p.id AND u.role = 'listed') AS questions
			FROM quizzes z LEFT JOIN quiz_parts p ON p.quiz_id = z.id WHERE z.course_id = ? ORDER BY z.id DESC, p.position LIMIT 2000`,
		[courseId]
	);
	const quizzes = new Map<
		number,
		{ id: number; title: string; parts: { at: number; title: string; questions: number }[] }
	>();
	for (const { id, title, at, part, questions } of found) {
		const quiz = quizzes.get(id) ?? { id, title, parts: [] };
		quizzes.set(id, quiz);
		if (at !== null && questions) quiz.parts.push({ at, title: part ?? '', questions });
	}
	return [...quizzes.values()];
}
