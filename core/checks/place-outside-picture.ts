import type { Question } from '../kinds';
import type { Picture, Shape } from '../model/pieces';
import type { OneCheck } from './check';

/** The least box around a shape: left, top, right, bottom; null for all of the picture, or where it has no corners. */
function boxOf({ shape, coordinates }: Shape): [number, number, number, number] | null {
	const [a = 0, b = 0, c = 0, d = 0] = coordinates;
	if (shape === 'default' || coordinates.length < 3) return null;
	if (shape === 'rect') return [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)];
	if (shape === 'circle') return [a - c, b - c, a + c, b + c];
	if (shape === 'ellipse') return [a - c, b - d, a + c, b + d];
	const xs = coordinates.filter((_, at) => at % 2 === 0);
	const ys = coordinates.filter((_, at) => at % 2 === 1);
	return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

function isAstray(shape: Shape, { width, height }: Picture): boolean {
	if (shape.shape === 'default') return false;
	const box = boxOf(shape);
	if (width === null || height === null) return !box || box[0] >= box[2] || box[1] >= box[3];
	if (!box) return true;
	const [left, top, right, bottom] = box;
	return right < 0 || bottom < 0 || left > width || top > height;
}

const shapesOf = (question: Question): Shape[] =>
	question.kind === 'hotspot' ? question.shapes : question.kind === 'label-image' ? question.targets : [];

/** A place that nobody can point at. */
export const placeOutsidePicture: OneCheck = {
	id: 'place-outside-picture',
	version: 1,
	scope: 'one',
	title: 'Place outside of its picture',
	short: 'outside',
	severity: 'broken',
	why: 'Nobody can point at a place that does not lie in the picture, so what it earns is out of reach.',
	find(question) {
		if (question.kind !== 'hotspot' && question.kind !== 'label-image') return [];
		const { width, height } = question.picture;
		const astray = shapesOf(question).flatMap((shape, at) => (isAstray(shape, question.picture) ? [at + 1] : []));
		if (!astray.length) return [];
		const which = `${astray.length > 1 ? 'Places' : 'Place'} ${astray.join(', ')}`;
		const size = width === null || height === null ? null : `${width} by ${height}`;
		return [
			{
				message: size
					? `${which} ${astray.length > 1 ? 'lie' : 'lies'} outside of the picture, which is ${size} pixels. Draw ${astray.length > 1 ? 'them' : 'it'} where it can be pointed at.`
					: `${which} ${astray.length > 1 ? 'have' : 'has'} no area, and the size of the picture is not known. Draw ${astray.length > 1 ? 'them' : 'it'} anew.`
			}
		];
	}
};
