import type { QuizCheck } from './check';
import { quoted } from './saying';

/** A quiz shuffles options of questions in which they name one another by place or letter. */
export const quizShufflesPlace: QuizCheck = {
	id: 'quiz-shuffles-place',
	version: 2,
	scope: 'quiz',
	title: 'Quiz that shuffles options with a place',
	short: 'shuffled place',
	severity: 'doubtful',
	why: '“All of the above” comes first for one student and in the middle for another, and “A and C” means other options for each.',
	find({ title, parts }) {
		const bound = [
			...new Set(
				parts.flatMap(({ shufflesOptions, pool }) =>
					shufflesOptions ? pool.flatMap((question) => question.bound ?? []) : []
				)
			)
		];
		return bound.length
			? [
					{
						message: `“${title}” shuffles the options of ${quoted(bound)}, which name places or letters. Pin them, or keep the options of these questions as they stand.`,
						words: bound
					}
				]
			: [];
	}
};
