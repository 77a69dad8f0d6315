import type { Shape } from '../../model/pieces';
import { numbersOf } from '../shapes';

/**
 * An area of a picture as QTI 1.2 writes it (ASI binding, varinside and response_label): a rectangle by its corner,
 * width and height; an ellipse by its centre and two radii; bounded by its corners.
 */
export function areaOf(type: string | undefined, text: string, identifier: string): Shape {
	const numbers = numbersOf(text);
	const [a = 0, b = 0, c = 0, d = c] = numbers;
	if (/^rect/i.test(type ?? '')) return { identifier, shape: 'rect', coordinates: [a, b, a + c, b + d] };
	if (/^bound/i.test(type ?? '')) return { identifier, shape: 'poly', coordinates: numbers };
	return c === d
		? { identifier, shape: 'circle', coordinates: [a, b, c] }
		: { identifier, shape: 'ellipse', coordinates: [a, b, c, d] };
}

/** A shape as QTI 1.2 writes it: the name of the area and its numbers; null for one that it has no name for. */
export function areaText({ shape, coordinates }: Shape): { type: string; text: string } | null {
	const [a = 0, b = 0, c = 0, d = 0] = coordinates;
	const tidy = (value: number) => Number(value.toPrecision(12));
	if (shape === 'rect') return { type: 'Rectangle', text: [a, b, tidy(c - a), tidy(d - b)].join(',') };
	if (shape === 'circle') return { type: 'Ellipse', text: [a, b, c, c].join(',') };
	if (shape === 'ellipse') return { type: 'Ellipse', text: [a, b, c, d].join(',') };
	return shape === 'poly' ? { type: 'Bounded', text: coordinates.join(',') } : null;
}
