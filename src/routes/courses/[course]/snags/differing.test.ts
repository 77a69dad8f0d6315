import { describe, expect, it } from 'vitest';
import { differingWords } from './differing';

const lit = (text: string, other: string) =>
	differingWords(text, other).flatMap((piece) => (piece.lit ? [piece.text] : []));

describe('two texts side by side', () => {
	it('have the words lit in which they differ', () => {
		expect(lit('The northern breakwater', 'The southern breakwater')).toEqual(['northern']);
		expect(lit('Red, green; white', 'red green')).toEqual(['white']);
		expect(lit('The same', 'the SAME')).toEqual([]);
	});
	it('read as they are', () => {
		const text = 'Größe: 5.2 m (bei „Ebbe“)';
		expect(
			differingWords(text, 'x')
				.map((piece) => piece.text)
				.join('')
		).toBe(text);
	});
});
