import type { Element as DomElement } from '@xmldom/xmldom';
import type { Container } from '../../container/container';
import { headings } from '../table/headings';
import type { Row } from '../table/row';
import { follow } from './json';
import { guessRecipe } from './of-file';
import type { Recipe } from './recipe';
import { openShapeless } from './shapeless';
import { widthOf } from '../table/cells';
import { elementsAt } from './xml-records';

/** A field of a record in a file of no standard shape, with what stands in it in the first records. */
export interface SketchField {
	/** Its key, element or attribute. */
	name: string;
	/** Where it stands in the record, as a recipe says it. */
	path: string;
	/** How deep it stands: 0 in the record itself. */
	depth: number;
	/** Whether a record may have several of it. */
	list: boolean;
	/** The nearest list that it stands in, by its path, and its place from there; null where it stands in none. */
	inside: { path: string; relative: string } | null;
	examples: string[];
	/** All that ever stands in it, where that is only a few different words; else empty. */
	words: string[];
}

/** A table of a file: its first rows as they stand. */
export interface SketchTable {
	/** The name of the sheet; empty for a file of one table. */
	name: string;
	rows: string[][];
	/** The headings at each row that could be one, from 0 for none. */
	headings: string[][];
	/** For each column all that ever stands in it, where that is only a few different words; else empty. */
	words: string[][];
}

/** What a file of no standard shape looks like, so that a user can point at its parts. */
export type Sketch =
	| { form: 'table'; tables: SketchTable[]; recipe: Recipe | null }
	| { form: 'json' | 'xml'; fields: SketchField[]; records: number; recipe: Recipe | null };

const rowsShown = 12;
const examplesShown = 3;
const fewWords = 12;
const longestWord = 40;
const recordsLooked = 500;
const deepest = 4;
const short = (text: string) => (text.length > 90 ? `${text.slice(0, 89)}…` : text);
const folded = (text: string) => text.replace(/\s+/g, ' ').trim();

function fewDifferent(values: Iterable<string>): string[] {
	const found = new Set<string>();
	for (const value of values) {
		const word = folded(value);
		if (word.length > longestWord) return [];
		if (word) found.add(word);
		if (found.size > fewWords) return [];
	}
	return [...found];
}

function tableOf(name: string, rows: Row[]): SketchTable {
	const some = rows.slice(0, rowsShown);
	const width = widthOf(some);
	const columns = Array.from({ length: width }, (_, at) => at);
	return {
		name,
		rows: some.map((row) => columns.map((at) => short(row.cells[at]?.text ?? ''))),
		headings: [headings(null, width), ...some.map((row) => headings(row, width))],
		words: columns.map((at) => fewDifferent(rows.slice(0, recordsLooked).map((row) => row.cells[at]?.text ?? '')))
	};
}

/** The fields of records as they are met, each once, in the order of the first. */
class Fields {
	readonly #found = new Map<string, SketchField & { all: string[] }>();

	add(field: Omit<SketchField, 'examples' | 'words'>, text: string): void {
		const known = this.#found.get(field.path) ?? { ...field, examples: [], words: [], all: [] };
		this.#found.set(field.path, known);
		known.list ||= field.list;
		known.all.push(text);
		const plain = short(folded(text));
		if (plain && known.examples.length < examplesShown && !known.examples.includes(plain)) known.examples.push(plain);
	}

