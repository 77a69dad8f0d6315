import { Deflate } from 'fflate';
import { hashMemory, plainCodec, type Codec } from './codec';
import { ContainerError } from './container';
import { Spool } from './spool';

const stored = /\.(png|jpe?g|gif|webp|avif|mp3|mp4|m4a|ogg|webm|zip)$/i;
/** Files up to this size are packed at once. */
const small = 1 << 18;
/** The methods of APPNOTE.TXT, 4.4.5. */
const methods = { stored: 0, deflated: 8 };
/** The bits of APPNOTE.TXT, 4.4.4: the sizes follow the file; its name is UTF-8. */
const flags = { sizesFollow: 1 << 3, utf8: 1 << 11 };
/** The versions of APPNOTE.TXT, 4.4.3: packed files, and packages too large for the fields of 1989. */
const versions = { packed: 20, large: 45 };
/** What a field of two or of four bytes says where the value stands elsewhere (4.4.1.4). */
const elsewhere = { two: 0xffff, four: 0xffffffff };
/** The first of January 1980, as 4.4.6 counts. */
const day = 0x21;
const largeDirectorySize = 44;

type Field = [width: 2 | 4 | 8, value: number];

/** A record of fields, little-endian, with bytes behind it. */
function record(fields: Field[], ...behind: Uint8Array[]): Uint8Array {
	const head = fields.reduce((sum, [width]) => sum + width, 0);
	const bytes = new Uint8Array(behind.reduce((sum, one) => sum + one.length, head));
	const view = new DataView(bytes.buffer);
	let at = 0;
	for (const [width, value] of fields) {
		if (width === 2) view.setUint16(at, value, true);
		else if (width === 4) view.setUint32(at, value >>> 0, true);
		else view.setBigUint64(at, BigInt(value), true);
		at += width;
	}
	for (const piece of behind) {
		bytes.set(piece, at);
		at += piece.length;
	}
	return bytes;
}

/** What the package says of one file. Sizes in bytes. */
interface Said {
	name: Uint8Array;
	method: number;
	sizesFollow: boolean;
	checksum: number;
	packed: number;
	size: number;
}

/** The fields that a local header and the directory have in common (4.3.7 and 4.3.12), from the flags to the extra length. */
const common = ({ name, method, sizesFollow, checksum, packed, size }: Said, extra: number): Field[] => [
	[2, (sizesFollow ? flags.sizesFollow : 0) | (name.some((byte) => byte > 127) ? flags.utf8 : 0)],
	[2, method],
	[2, 0],
	[2, day],
	[4, checksum],
	[4, packed],
	[4, size],
	[2, name.length],
	[2, extra]
];

/** A file that is too large to be held: its bytes are packed as they come. */
class Stream {
	readonly #ready: Uint8Array[] = [];
	readonly #deflate: Deflate | null;

	constructor(method: number) {
		this.#deflate =
			method === methods.deflated
				? new Deflate({ level: 6, mem: hashMemory }, (packed) => this.#ready.push(packed))
				: null;
	}

	/** Takes a piece, the last one or not; gives what is ready. */
	push(piece: Uint8Array<ArrayBuffer>, last: boolean): Uint8Array[] {
		if (!this.#deflate) return piece.length ? [piece] : [];
		this.#deflate.push(piece, last);
		return this.#ready.splice(0);
	}
}

function joined(pieces: Uint8Array[], size: number): Uint8Array {
	if (pieces.length === 1) return pieces[0]!;
	const whole = new Uint8Array(size);
	let at = 0;
	for (const piece of pieces) {
		whole.set(piece, at);
		at += piece.length;
	}
	return whole;
}

/**
 * Writes a zip in pieces (APPNOTE.TXT 6.3.10), of any number of files: the common packages for it hold a few kilobytes
 * for each file or cannot write more than 65,535. The same files in the same order give the same bytes.
 */
export class ZipWriter {
	readonly #codec: Codec;
	readonly #directory: Spool;
	readonly #encoder = new TextEncoder();
	#count = 0;
	#offset = 0;
	#directorySize = 0;

	/** `codec` packs small files; without one it is done in code. */
	constructor(codec: Codec = plainCodec) {
		this.#codec = codec;
		this.#directory = new Spool(codec);
	}

	#given(bytes: Uint8Array): Uint8Array {
		this.#offset += bytes.length;
		return bytes;
	}

	#header(said: Said): Uint8Array {
		return this.#given(record([[4, 0x04034b50], [2, versions.packed], ...common(said, 0)], said.name));
	}

