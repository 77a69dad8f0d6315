import { readPlainText } from '../../container/decode';
import type { DocumentReader, ReadEvent } from '../format';
import { guessJson } from './guess-json';
import { follow, linesOfRecords } from './json';
import { tooLargeForRecipe, tooManyForRecipe } from './limits';
import { recordEvents, trouble } from './events';
import { jsonRecord } from './json-record';
import { openJson } from './open-json';

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
