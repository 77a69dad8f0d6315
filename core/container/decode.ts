import type { Report } from '../reports/report';
import type { Container } from './container';

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
			if (ascii) ascii = !piece.some((byte) => byte > 127);
			decoder.decode(piece, { stream: true });
		}
		decoder.decode();
		return { valid: true, ascii };
	} catch {
		return { valid: false, ascii: false };
	}
}

function known(label: string): boolean {
	try {
		new TextDecoder(label);
		return true;
	} catch {
		return false;
	}
}

function choose(file: string, start: Uint8Array, found: { valid: boolean; ascii: boolean }): Encoding {
	const mark = byteOrderMark(start);
	if (mark && (mark !== 'utf-8' || found.valid)) return { label: mark, report: null };
	const declared = declaredEncoding(start);
	const report = (rule: string, message: string): Report => ({
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
	return { text: new TextDecoder(label).decode(bytes), report };
}

/** The text of a file in pieces, in bounded memory; `told` hears of an odd encoding before the first piece. */
export async function* streamText(
	container: Container,
	file: string,
	told: (report: Report) => void
): AsyncGenerator<string> {
	const size = container.entries.find((entry) => entry.path === file)?.size ?? 0;
	if (size <= 1 << 20) {
		const { text, report } = await readText(container, file);
		if (report) told(report);
		yield text;
		return;
	}
	let start = new Uint8Array();
	const found = await survey(
		(async function* () {
			for await (const piece of container.stream(file)) {
				if (!start.length) start = piece.slice(0, 256);
				yield piece;
			}
		})()
	);
	const { label, report } = choose(file, start, found);
	if (report) told(report);
	const decoder = new TextDecoder(label);
	for await (const piece of container.stream(file)) yield decoder.decode(piece, { stream: true });
	yield decoder.decode();
}
