import type { ReaderRule } from '../../reports/rules';
import { ownValue } from '../../model/lookup';
import {
	DOMParser,
	type Document as DomDocument,
	type Element as DomElement,
	type Node as DomNode
} from '@xmldom/xmldom';
import * as xpath from 'xpath';
import { readPlainText, readText } from '../../container/decode';
import { emptyCommon } from '../../model/question';
import type { Report } from '../../reports/report';
import { assemble } from '../drafts/assemble';
import { type KeyForm } from '../drafts/draft';
import type { DocumentContext, DocumentReader, ReadEvent } from '../format';
import { cleaningFor } from '../media';
import { progressAt, toldEvery } from '../progress';
import { draftOf } from './fields';
import type { Value } from './record';
import type { RecordAccess } from './record';
import { guessJson } from './guess-json';
import { guessXml } from './guess-xml';
import { follow, linesOfRecords, type Found } from './json';
import { withoutDoctype } from './doctype';
import { tooLargeForRecipe, tooManyForRecipe } from './limits';
import type { Recipe } from './recipe';
import { salvageJson } from './salvage';
import { unusedFields } from './unused';
import { elementsAt } from './xml-records';

const defaultForms: KeyForm[] = ['letter', 'text', 'index', 'truth', 'answer'];

function jsonValue({ value }: Found): Value {
	if (value === null || value === undefined) return { text: '', html: null, plain: null };
	if (typeof value === 'object')
		return {
			text: Array.isArray(value) ? value.map(String).join('; ') : JSON.stringify(value),
			html: null,
			plain: value
		};
	return { text: String(value), html: null, plain: value };
}

/** A record of a JSON document. */
export function jsonRecord(start: Found): RecordAccess {
	return {
		values: (path) => follow(start, path).map(jsonValue),
		parts: (path) => follow(start, path).map(jsonRecord),
		fields: () =>
			typeof start.value === 'object' && start.value !== null && !Array.isArray(start.value)
				? Object.entries(start.value).flatMap(([name, value]): [string, string][] => {
						const { text } = jsonValue({ value, around: [] });
						return text.trim() ? [[name, text]] : [];
					})
				: [],
		ancestors: (label) =>
			start.around.flatMap((one) => {
				const value = ownValue(one as Record<string, unknown>, label);
				return typeof value === 'string' && value.trim() ? [value.trim()] : [];
			})
	};
}

const isElement = (node: unknown): node is DomElement => (node as DomNode | null)?.nodeType === 1;

function xmlValue(node: unknown): Value {
	if (!isElement(node)) {
		const text = typeof node === 'object' && node !== null ? ((node as DomNode).nodeValue ?? '') : String(node);
		return { text, html: null, plain: text };
	}
	const inner = Array.from(node.childNodes);
	const rich = inner.some((child) => child.nodeType === 1);
	const text = node.textContent ?? '';
	// an empty element says something by being there
	return {
		text: text.trim(),
		html: rich ? inner.map((child) => child.toString()).join('') : null,
		plain: inner.length ? text : true
	};
}

/** What stands under a name in an element, or in its attribute of that name; looked for once, since all records of a list ask the same. */
class Labels {
	readonly #known = new WeakMap<DomElement, Map<string, string>>();

	of(around: DomElement, label: string): string {
		let known = this.#known.get(around);
		if (!known) this.#known.set(around, (known = new Map<string, string>()));
		let value = known.get(label);
		if (value === undefined) {
			let own = around.firstChild;
			while (own && !(isElement(own) && own.nodeName === label)) own = own.nextSibling;
			value = own?.textContent?.trim() || around.getAttribute(label.replace(/^@/, '')) || '';
			known.set(label, value);
		}
		return value;
	}
}

