/** Letters that stand for others in a search and are no letter with a mark on it. */
const alike = new Map([
	['ß', 'ss'],
	['æ', 'ae'],
	['œ', 'oe'],
	['ø', 'o'],
	['đ', 'd'],
	['ł', 'l'],
	['ı', 'i']
]);

/** A letter of a script that sets no spaces between words: each is looked for by itself. */
const unspaced = '\\p{sc=Han}\\p{sc=Hiragana}\\p{sc=Katakana}\\p{sc=Thai}\\p{sc=Lao}\\p{sc=Khmer}\\p{sc=Myanmar}';

/** A word of a text, as it is looked for. Marks belong to the letter in front of them. */
export const searchedWord = new RegExp(`[${unspaced}]\\p{M}*|(?:(?![${unspaced}])[\\p{L}\\p{N}]\\p{M}*)+`, 'gu');

/** A text as it is compared in a search: without case, accents and other marks ("Größe" is "grosse", "Marée" is "maree"). */
export function folded(text: string): string {
	return text
		.toLowerCase()
		.normalize('NFKD')
		.replace(/\p{M}+/gu, '')
		.replace(/[ßæœøđłı]/g, (letter) => alike.get(letter) ?? letter);
}

/** The words of a text in their order, as they are compared in a search. */
export function foldedWords(text: string): string[] {
	return (text.match(searchedWord) ?? []).flatMap((word) => folded(word).match(/[\p{L}\p{N}]+/gu) ?? []);
}
