import type { Columns, TableRecipe } from '../recipe/recipe';
import { flagOf, isFlag, widthOf } from './cells';
import { headings, plainHeading } from './headings';
import { cellOf, type Row } from './row';

const ofRight =
	/^(?:is )?(?:the )?(?:correct|right|true|key|answer)(?: (?:answer|option|choice))?$|^(?:richtig|korrekt|juste|correcto|correcta)$/;
const ofOption =
	/^(?:(?:option|choice|answer|response|alternative|distractor)s?(?: (?:text|wording|body))?|antwort|réponse|respuesta)$/;

/** Whether a row goes on with the question of the row before: by its identifier or its stem, or since it has neither. */
function goesOn(before: Row, row: Row, identifier: number, stem: number): boolean {
	const text = (one: Row, at: number) => one.cells[at]?.text ?? '';
	if (!text(row, stem) && !text(row, identifier)) return true;
	if (text(row, identifier) || text(before, identifier)) return text(row, identifier) === text(before, identifier);
	return text(row, stem) === text(before, stem);
}

/**
 * The columns of a table that has a row for each option, one of them saying whether it is right; null where it is no
 * such table. `rows` are those below the headings.
 */
export function guessOptionRows(rows: Row[], names: string[], columns: Columns): Columns | null {
	if (Array.isArray(columns.options) || columns.wrong) return null;
	const plain = names.map(plainHeading);
	const texts = (at: number) => rows.map((row) => row.cells[at]?.text ?? '');
	const right = plain.findIndex((name, at) => {
		if (!ofRight.test(name)) return false;
		const found = texts(at);
		return found.every(isFlag) && found.some(flagOf) && !found.every(flagOf);
	});
	const option = plain.findIndex((name, at) => at !== right && (names[at] === columns.options || ofOption.test(name)));
	const [stem, identifier] = [names.indexOf(columns.stem!), names.indexOf(columns.identifier ?? '')];
	if (right < 0 || option < 0 || option === stem) return null;
	const body = rows.filter((row) => row.cells.some((cell) => cell.text));
	if (!body.some((row, at) => at > 0 && goesOn(body[at - 1]!, row, identifier, stem))) return null;
	const next: Columns = { ...columns, options: names[option]!, optionRight: names[right]! };
	delete next.key;
	return next;
}

/** A table with a row for each option as one with a row for each question, and the recipe for that; any other as it is. */
export function joinOptionRows(rows: Row[], recipe: TableRecipe): { rows: Row[]; recipe: TableRecipe } {
	const { columns = {}, headerRow = 1 } = recipe;
	const { options, optionRight } = columns;
	if (optionRight === undefined || typeof options !== 'string') return { rows, recipe };
	const header = rows.find((row) => row.number === headerRow) ?? null;
	const width = widthOf(rows);
	const names = headings(header, width);
	const at = (name: string | undefined) =>
		names.findIndex((one) => name !== undefined && plainHeading(one) === plainHeading(name));
	const [option, right] = [at(options), at(optionRight)];
	const [stem, identifier] = [at(columns.stem), at(columns.identifier)];
	const feedback = at(columns.generalFeedback);
	if (option < 0 || right < 0) return { rows, recipe };
	const groups: Row[][] = [];
	for (const row of rows.filter((one) => one.number > headerRow && one.cells.some((cell) => cell.text))) {
		const last = groups.at(-1);
		if (last && !row.raw && goesOn(last[0]!, row, identifier, stem)) last.push(row);
		else groups.push([row]);
	}
	const most = groups.reduce((before, group) => Math.max(before, group.length), 1);
	const ofEach = groups.some((group) => new Set(group.map((row) => row.cells[feedback]?.text ?? '')).size > 1);
	const named = (word: string) => Array.from({ length: most }, (_, place) => `${word} ${place + 1} of the question`);
	const hidden = new Set([option, right, ...(ofEach ? [feedback] : [])]);
	const wide = (group: Row[]): Row => {
		const [first] = group as [Row];
		const cells = Array.from({ length: width }, (_, place) =>
			hidden.has(place) ? cellOf('') : (first.cells[place] ?? cellOf(''))
		);
		const column = (place: number) =>
			Array.from({ length: most }, (_, index) => group[index]?.cells[place] ?? cellOf(''));
		return {
			...first,
			cells: [...cells, ...column(option), ...column(right), ...(ofEach ? column(feedback) : [])],
			endNumber: group.at(-1)!.endNumber ?? group.at(-1)!.number
		};
	};
	const heads: Row = {
		number: headerRow,
		cells: [
			...names.map((name, place) => cellOf(hidden.has(place) ? '' : name)),
			...[...named('Option'), ...named('Right'), ...(ofEach ? named('Feedback') : [])].map(cellOf)
		]
	};
	const next: Columns = { ...columns, options: named('Option'), optionCredits: named('Right') };
	delete next.optionRight;
	if (ofEach) {
		delete next.generalFeedback;
		next.optionFeedbacks = named('Feedback');
	}
	return {
		rows: [...(headerRow ? [heads] : []), ...groups.map(wide)],
		recipe: { ...recipe, columns: next }
	};
}
