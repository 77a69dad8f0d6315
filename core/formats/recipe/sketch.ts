import { DOMParser, type Element as DomElement } from '@xmldom/xmldom';
import * as xpath from 'xpath';
import type { Container } from '../../container/container';
import { readPlainText, readText } from '../../container/decode';
import { delimiterOf, rowsOfText } from '../table/csv';
import { headings, type Row } from '../table/table';
import { sheetsOf } from '../table/xlsx';
import { textualFormat, wholeFormat } from '../textual';
import { follow } from './json';
import { guessRecipe } from './of-file';
import type { Recipe } from './recipe';

/** A field of a file of no standard shape, with what stands in it in the first records. */
export interface SketchField {
	/** Its heading, key, element or attribute, as a recipe names it. */
	name: string;
	examples: string[];
}

/** A table of a file: its first rows as they stand. */
export interface SketchTable {
	/** The name of the sheet; empty for a file of one table. */
	name: string;
	rows: string[][];
	/** The headings at each row that could be one, from 0 for none. */
	headings: string[][];
}

/** What a file of no standard shape looks like, so that a user can point at its parts. */
export type Sketch =
	| { form: 'table'; tables: SketchTable[]; recipe: Recipe | null }
	| { form: 'json' | 'xml'; fields: SketchField[]; records: number; recipe: Recipe | null };

const rowsShown = 12;
const examplesShown = 3;
const short = (text: string) => (text.length > 90 ? `${text.slice(0, 89)}…` : text);

function tableOf(name: string, rows: Row[]): SketchTable {
	const some = rows.slice(0, rowsShown);
	const width = Math.max(0, ...some.map((row) => row.cells.length));
	return {
		name,
		rows: some.map((row) => Array.from({ length: width }, (_, at) => short(row.cells[at]?.text ?? ''))),
		headings: [headings(null, width), ...some.map((row) => headings(row, width))]
	};
}

function collect(into: Map<string, string[]>, name: string, text: string): void {
	const list = into.get(name) ?? [];
	into.set(name, list);
	const plain = short(text.replace(/\s+/g, ' ').trim());
	if (plain && list.length < examplesShown && !list.includes(plain)) list.push(plain);
}

const fieldsOf = (found: Map<string, string[]>): SketchField[] =>
	[...found].map(([name, examples]) => ({ name, examples }));

/** A sketch of a file by a recipe, or by one that is guessed; null for a file that needs none. */
export async function sketchOf(container: Container, given: Recipe | null): Promise<Sketch | null> {
	const recipe = given ?? (await guessRecipe(container));
	if (wholeFormat(container)?.format === 'xlsx') {
		const sheets = await sheetsOf(container);
		return { form: 'table', recipe, tables: sheets.map(({ name, rows }) => tableOf(name, rows)) };
	}
	if (container.packaged) return null;
	const file = container.entries[0]!.path;
	const { text } = await readPlainText(container, file);
	if (text === null) return null;
	const found = new Map<string, string[]>();
	if (
		text
			.trimStart()
			.replace(/^\ufeff/, '')
			.startsWith('<')
	) {
		const xml = (await readText(container, file)).text.replace(/(<[^>!?]*?)\sxmlns\s*=\s*("[^"]*"|'[^']*')/g, '$1');
		if (/<!DOCTYPE/i.test(xml.slice(0, 4096))) return null;
		try {
			const document = new DOMParser({ onError: () => undefined }).parseFromString(
				xml.replace(/^\ufeff/, ''),
				'text/xml'
			);
			const path = recipe?.record ?? `/${document.documentElement?.nodeName ?? '*'}/*`;
			const nodes = xpath.select(path, document as unknown as Node);
			const records = (Array.isArray(nodes) ? (nodes as unknown[]) : []) as DomElement[];
			for (const node of records.slice(0, 200)) {
				for (let at = 0; at < node.attributes.length; at += 1) {
					const attribute = node.attributes.item(at)!;
					collect(found, `@${attribute.name}`, attribute.value);
				}
				for (const child of Array.from(node.childNodes))
					if (child.nodeType === 1) collect(found, child.nodeName, child.textContent ?? '');
			}
			return { form: 'xml', fields: fieldsOf(found), records: records.length, recipe: recipe ?? { record: path } };
		} catch {
			return null;
		}
	}
	const known = await textualFormat(container, file, null, recipe ?? undefined);
	if (known?.format === 'recipe') {
		try {
			const value: unknown = JSON.parse(text.replace(/^\ufeff/, ''));
			const path = recipe?.record ?? '[*]';
			const records = follow({ value, around: [] }, path);
			for (const { value: record } of records.slice(0, 200))
				if (typeof record === 'object' && record !== null)
					for (const [key, one] of Object.entries(record))
						collect(found, key, typeof one === 'string' ? one : JSON.stringify(one));
			return { form: 'json', fields: fieldsOf(found), records: records.length, recipe: recipe ?? { record: path } };
		} catch {
			return null;
		}
	}
	if (known?.format !== 'csv') return null;
	return { form: 'table', recipe, tables: [tableOf('', rowsOfText(text, recipe?.delimiter ?? delimiterOf(text)))] };
}
