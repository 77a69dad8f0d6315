import { describe, expect, it } from 'vitest';
import { opened, readAll, readBare } from '../test-support/packages';

const latin = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0));

describe('a file of a kind that is not read', () => {
	it.each([
		['bank.pdf', '%PDF-1.7\n1 0 obj', 'a PDF'],
		['bank.rtf', '{\\rtf1\\ansi 1. Which?}', 'RTF'],
		['bank.doc', '\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1', 'old form'],
		['bank.png', '\x89PNG\r\n', 'a picture'],
		['bank.gz', '\x1f\x8b\x08', 'packed in another way'],
		['bank.html', '<!DOCTYPE html>\n<html><body><p>1. Which?</p></body></html>', 'a web page']
	])('is called what it is, with what to do: %s', async (name, content, words) => {
		const { questions, reports } = await readBare(name, latin(content));
		expect(questions).toEqual([]);
		expect(reports).toMatchObject([{ rule: 'foreign-file', severity: 'broken', place: { file: name } }]);
		expect(reports[0]!.message).toContain(words);
	});
	it.each([
		[
			{ mimetype: 'application/vnd.oasis.opendocument.text', 'content.xml': '<office/>' },
			'document of the OpenDocument form'
		],
		[{ mimetype: 'application/vnd.oasis.opendocument.spreadsheet', 'content.xml': '<office/>' }, 'spreadsheet'],
		[{ 'ppt/presentation.xml': '<p/>' }, 'slides']
	])('is called what it is also as a package: %j', async (files, words) => {
		const { reports } = await readAll(await opened(files));
		expect(reports).toHaveLength(1);
		expect(reports[0]!.message).toContain(words);
	});
});
