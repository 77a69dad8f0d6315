import { folded, foldedWords, searchedWord } from '$core/markup/folded';

/** A piece of text, and whether it is to be lit. */
export interface Piece {
	text: string;
	lit: boolean;
}

/** How many letters of a word are those that are looked for, which it begins with; 0 where it does not. */
function litLength(word: string, starts: readonly string[]): number {
	const whole = folded(word);
	const start = starts.filter((begins) => whole.startsWith(begins)).sort((a, b) => b.length - a.length)[0];
	if (!start) return 0;
	let length = 1;
	// a letter with its marks is one
	while (
		length < word.length &&
		(folded(word.slice(0, length)).length < start.length || /^\p{M}/u.test(word.slice(length)))
	)
		length += 1;
	return length;
}

/** A text parted so that the beginnings of words that are looked for stand alone, whatever their case and accents. */
export function litPieces(text: string, lookedFor: string): Piece[] {
	const starts = foldedWords(lookedFor);
	if (!starts.length) return [{ text, lit: false }];
	const pieces: Piece[] = [];
	let done = 0;
	for (const match of text.matchAll(searchedWord)) {
		const length = litLength(match[0], starts);
		if (!length) continue;
		pieces.push({ text: text.slice(done, match.index), lit: false });
		pieces.push({ text: text.slice(match.index, match.index + length), lit: true });
		done = match.index + length;
	}
	pieces.push({ text: text.slice(done), lit: false });
	return pieces.filter((piece) => piece.text);
}
