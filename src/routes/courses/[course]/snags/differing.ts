import type { Piece } from '$lib/ui/lit';

const word = /([\p{L}\p{M}\p{N}]+)/u;

/** A text in pieces, of which those words are lit that another text does not have as often as they have come up to there. */
export function differingWords(text: string, other: string): Piece[] {
	const left = new Map<string, number>();
	for (const found of other.toLowerCase().match(/[\p{L}\p{M}\p{N}]+/gu) ?? [])
		left.set(found, (left.get(found) ?? 0) + 1);
	return text
		.split(word)
		.filter(Boolean)
		.map((piece) => {
			if (!word.test(piece)) return { text: piece, lit: false };
			return { text: piece, lit: !left.has(piece.toLowerCase()) };
		});
}
