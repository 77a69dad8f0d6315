import { describe, expect, it } from 'vitest';
import { memorySource, singleFile } from './container';
import { readStart } from './decode';

const start = (bytes: Uint8Array, length: number) =>
	readStart(singleFile('a.txt', memorySource(bytes)), 'a.txt', length);
const utf8 = (text: string) => new TextEncoder().encode(text);

describe('the beginning of a file', () => {
	it('is all of a short one', async () => {
		expect(await start(utf8('Marée haute'), 100)).toBe('Marée haute');
		expect(await start(new Uint8Array(), 100)).toBe('');
	});
	it('cuts no sign in two, wherever it ends', async () => {
		const text = 'é€🌊'.repeat(20);
		for (let length = 1; length < 60; length += 1) {
			const found = (await start(utf8(text), length))!;
			expect(text.startsWith(found)).toBe(true);
			expect(utf8(found).length).toBeGreaterThan(length - 4);
		}
	});
	it('is read in the encoding that its first bytes show', async () => {
		const wide = new Uint8Array([0xff, 0xfe, ...[...'Tide'].flatMap((sign) => [sign.charCodeAt(0), 0])]);
		expect(await start(wide, 6)).toContain('Ti');
		expect(await start(new Uint8Array([0x4d, 0x61, 0x72, 0xe9, 0x65]), 100)).toBe('Marée');
	});
	it('is nothing where it is no text', async () => {
		expect(await start(new Uint8Array([0, 1, 2, 3, 0, 5, 6, 0, 1, 2, 3, 4, 5]), 100)).toBeNull();
	});
	it('reads no more than it needs', async () => {
		let read = 0;
		const source = {
			size: 50 * 2 ** 20,
			read: async (_: number, length: number) => {
				read += length;
				return new Uint8Array(length).fill(97);
			}
		};
		expect((await readStart(singleFile('a.txt', source), 'a.txt', 20_000))!.length).toBe(20_000);
		expect(read).toBeLessThanOrEqual(2 ** 20);
	});
});

describe('a bare file', () => {
	it('that is larger than can be held at once is refused in words, and its beginning can be looked at all the same', async () => {
		const huge = singleFile('all.json', {
			size: 400 * 2 ** 20,
			read: async (_: number, length: number) => new Uint8Array(length).fill(97)
		});
		await expect(huge.bytes('all.json')).rejects.toThrow(/“all\.json” is one file of 400 MB.*Take it apart/);
		expect(await readStart(huge, 'all.json', 10)).toBe('aaaaaaaaaa');
	});
});
