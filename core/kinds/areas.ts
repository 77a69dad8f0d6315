import type { Shape } from '../model/pieces';

/** Whether a point, in pixels of the picture, lies in a shape or on its edge. */
export function inShape({ shape, coordinates }: Shape, [x, y]: readonly [number, number]): boolean {
	const [a = 0, b = 0, c = 0, d = 0] = coordinates;
	if (shape === 'default') return true;
	if (shape === 'rect') return x >= Math.min(a, c) && x <= Math.max(a, c) && y >= Math.min(b, d) && y <= Math.max(b, d);
	if (shape === 'circle') return (x - a) ** 2 + (y - b) ** 2 <= c ** 2 + 1e-9;
	if (shape === 'ellipse') return c > 0 && d > 0 && ((x - a) / c) ** 2 + ((y - b) / d) ** 2 <= 1 + 1e-9;
	let inside = false;
	for (let at = 0, before = coordinates.length - 2; at < coordinates.length - 1; before = at, at += 2) {
		const [xi, yi] = [coordinates[at]!, coordinates[at + 1]!];
		const [xj, yj] = [coordinates[before]!, coordinates[before + 1]!];
		const cross = (x - xi) * (yj - yi) - (y - yi) * (xj - xi);
		const between = (p: number, q: number, r: number) => p >= Math.min(q, r) && p <= Math.max(q, r);
		if (Math.abs(cross) < 1e-9 && between(x, xi, xj) && between(y, yi, yj)) return true;
		if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
	}
	return inside;
}

/** The middle of a shape; for a bent polygon the middle of its first corners, so that it mostly lies inside. */
export function middleOf({ shape, coordinates }: Shape): [number, number] {
	const [a = 0, b = 0, c = 0, d = 0] = coordinates;
	if (shape === 'rect') return [(a + c) / 2, (b + d) / 2];
	if (shape === 'circle' || shape === 'ellipse') return [a, b];
	if (shape === 'default') return [0, 0];
	const xs = coordinates.filter((_, at) => at % 2 === 0);
	const ys = coordinates.filter((_, at) => at % 2 === 1);
	const mean = (list: number[]) => list.reduce((sum, one) => sum + one, 0) / Math.max(1, list.length);
	const centre: [number, number] = [mean(xs), mean(ys)];
	if (inShape({ identifier: '', shape, coordinates }, centre)) return centre;
	return [mean(xs.slice(0, 3)), mean(ys.slice(0, 3))];
}
