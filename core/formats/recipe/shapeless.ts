import { DOMParser, type Document as DomDocument } from '@xmldom/xmldom';
import type { Container } from '../../container/container';
import { readPlainText, readText } from '../../container/decode';
import { delimiterOf, rowsOfText } from '../table/csv';
import type { Row } from '../table/table';
import { sheetsOf } from '../table/xlsx';
import { textualFormat, wholeFormat } from '../textual';
import type { Recipe } from './recipe';

/** A file of no standard shape, opened as what it is: tables, a JSON value, or an XML document. */
export type Shapeless =
	| { form: 'workbook'; sheets: { name: string; rows: Row[] }[] }
	| { form: 'table'; rows: Row[]; delimiter: string }
	| { form: 'json'; value: unknown }
	| { form: 'xml'; document: DomDocument };

const withoutMark = (text: string) => text.replace(/^\ufeff/, '');

/** Opens a file of no standard shape whole; null where it has a shape of its own, or cannot be read. */
export async function openShapeless(container: Container, recipe: Recipe | null = null): Promise<Shapeless | null> {
	if (wholeFormat(container)?.format === 'xlsx') return { form: 'workbook', sheets: await sheetsOf(container) };
	if (container.packaged) return null;
	const file = container.files.first.path;
	const { text } = await readPlainText(container, file);
	if (text === null) return null;
	try {
		if (withoutMark(text.trimStart()).startsWith('<')) {
			const xml = (await readText(container, file)).text.replace(/(<[^>!?]*?)\sxmlns\s*=\s*("[^"]*"|'[^']*')/g, '$1');
			if (/<!DOCTYPE/i.test(xml.slice(0, 4096))) return null;
			const parser = new DOMParser({ onError: () => undefined });
			return { form: 'xml', document: parser.parseFromString(withoutMark(xml), 'text/xml') };
		}
		const known = await textualFormat(container, file, null, recipe ?? undefined);
		if (known?.format === 'recipe') return { form: 'json', value: JSON.parse(withoutMark(text)) as unknown };
		if (known?.format !== 'csv') return null;
		const delimiter = recipe?.delimiter ?? delimiterOf(text);
		return { form: 'table', rows: rowsOfText(text, delimiter), delimiter };
	} catch {
		return null;
	}
}
