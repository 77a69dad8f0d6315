import type { Container } from '../container/container';
import { readStart } from '../container/decode';
import type { Report } from '../reports/report';

const begins =
	(...starts: string[]) =>
	(text: string) =>
		starts.some((start) => text.startsWith(start));

/** Kinds of file by their first bytes, in Latin-1: what they are, and what to do with them. */
const byStart: [(start: string) => boolean, string, string][] = [
	[begins('%PDF-'), 'a PDF', 'Ask for the file that it was made from, or copy its text and paste it.'],
	[begins('{\\rtf'), 'a text in RTF', 'Open it, save it as Word (.docx), and load that.'],
	[
		begins('\xd0\xcf\x11\xe0'),
		'an Office file of the old form (.doc, .xls, .ppt)',
		'Open it, save it as Word (.docx) or as an Excel workbook (.xlsx), and load that.'
	],
	[
		begins('\x89PNG', '\xff\xd8\xff', 'GIF8'),
		'a picture',
		'Questions have to be text: type them, or have the text read out of it first.'
	],
	[
		begins('Rar!', '7z\xbc\xaf', '\x1f\x8b', 'BZh'),
		'packed in another way than zip',
		'Unpack it, pack what is in it as a zip, and load that.'
	],
	[(start) => /^\s*(?:<!doctype html|<html)\b/i.test(start), 'a web page', 'Open it, copy its text, and paste it.']
];

/** The same for packages, by the media type that they name themselves. */
const byType: [RegExp, string, string][] = [
	[
		/opendocument\.spreadsheet/,
		'a spreadsheet of the OpenDocument form',
		'Save it as an Excel workbook (.xlsx), and load that.'
	],
	[/opendocument/, 'a document of the OpenDocument form', 'Save it as Word (.docx), and load that.'],
	[/epub/, 'an electronic book', 'Copy the text of its questions, and paste it.']
];

async function whatItIs(container: Container): Promise<[string, string] | null> {
	if (container.packaged) {
		if (container.find('ppt/presentation.xml'))
			return ['a set of slides', 'Copy the text of its questions, and paste it, or put them into a document.'];
		const file = container.find('mimetype');
		const type = file ? ((await readStart(container, file, 200)) ?? '') : '';
		const found = byType.find(([pattern]) => pattern.test(type));
		return found ? [found[1], found[2]] : null;
	}
	for await (const piece of container.stream(container.files.first.path)) {
		const start = String.fromCharCode(...piece.subarray(0, 64));
		const found = byStart.find(([fits]) => fits(start));
		return found ? [found[1], found[2]] : null;
	}
	return null;
}

/** Says what a file is that no reader knows and people load all the same, and what to do with it; null for any other. */
export async function foreignFile(container: Container): Promise<Report | null> {
	const found = await whatItIs(container);
	if (!found) return null;
	const [what, advice] = found;
	const file = container.packaged ? '' : container.files.first.path;
	return {
		rule: 'foreign-file',
		severity: 'broken',
		message: `${file ? `“${file}”` : 'The file'} is ${what}, which cannot be read here. ${advice}`,
		...(file ? { place: { file, line: 1 } } : {})
	};
}
