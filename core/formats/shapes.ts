import type { Shape } from '../model/pieces';
import { middleOf } from '../kinds/areas';
import type { XmlElement } from '../xml/tree';

/** Numbers out of a list with commas or blanks between them. */
export function numbersOf(text: string): number[] {
	return text
		.split(/[\s,]+/)
		.filter(Boolean)
		.map(Number)
		.filter(Number.isFinite);
}

/** A shape from its attributes `shape` and `coords` (QTI 2.1, 4.3.4; HTML 4.01, 13.6.1). */
export function shapeOf({ attributes }: XmlElement, identifier: string): Shape {
	const name = attributes.shape ?? 'default';
	const shape = name === 'rect' || name === 'circle' || name === 'ellipse' || name === 'poly' ? name : 'default';
	return { identifier, shape, coordinates: numbersOf(attributes.coords ?? '') };
}

/** Coordinates as QTI 2.x and 3.0 write them. */
export function coordinatesText({ coordinates }: Shape): string {
	return coordinates.join(',');
}

/** A place of a picture in words, where it has to be named instead of shown: its own label, or where its middle is. */
export function placeName(shape: Shape, at: number, label = ''): string {
	const [across, down] = middleOf(shape).map(Math.round);
	const where = shape.shape === 'default' ? 'anywhere' : `${across} across, ${down} down`;
	return label.trim() || `Place ${at + 1} (${where})`;
}
