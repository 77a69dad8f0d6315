import * as xpath from 'xpath';
import { DOMParser } from '@xmldom/xmldom';
import type { Document as DomDocument, Element as DomElement } from '@xmldom/xmldom';
import { readText } from '../../container/decode';
import type { DocumentContext, DocumentReader, ReadEvent } from '../format';
import { guessXml } from './guess-xml';
import { withoutDoctype } from './doctype';
import { tooLargeForRecipe, tooManyForRecipe } from './limits';
import { elementsAt } from './xml-records';
import { recordEvents, trouble } from './events';
import { Labels, xmlRecord } from './xml-record';

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
