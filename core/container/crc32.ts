const table = Int32Array.from({ length: 256 }, (_, value) => {
	let left = value;
	for (let bit = 0; bit < 8; bit += 1) left = left & 1 ? (left >>> 1) ^ 0xedb88320 : left >>> 1;
	return left;
});

/** The CRC-32 of bytes (ISO 3309, as APPNOTE.TXT 4.4.7 asks for it), signed; `so far` is that of the bytes before them. */
export function crc32(bytes: Uint8Array, soFar = 0): number {
	let value = ~soFar;
	for (let at = 0; at < bytes.length; at += 1) value = table[(value ^ bytes[at]!) & 255]! ^ (value >>> 8);
	return ~value;
}
