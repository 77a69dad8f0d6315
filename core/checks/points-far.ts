import { overMany, type Noted } from './check';
import { countOf } from './key-place';

const fewest = 6;
/** Points that are this many times the median, or a part of it as small, are far from the others. */
const factor = 4;

interface Note {
	points: number;
}

/** The median of what notes stand for. */
function medianOf(noted: readonly Noted<Note>[]): number {
	const sorted = [...noted].sort((a, b) => a.note.points - b.note.points);
	const all = countOf(noted);
	const at = (place: number) => {
		let before = 0;
		for (const { note, times = 1 } of sorted) {
			before += times;
			if (place < before) return note.points;
		}
		return 0;
	};
	return (at(Math.floor((all - 1) / 2)) + at(Math.floor(all / 2))) / 2;
}

/** A question is worth far more or less than the others of its category. */
export const pointsFar = overMany<Note>({
	id: 'points-far',
	version: 1,
	scope: 'many',
	title: 'Points far from those of the others',
	short: 'points',
	severity: 'doubtful',
	why: 'Whoever gets it instead of another question of the category can earn several times as much, or hardly anything. Mostly a figure was left out or typed twice.',
	within: 'category',
	tallied: true,
	note: ({ kind, points }) =>
		points === null ||
		points <= 0 ||
		kind === 'essay' ||
		kind === 'file-upload' ||
		kind === 'information' ||
		kind === 'unreadable'
			? null
			: { points },
	among(noted) {
		if (countOf(noted) < fewest) return [];
		const median = medianOf(noted);
		return noted
			.filter(({ note }) => note.points >= factor * median - 1e-9 || note.points <= median / factor + 1e-9)
			.map(({ id, note }) => ({
				id,
				message: `It is worth ${note.points} ${note.points === 1 ? 'point' : 'points'}, and the middle of its category is ${median}. See whether that is meant.`,
				words: [String(note.points)]
			}));
	}
});
