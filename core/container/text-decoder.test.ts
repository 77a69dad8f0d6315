import { describe, expect, it } from 'vitest';
import { decoderFor } from './text-decoder';

describe('a decoder', () => {
	it('gives the quotes and dashes of Windows-1252', () => {
		const bytes = Uint8Array.from([0x93, 0x72, 0x6f, 0x70, 0x65, 0x92, 0x73, 0x94, 0x20, 0x96, 0xe9, 0x80]);
		expect(decoderFor('windows-1252').decode(bytes)).toBe('“rope’s” –é€');
	});
	it('decodes Mac Roman, UTF-16 and UTF-8 as they are', () => {
		expect(decoderFor('macintosh').decode(Uint8Array.from([0xd2, 0x8e, 0xd3]))).toBe('“é”');
		expect(decoderFor('utf-16le').decode(Uint8Array.from([0x41, 0, 0xe9, 0]))).toBe('Aé');
		expect(decoderFor('utf-8').decode(Uint8Array.from([0xc3, 0xa9]))).toBe('é');
	});
	it('does not know a label that nobody has heard of', () => {
		expect(() => decoderFor('harbour-8')).toThrow(RangeError);
	});
});
