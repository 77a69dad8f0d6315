import type { PoolConnection } from 'mysql2/promise';
import { rows, run } from '../db/pool';
import { quizOf } from '../quizzes/quiz';

/** What a quiz says, without its keys and what has become of it since, in one text. */
async function saidBy(connection: PoolConnection, courseId: number, quizId: number): Promise<string> {
	const quiz = await quizOf(connection, courseId, quizId);
	return JSON.stringify([quiz?.settings, quiz?.rules, quiz?.parts], (name, value: unknown) =>
		name === 'id' || name === 'lost' ? undefined : value
	);
}

/** A title that no quiz has, with a number behind it. */
function freeTitle(title: string, taken: ReadonlySet<string>): string {
	for (let number = 2; ; number += 1) {
		const free = `${title.slice(0, 240)} ${number}`;
		if (!taken.has(free.toLowerCase())) return free;
	}
}

/**
 * Looks at quizzes that a load has just brought, each by its key and the key of what was found in the load, for those whose
 * title the course had already: one that says the same is not kept twice, and the load remembers which it is; one that says
 * something else gets a number behind its title, which is noted among what it lacks.
 */
export async function settleTitles(
	connection: PoolConnection,
	courseId: number,
	brought: readonly { quizId: number; stagedId: number; title: string; lacks: readonly string[] }[]
): Promise<void> {
	const own = brought.map(({ quizId }) => quizId);
	const there = await rows<{ id: number; title: string }>(
		connection,
		'SELECT id, title FROM quizzes WHERE course_id = ? AND id NOT IN (?) ORDER BY id',
		[courseId, own]
	);
	const taken = new Set([...there, ...brought].map(({ title }) => title.toLowerCase()));
	for (const { quizId, stagedId, title, lacks } of brought) {
		const named = there.filter((quiz) => quiz.title.toLowerCase() === title.slice(0, 255).toLowerCase());
		if (!named.length) continue;
		const said = await saidBy(connection, courseId, quizId);
		let same: number | null = null;
		for (const quiz of named) if ((await saidBy(connection, courseId, quiz.id)) === said) same ??= quiz.id;
		if (same !== null) {
			await run(connection, 'DELETE FROM quizzes WHERE id = ?', [quizId]);
			await run(connection, 'UPDATE staged_quizzes SET same_as = ? WHERE id = ?', [same, stagedId]);
			continue;
		}
		const free = freeTitle(title, taken);
		taken.add(free.toLowerCase());
		const words = `The course has another quiz called “${title}”, so that this one is called “${free}”.`;
		await run(connection, 'UPDATE quizzes SET title = ?, lacks = ? WHERE id = ?', [
			free,
			JSON.stringify([...lacks, words]),
			quizId
		]);
	}
}
