import type { Kind } from '$core/kinds';
import type { Setting } from '$core/take-in/adjust';
import type { Decision, MatchRule } from '$core/take-in/decision';
import type { Match, PlannedQuestion, PlannedQuestions } from '$core/take-in/planned-question';
import { rows, type Database } from '../db/pool';

const otherTwins =
	"IF(q.id IS NOT NULL AND s.match_kind = 'same', (SELECT GROUP_CONCAT(CONCAT(x.id, ':', x.bank_id) ORDER BY x.id) FROM questions x WHERE x.course_id = q.course_id AND x.fingerprint = s.fingerprint AND x.id <> q.id), NULL) AS others";
const withoutOthers = `COALESCE(s.placed_path, s.category_path) AS category, s.broken, s.choice, s.match_rule AS matchRule, s.part_credits AS credits, s.quiz_only AS quizOnly,
	s.kind, s.points, s.shuffle, s.tags, s.set_alone AS alone, s.order_bound AS orderBound, IF(q.id IS NULL, 'new', s.match_kind) AS \`match\`, q.id AS target, q.bank_id AS targetBank`;
/** The columns of staged questions `s` and their counterparts `q` that a plan needs. */
export const plannedColumns = `${withoutOthers},
	${otherTwins}`;

/** Staged questions `s` with their counterparts `q` in a course, by its key; one that has gone from the course since counts no more. */
export const withCounterparts =
	'staged_questions s LEFT JOIN questions q ON q.id = s.match_question_id AND q.course_id = ?';

/** What those columns give. */
export interface PlannedColumns {
	category: string;
	broken: number;
	choice: PlannedQuestion['choice'];
	matchRule: MatchRule | null;
	credits: string;
	quizOnly: number;
	kind: Kind;
	points: number | null;
	shuffle: number | null;
	tags: string;
	alone: string;
	orderBound: number;
	match: Match;
	target: number | null;
	targetBank: number | null;
	/** Further questions that are the same, as their key and that of their bank. */
	others: string | null;
}

const listOf = <T>(text: string): T[] => (text === '[]' ? [] : (JSON.parse(text) as T[]));

function twinsOf({ target, targetBank, others }: PlannedColumns): PlannedQuestion['twins'] {
	if (target === null) return [];
	const further = (others ?? '').split(',').filter(Boolean);
	return [
		{ id: target, bankId: targetBank! },
		...further.map((other) => {
			const [id, bankId] = other.split(':').map(Number);
			return { id: id!, bankId: bankId! };
		})
	];
}

/** A question of a load as a plan needs it, out of its columns. */
export function plannedOf(stored: PlannedColumns): PlannedQuestion {
	return {
		category: stored.category,
		broken: Boolean(stored.broken),
		choice: stored.choice,
		match: stored.match,
		twins: twinsOf(stored),
		matchRule: stored.matchRule,
		credits: listOf<number>(stored.credits),
		quizOnly: Boolean(stored.quizOnly),
		kind: stored.kind,
		points: stored.points,
		shuffle: stored.shuffle === null ? null : Boolean(stored.shuffle),
		tags: listOf<string>(stored.tags),
		alone: listOf<Setting>(stored.alone),
		orderBound: Boolean(stored.orderBound)
	};
}

/**
 * All questions of a load as a plan by a decision needs them, in the order of its file, each with its key and its number.
 * Of questions that are the same as several of the course, all are looked for only where it depends on their banks.
 */
export async function plannedQuestions(
	db: Database,
	courseId: number,
	loadId: number,
	{ against }: Pick<Decision, 'against'>
): Promise<(PlannedQuestion & { id: number; number: number })[]> {
	// by_number
	const found = await rows<PlannedColumns & { id: number; number: number }>(
		db,
		`SELECT s.id, s.number, ${against === 'bank' ? plannedColumns : `${withoutOthers}, NULL AS others`} FROM ${withCounterparts} WHERE s.load_id = ? ORDER BY s.number`,
		[courseId, loadId]
	);
	return found.map((stored) => ({ ...plannedOf(stored), id: stored.id, number: stored.number }));
}

/** What is one for questions that are alike; the category comes last, since of all of them only it may hold the sign between them. */
const alike =
	"UNHEX(MD5(CONCAT_WS('\\n\\n', s.broken, IFNULL(s.choice, ''), IFNULL(s.match_rule, ''), s.part_credits, s.quiz_only, s.kind, IFNULL(s.points, ''), IFNULL(s.shuffle, ''), s.tags, s.set_alone, s.order_bound, IF(q.id IS NULL, 'new', s.match_kind), IFNULL(q.bank_id, ''), COALESCE(s.placed_path, s.category_path))))";

/**
 * The questions of a load as a plan needs them, those that are alike together, in the order in which the first of each
 * comes in the file: far fewer than there are questions.
 */
export async function plannedTogether(db: Database, courseId: number, loadId: number): Promise<PlannedQuestions[]> {
	// by_number, and by key for the first of each
	const found = await rows<PlannedColumns & { many: number }>(
		db,
		`SELECT ${withoutOthers}, NULL AS others, g.many FROM
			(SELECT MIN(s.id) AS id, COUNT(*) AS many, MIN(s.number) AS number FROM ${withCounterparts} WHERE s.load_id = ? GROUP BY ${alike}) g
			JOIN staged_questions s ON s.id = g.id LEFT JOIN questions q ON q.id = s.match_question_id AND q.course_id = ? ORDER BY g.number`,
		[courseId, loadId, courseId]
	);
	return found.map((stored) => ({ ...plannedOf(stored), many: stored.many }));
}
