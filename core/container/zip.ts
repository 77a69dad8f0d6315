import { Reader, ZipReader, configure, type Entry as ZipEntry } from '@zip.js/zip.js';
import { plainCodec, type Codec } from './codec';
import { Column } from './compact';
import { buffered, ContainerError, type ByteSource, type Container } from './container';
import { FileList } from './file-list';
import type { Report } from '../reports/report';

configure({ useWebWorkers: false });

/** What a package may ask for before it is refused. Sizes in bytes. */
export const zipLimits = {
	entries: 500_000,
	total: 16 * 2 ** 30,
	/** An entry over `ratioFrom` bytes may not be more than `ratio` times as large as what it is packed in. */
	ratio: 400,
	ratioFrom: 8 * 2 ** 20,
	/** The largest file that is ever held whole in memory. */
	whole: 64 * 2 ** 20
};

class SourceReader extends Reader<ByteSource> {
	readonly #source: ByteSource;
	constructor(source: ByteSource) {
		super(source);
		this.#source = source;
		this.size = source.size;
	}
	override async readUint8Array(index: number, length: number): Promise<Uint8Array<ArrayBuffer>> {
		return new Uint8Array(await this.#source.read(index, length));
	}
}

/** Where a file stands in a zip, and how it is packed. */
interface Member {
	path: string;
	size: number;
	offset: number;
	packed: number;
	method: number;
	/** The checksum that the directory states (APPNOTE.TXT, 4.4.7); 0 where it states none. */
	checksum: number;
}

/** The directory of a zip: its files, and where each of them stands. */
class Directory {
	readonly files = new FileList();
	readonly #offset = new Column(Float64Array);
	readonly #packed = new Column(Float64Array);
	readonly #method = new Column(Uint8Array);
	readonly #checksum = new Column(Int32Array);

	add(path: string, entry: ZipEntry): void {
		const number = this.files.add(path, entry.uncompressedSize);
		this.#offset.set(number, entry.offset);
		this.#packed.set(number, entry.compressedSize);
		this.#method.set(number, entry.compressionMethod);
		this.#checksum.set(number, entry.crc32 ?? 0);
	}

