/** What a question on paper has to do with points: null where nobody says what it is worth, no number where it asks nothing. */
interface Worth {
	number: number | null;
	points: number | null;
}

/** Points as they are written on paper: two decimals at the most. */
export const pointsText = (points: number): string => String(Math.round(points * 100) / 100);

/** What a question is worth, in words whose parts stay on one line; nothing where it asks nothing, or nobody says. */
export const worthText = ({ number, points }: Worth): string =>
	number === null || points === null ? '' : `${pointsText(points)}\u00a0${points === 1 ? 'point' : 'points'}`;

/** What all questions come to; nothing where none says what it is worth. */
export const totalText = (questions: readonly Worth[]): string =>
	questions.some(({ points }) => points !== null)
		? pointsText(questions.reduce((sum, { points }) => sum + (points ?? 0), 0))
		: '';
