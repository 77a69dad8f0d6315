import { fold } from '../../markup/text';
import { falseHeading, trueHeading } from '../choices';
import type { Columns } from '../recipe/recipe';
import type { Row } from './row';

const fields: [keyof Columns, RegExp][] = [
	[
		'correctFeedback',
		/^(?:correct feedback|feedback (?:if )?(?:correct|right)|(?:right|correct) (?:answer )?(?:feedback|comment))$/
	],
	[
		'incorrectFeedback',
		/^(?:(?:incorrect|wrong) (?:answer )?(?:feedback|comment)|feedback (?:if )?(?:incorrect|wrong))$/
	],
	[
		'generalFeedback',
		/^(?:(?:general |question |answer )?(?:feedback|comments?|explanation)|rationale|justification|remarks?|notes?|why|reason|erklärung|explication|explicación)$/
	],
	['kind', /^(?:(?:question |item )?(?:type|kind|format)|style|art|typ)$/],
	[
		'points',
		/^(?:(?:question |item )?(?:points?|marks?|scores?)|points? (?:value|possible|worth)|worth|weight|pts|punkte|puntos|punten|max(?:imum)? (?:points?|marks?|score))$/
	],
	[
		'category',
		/^(?:(?:question |item )?(?:category|categories|topics?)(?: (?:name|path))?|chapter|section|subject|units?|module|area|bank|folder|theme|kategorie|thema|catégorie|categoría|categorie)$/
	],
	['tags', /^(?:tags?|keywords?|labels?)$/],
	['shuffle', /^(?:shuffled?|mix|mixed|random(?:ise|ize)?)$/],
	['difficulty', /^(?:difficulty(?: level)?|level(?: of difficulty)?|hardness)$/],
	['hint', /^(?:hints?|tips?)$/],
	['tolerance', /^(?:tolerance|margin|plus or minus|\+\/-|error allowed)$/],
	['language', /^(?:language|lang)$/],
	['title', /^(?:(?:question |item )?(?:title|name|heading|caption)|short title)$/],
	[
		'stem',
		/^(?:(?:the )?(?:question|item)(?: (?:text|stem|body|wording))?|stem|prompt|q|text|ask|body|problem|statement|wording|frage(?:text)?|aufgabe|pregunta|vraag|énoncé)$/
	],
	// of two columns that say so only together
	['stem', /^(?:term|front|clue|statements?)$/],
	['identifier', /^(?:(?:question |item )?(?:id|identifier|code|ref(?:erence)?))$/]
];
/** What may stand in columns of each option, by its letter or number. */
const ofOption: ['optionCredits' | 'optionFeedbacks', RegExp][] = [
	[
		'optionCredits',
		/^(?:(?:option|choice|answer|opt)? ?([a-j]|\d{1,2}) (?:credit|score|points?|weight|percent(?:age)?|%|grade|share)|(?:credit|score|points?|weight|percent(?:age)?|grade|share) (?:of |for )?(?:option |choice |answer )?([a-j]|\d{1,2})|(?:is )?(?:(?:option|choice|answer|opt) ?)?([a-j]|\d{1,2}) (?:is )?(?:correct|right|true)\??)$/
	],
	[
		'optionFeedbacks',
		/^(?:(?:option|choice|answer|opt)? ?([a-j]|\d{1,2}) (?:feedback|comment|explanation)|(?:feedback|comment|explanation) (?:of |for )?(?:option |choice |answer )?([a-j]|\d{1,2}))$/
	]
];
/** What the columns of the answer are called, those first that say more plainly that they hold it. */
const keyHeadings = [
	/^(?:the )?(?:(?:correct|right)(?: ?(?:answers?|options?|choices?|responses?|keys?|letters?))?|(?:best|true) (?:answers?|options?|choices?|responses?))(?: ?\(e?s\))?(?: (?:index(?:es)?|indices|numbers?|no|nr|letters?|positions?|labels?|text))?$/,
	/^(?:answer )?key$|^(?:answer|option|choice|key) (?:index(?:es)?|indices|numbers?|no|letters?|positions?)$|^(?:index(?:es)?|indices|numbers?|letters?|positions?) of (?:the )?(?:correct|right) (?:answers?|options?|choices?)$/,
	/^(?:answers?|ans|a|solutions?|accepted(?: answers?)?|(?:model|sample|expected) answers?|lösung(?:en)?|richtig(?:e antwort(?:en)?)?|antwort|réponse|(?:bonne|bonnes) réponses?|respuestas?(?: correctas?)?|antwoord|juist)$/,
	/^(?:definition|meaning|back)$/
];
const wrongHeading =
	/^(?:(?:wrong|incorrect|false)(?: (?:answers?|options?|choices?))?|distractors?)(?: ?#?(?:\d{1,2}|[a-j]))?$/;
const lowerCategory = /^(?:sub ?-?(?:category|topic|section|chapter|unit)|(?:category|topic|level) 2)$/;
const optionHeading =
	/^(?:(?:options?|choices?|answers?|alternatives?|opt|distractors?|responses?|ans|antwort(?:möglichkeit)?|auswahl|réponse|proposition|choix|opción|respuesta|alternativa|risposta|opzione|scelta|antwoord|optie|keuze|resposta|opção)\s*[-_.:#]?\s*(?:\d{1,2}|[a-j])|[a-j]|(?:\d)(?:st|nd|rd|th) (?:option|choice|answer))$/;
const optionsHeading =
	/^(?:options?|choices?|alternatives?|answer options|answer choices|possible answers|antworten|antwortmöglichkeiten|auswahl|réponses|choix|opciones|respuestas|antwoorden|keuzes)$/;

/** A heading without what does not tell it from others: case, signs at its end, strokes, words written together as programs do. */
export const plainHeading = (text: string) =>
	fold(text)
		.replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
		.toLowerCase()
		.replace(/[*:?]+$/, '')
		.replace(/[_-]+/g, ' ')
		.trim();

/** How the columns of a header are named, each name once. */
export function headings(row: Row | null, width: number): string[] {
	const seen = new Set<string>();
	return Array.from({ length: width }, (_, at) => {
		let name = fold(row?.cells[at]?.text ?? '') || `Column ${at + 1}`;
		if (seen.has(name)) name = `${name} (${at + 1})`;
		seen.add(name);
		return name;
	});
}

/** The letter or the number at the end of a heading, "Option 2" or "B". */
const labelOf = (heading: string) =>
	/(?:^| )([a-j]|\d{1,2})$/.exec(plainHeading(heading).replace(/(\D)(\d+)$/, '$1 $2'))?.[1];

/** Puts the columns of options in the order of their letters or numbers, wherever in the table they stand. */
function byLabel(options: string[]): void {
	const labels = options.map(labelOf);
	const all = (form: RegExp) => labels.every((label) => label !== undefined && form.test(label));
	if (new Set(labels).size < labels.length || !(all(/^\d/) || all(/^[a-j]/))) return;
	const place = (heading: string) => parseInt(labelOf(heading)!, 36);
	const number = (heading: string) => Number(labelOf(heading));
	options.sort((a, b) => (all(/^\d/) ? number(a) - number(b) : place(a) - place(b)));
}

/** The columns that read as true and as false, where there are both. */
export function truthColumns(names: string[]): string[] | null {
	const found = [trueHeading, falseHeading].flatMap(
		(heading) => names.find((name) => heading.test(plainHeading(name))) ?? []
	);
	return found.length === 2 ? found : null;
}

/** What the headings of a table mean, as far as they can be guessed. */
export function guessColumns(names: string[]): Columns {
	const columns: Columns = {};
	const options: string[] = [];
	const taken = new Set<string>();
	const plain = names.map(plainHeading);
	const wrong = names.filter((_, at) => wrongHeading.test(plain[at]!));
	if (wrong.length > 1 && !plain.some((name) => /^[a-d]$/.test(name))) {
		columns.wrong = wrong;
		for (const name of wrong) taken.add(name);
	}
	const letters = plain.filter((name, at) => !taken.has(names[at]!) && optionHeading.test(name));
	plain.forEach((name, at) => {
		if (letters.length > 1 && optionHeading.test(name) && !taken.has(names[at]!)) {
			options.push(names[at]!);
			taken.add(names[at]!);
		}
	});
	byLabel(options);
	for (const [field, pattern] of ofOption) {
		const labels = plain.map((name) => pattern.exec(name)?.slice(1).find(Boolean));
		const found = options.map((option) => {
			const own = labelOf(option);
			return names[labels.findIndex((label) => label !== undefined && label === own)] ?? '';
		});
		if (!found.some(Boolean)) continue;
		columns[field] = found;
		for (const name of found) taken.add(name);
	}
	for (const [field, pattern] of fields) {
		const at = plain.findIndex((name, place) => !taken.has(names[place]!) && pattern.test(name));
		if (at < 0 || columns[field]) continue;
		(columns as Record<string, string>)[field] = names[at]!;
		taken.add(names[at]!);
	}
	const keys = keyHeadings.flatMap((pattern) =>
		names.filter((name, place) => !taken.has(name) && pattern.test(plain[place]!))
	);
	for (const name of keys) taken.add(name);
	if (keys.length) columns.key = keys.length > 1 ? keys : keys[0]!;
	if (options.length) columns.options = options;
	else {
		const at = plain.findIndex((name, place) => !taken.has(names[place]!) && optionsHeading.test(name));
		if (at >= 0) columns.options = names[at]!;
	}
	if (!columns.stem && columns.title && !plain.some((name) => /title|name/.test(name))) {
		columns.stem = columns.title;
		delete columns.title;
	}
	const lower = names.find((name, at) => !taken.has(name) && lowerCategory.test(plain[at]!));
	if (lower && columns.category) columns.category = [columns.category].flat().concat(lower);
	const truth = truthColumns(names);
	if (truth && !columns.key && !options.length) {
		columns.truth = truth;
		delete columns.options;
	}
	// without the right one, the wrong ones are no options
	if (columns.options || !columns.key) delete columns.wrong;
	return columns;
}

const mostRowsLooked = 20;

/** The row of the headings, from 1, and what they mean; null where no row reads like headings. */
export function guessHeader(rows: Row[]): { headerRow: number; columns: Columns } | null {
	let best: { headerRow: number; columns: Columns; score: number } | null = null;
	for (const row of rows.slice(0, mostRowsLooked)) {
		const columns = guessColumns(headings(row, row.cells.length));
		const score = Object.keys(columns).filter((field) => field !== 'identifier').length;
		if (columns.stem && score > 1 && (!best || score > best.score)) best = { headerRow: row.number, columns, score };
	}
	return best;
}
