/** A piece of text, and whether it is to be lit. */
export interface Piece {
	text: string;
	lit: boolean;
}

const escaped = (word: string) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** A text parted so that the beginnings of words that are looked for stand alone, whatever their case. */
export function litPieces(text: string, lookedFor: string): Piece[] {
	const words = lookedFor.match(/[\p{L}\p{N}]+/gu) ?? [];
	if (!words.length) return [{ text, lit: false }];
	const found = new RegExp(`(?<![\\p{L}\\p{N}])(${words.map(escaped).join('|')})`, 'giu');
	return text
		.split(found)
		.map((part, at) => ({ text: part, lit: at % 2 === 1 }))
		.filter(({ text: part }) => part);
}
