/** 53 bits of a text, by a multiplying hash of two lanes (cyrb53, public domain); `seed` gives others of the same text. */
function hash53(text: string, seed: number): string {
	let [a, b] = [0xdeadbeef ^ seed, 0x41c6ce57 ^ seed];
	for (let at = 0; at < text.length; at += 1) {
		const unit = text.charCodeAt(at);
		a = Math.imul(a ^ unit, 2654435761);
		b = Math.imul(b ^ unit, 1597334677);
	}
	a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
	b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
	return (4294967296 * (2097151 & b) + (a >>> 0)).toString(36);
}

/** A short name for a text, about 100 bits in letters and figures: the same for the same text, and hardly ever for two. */
export function digestOf(text: string): string {
	return `${hash53(text, 0)}-${hash53(text, 0x9e3779b9)}`;
}
