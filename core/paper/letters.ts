/** The letter of a place, from 0: A to Z, then AA, AB and so on. */
export function letterAt(place: number): string {
	const last = String.fromCharCode(65 + (place % 26));
	return place < 26 ? last : letterAt(Math.floor(place / 26) - 1) + last;
}

/** The places that letters in a text name, in their order: “A, C”, “ac” and “A C” alike; null where something else stands there. */
export function placesIn(text: string, count: number): number[] | null {
	const letters = Array.from({ length: count }, (_, at) => letterAt(at));
	const found: number[] = [];
	for (const word of text
		.toUpperCase()
		.split(/[^A-Z]+/)
		.filter(Boolean)) {
		const whole = letters.indexOf(word);
		const each = whole >= 0 ? [whole] : [...word].map((letter) => letters.indexOf(letter));
		if (each.includes(-1)) return null;
		found.push(...each);
	}
	return /[^A-Za-z\s,;./+&()-]/.test(text) ? null : found;
}