	#list(said: Said, offset: number): void {
		const far = offset >= elsewhere.four;
		const extra = far
			? record([
					[2, 1],
					[2, 8],
					[8, offset]
				])
			: new Uint8Array();
		const entry = record(
			[
				[4, 0x02014b50],
				[2, far ? versions.large : versions.packed],
				[2, far ? versions.large : versions.packed],
				...common(said, extra.length),
				[2, 0],
				[2, 0],
				[2, 0],
				[4, 0],
				[4, far ? elsewhere.four : offset]
			],
			said.name,
			extra
		);
		this.#directory.push(entry);
		this.#directorySize += entry.length;
		this.#count += 1;
	}

	/** Adds a file; gives what is ready of the zip. Throws a ContainerError for a file of more than 4 GB. */
	async *add(path: string, pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>): AsyncGenerator<Uint8Array> {
		const said: Said = {
			name: this.#encoder.encode(path),
			method: stored.test(path) ? methods.stored : methods.deflated,
			sizesFollow: false,
			checksum: 0,
			packed: 0,
			size: 0
		};
		const begin = this.#offset;
		const held: Uint8Array[] = [];
		let stream: Stream | null = null;
		const push = function* (this: ZipWriter, piece: Uint8Array, last: boolean): Generator<Uint8Array> {
			for (const ready of stream!.push(piece as Uint8Array<ArrayBuffer>, last)) {
				said.packed += ready.length;
				yield this.#given(ready);
			}
		}.bind(this);
		for await (const piece of pieces) {
			said.checksum = this.#codec.crc32(piece, said.checksum);
			said.size += piece.length;
			if (said.size >= elsewhere.four)
				throw new ContainerError('too-large', `“${path}” is larger than 4 GB, which no package can hold.`);
			if (!stream && said.size > small) {
				stream = new Stream(said.method);
				yield this.#header({ ...said, sizesFollow: true, checksum: 0, size: 0 });
				for (const one of held.splice(0)) yield* push(one, false);
			}
			if (stream) yield* push(piece, false);
			else held.push(piece);
		}
		if (stream) {
			yield* push(new Uint8Array(), true);
			said.sizesFollow = true;
			// 4.3.9: data descriptor
			const { checksum, packed, size } = said;
			yield this.#given(
				record([
					[4, 0x08074b50],
					[4, checksum],
					[4, packed],
					[4, size]
				])
			);
		} else {
			const whole = joined(held, said.size);
			const packed = said.method === methods.deflated ? this.#codec.deflate(whole) : whole;
			said.packed = packed.length;
			yield this.#header(said);
			yield this.#given(packed);
		}
		this.#list(said, begin);
	}

	/** Ends the zip; gives the rest of it. */
	*end(): Generator<Uint8Array> {
		const [count, size, offset] = [this.#count, this.#directorySize, this.#offset];
		yield* this.#directory.take();
		const large = count >= elsewhere.two || offset + size >= elsewhere.four;
		if (large) {
			// 4.3.14 and 4.3.15: the end of the directory in wide fields, and where it stands
			yield record([
				[4, 0x06064b50],
				[8, largeDirectorySize],
				[2, versions.large],
				[2, versions.large],
				[4, 0],
				[4, 0],
				[8, count],
				[8, count],
				[8, size],
				[8, offset]
			]);
			yield record([
				[4, 0x07064b50],
				[4, 0],
				[8, offset + size],
				[4, 1]
			]);
		}
		const two = Math.min(count, elsewhere.two);
		yield record([
			[4, 0x06054b50],
			[2, 0],
			[2, 0],
			[2, two],
			[2, two],
			[4, Math.min(size, elsewhere.four)],
			[4, Math.min(offset, elsewhere.four)],
			[2, 0]
		]);
	}
}
