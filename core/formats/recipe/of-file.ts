import type { Container } from '../../container/container';
import { guessTable } from '../table/guess';
import { guessJson } from './guess-json';
import { guessXml } from './guess-xml';
import type { Recipe } from './recipe';
import { openShapeless } from './shapeless';

/** A recipe for a table, JSON or XML of no standard shape, guessed from what is in it; null where nothing reads like questions. */
export async function guessRecipe(container: Container): Promise<Recipe | null> {
	const opened = await openShapeless(container);
	if (opened?.form === 'json') return guessJson(opened.value);
	if (opened?.form === 'xml') return guessXml(opened.document);
	if (opened?.form === 'table') {
		const recipe = guessTable(opened.rows);
		return recipe && { delimiter: opened.delimiter, ...recipe };
	}
	if (opened?.form !== 'workbook') return null;
	const found = opened.sheets.map(({ name, rows }) => ({ name, recipe: rows.length ? guessTable(rows) : null }));
	const some = found.flatMap(({ name, recipe }) => (recipe ? [{ sheet: name, ...recipe }] : []));
	return some.length
		? { sheets: some, sheetsWithoutQuestions: found.filter((one) => !one.recipe).map((one) => one.name) }
		: null;
}