/** A record of an XML document. */
function xmlRecord(node: DomNode, select: xpath.XPathSelect, labels: Labels): RecordAccess {
	const find = (path: string): unknown[] => {
		const found = select(path, node as unknown as Node);
		return Array.isArray(found) ? found : [found];
	};
	return {
		values: (path) => find(path).map(xmlValue),
		parts: (path) =>
			find(path)
				.filter(isElement)
				.map((one) => xmlRecord(one, select, labels)),
		fields: () => {
			const texts = new Map<string, string>();
			if (!isElement(node)) return [];
			for (const one of Array.from(node.attributes))
				if (!/^xml(ns)?(:|$)/.test(one.name)) texts.set(`@${one.name}`, one.value);
			for (const child of Array.from(node.childNodes))
				if (isElement(child))
					texts.set(child.nodeName, `${texts.get(child.nodeName) ?? ''} ${child.textContent ?? ''}`.trim());
			return [...texts].filter(([, text]) => text.trim());
		},
		ancestors: (label) => {
			const found: string[] = [];
			for (let one = node.parentNode; one && one.nodeType === 1; one = one.parentNode) {
				const value = labels.of(one as DomElement, label);
				if (value) found.unshift(value);
			}
			return found;
		}
	};
}

/** The records of a document, each made when it is asked for, so that those of a large one are never held together. */
interface Records {
	count: number;
	at: (place: number) => { access: RecordAccess; line: number; source: () => string };
}

function* accessTo({ count, at }: Records): Generator<RecordAccess> {
	for (let place = 0; place < count; place += 1) yield at(place).access;
}

function* optionsOf(records: Records, recipe: Recipe): Generator<RecordAccess> {
	for (const access of accessTo(records)) for (const path of [recipe.options ?? []].flat()) yield* access.parts(path);
}

function* recordEvents(records: Records, recipe: Recipe, context: DocumentContext): Generator<ReadEvent> {
	const unused = [
		...unusedFields(accessTo(records), recipe).map(
			({ name, count }) => `“${name}” (in ${count} of ${records.count} questions)`
		),
		...unusedFields(optionsOf(records, recipe), recipe).map(
			({ name, count }) => `“${name}” of the options (${count} times)`
		)
	];
	if (unused.length)
		yield {
			type: 'report',
			report: {
				rule: 'unused-field',
				severity: 'doubtful',
				message: `“${context.file}”: what stands under ${unused.join(', ')} was left out, since nothing says what it means. Say it with a recipe.`,
				place: { file: context.file, line: 1 }
			}
		};
	// whether keys are numbers, and whether all of them could count from 0
	let counted = false;
	let fromNought = true;
	for (let at = 0; at < records.count; at += 1) {
		const { access, line, source } = records.at(at);
		const fragment = source();
		if (at % toldEvery === 0) yield progressAt(context, at, records.count);
		const holder = emptyCommon('', '');
		const draft = draftOf(access, recipe, cleaningFor(holder, context));
		for (const key of draft.options.length ? (draft.keys ?? []) : [])
			if (/^\d{1,2}$/.test(key)) {
				counted = true;
				fromNought &&= Number(key) < draft.options.length;
			}
		const { question, reports } = assemble(draft, {
			keyForms: recipe.keyForms ?? defaultForms,
			...(recipe.kinds ? { kindNames: recipe.kinds } : {}),
			identifier: '',
			file: context.file,
			line,
			endLine: line + (fragment.match(/\n/g)?.length ?? 0),
			format: context.format
		});
		question.attachments = holder.attachments;
		question.removed = holder.removed;
		yield { type: 'question', question, fragment, reports };
	}
	// a 0, or the number of the last option counted from 1, would show it
	if (context.recipe || !counted || !fromNought || recipe.keyForms?.includes('index0')) return;
	yield {
		type: 'report',
		report: {
			rule: 'guessed-key',
			severity: 'doubtful',
			message: `“${context.file}”: its keys are numbers, and nothing in it shows whether they count from 0 or from 1. They were counted from 1, so that 1 is the first option. Look at some of them, and say it with a recipe if they count from 0.`,
			place: { file: context.file, line: records.at(0).line }
		}
	};
}

