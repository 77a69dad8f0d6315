import { lookup } from '../../model/lookup';
import type { Recipe } from './recipe';

/** Words that people and programs use for parts of a question, in plain small letters; the first that fits counts. */
export const names = lookup<RegExp>({
	title: /^(title|name|heading|caption|label)$/,
	stem: /^(stem|question|questiontext|prompt|ask|text|body|statement|problem|content|q|wording|querytext|frage|fragetext|aufgabe|enonce|pregunta|domanda|vraag)$/,
	kind: /^(type|kind|questiontype|qtype|sort|format|itemtype)$/,
	options:
		/^(options|choices|answers|alternatives|alts|alt|option|choice|responses|answeroptions|answerchoices|possibleanswers|variants|antwort|antworten|auswahl|reponses?|choix|respuestas?|opciones|risposte|antwoorden)$/,
	key: /^(answer|key|correct|correctanswer|correctanswers|correctoption|correctoptions|right|rightanswer|solution|answers|correctindex|correctchoices?|answerkey|correct(?:option|answer|choice)?ids?|correctanswerindex|losung|richtig|bonnereponse|respuestacorrecta)$/,
	points: /^(points|marks|score|worth|weight|mark|maxscore|pts|punkte|puntos|punti|punten)$/,
	category:
		/^(category|topic|chapter|subject|section|unit|folder|bank|module|theme|thema|kategorie|categorie|categoria)$/,
	tags: /^(tags|keywords|labels|tag)$/,
	generalFeedback: /^(feedback|explanation|explain|why|because|rationale|generalfeedback|comment|remark|note|reason)$/,
	correctFeedback: /^(correctfeedback|feedbackcorrect|rightfeedback)$/,
	incorrectFeedback: /^(incorrectfeedback|feedbackincorrect|wrongfeedback)$/,
	shuffle: /^(shuffle|mix|random|randomize|randomise|shuffled|shuffleoptions)$/,
	tolerance: /^(tolerance|margin|within|delta)$/,
	wrong: /^(?:incorrect|wrong)(?:answers?|options?|choices?)?$|^distractors?$/,
	difficulty: /^(difficulty|level)$/,
	hint: /^(hint|hints|tip)$/,
	accepted: /^(accepted|accept|acceptedanswers|acceptable)$/,
	numeric: /^(value|number|numericanswer)$/,
	pairs: /^(pairs|matches|pair|match|matching)$/,
	order: /^(order|sequence|ordering|steps|items)$/,
	language: /^(language|lang)$/
});
/** Words for the parts of an option. */
export const inOption = lookup<RegExp>({
	optionText: /^(text|label|option|answer|content|value|title|body|choice)$/,
	credit: /^(credit|score|weight|fraction|percent|points|worth|share|grade)$/,
	optionIdentifier: /^(id|identifier|ident|key|letter|ref|name)$/,
	optionRight: /^(correct|iscorrect|right|isright|key|iskey|istrue|isanswer|richtig|korrekt|juste|correcto|correcta)$/,
	optionFeedback: /^(feedback|remark|comment|explanation|rationale)$/
});
/** The two sides of a pair. */
export const sides: [string, RegExp][] = [
	['left', /^(left|term|this|from|prompt|question|key|a|source|item|premise)$/],
	['right', /^(right|definition|that|to|answer|value|b|target|match|response)$/]
];
/** A name in plain small letters. */
export const plain = (name: string) =>
	name
		.normalize('NFD')
		.toLowerCase()
		.replace(/[^a-z]/g, '');
/** What names a group of questions that stand in it. */
export const isLabel = /^(title|name|label|topic|category|section|heading|chapter)$/;
/** What parts the steps of a category. */
export const separators = ['/', '>', '::', '»', '\\'];

/** The first of some keys that a pattern fits and that is not taken; it is taken then. */
export function keyNamed(keys: string[], pattern: RegExp, taken: Set<string>): string | undefined {
	const found = keys.find((key) => !taken.has(key) && pattern.test(plain(key)));
	if (found !== undefined) taken.add(found);
	return found;
}

/** The parts of a question that stand by themselves, in the order in which their names are looked for. */
export const ordinary = [
	'title',
	'stem',
	'kind',
	'points',
	'category',
	'tags',
	'correctFeedback',
	'incorrectFeedback',
	'generalFeedback',
	'shuffle',
	'difficulty',
	'hint',
	'wrong',
	'key',
	'language'
] as const;

/** Which of the parts of an option is its text, its credit, its mark and its feedback, by their names. */
export function partsNamed(parts: string[]): Partial<Recipe> {
	const used = new Set<string>();
	const found: Partial<Recipe> = {};
	for (const field of ['optionRight', 'credit', 'optionFeedback', 'optionText', 'optionIdentifier'] as const) {
		const key = keyNamed(parts, inOption[field]!, used);
		if (key !== undefined) found[field] = key;
	}
	return found;
}

/** Whether numbers that name options count from 0: one of them is 0, or the key is called an index, as programs do. */
export const countsFromZero = (numbers: number[], key: Recipe['key']) =>
	numbers.includes(0) || (numbers.length > 0 && [key ?? []].flat().some((name) => /ind(?:ex|ices)/i.test(name)));
