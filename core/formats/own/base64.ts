/** Bytes in base 64 (RFC 4648, section 4). */
export async function base64Of(pieces: AsyncIterable<Uint8Array>): Promise<string> {
	let binary = '';
	for await (const piece of pieces)
		for (let at = 0; at < piece.length; at += 8192) binary += String.fromCharCode(...piece.subarray(at, at + 8192));
	return btoa(binary);
}

/** The bytes of a text in base 64; null where it is none. */
export function bytesOfBase64(text: string): Uint8Array | null {
	try {
		return Uint8Array.from(atob(text.replace(/\s+/g, '')), (sign) => sign.charCodeAt(0));
	} catch {
		return null;
	}
}