	/** All fields, each followed by those inside it. */
	list(): SketchField[] {
		return [...this.#found.values()].map(({ all, ...field }) => ({ ...field, words: fewDifferent(all) }));
	}
}

const isObject = (value: unknown): value is Record<string, unknown> =>
	typeof value === 'object' && value !== null && !Array.isArray(value);
const spoken = (value: unknown) => (typeof value === 'string' ? value : (JSON.stringify(value) ?? ''));
const step = (key: string) => (/^[\w-]+$/.test(key) ? key : `["${key}"]`);
const joined = (path: string, next: string) => (path && !next.startsWith('[') ? `${path}.${next}` : path + next);

function jsonFields(record: unknown, fields: Fields, path = '', depth = 0, list: string | null = null): void {
	const relative = (whole: string) =>
		list === null ? null : { path: list, relative: whole.slice(list.length).replace(/^\./, '') || '.' };
	if (depth > deepest || !isObject(record)) return;
	for (const [key, value] of Object.entries(record)) {
		const here = joined(path, step(key));
		if (Array.isArray(value)) {
			const whole = `${here}[*]`;
			const plain = (value as unknown[]).filter((one) => !isObject(one) && !Array.isArray(one));
			fields.add({ name: key, path: whole, depth, list: true, inside: relative(whole) }, plain.map(spoken).join(', '));
			for (const entry of value as unknown[])
				if (Array.isArray(entry))
					(entry as unknown[]).slice(0, 3).forEach((part, at) =>
						fields.add(
							{
								name: `[${at}]`,
								path: `${whole}[${at}]`,
								depth: depth + 1,
								list: false,
								inside: { path: whole, relative: `[${at}]` }
							},
							spoken(part)
						)
					);
				else jsonFields(entry, fields, whole, depth + 1, whole);
		} else {
			// what stands in an object is told by its own fields
			const text = isObject(value) ? '' : spoken(value);
			fields.add({ name: key, path: here, depth, list: false, inside: relative(here) }, text);
			jsonFields(value, fields, here, depth + 1, list);
		}
	}
}

function xmlFields(node: DomElement, fields: Fields, path = '', depth = 0, list: string | null = null): void {
	if (depth > deepest) return;
	const relative = (whole: string) => (list === null ? null : { path: list, relative: whole.slice(list.length + 1) });
	for (let at = 0; at < node.attributes.length; at += 1) {
		const { name, value } = node.attributes.item(at)!;
		const here = `${path ? `${path}/` : ''}@${name}`;
		fields.add({ name: `@${name}`, path: here, depth, list: false, inside: relative(here) }, value);
	}
	const children = Array.from(node.childNodes).filter((child): child is DomElement => child.nodeType === 1);
	for (const child of children) {
		const here = `${path ? `${path}/` : ''}${child.nodeName}`;
		const several = children.filter((one) => one.nodeName === child.nodeName).length > 1;
		fields.add(
			{ name: child.nodeName, path: here, depth, list: several, inside: relative(here) },
			child.textContent ?? ''
		);
		xmlFields(child, fields, here, depth + 1, several ? here : list);
	}
}

/** Puts every field behind the one that it stands in. */
function asTree(fields: SketchField[]): SketchField[] {
	const holds = (outer: SketchField, inner: SketchField) =>
		inner.depth === outer.depth + 1 &&
		inner.path.startsWith(outer.path) &&
		/^[./[]/.test(inner.path.slice(outer.path.length));
	const withInner = (field: SketchField): SketchField[] => [
		field,
		...fields.filter((one) => holds(field, one)).flatMap(withInner)
	];
	return fields.filter((field) => field.depth === 0).flatMap(withInner);
}

/** A sketch of a file by a recipe, or by one that is guessed; null for a file that needs none. */
export async function sketchOf(container: Container, given: Recipe | null): Promise<Sketch | null> {
	const recipe = given ?? (await guessRecipe(container));
	const opened = await openShapeless(container, recipe);
	if (opened?.form === 'workbook')
		return { form: 'table', recipe, tables: opened.sheets.map(({ name, rows }) => tableOf(name, rows)) };
	if (opened?.form === 'table') return { form: 'table', recipe, tables: [tableOf('', opened.rows)] };
	const fields = new Fields();
	if (opened?.form === 'json') {
		const path = recipe?.record ?? '[*]';
		const records = follow({ value: opened.value, around: [] }, path);
		for (const { value } of records.slice(0, recordsLooked)) jsonFields(value, fields);
		return { form: 'json', fields: asTree(fields.list()), records: records.length, recipe: recipe ?? { record: path } };
	}
	if (opened?.form !== 'xml') return null;
	const path = recipe?.record ?? `/${opened.document.documentElement?.nodeName ?? '*'}/*`;
	let records: DomElement[];
	try {
		records = elementsAt(path, opened.document, recipe?.namespaces ?? {});
	} catch {
		records = [];
	}
	for (const node of records.slice(0, recordsLooked)) xmlFields(node, fields);
	return { form: 'xml', fields: asTree(fields.list()), records: records.length, recipe: recipe ?? { record: path } };
}
