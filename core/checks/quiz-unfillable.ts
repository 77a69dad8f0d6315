import type { CheckedQuiz, QuizCheck } from './check';
import { leastLacking } from './quiz-flow';

/** How many a part draws: so many, or all that its pool has. */
const wantedOf = ({ draw, pool }: CheckedQuiz['parts'][number]) => draw ?? pool.length;
const named = (title: string, at: number) => (title ? `“${title}”` : `number ${at + 1}`);

/** A quiz wants more different questions than there are. */
export const quizUnfillable: QuizCheck = {
	id: 'quiz-unfillable',
	version: 2,
	scope: 'quiz',
	title: 'Quiz that cannot be filled',
	short: 'not fillable',
	severity: 'broken',
	why: 'Nobody can get this quiz: there are fewer different questions than its parts draw together.',
	find({ title, parts, drawn }) {
		if (drawn) return drawn.stops === null ? [] : [{ message: `“${title}” cannot be filled. ${drawn.stops}` }];
		const short = parts.flatMap((part, at) =>
			part.draw !== null && part.draw > part.pool.length
				? [`the part ${named(part.title, at)} draws ${part.draw} of ${part.pool.length}`]
				: []
		);
		if (short.length) return [{ message: `In “${title}”, ${short.join('; ')}. Draw fewer, or add questions.` }];
		const drawing = parts.map((part) => ({ wanted: wantedOf(part), pool: part.pool.map(({ number }) => number) }));
		const lacking = leastLacking(drawing);
		if (!lacking) return [];
		return [
			{
				message: `In “${title}”, the parts ${lacking.parts.map((at) => named(parts[at]!.title, at)).join(' and ')} draw ${lacking.wanted} different questions together, and have ${lacking.there} between them. Draw fewer, or widen a pool.`
			}
		];
	}
};
