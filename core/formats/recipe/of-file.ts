import { DOMParser } from '@xmldom/xmldom';
import type { Container } from '../../container/container';
import { readPlainText, readText } from '../../container/decode';
import { delimiterOf, rowsOfText } from '../table/csv';
import { guessTable } from '../table/table';
import { sheetsOf } from '../table/xlsx';
import { textualFormat, wholeFormat } from '../textual';
import { guessJson, guessXml } from './guess';
import type { Recipe } from './recipe';

/** A recipe for a table, JSON or XML of no standard shape, guessed from what is in it; null where nothing reads like questions. */
export async function guessRecipe(container: Container): Promise<Recipe | null> {
	if (wholeFormat(container)?.format === 'xlsx') {
		const sheets = await sheetsOf(container);
		const found = sheets.map(({ name, rows }) => ({ name, recipe: rows.length ? guessTable(rows) : null }));
		const some = found.flatMap(({ name, recipe }) => (recipe ? [{ sheet: name, ...recipe }] : []));
		return some.length
			? { sheets: some, sheetsWithoutQuestions: found.filter((one) => !one.recipe).map((one) => one.name) }
			: null;
	}
	if (container.packaged) return null;
	const file = container.entries[0]!.path;
	const { text } = await readPlainText(container, file);
	if (text === null) return null;
	if (
		text
			.trimStart()
			.replace(/^\ufeff/, '')
			.startsWith('<')
	) {
		const xml = (await readText(container, file)).text.replace(/(<[^>!?]*?)\sxmlns\s*=\s*("[^"]*"|'[^']*')/g, '$1');
		if (/<!DOCTYPE/i.test(xml.slice(0, 4096))) return null;
		try {
			return guessXml(
				new DOMParser({ onError: () => undefined }).parseFromString(xml.replace(/^\ufeff/, ''), 'text/xml')
			);
		} catch {
			return null;
		}
	}
	const known = await textualFormat(container, file, null);
	if (known?.format === 'recipe') {
		try {
			return guessJson(JSON.parse(text.replace(/^\ufeff/, '')));
		} catch {
			return null;
		}
	}
	if (known?.format !== 'csv') return null;
	const delimiter = delimiterOf(text);
	const recipe = guessTable(rowsOfText(text, delimiter));
	return recipe && { delimiter, ...recipe };
}
