import { describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import { unzipSync, zipSync } from 'fflate';
import { opened, readAll, zipped } from '../test-support/packages';
import { buffered, ContainerError, memorySource, resolvePath } from './container';
import { readText, streamText } from './decode';
import { openContainer } from '../formats/open';
import { openZip } from './zip';
import { zipLimits } from './zip-directory';
import { ZipWriter } from './write-zip';

const text = (words: string) => new TextEncoder().encode(words);
const item = (title: string) =>
	`<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="a" title="${title}"><itemBody><p>x</p></itemBody></assessmentItem>`;
const rule = (promise: Promise<unknown>) =>
	promise.then(
		() => 'opened',
		(error: unknown) => (error instanceof ContainerError ? error.rule : String(error))
	);

describe('a zip', () => {
	it('gives its files in any order', async () => {
		const container = await opened({ 'a.txt': 'one', 'b/c.txt': 'two' });
		expect([...container.files]).toMatchObject([
			{ path: 'a.txt', size: 3 },
			{ path: 'b/c.txt', size: 3 }
		]);
		expect(new TextDecoder().decode(await container.bytes('b/c.txt'))).toBe('two');
		expect(new TextDecoder().decode(await container.bytes('a.txt'))).toBe('one');
		expect(container.find('B/C.TXT')).toBe('b/c.txt');
		expect(await rule(container.bytes('d.txt'))).toBe('missing-file');
	});
	it('gives a large file in pieces', async () => {
		const large = Uint8Array.from({ length: 3_000_000 }, (_, at) => (at * 7919) % 251);
		const container = await opened({ 'large.bin': large });
		let size = 0;
		for await (const piece of container.stream('large.bin')) {
			expect(piece.every((byte, at) => byte === large[size + at])).toBe(true);
			size += piece.length;
		}
		expect(size).toBe(large.length);
	});
	it('says so where a file is not what was packed, and reads it all the same', async () => {
		const bytes = zipSync({ 'a.xml': [text('abcdefgh'), { level: 0 }], 'b.xml': [text('whole'), { level: 0 }] });
		bytes[new TextDecoder('latin1').decode(bytes).indexOf('abcdefgh')] = 'X'.charCodeAt(0);
		const container = await openZip(memorySource(bytes));
		expect(new TextDecoder().decode(await container.bytes('a.xml'))).toBe('Xbcdefgh');
		for await (const _piece of container.stream('b.xml')) continue;
		expect(container.reports.map((report) => [report.rule, report.place?.file])).toEqual([['damaged-entry', 'a.xml']]);
	});
	it('says so where its directory names fewer files than it should', async () => {
		const bytes = zipSync({ 'a.xml': text('a'), 'b.xml': text('b') });
		const signs = [...bytes.keys()].filter((at) => bytes[at] === 0x50 && bytes[at + 1] === 0x4b && bytes[at + 2] === 1);
		// the length of the second name stands at 28 in its entry (APPNOTE 4.3.12)
		bytes[signs[1]! + 28] = 0;
		const container = await openZip(memorySource(bytes));
		expect(container.reports.map((report) => report.rule)).toEqual(['damaged-zip']);
	});
	it('is refused where it swells without measure', async () => {
		const bomb = zipped({ 'bomb.xml': new Uint8Array(zipLimits.ratioFrom + 1) });
		expect(await rule(openZip(memorySource(bomb)))).toBe('zip-bomb');
	});
	it('is refused where it lies about the size of a file', async () => {
		const bytes = zipSync({ 'a.xml': [text('x'.repeat(5000)), { level: 9 }] });
		// the size once unpacked stands at 24 in the directory's entry (APPNOTE 4.3.12)
		const directory = bytes.findIndex((_, at) => bytes[at] === 0x50 && bytes[at + 1] === 0x4b && bytes[at + 2] === 1);
		new DataView(bytes.buffer, bytes.byteOffset).setUint32(directory + 24, 10, true);
		const container = await openZip(memorySource(bytes));
		expect(await rule(container.bytes('a.xml'))).toBe('damaged-entry');
		expect(
			await rule(
				(async () => {
					for await (const _piece of container.stream('a.xml')) continue;
				})()
			)
		).toBe('damaged-entry');
	});
	it.each(['../up.xml', 'a/../../up.xml', '/etc/up.xml', 'C:/up.xml', '..\\up.xml'])(
		'never reads a file whose path climbs out: %s',
		async (path) => {
			const container = await openZip(memorySource(zipSync({ [path]: text('x'), 'ok.xml': text('y') })));
			expect(Array.from(container.files, ({ path }) => path)).toEqual(['ok.xml']);
			expect(container.reports).toMatchObject([{ rule: 'path-outside' }]);
		}
	);
	it('says that it is damaged where its end is gone', async () => {
		const bytes = zipped({ 'a.xml': 'x'.repeat(2000), 'b.xml': 'y'.repeat(2000) });
		expect(await rule(openZip(memorySource(bytes.subarray(0, bytes.length - 30))))).toBe('damaged-zip');
	});
	it('loses one damaged file and no more', async () => {
		const random = Array.from({ length: 400 }, (_, at) => Math.sin(at).toString(36)).join('');
		const bytes = zipped({ 'a.xml': item(random), 'b.xml': item('Whole') });
		bytes.fill(255, 60, 400);
		const found = await readAll(await openZip(memorySource(bytes)));
		expect(found.questions.map((question) => question.title)).toEqual(['Whole']);
		expect(found.reports).toMatchObject([{ rule: 'damaged-entry', place: { file: 'a.xml' } }]);
	});
	it('is told from a bare file by its first bytes, whatever it is called', async () => {
		expect((await openContainer('questions.xml', memorySource(zipped({ 'a.xml': item('A') })))).packaged).toBe(true);
		expect((await openContainer('questions.zip', memorySource(text(item('A'))))).packaged).toBe(false);
	});
	it('is read with packages inside it, two deep and no deeper', async () => {
		const one = zipped({ 'a.xml': item('First') });
		const two = zipped({ 'one.zip': one });
		const three = zipped({ 'two.zip': two });
		const found = await readAll(await opened({ 'three.zip': three }));
		expect(found.questions).toEqual([]);
		expect(found.reports).toMatchObject([{ rule: 'nested-too-deep' }]);
		const shallow = await readAll(await opened({ 'two.zip': two }));
		expect(shallow.questions[0]!.source!.file).toBe('two.zip!/one.zip!/a.xml');
	});
	it('costs few reads for many small ones, to and fro, and gives the right bytes', async () => {
		let reads = 0;
		const bytes = Uint8Array.from({ length: 3_500_000 }, (_, at) => (at * 31) % 253);
		const source = buffered({
			size: bytes.length,
			read: async (offset, length) => {
				reads += 1;
				return bytes.subarray(offset, offset + length);
			}
		});
		const pick = fc.record({ offset: fc.nat(bytes.length + 10), length: fc.nat(5000) });
		await fc.assert(
			fc.asyncProperty(pick, async ({ offset, length }) => {
				expect(Buffer.from(await source.read(offset, length)).equals(bytes.subarray(offset, offset + length))).toBe(
					true
				);
			}),
			{ numRuns: 300 }
		);
		expect(reads).toBeLessThanOrEqual(4);
	});
});

describe('a zip that is written', () => {
	type Files = (readonly [path: string, pieces: Uint8Array[]])[];
	const write = async (files: Files) => {
		const pieces: Uint8Array[] = [];
		const zip = new ZipWriter();
		for (const [path, content] of files) for await (const piece of zip.add(path, content)) pieces.push(piece);
		pieces.push(...zip.end());
		return Buffer.concat(pieces);
	};
	it('is the same each time', async () => {
		const files: Files = [
			['a.xml', [text('one'), text('two')]],
			['b.png', [text('three')]]
		];
		expect(await write(files)).toEqual(await write(files));
	});
	it('gives back every file, here and to another reader, whatever its size, its name and its pieces', async () => {
		const path = fc
			.tuple(fc.constantFrom('a', 'Gezeiten/übersicht', '潮汐', 'b c'), fc.constantFrom('.xml', '.png', ''))
			.map(([name, ending]) => name + ending);
		const piece = fc.oneof(
			fc.uint8Array({ maxLength: 40 }),
			fc.integer({ min: 0, max: 150_000 }).map((size) => Uint8Array.from({ length: size }, (_, at) => (at * at) % 251))
		);
		const files = fc.uniqueArray(fc.tuple(path, fc.array(piece, { maxLength: 4 })), { selector: ([name]) => name });
		await fc.assert(
			fc.asyncProperty(files, async (given) => {
				const bytes = await write(given);
				const container = await openZip(memorySource(bytes));
				const others = unzipSync(bytes);
				expect(Array.from(container.files, ({ path }) => path)).toEqual(given.map(([name]) => name));
				for (const [name, pieces] of given) {
					const whole = Buffer.concat(pieces);
					expect(whole.equals(await container.bytes(name))).toBe(true);
					expect(whole.equals(others[name]!)).toBe(true);
				}
				expect(container.reports).toEqual([]);
			}),
			{ numRuns: 15 }
		);
	});
	const count = 65_600;
	const many = write(Array.from({ length: count }, (_, at) => [`${at}.png`, [text(String(at))]] as const));
	it('may hold more files than the old fields can count', async () => {
		const bytes = await many;
		const container = await openZip(memorySource(bytes));
		expect(container.files).toHaveLength(count);
		expect(container.reports).toEqual([]);
		expect(new TextDecoder().decode(await container.bytes('65599.png'))).toBe('65599');
		const found: string[] = [];
		unzipSync(bytes, { filter: ({ name }) => found.push(name) < 0 });
		expect(found).toHaveLength(count);
	});
	it('is not called damaged where another program let the count begin again', async () => {
		const bytes = await many;
		// as it stands without the two records of wide fields (APPNOTE 4.3.14 and 4.3.15)
		const end = Buffer.from(bytes.subarray(-22));
		end.writeUInt16LE(count % 65_536, 8);
		end.writeUInt16LE(count % 65_536, 10);
		const narrow = Buffer.concat([bytes.subarray(0, -22 - 20 - 56), end]);
		const container = await openZip(memorySource(narrow));
		expect(container.files).toHaveLength(count);
		expect(container.reports).toEqual([]);
	});
});

describe('an address in a package', () => {
	it.each([
		['quiz/tides.xml', '../images/tide%20curve.svg', 'images/tide curve.svg'],
		['quiz/tides.xml', './a.png', 'quiz/a.png'],
		['a.xml', 'b.png?x=1#y', 'b.png'],
		['a/b/c.xml', '/top.png', 'top.png'],
		['a.xml', '../../outside.png', 'outside.png'],
		['a.xml', '100%.png', '100%.png'],
		['a.xml', 'https://gullhaven.example/a.png', null],
		['a.xml', '//gullhaven.example/a.png', null],
		['a.xml', '', null]
	])('in %s, %s leads to %s', (from, address, path) => {
		expect(resolvePath(from, address)).toBe(path);
	});
});

describe('the letters of a file', () => {
	const read = async (bytes: Uint8Array) => readText(await opened({ 'a.xml': bytes }), 'a.xml');
	const latin = (words: string) => Uint8Array.from(words, (sign) => sign.charCodeAt(0));
	const utf16 = (words: string, big: boolean) => {
		const bytes = new Uint8Array(words.length * 2);
		[...words].forEach((sign, at) => new DataView(bytes.buffer).setUint16(at * 2, sign.charCodeAt(0), !big));
		return bytes;
	};
	it.each([
		['UTF-8', text('<a>Möwe</a>'), '<a>Möwe</a>', null],
		['UTF-8 with a mark', text('\ufeff<a>Möwe</a>'), '<a>Möwe</a>', null],
		[
			'Latin-1 as declared',
			latin('<?xml version="1.0" encoding="ISO-8859-1"?><a>M\u00f6we</a>'),
			'<?xml version="1.0" encoding="ISO-8859-1"?><a>Möwe</a>',
			null
		],
		[
			'UTF-8 declared as Latin-1',
			text('<?xml version="1.0" encoding="ISO-8859-1"?><a>Möwe</a>'),
			'<?xml version="1.0" encoding="ISO-8859-1"?><a>Möwe</a>',
			'wrong-encoding'
		],
		[
			'Windows-1252 declared as UTF-8',
			latin('<?xml version="1.0" encoding="UTF-8"?><a>M\u00f6we</a>'),
			'<?xml version="1.0" encoding="UTF-8"?><a>Möwe</a>',
			'wrong-encoding'
		],
		['UTF-16 with a mark', utf16('\ufeff<a>Möwe</a>', true), '<a>Möwe</a>', null],
		['UTF-16 without a mark', utf16('<a>Möwe</a>', false), '<a>Möwe</a>', null],
		[
			'plain letters with a wrong declaration',
			text('<?xml version="1.0" encoding="windows-1252"?><a>Gull</a>'),
			'<?xml version="1.0" encoding="windows-1252"?><a>Gull</a>',
			null
		]
	])('are read as %s', async (_, bytes, words, report) => {
		const found = await read(bytes);
		expect(found.text).toBe(words);
		expect(found.report?.rule ?? null).toBe(report);
	});
	it('are the same in pieces', async () => {
		const words = `<a>${'Möwe über dem Wasser '.repeat(80_000)}</a>`;
		const container = await opened({ 'a.xml': words });
		let out = '';
		for await (const piece of streamText(container, 'a.xml', () => undefined)) out += piece;
		expect(out === words).toBe(true);
	});
});