const trouble = (context: DocumentContext, rule: ReaderRule, message: string, line = 1): ReadEvent => ({
	type: 'report',
	report: { rule, severity: 'broken', message, place: { file: context.file, line } } satisfies Report
});

const deepest = 2000;

/** Whether lists and objects of a JSON text stand in one another deeper than any list of questions has them. */
function isTooDeep(text: string): boolean {
	let depth = 0;
	for (let at = 0; at < text.length; at += 1) {
		const sign = text.charCodeAt(at);
		if (sign === 0x22) {
			do {
				at = text.indexOf('"', at + 1);
				if (at < 0) return false;
			} while (isEscaped(text, at));
		} else if (sign === 0x5b || sign === 0x7b) {
			depth += 1;
			if (depth > deepest) return true;
		} else if (sign === 0x5d || sign === 0x7d) depth -= 1;
	}
	return false;
}

/** Whether an odd number of backslashes stands before a place of a text. */
function isEscaped(text: string, at: number): boolean {
	let from = at;
	while (text.charCodeAt(from - 1) === 0x5c) from -= 1;
	return (at - from) % 2 === 1;
}

/** The value of a JSON text, or of one object a line; of a damaged one as much as can be read, with a report. */
function openJson(text: string, context: DocumentContext): { value?: unknown; reports: ReadEvent[] } {
	if (isTooDeep(text))
		return {
			reports: [
				trouble(
					context,
					'too-large',
					`“${context.file}” has lists within lists, thousands deep, as no list of questions has. It was not read; ask for it again.`
				)
			]
		};
	let fault: string;
	try {
		return { value: JSON.parse(text) as unknown, reports: [] };
	} catch (error) {
		fault = (error as Error).message;
	}
	const lines = text.split(/\r\n|\r|\n/).flatMap((line, at) => (line.trim() ? [{ line, number: at + 1 }] : []));
	const bad: ReadEvent[] = [];
	const values = lines.flatMap(({ line, number }): unknown[] => {
		try {
			return [JSON.parse(line) as unknown];
		} catch (error) {
			const why = `“${context.file}”, line ${number}, is no JSON: ${(error as Error).message}. It cannot be read, the others were.`;
			bad.push(trouble(context, 'not-well-formed', why, number));
			return [];
		}
	});
	const objects = values.filter((one) => typeof one === 'object' && one !== null);
	if (objects.length > lines.length / 2) return { value: objects, reports: bad };
	const found = salvageJson(text);
	const said = `“${context.file}” is no well-formed JSON: ${fault}.`;
	if (!found) return { reports: [trouble(context, 'not-well-formed', `${said} Mend it there, or ask for it again.`)] };
	return {
		value: found.value,
		reports: [
			trouble(
				context,
				'not-well-formed',
				`${said} What stands before line ${found.line} was read, and nothing after it. Mend it there, or ask for it again.`,
				found.line
			)
		]
	};
}

/** Reads JSON of any shape by a recipe, or by one that is guessed from its keys. */
export const readJsonByRecipe: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const large = tooLargeForRecipe(context.file, context.container.size(context.file));
	if (large) {
		yield trouble(context, 'too-large', large);
		return;
	}
	const { text, report } = await readPlainText(context.container, context.file);
	if (report) yield { type: 'report', report };
	if (text === null) return;
	const many = tooManyForRecipe(context.file, 'json', text);
	if (many) {
		yield trouble(context, 'too-large', many);
		return;
	}
	const opened = openJson(text.replace(/^\ufeff/, ''), context);
	yield* opened.reports;
	if (!('value' in opened)) return;
	const { value } = opened;
	const recipe = context.recipe?.record ? context.recipe : guessJson(value);
	if (!recipe) {
		yield trouble(
			context,
			'not-questions',
			`“${context.file}” is JSON, and no list in it reads like questions. Say with a recipe where they stand.`
		);
		return;
	}
	const found = follow({ value, around: [] }, recipe.record!);
	const lines = linesOfRecords(
		text,
		found.map((one) => one.value)
	);
	if (!found.length)
		yield trouble(
			context,
			'empty-recipe',
			`Nothing stands at “${recipe.record}” in “${context.file}”. Look at the path of a question in the recipe.`
		);
	yield* recordEvents(
		{
			count: found.length,
			at: (place) => ({
				access: jsonRecord(found[place]!),
				line: lines[place]!,
				source: () => JSON.stringify(found[place]!.value, null, '\t')
			})
		},
		recipe,
		context
	);
};

