import { Reader, ZipReader, configure, type Entry as ZipEntry } from '@zip.js/zip.js';
import { Column } from './compact';
import { ContainerError, type ByteSource } from './container';
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
export interface Member {
	path: string;
	size: number;
	offset: number;
	packed: number;
	method: number;
	/** The checksum that the directory states (APPNOTE.TXT, 4.4.7); 0 where it states none. */
	checksum: number;
}

/** The directory of a zip: its files, and where each of them stands. */
export class Directory {
	readonly files = new FileList();
	readonly #offset = new Column(Float64Array);
	readonly #packed = new Column(Float64Array);
	readonly #method = new Column(Uint8Array);
	readonly #checksum = new Column(Int32Array);

	/** Notes a file. */
	add(path: string, entry: ZipEntry): void {
		const number = this.files.add(path, entry.uncompressedSize);
		this.#offset.set(number, entry.offset);
		this.#packed.set(number, entry.compressedSize);
		this.#method.set(number, entry.compressionMethod);
		this.#checksum.set(number, entry.crc32 ?? 0);
	}

	/** Where a file stands; null where there is none. */
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

/** The path of a file as it is read; null where it is not, which is reported: it leads out of the package, or is locked. */
function pathOf(entry: ZipEntry, reports: Report[]): string | null {
	const path = entry.filename.replace(/\\/g, '/').replace(/^(\.\/)+/, '');
	if (path.startsWith('/') || /^[a-zA-Z]:/.test(path) || path.split('/').includes('..')) {
		reports.push({
			rule: 'path-outside',
			severity: 'doubtful',
			message: `The package holds a file whose path leads out of it (“${path}”). It was not read.`,
			place: { file: path }
		});
		return null;
	}
	if (!entry.encrypted) return path;
	reports.push({
		rule: 'encrypted',
		severity: 'broken',
		message: `“${path}” is locked with a password and cannot be read. Ask for the package without one.`,
		place: { file: path }
	});
	return null;
}

const swells = ({ uncompressedSize, compressedSize }: ZipEntry) =>
	uncompressedSize > zipLimits.ratioFrom && uncompressedSize > compressedSize * zipLimits.ratio;

/** Notes all files of a zip; gives how many entries its directory has. Throws a ContainerError beyond the limits. */
async function noteAll(source: ByteSource, directory: Directory, reports: Report[]): Promise<number> {
	let count = 0;
	let total = 0;
	// names that lead out are looked at by themselves, so that one of them does not cost the whole package
	const reader = new ZipReader(new SourceReader(source), { strictness: 'tolerant', filenameValidation: 'tolerant' });
	for await (const entry of reader.getEntriesGenerator()) {
		// damage in the directory shows as an entry without a name
		if (!entry.filename) continue;
		if ((count += 1) > zipLimits.entries)
			throw new ContainerError(
				'zip-bomb',
				`The package holds more than ${zipLimits.entries} files. It was not opened.`
			);
		const path = entry.directory ? null : pathOf(entry, reports);
		if (path === null) continue;
		total += entry.uncompressedSize;
		if (total > zipLimits.total || swells(entry))
			throw new ContainerError(
				'zip-bomb',
				`“${path}” would unpack to ${Math.round(entry.uncompressedSize / 2 ** 20)} MB out of ${Math.ceil(entry.compressedSize / 1024)} kB. A package that swells like that was not made by people; it was not opened.`
			);
		if (directory.files.number(path) >= 0)
			reports.push({
				rule: 'repeated-entry',
				severity: 'doubtful',
				message: `The package holds “${path}” twice. The later one was read.`,
				place: { file: path }
			});
		directory.add(path, entry);
	}
	return count;
}

/**
 * Reads the directory of a zip. Throws a ContainerError where it is gone, or where the package asks for more than
 * `zipLimits`; what else is wrong with it is reported.
 */
export async function readDirectory(source: ByteSource, reports: Report[]): Promise<Directory> {
	const directory = new Directory();
	try {
		const count = await noteAll(source, directory, reports);
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
	return directory;
}
