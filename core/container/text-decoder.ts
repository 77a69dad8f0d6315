/** What the bytes 0x80 to 0x9f stand for in Windows-1252 (WHATWG Encoding, index windows-1252). */
const upper =
	'\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178';
const labels = new Set([
	'windows-1252',
	'cp1252',
	'x-cp1252',
	'latin1',
	'l1',
	'iso-8859-1',
	'iso8859-1',
	'iso_8859-1',
	'us-ascii',
	'ascii'
]);

/** A decoder of bytes, also piece by piece. */
export interface Decoder {
	decode: (bytes?: Uint8Array, options?: { stream?: boolean }) => string;
}

/**
 * A decoder for an encoding by its label. Some machines' own decoder takes Windows-1252 for ISO 8859-1 and gives control
 * characters for quotes and dashes, so that one is done here. Throws a RangeError for a label that is not known.
 */
export function decoderFor(label: string): Decoder {
	if (!labels.has(label.toLowerCase())) return new TextDecoder(label);
	const latin = new TextDecoder('latin1');
	return {
		decode: (bytes) =>
			bytes ? latin.decode(bytes).replace(/[\u0080-\u009f]/g, (sign) => upper[sign.charCodeAt(0) - 0x80]!) : ''
	};
}
