import type { ReaderRule } from '../reports/rules';
import { lookup } from '../model/lookup';
import type { Report } from '../reports/report';
import { memorySource, singleFile, type Container } from './container';
import { decoderFor } from './text-decoder';

/** How the text of a file is written, and what was odd about it. */
export interface Encoding {
	label: string;
	report: Report | null;
}

// eslint-disable-next-line no-control-regex
const beyondAscii = /[^\u0000-\u007f]/;

function byteOrderMark(start: Uint8Array): string | null {
	if (start[0] === 0xef && start[1] === 0xbb && start[2] === 0xbf) return 'utf-8';
	if (start[0] === 0xfe && start[1] === 0xff) return 'utf-16be';
	if (start[0] === 0xff && start[1] === 0xfe) return 'utf-16le';
	return null;
}

/** XML 1.0, appendix F: the encoding that the first bytes show, or that the declaration names. */
function declaredEncoding(start: Uint8Array): string | null {
	if (start[0] === 0 && start[1] === 0x3c) return 'utf-16be';
	if (start[0] === 0x3c && start[1] === 0) return 'utf-16le';
	const head = new TextDecoder('latin1').decode(start.subarray(0, 200));
	return /^\s*<\?xml[^>]*\sencoding\s*=\s*["']([\w.:-]+)["']/.exec(head)?.[1]?.toLowerCase() ?? null;
}

/** Whether bytes are UTF-8, and whether they hold any sign beyond ASCII. */
async function survey(pieces: AsyncIterable<Uint8Array>): Promise<{ valid: boolean; ascii: boolean }> {
	const decoder = new TextDecoder('utf-8', { fatal: true });
	let ascii = true;
	try {
		for await (const piece of pieces) {
			const text = decoder.decode(piece, { stream: true });
			ascii &&= !beyondAscii.test(text);
		}
		ascii &&= !decoder.decode();
		return { valid: true, ascii };
	} catch {
		return { valid: false, ascii: false };
	}
}

function known(label: string): boolean {
	try {
		decoderFor(label);
		return true;
	} catch {
		return false;
	}
}

function choose(file: string, start: Uint8Array, found: { valid: boolean; ascii: boolean }): Encoding {
	const mark = byteOrderMark(start);
	if (mark && (mark !== 'utf-8' || found.valid)) return { label: mark, report: null };
	const declared = declaredEncoding(start);
	const report = (rule: ReaderRule, message: string): Report => ({
		rule,
		severity: 'untidy',
		message,
		place: { file, line: 1 }
	});
	if (declared?.startsWith('utf-16') || declared?.startsWith('utf-32')) {
		if (start.includes(0))
			return {
				label:
					declared.startsWith('utf-16') && declared !== 'utf-16' ? declared : start[0] === 0 ? 'utf-16be' : 'utf-16le',
				report: null
			};
		return {
			label: found.valid ? 'utf-8' : 'windows-1252',
			report: report(
				'wrong-encoding',
				`“${file}” says that it is written in ${declared.toUpperCase()}, and is not. It was read as ${found.valid ? 'UTF-8' : 'Windows-1252'}.`
			)
		};
	}
	if (found.ascii) return { label: 'utf-8', report: null };
	if (found.valid) {
		if (declared && declared !== 'utf-8' && declared !== 'utf8')
			return {
				label: 'utf-8',
				report: report(
					'wrong-encoding',
					`“${file}” says that it is written in ${declared.toUpperCase()}, and is UTF-8. It was read as UTF-8; as ${declared.toUpperCase()} its accented letters would be wrong.`
				)
			};
		return { label: 'utf-8', report: null };
	}
	if (declared && declared !== 'utf-8' && known(declared)) return { label: declared, report: null };
	return {
		label: 'windows-1252',
		report: report(
			'wrong-encoding',
			`“${file}” ${declared ? `says that it is written in ${declared.toUpperCase()}` : 'does not say how it is written'}, and is not valid as such. It was read as Windows-1252; look at its accented letters.`
		)
	};
}

/** The text of a file in a package, whole, with what was odd about its encoding. */
export async function readText(container: Container, file: string): Promise<{ text: string; report: Report | null }> {
	const bytes = await container.bytes(file);
	if (bytes[0] !== 0xff && bytes[0] !== 0xfe && bytes[0] !== 0) {
		try {
			const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
			if (!/^\s*<\?xml[^>]*\sencoding\s*=\s*["'](?!utf-?8["'])/i.test(text.slice(0, 200)) || !beyondAscii.test(text))
				return { text, report: null };
		} catch {
			// not UTF-8: looked at more closely below
		}
	}
	const { label, report } = choose(
		file,
		bytes.subarray(0, 256),
		await survey(
			(async function* () {
				yield bytes;
			})()
		)
	);
	return { text: decoderFor(label).decode(bytes), report };
}

const mostKept = 1 << 25;
const step = 1 << 18;

/** The text of a file in pieces, in bounded memory; `told` hears of an odd encoding before the first piece. */
export async function* streamText(
	container: Container,
	file: string,
	told: (report: Report) => void
): AsyncGenerator<string> {
	const size = container.size(file);
	if (size <= 1 << 20) {
		const { text, report } = await readText(container, file);
		if (report) told(report);
		yield text;
		return;
	}
	// it is gone through twice, so that what is not too large is unpacked once and kept meanwhile
	const kept = size <= mostKept ? await container.bytes(file, mostKept) : null;
	const pieces = async function* () {
		if (!kept) yield* container.stream(file);
		else for (let at = 0; at < kept.length; at += step) yield kept.subarray(at, at + step);
	};
	let start = new Uint8Array();
	const found = await survey(
		(async function* () {
			for await (const piece of pieces()) {
				if (!start.length) start = piece.slice(0, 256);
				yield piece;
			}
		})()
	);
	const { label, report } = choose(file, start, found);
	if (report) told(report);
	const decoder = decoderFor(label);
	for await (const piece of pieces()) yield decoder.decode(piece, { stream: true });
	yield decoder.decode();
}

/** How plausible a decoded text is, by signs that do not stand where they are: the lower, the better. */
function oddities(text: string): number {
	const inWords = text.match(/[a-zà-ÿ][A-ZÀ-ÞŠŽŸ¡-¿×÷†‡‰‹›€ƒ∞≤≥∂∑∏π∫Ω√≈∆◊][a-zà-ÿ]/g)?.length ?? 0;
	const controls = text.match(/[\u0080-\u009f\ufffd]/g)?.length ?? 0;
	const strange = text.match(/[ÐÕÒÓÔÑ][\sa-z]|[a-z][ÒÓÔÕÐ]/g)?.length ?? 0;
	// quotes and dashes of one encoding read as letters in another
	const quotes =
		text.match(/(?:^|[\s("])[ìîñÒÓÕ](?=[A-Za-z\s])|[ìîñÒÓÕ](?=[\s,.?!;:)]|$)|[a-z][íÕ](?:s|t|re|ll|ve|d)\b/gm)
			?.length ?? 0;
	const capitals = text.match(/[a-zà-ÿ][À-ÖØ-ÞŠŽŸ](?![A-ZÀ-Þ])/g)?.length ?? 0;
	return inWords * 2 + controls * 3 + strange + quotes * 2 + capitals * 2;
}

/** The beginning of the text of a file, of about so many bytes, without reading the rest of it; null where it is no text. */
export async function readStart(container: Container, file: string, length: number): Promise<string | null> {
	const pieces: Uint8Array[] = [];
	let held = 0;
	for await (const piece of container.stream(file)) {
		pieces.push(piece);
		held += piece.length;
		if (held >= length) break;
	}
	const all = new Uint8Array(held);
	let at = 0;
	for (const piece of pieces) {
		all.set(piece, at);
		at += piece.length;
	}
	// in UTF-8 a sign of several bytes is not cut in two
	let end = Math.min(held, length);
	while (end < held && end > 0 && (all[end]! & 0xc0) === 0x80) end -= 1;
	return (await readPlainText(singleFile('start', memorySource(all.subarray(0, end))), 'start')).text;
}

const legacy = ['windows-1252', 'macintosh'];
const legacyNames = lookup<string>({ 'windows-1252': 'Windows-1252', macintosh: 'Mac Roman' });

// eslint-disable-next-line no-control-regex
const controlSigns = /[\u0000-\u0008\u000e-\u001a\u001c-\u001f]/g;
const mostNamedLines = 5;

/** A text with its control characters out of it, and a report that names the lines on which they stood. */
function withoutControls(text: string, place: { file: string; line: number }): { text: string; report: Report | null } {
	controlSigns.lastIndex = 0;
	if (!controlSigns.test(text)) return { text, report: null };
	const lines: number[] = [];
	let line = 1;
	let from = 0;
	let count = 0;
	const clean = text.replace(controlSigns, (_, at: number) => {
		count += 1;
		for (let next = text.indexOf('\n', from); next >= 0 && next < at; next = text.indexOf('\n', from)) {
			line += 1;
			from = next + 1;
		}
		if (lines.at(-1) !== line && lines.length <= mostNamedLines) lines.push(line);
		return '';
	});
	const named = `${lines.slice(0, mostNamedLines).join(', ')}${lines.length > mostNamedLines ? ' and others' : ''}`;
	return {
		text: clean,
		report: {
			rule: 'control-characters',
			severity: 'doubtful',
			message: `“${place.file}” has ${count === 1 ? 'a control character' : `${count} control characters`} that no text has, on line ${named}. ${count === 1 ? 'It was' : 'They were'} left out, and everything else was read; look at what stands there.`,
			place: { ...place, line: lines[0] ?? 1 }
		}
	};
}

/** The text of a file that declares no encoding, such as plain text or a table; null where its bytes are no text. */
export async function readPlainText(
	container: Container,
	file: string
): Promise<{ text: string | null; report: Report | null }> {
	const bytes = await container.bytes(file);
	const place = { file, line: 1 };
	const mark = byteOrderMark(bytes);
	if (mark?.startsWith('utf-16')) return { text: decoderFor(mark).decode(bytes), report: null };
	const start = bytes.subarray(0, 2048);
	const zeros = (odd: number) => start.filter((byte, at) => at % 2 === odd && byte === 0).length / (start.length / 2);
	for (const [label, odd] of [
		['utf-16le', 1],
		['utf-16be', 0]
	] as const)
		if (start.length > 3 && zeros(odd) > 0.4 && zeros(1 - odd) < 0.1)
			return {
				text: decoderFor(label).decode(bytes),
				report: {
					rule: 'guessed-encoding',
					severity: 'untidy',
					message: `“${file}” does not say how it is written. It was read as UTF-16, by its zero bytes.`,
					place
				}
			};
	try {
		const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
		const odd = text.slice(0, 4096).match(controlSigns)?.length ?? 0;
		// a few of them do not make a text something else: where they stand is said, and they go
		if (odd <= Math.max(2, Math.min(text.length, 4096) * 0.02)) return withoutControls(text, place);
	} catch {
		// another encoding, or no text
	}
	const sample = bytes.subarray(0, 1 << 16);
	const controls = sample.filter((byte) => byte < 32 && ![9, 10, 12, 13, 27].includes(byte)).length;
	if (controls > sample.length * 0.003 + 1 || (controls > 2 && sample.includes(0)))
		return {
			text: null,
			report: {
				rule: 'not-text',
				severity: 'broken',
				message: `“${file}” is no text in any encoding that is known here. Look what program it comes from, and save it as text there.`,
				place
			}
		};
	const decoded = legacy.map((label) => ({ label, text: decoderFor(label).decode(bytes) }));
	const [best] = [...decoded].sort((a, b) => oddities(a.text) - oddities(b.text));
	const other = legacy.find((label) => label !== best!.label)!;
	return {
		text: best!.text,
		report: {
			rule: 'guessed-encoding',
			severity: 'untidy',
			message: `“${file}” is not UTF-8 and does not say how it is written. It was read as ${legacyNames[best!.label]}; if its accented letters are wrong, it may be ${legacyNames[other]}: save it as UTF-8.`,
			place
		}
	};
}
