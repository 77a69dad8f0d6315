/** Tables for four bytes at a time ("slicing by 4", M. Kounavis and F. Berry, 2005); the first is the plain one. */
const [table, second, third, fourth] = ((): [Int32Array, Int32Array, Int32Array, Int32Array] => {
	const one = Int32Array.from({ length: 256 }, (_, value) => {
		let left = value;
		for (let bit = 0; bit < 8; bit += 1) left = left & 1 ? (left >>> 1) ^ 0xedb88320 : left >>> 1;
		return left;
	});
	const next = (before: Int32Array) => before.map((value) => one[value & 255]! ^ (value >>> 8));
	const two = next(one);
	const three = next(two);
	return [one, two, three, next(three)];
})();

/** The CRC-32 of bytes (ISO 3309, as APPNOTE.TXT 4.4.7 asks for it), signed; `so far` is that of the bytes before them. */
export function crc32(bytes: Uint8Array, soFar = 0): number {
	let value = ~soFar;
	const whole = bytes.length & ~3;
	let at = 0;
	for (; at < whole; at += 4) {
		value ^= bytes[at]! | (bytes[at + 1]! << 8) | (bytes[at + 2]! << 16) | (bytes[at + 3]! << 24);
		value =
			fourth[value & 255]! ^ third[(value >>> 8) & 255]! ^ second[(value >>> 16) & 255]! ^ table[(value >>> 24) & 255]!;
	}
	for (; at < bytes.length; at += 1) value = table[(value ^ bytes[at]!) & 255]! ^ (value >>> 8);
	return ~value;
}