/** A document out of its text, with what is wrong in it, in words; no document where nothing could be understood. */
function parsed(context: DocumentContext, text: string): { document: DomDocument | null; fault: string | null } {
	const faults: string[] = [];
	// recipes leave the default prefix out
	const bare = context.recipe?.namespaces ? text : text.replace(/(<[^>!?]*?)\sxmlns\s*=\s*("[^"]*"|'[^']*')/g, '$1');
	try {
		const parser = new DOMParser({
			onError: (level, message) => {
				if (level !== 'warning') faults.push(message.split('\n')[0]!);
			}
		});
		const document = parser.parseFromString(bare.replace(/^\ufeff/, ''), 'text/xml');
		const fault = faults.length
			? `“${context.file}”: ${faults[0]}. What could be understood was read; mend it there, or ask for it again.`
			: null;
		return { document, fault };
	} catch (error) {
		const what = faults[0] ?? (error as Error).message;
		return {
			document: null,
			fault: `“${context.file}” is no well-formed XML: ${what}. Mend it there, or ask for it again.`
		};
	}
}

/** Reads XML of any shape by a recipe, or by one that is guessed from its elements. */
export const readXmlByRecipe: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const large = tooLargeForRecipe(context.file, context.container.size(context.file));
	if (large) {
		yield trouble(context, 'too-large', large);
		return;
	}
	const { text, report } = await readText(context.container, context.file);
	if (report) yield { type: 'report', report };
	const many = tooManyForRecipe(context.file, 'xml', text);
	if (many) {
		yield trouble(context, 'too-large', many);
		return;
	}
	const plain = withoutDoctype(text);
	if ('refused' in plain) {
		const { rule, message } = plain.refused;
		yield trouble(
			context,
			rule,
			`“${context.file}” was refused: ${message}. Nothing was fetched. Ask for a file without a document type.`
		);
		return;
	}
	const { document, fault } = parsed(context, plain.text);
	if (fault) yield trouble(context, 'not-well-formed', fault);
	if (!document) return;
	const recipe = context.recipe?.record ? context.recipe : guessXml(document);
	if (!recipe) {
		yield {
			type: 'report',
			report: {
				rule: 'not-questions',
				severity: 'doubtful',
				message: `“${context.file}” holds no questions that are known here: its root element is “${document.documentElement?.nodeName ?? ''}”. Say with a recipe where they stand.`,
				place: { file: context.file, line: 1 }
			}
		};
		return;
	}
	const select = xpath.useNamespaces(recipe.namespaces ?? {});
	const labels = new Labels();
	let records: DomElement[];
	try {
		records = elementsAt(recipe.record!, document, recipe.namespaces ?? {});
	} catch (error) {
		yield trouble(
			context,
			'bad-recipe',
			`The recipe's path “${recipe.record}” cannot be followed: ${(error as Error).message}.`
		);
		return;
	}
	if (!records.length)
		yield trouble(
			context,
			'empty-recipe',
			`Nothing stands at “${recipe.record}” in “${context.file}”. Look at the path of a question in the recipe.`
		);
	try {
		yield* recordEvents(
			{
				count: records.length,
				at: (place) => {
					const node = records[place] as DomElement & { lineNumber?: number };
					return { access: xmlRecord(node, select, labels), line: node.lineNumber ?? 1, source: () => node.toString() };
				}
			},
			recipe,
			context
		);
	} catch (error) {
		if (!/xpath|parse|token|expression/i.test((error as Error).message)) throw error;
		yield trouble(context, 'bad-recipe', `A path of the recipe cannot be followed: ${(error as Error).message}.`);
	}
};
