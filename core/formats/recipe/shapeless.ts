import { DOMParser, type Document as DomDocument } from '@xmldom/xmldom';
import { memorySource, type Container } from '../../container/container';
import { openContainer } from '../open';
import { readPlainText, readText } from '../../container/decode';
import { delimiterOf, rowsOfText } from '../table/csv';
import type { Row } from '../table/row';
import { sheetsOf } from '../table/xlsx';
import { textualFormat, wholeFormat } from '../textual';
import { findManifest } from '../package/manifest';
import { withoutDoctype } from './doctype';
import { tooLargeForRecipe, tooManyForRecipe } from './limits';
import type { Recipe } from './recipe';

/** A file of no standard shape, opened as what it is: tables, a JSON value, or an XML document. */
export type Shapeless =
	| { form: 'workbook'; sheets: { name: string; rows: Row[] }[] }
	| { form: 'table'; rows: Row[]; delimiter: string }
	| { form: 'json'; value: unknown }
	| { form: 'xml'; document: DomDocument };

const withoutMark = (text: string) => text.replace(/^\ufeff/, '');

/** The only table, JSON or XML of a package that says nothing of itself, as a file; null where there is none, or more. */
async function onlyTable(container: Container): Promise<Container | null> {
	if (findManifest(container)) return null;
	const paths: string[] = [];
	for (const { path } of container.files)
		if (/\.(csv|tsv|tab|json|jsonl|xml|xlsx)$/i.test(path) && !/(^|\/)(__MACOSX\/|\._)/.test(path)) paths.push(path);
	const [path, ...more] = paths;
	if (path === undefined || more.length) return null;
	return openContainer(path, memorySource(await container.bytes(path)));
}

/** Opens a file of no standard shape whole; null where it has a shape of its own, or cannot be read. */
export async function openShapeless(container: Container, recipe: Recipe | null = null): Promise<Shapeless | null> {
	if (wholeFormat(container)?.format === 'xlsx') return { form: 'workbook', sheets: await sheetsOf(container) };
	if (container.packaged) {
		const inner = await onlyTable(container);
		return inner && openShapeless(inner, recipe);
	}
	const file = container.files.first.path;
	if (tooLargeForRecipe(file, container.size(file))) return null;
	const { text } = await readPlainText(container, file);
	if (text === null) return null;
	try {
		if (withoutMark(text.trimStart()).startsWith('<')) {
			const xml = (await readText(container, file)).text.replace(/(<[^>!?]*?)\sxmlns\s*=\s*("[^"]*"|'[^']*')/g, '$1');
			const plain = withoutDoctype(xml);
			if ('refused' in plain || tooManyForRecipe(file, 'xml', plain.text)) return null;
			const parser = new DOMParser({ onError: () => undefined });
			return { form: 'xml', document: parser.parseFromString(withoutMark(plain.text), 'text/xml') };
		}
		const known = await textualFormat(container, file, null, recipe ?? undefined);
		if (known?.format === 'recipe' && tooManyForRecipe(file, 'json', text)) return null;
		if (known?.format === 'recipe') return { form: 'json', value: JSON.parse(withoutMark(text)) as unknown };
		if (known?.format !== 'csv') return null;
		const delimiter = recipe?.delimiter ?? delimiterOf(text);
		return { form: 'table', rows: rowsOfText(text, delimiter), delimiter };
	} catch {
		return null;
	}
}