	get(path: string): Member | null {
		const number = this.files.number(path);
		if (number < 0) return null;
		return {
			path,
			size: this.files.size(number),
			offset: this.#offset.at(number),
			packed: this.#packed.at(number),
			method: this.#method.at(number),
			checksum: this.#checksum.at(number)
		};
	}
}

const localHeader = 30;
const statedMost = 0x10000;

/**
 * How many files a zip says that it holds (APPNOTE.TXT, 4.3.16), or null where it does not say it there. Programs that
 * know no wide fields let the count begin again at 65,536.
 */
async function statedCount(source: ByteSource): Promise<number | null> {
	const length = Math.min(source.size, 22 + 0xffff);
	const end = await source.read(source.size - length, length);
	for (let at = end.length - 22; at >= 0; at -= 1)
		if (end[at] === 0x50 && end[at + 1] === 0x4b && end[at + 2] === 5 && end[at + 3] === 6) {
			const count = end[at + 10]! | (end[at + 11]! << 8);
			return count === 0xffff ? null : count;
		}
	return null;
}

/** Whether bytes begin as a zip file does (APPNOTE.TXT, 4.3.7 and 4.3.16). */
export function looksZipped(start: Uint8Array): boolean {
	return (
		start[0] === 0x50 && start[1] === 0x4b && ((start[2] === 3 && start[3] === 4) || (start[2] === 5 && start[3] === 6))
	);
}

/**
 * Opens a zip. Only its directory is read; each file is unpacked when it is asked for.
 * Throws a ContainerError where the directory is gone, or where the package asks for more than `zipLimits`.
 */
export async function openZip(from: ByteSource, codec: Codec = plainCodec): Promise<Container> {
	const source = buffered(from);
	const reports: Report[] = [];
	const directory = new Directory();
	const { files } = directory;
	let total = 0;
	try {
		let count = 0;
		// names that lead out are looked at below, so that one of them does not cost the whole package
		const reader = new ZipReader(new SourceReader(source), {
			strictness: 'tolerant',
			filenameValidation: 'tolerant'
		});
		for await (const entry of reader.getEntriesGenerator()) {
			// damage in the directory shows as an entry without a name
			if (!entry.filename) continue;
			if ((count += 1) > zipLimits.entries)
				throw new ContainerError(
					'zip-bomb',
					`The package holds more than ${zipLimits.entries} files. It was not opened.`
				);
			if (entry.directory) continue;
			const path = entry.filename.replace(/\\/g, '/').replace(/^(\.\/)+/, '');
			if (path.startsWith('/') || /^[a-zA-Z]:/.test(path) || path.split('/').includes('..')) {
				reports.push({
					rule: 'path-outside',
					severity: 'doubtful',
					message: `The package holds a file whose path leads out of it (“${path}”). It was not read.`,
					place: { file: path }
				});
				continue;
			}
			if (entry.encrypted) {
				reports.push({
					rule: 'encrypted',
					severity: 'broken',
					message: `“${path}” is locked with a password and cannot be read. Ask for the package without one.`,
					place: { file: path }
				});
				continue;
			}
			total += entry.uncompressedSize;
			if (
				total > zipLimits.total ||
				(entry.uncompressedSize > zipLimits.ratioFrom &&
					entry.uncompressedSize > entry.compressedSize * zipLimits.ratio)
			)
				throw new ContainerError(
					'zip-bomb',
					`“${path}” would unpack to ${Math.round(entry.uncompressedSize / 2 ** 20)} MB out of ${Math.ceil(entry.compressedSize / 1024)} kB. A package that swells like that was not made by people; it was not opened.`
				);
			if (files.number(path) >= 0)
				reports.push({
					rule: 'repeated-entry',
					severity: 'doubtful',
					message: `The package holds “${path}” twice. The later one was read.`,
					place: { file: path }
				});
			directory.add(path, entry);
		}
		const stated = await statedCount(source);
		if (stated !== null && stated !== count % statedMost)
			reports.push({
				rule: 'damaged-zip',
				severity: 'broken',
				message: `The zip file is damaged: it says that it holds ${stated} files, and ${count} were found. The others cannot be read. Fetch or export it again.`
			});
	} catch (error) {
		if (error instanceof ContainerError) throw error;
		throw new ContainerError(
			'damaged-zip',
			'The zip file is damaged: the list of what is in it cannot be read, as when a download stopped early. Fetch or export it again.'
		);
	}

	const member = (path: string) => {
		const found = directory.get(path);
		if (!found) throw new ContainerError('missing-file', `“${path}” is not in the package.`);
		if (found.method !== 0 && found.method !== 8)
			throw new ContainerError(
				'unknown-compression',
				`“${path}” is packed in a way that few programs can read. Pack it again as an ordinary zip.`
			);
		return found;
	};
	const damaged = (path: string) =>
		new ContainerError('damaged-entry', `“${path}” is damaged inside the zip file and cannot be unpacked.`);

	/** Says once that a file is not what was packed; what can be read of it is read all the same. */
	const doubted = new Set<string>();
	function doubt(path: string): void {
		if (doubted.has(path)) return;
		doubted.add(path);
		reports.push({
			rule: 'damaged-entry',
			severity: 'broken',
			message: `“${path}” is damaged inside the zip file: its checksum is not the one that was written with it. What could be read of it was read, and part of it may be missing or wrong. Fetch or export the package again.`,
			place: { file: path }
		});
	}

	async function start(found: Member): Promise<number> {
		const header = await source.read(found.offset, localHeader);
		if (header.length < localHeader || header[0] !== 0x50 || header[1] !== 0x4b || header[2] !== 3)
			throw damaged(found.path);
		return found.offset + localHeader + (header[26]! | (header[27]! << 8)) + (header[28]! | (header[29]! << 8));
	}

	async function* stream(path: string): AsyncGenerator<Uint8Array> {
		const found = member(path);
		const begin = await start(found);
		const step = 1 << 18;
		let failure: unknown = null;
		const packed = (async function* () {
			try {
				for (let at = 0; at < found.packed; at += step)
					yield await source.read(begin + at, Math.min(step, found.packed - at));
			} catch (error) {
				failure = error;
				throw error;
			}
		})();
		let given = 0;
		let checksum = 0;
		const pieces = (found.method === 8 ? codec.inflatePieces(packed) : packed)[Symbol.asyncIterator]();
		try {
			for (;;) {
				let next: IteratorResult<Uint8Array>;
				try {
					next = await pieces.next();
				} catch {
					// what the source itself could not give is no damage of the zip
					throw failure ?? damaged(path);
				}
				if (next.done) break;
				given += next.value.length;
				checksum = codec.crc32(next.value, checksum);
				if (given > found.size) throw damaged(path);
				yield next.value;
			}
		} finally {
			await pieces.return?.();
		}
		if (given !== found.size) throw damaged(path);
		if (found.checksum && (checksum | 0) !== found.checksum) doubt(path);
	}

	async function bytes(path: string, limit = zipLimits.whole): Promise<Uint8Array> {
		const found = member(path);
		if (found.size > limit)
			throw new ContainerError('too-large', `“${path}” is larger than ${Math.round(limit / 2 ** 20)} MB.`);
		// the name is nearly always as long in the local header, and the extra field short: one read for both
		const guess = await source.read(found.offset, localHeader + 512 + found.packed);
		const begin = (await start(found)) - found.offset;
		const packed =
			guess.length >= begin + found.packed
				? guess.subarray(begin, begin + found.packed)
				: await source.read(found.offset + begin, found.packed);
		if (packed.length < found.packed) throw damaged(path);
		let out = packed;
		if (found.method === 8) {
			try {
				out = codec.inflate(packed, found.size);
			} catch {
				throw damaged(path);
			}
			if (out.length !== found.size) throw damaged(path);
		}
		if (found.checksum && (codec.crc32(out) | 0) !== found.checksum) doubt(path);
		return out;
	}

	return {
		packaged: true,
		files,
		has: (path) => files.number(path) >= 0,
		size: (path) => files.size(files.number(path)),
		find: (path) => files.find(path),
		stream,
		bytes,
		reports
	};
}
