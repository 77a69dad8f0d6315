import { describe, expect, it } from 'vitest';
import { litPieces } from './lit';

const lit = (text: string, words: string) => litPieces(text, words).flatMap((piece) => (piece.lit ? [piece.text] : []));

describe('words that are looked for', () => {
	it('are lit where words begin with them, in any case', () => {
		expect(lit('Tidal streams, and tides', 'TID')).toEqual(['Tid', 'tid']);
		expect(lit('The untidy rope', 'tid')).toEqual([]);
		expect(lit('Größe der Boje', 'größe boje')).toEqual(['Größe', 'Boje']);
	});
	it('are lit without their accents, and with the marks that stand on their letters', () => {
		expect(lit('Haute marée à Brest', 'maree')).toEqual(['marée']);
		expect(lit('Mare\u0301e haute', 'mare')).toEqual(['Mare\u0301']);
		expect(lit('Straße', 'stras')).toEqual(['Straß']);
	});
	it('leave the text as it is', () => {
		for (const words of ['', '(', 'a.b', 'red light'])
			expect(
				litPieces('A red light (fixed) a.b', words)
					.map(({ text }) => text)
					.join('')
			).toBe('A red light (fixed) a.b');
	});
});
