import type { ReaderRule } from '../reports/rules';
import type { Report } from '../reports/report';
import { FileList } from './file-list';

/** Bytes that can be read from any place: a file, rows of a database, memory. */
export interface ByteSource {
	size: number;
	/** The bytes from `offset`, `length` of them or as many as there are. */
	read(offset: number, length: number): Promise<Uint8Array>;
}

/** A package, opened: what is in it can be read in any order, one file at a time. */
export interface Container {
	/** Whether it is a package or one bare file. */
	packaged: boolean;
	files: FileList;
	has(path: string): boolean;
	/** The size of a file once unpacked, in bytes; 0 where there is none. */
	size(path: string): number;
	/** The path of a file by its name without regard to case, for packages made where case does not count. */
	find(path: string): string | null;
	/** The bytes of a file in pieces. Throws a ContainerError where they cannot be had. */
	stream(path: string): AsyncIterable<Uint8Array>;
	/** The whole of a file. Throws a ContainerError where it is larger than `limit` bytes. */
	bytes(path: string, limit?: number): Promise<Uint8Array>;
	/** What was odd about the package itself; it grows while files are read, and whoever reads them tells it. */
	reports: Report[];
}

/** A package, or a file in it, that cannot be read; the message is for people. */
export class ContainerError extends Error {
	constructor(
		readonly rule: ReaderRule,
		message: string
	) {
		super(message);
	}
}

/** A source over bytes in memory. */
export function memorySource(bytes: Uint8Array): ByteSource {
	return { size: bytes.length, read: async (offset, length) => bytes.subarray(offset, offset + length) };
}

const windowSize = 1 << 20;
const mostWindows = 16;

/**
 * The same source, read a mebibyte at a time, with the last few of them kept: small reads near one another cost one
 * read beneath, also where they go to and fro between the questions and the pictures of a package.
 */
export function buffered(source: ByteSource): ByteSource {
	const windows = new Map<number, Promise<Uint8Array>>();
	const window = (number: number): Promise<Uint8Array> => {
		const known = windows.get(number);
		if (known) {
			// the one that was used last goes last
			windows.delete(number);
			windows.set(number, known);
			return known;
		}
		const start = number * windowSize;
		const loaded = source.read(start, Math.min(windowSize, source.size - start));
		windows.set(number, loaded);
		if (windows.size > mostWindows) windows.delete(windows.keys().next().value!);
		return loaded;
	};
	return {
		size: source.size,
		async read(offset, length) {
			const end = Math.min(source.size, offset + length);
			if (end <= offset) return new Uint8Array();
			if (length > windowSize) return source.read(offset, length);
			const [first, last] = [Math.floor(offset / windowSize), Math.floor((end - 1) / windowSize)];
			const from = offset - first * windowSize;
			const head = await window(first);
			if (first === last) return head.subarray(from, from + end - offset);
			const tail = await window(last);
			const out = new Uint8Array(end - offset);
			out.set(head.subarray(from));
			out.set(tail.subarray(0, end - last * windowSize), windowSize - from);
			return out;
		}
	};
}

const plainAddress = /^\w[\w.-]*(?:\/\w[\w.-]*)*$/;

/** A path inside a package for an address in a file of it, by RFC 3986, section 5.2, or null where it leads outside. */
export function resolvePath(from: string, address: string, base = ''): string | null {
	// most addresses are a plain name in a folder or two, and lead nowhere else
	if (plainAddress.test(address) && !address.includes('./') && !base)
		return from.includes('/') ? from.slice(0, from.lastIndexOf('/') + 1) + address : address;
	const bare = address.trim().split(/[?#]/)[0]!.replace(/\\/g, '/');
	if (!bare || /^[a-z][a-z0-9+.-]*:/i.test(bare) || bare.startsWith('//')) return null;
	let decoded = bare;
	try {
		decoded = decodeURIComponent(bare);
	} catch {
		// a stray percent sign stands for itself
	}
	const folder = from.includes('/') ? from.slice(0, from.lastIndexOf('/') + 1) : '';
	const steps: string[] = [];
	for (const step of (decoded.startsWith('/') ? decoded : `${folder}${base}${decoded}`).split('/')) {
		if (step === '..') steps.pop();
		else if (step && step !== '.') steps.push(step);
	}
	return steps.join('/');
}

/** The most bytes of a bare file that are held at once: texts of more cannot be held as one by the common engines. */
const mostWhole = 256 * 2 ** 20;

/** A container of one bare file. */
export function singleFile(name: string, source: ByteSource): Container {
	const path = name.split(/[\\/]/).pop() || 'file';
	async function* stream(): AsyncGenerator<Uint8Array> {
		const step = 1 << 20;
		for (let at = 0; at < source.size; at += step) yield source.read(at, Math.min(step, source.size - at));
	}
	return {
		packaged: false,
		files: FileList.of([{ path, size: source.size }]),
		has: (asked) => asked === path,
		size: (asked) => (asked === path ? source.size : 0),
		find: (asked) => (asked.toLowerCase() === path.toLowerCase() ? path : null),
		stream,
		async bytes(_, limit = mostWhole) {
			if (source.size > limit)
				throw new ContainerError(
					'too-large',
					`“${path}” is one file of ${Math.round(source.size / 2 ** 20)} MB, and no more than ${Math.round(limit / 2 ** 20)} MB of its kind can be read at once. Take it apart, or ask for it as a package.`
				);
			return source.read(0, source.size);
		},
		reports: []
	};
}
