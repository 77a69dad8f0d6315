import type { Generator } from '../numbers/generator';

/** A way to damage a file. */
export type Damage = (bytes: Uint8Array, random: Generator) => Uint8Array;

const joined = (...pieces: Uint8Array[]): Uint8Array => {
	const out = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
	let at = 0;
	for (const piece of pieces) {
		out.set(piece, at);
		at += piece.length;
	}
	return out;
};
const latin = (bytes: Uint8Array) => new TextDecoder('latin1').decode(bytes);
const bytesOf = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0) & 255);

/** Ways to damage files as they are damaged on their way: cut, flipped, with parts lost or doubled, with a lie about their encoding. */
export const damages: Record<string, Damage> = {
	cut: (bytes, random) => bytes.slice(0, random.below(bytes.length + 1)),
	flipped(bytes, random) {
		const out = bytes.slice();
		for (let count = 1 + random.below(8); count > 0 && out.length; count -= 1)
			out[random.below(out.length)]! ^= 1 << random.below(8);
		return out;
	},
	'a piece lost'(bytes, random) {
		const from = random.below(bytes.length + 1);
		return joined(bytes.subarray(0, from), bytes.subarray(Math.min(bytes.length, from + 1 + random.below(200))));
	},
	'a piece doubled'(bytes, random) {
		const from = random.below(bytes.length + 1);
		const to = Math.min(bytes.length, from + 1 + random.below(400));
		return joined(bytes.subarray(0, to), bytes.subarray(from));
	},
	'a tag lost'(bytes, random) {
		const text = latin(bytes);
		const tags = [...text.matchAll(/<[^>]{1,200}>/g)];
		if (!tags.length) return bytes;
		const tag = tags[random.below(tags.length)]!;
		return bytesOf(text.slice(0, tag.index) + text.slice(tag.index + tag[0].length));
	},
	'another encoding': (bytes, random) => {
		const names = ['UTF-16', 'ISO-8859-1', 'no-such-code', 'UTF-8', 'windows-1252'];
		const text = latin(bytes).replace(/encoding="[^"]*"/, `encoding="${names[random.below(names.length)]!}"`);
		return joined(random.below(2) ? Uint8Array.of(0xff, 0xfe) : new Uint8Array(), bytesOf(text));
	},
	'zeros within'(bytes, random) {
		const from = random.below(bytes.length + 1);
		return joined(bytes.subarray(0, from), new Uint8Array(1 + random.below(30)), bytes.subarray(from));
	}
};
