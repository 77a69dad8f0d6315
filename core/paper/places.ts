import type { Shape } from '../model/pieces';

/** A place of a picture as it is drawn on paper, in pixels of the picture: its outline, and where its number stands. */
export interface DrawnPlace {
	outline: [x: number, y: number][];
	corner: [x: number, y: number];
}

/** A round shape is drawn with so many corners. */
const corners = 36;
/** A smaller picture is made as wide as that, so that the numbers do not cover it, but no more than so many times. */
const leastWidth = 320;
const mostTimes = 4;

/** How many times as large as it is a picture with places stands on paper. */
export const timesOnPaper = (width: number): number => Math.max(1, Math.min(mostTimes, leastWidth / width));

const pairsOf = (coordinates: readonly number[]): [number, number][] =>
	Array.from({ length: Math.floor(coordinates.length / 2) }, (_, at) => [
		coordinates[at * 2]!,
		coordinates[at * 2 + 1]!
	]);

function outlineOf({ shape, coordinates }: Shape): [number, number][] {
	const [a = 0, b = 0, c = 0, d = 0] = coordinates;
	if (shape === 'default') return [];
	if (shape === 'rect') return pairsOf([a, b, c, b, c, d, a, d]);
	if (shape === 'poly') return pairsOf(coordinates);
	const [across, down] = shape === 'circle' ? [c, c] : [c, d];
	return Array.from({ length: corners }, (_, at) => {
		const angle = (at / corners) * 2 * Math.PI;
		return [a + across * Math.cos(angle), b + down * Math.sin(angle)];
	});
}

/** How a place is drawn: its outline, and its number at the corner of that, so that what is to be seen stays free. */
export function drawnPlace(place: Shape): DrawnPlace {
	const outline = outlineOf(place);
	const least = (side: 0 | 1) => Math.max(0, Math.min(...outline.map((point) => point[side])));
	return { outline, corner: outline.length ? [least(0), least(1)] : [0, 0] };
}
