/** The Symbol font's own places for Greek letters and signs (the Symbol set of PostScript), as Unicode. */
const symbol = new Map<number, string>();
const put = (from: number, signs: string) => [...signs].forEach((sign, at) => symbol.set(from + at, sign));
put(0x41, 'ΑΒΧΔΕΦΓΗΙϑΚΛΜΝΟΠΘΡΣΤΥςΩΞΨΖ');
put(0x61, 'αβχδεφγηιϕκλμνοπθρστυϖωξψζ');
put(0xa1, 'ϒ′≤⁄∞ƒ♣♦♥♠↔←↑→↓°±″≥×∝∂•÷≠≡≈…');
put(0xc1, 'ℑℜ℘⊗⊕∅∩∪⊃⊇⊄⊂⊆∈∉∠∇®©™∏√⋅¬∧∨⇔⇐⇑⇒⇓');
put(0xe5, '∑');
put(0xf2, '∫');

/** The ticks, boxes and arrows of the Wingdings font that people mark answers with. */
const wingdings = new Map<number, string>([
	[0x6c, '●'],
	[0x6e, '■'],
	[0x6f, '☐'],
	[0x71, '☐'],
	[0x72, '☐'],
	[0x9f, '•'],
	[0xa1, '○'],
	[0xa7, '▪'],
	[0xa8, '☐'],
	[0xdf, '←'],
	[0xe0, '→'],
	[0xe8, '→'],
	[0xf0, '⇒'],
	[0xfb, '✗'],
	[0xfc, '✓'],
	[0xfd, '☒'],
	[0xfe, '☑']
]);

/**
 * The sign that a character of a symbol font stands for: `code` as it stands in the font or moved to U+F000 (ECMA-376
 * part 1, 17.3.3.30); any other font has its signs where Unicode has them. Null where the font or its place is not known.
 */
export function signOf(font: string, code: number): string | null {
	const place = code >= 0xf000 && code <= 0xf0ff ? code - 0xf000 : code;
	const table = /^wingdings$/i.test(font) ? wingdings : /^symbol$/i.test(font) ? symbol : null;
	if (!table) return code > 0x1f && (code < 0xe000 || code > 0xf8ff) ? String.fromCodePoint(code) : null;
	return table.get(place) ?? (table === symbol && place > 0x1f && place < 0x7f ? String.fromCharCode(place) : null);
}

const moved = /[\uf020-\uf0ff]/g;

/** A text with the characters that were moved to the symbol fonts' own area as the signs they stand for, where they are known. */
export function withSigns(font: string, text: string): string {
	return text.replace(moved, (sign) => signOf(font || 'Symbol', sign.charCodeAt(0)) ?? sign);
}
