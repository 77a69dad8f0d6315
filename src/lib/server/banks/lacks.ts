import type { Lack } from '$lib/forms/lacks';

const ofRule = (...rules: string[]) =>
	`EXISTS (SELECT 1 FROM snags s WHERE s.question_id = q.id AND s.rule IN ('${rules.join("', '")}'))`;
const asks = "q.kind NOT IN ('information', 'unreadable')";

/** The conditions for questions `q` that lack it; a text that asks nothing lacks nothing. */
export const lackConditions: Record<Lack, string> = {
	key: ofRule('no-key', 'lost-key'),
	verified: `${asks} AND q.verified IS NULL`,
	feedback: `${asks} AND q.has_feedback = 0`,
	title: ofRule('no-title'),
	points: `${asks} AND q.points IS NULL`
};
