import type { Markup } from '../../model/question';
import { escapeText } from '../../xml/serialise';
import type { Line } from './lines';

/** What the beginning of a line says that it is. */
export interface OptionMark {
	/** The letter or number in front, as it is written; empty for a box or a bullet alone. */
	label: string;
	/** How the label is closed and opened, so that labels of one list can be known again. */
	style: string;
	starred: boolean;
	/** A box that is ticked or not; null where there is none. */
	ticked: boolean | null;
	bullet: boolean;
	rest: Line;
}

/** A line without its first so many characters; its rich text follows where it is the same. */
export function cut(line: Line, count: number, end = line.text.length): Line {
	const trimmed = line.text.slice(count, end).trim();
	const plainMarkup = escapeText(line.text) === line.markup;
	return {
		...line,
		text: trimmed,
		markup: plainMarkup ? escapeText(trimmed) : cutMarkup(line.markup, line.text.slice(0, count), trimmed)
	};
}

/** How many signs of a text can be seen: blanks do not count, which rich text may have more or fewer of. */
const solid = (text: string) => text.replace(/\s/g, '').length;
const blank = /^(?:\s|&nbsp;|&#160;|&#xa0;)$/i;

/** Rich text without what stands in front in its plain text, as far as the plain text that is left. */
function cutMarkup(markup: Markup, front: string, left: string): Markup {
	let skip = solid(front);
	let keep = solid(left);
	let out = '';
	let begun = false;
	for (const token of markup.match(/<[^>]*>|&[a-z#0-9]+;|[^<&]/gi) ?? []) {
		if (token.startsWith('<')) out += token;
		else if (blank.test(token)) out += begun && keep > 0 ? token : '';
		else if (skip > 0) skip -= 1;
		else if (keep > 0) {
			begun = true;
			out += token;
			keep -= 1;
		}
	}
	return out.replace(/<([a-z0-9]+)[^>]*><\/\1>/gi, '').trim();
}

const word = String.raw`(?:question|quest|ques|que|item|problem|exercise|task|no|nr|q|frage|aufgabe|exercice|pregunta|ejercicio|domanda|esercizio|vraag|opgave|pergunta)`;
const bracket = String.raw`(?:\s*([([][^()[\]]{1,50}[)\]]))?`;
const worded = new RegExp(
	String.raw`^(?:${word}\b\.?\s*[#:]?\s*|q)(\d{1,6})(?:\s+of\s+\d{1,6})?${bracket}\s*(?:([.):])|\s[-–—]\s|\s*[-–—]\s+|(?<=[)\]])\s+|$)\s*(.*)$`,
	'i'
);
/** "Q.4 Which …", "Question 4 Which …": a number without a sign, in front of a sentence that begins. */
const wordedBare = /^(?:q\.?\s?|question\s+)(\d{1,6})\s+(?=["'“(]?[A-Z])(.*)$/i;
const plain = new RegExp(
	String.raw`^#?(\d{1,6})(?:\s*(?:([.)])(?!\d)|\s[-–—]\s|[-–—]\s+|:(?=\s))|\s*([([]\s*\d+(?:[.,]\d+)?\s*(?:points?|marks?|pts?)\s*[)\]])\s*[:.)]?)\s*(.*)$`,
	'i'
);
const inParentheses = /^\((\d{1,4})\)\s+(?=\S)(.*)$/;
/** A line to write the answer on, in front of the number, perhaps with the answer: "__B__ 1." */
const leadingBlank = /^_{2,}\s*(?:([A-Za-z]{1,5})\s*_*)?\s*(?=#?\d{1,6}\s*[.)])/;

/** A number that begins a question: "1.", "Q1)", "Question 1:", "1 -". */
export interface NumberMark {
	number: number;
	style: string;
	rest: Line;
	/** What stands in brackets behind the number. */
	bracket?: string;
	/** The answer that is written in front of it. */
	answer?: string;
}

/** The number with which a line begins a question, or null. */
export function numberMark(line: Line): NumberMark | null {
	if (line.list?.kind === 'number' && line.list.level === 0)
		return { number: Number(line.list.label) || 0, style: 'list', rest: line };
	const blank = leadingBlank.exec(line.text);
	const text = blank ? line.text.slice(blank[0].length) : line.text;
	const answer = blank?.[1];
	const bare = wordedBare.exec(text);
	if (bare && /^["'“(]?[A-Z]/.test(bare[2]!))
		return { number: Number(bare[1]), style: 'q ', rest: cut(line, line.text.length - bare[2]!.length) };
	const said = worded.exec(text);
	const enclosed = said ? null : inParentheses.exec(text);
	if (enclosed)
		return { number: Number(enclosed[1]), style: '()', rest: cut(line, line.text.length - enclosed[2]!.length) };
	const found = said ?? plain.exec(text);
	if (!found) return null;
	const rest = found[4] ?? '';
	const inBrackets = said ? said[2] : found[3];
	const sign = (said ? said[3] : found[2]) ?? (/^#?\d+\s*:/.test(text) ? ':' : '-');
	return {
		number: Number(found[1]),
		style: said ? `q${sign}` : sign,
		rest: cut(line, line.text.length - rest.length),
		...(inBrackets ? { bracket: inBrackets } : {}),
		...(answer ? { answer } : {})
	};
}

const romans = ['i', 'ii', 'iii', 'iv', 'v', 'vi', 'vii', 'viii', 'ix', 'x', 'xi', 'xii'];

/** The place that a label stands for, from 0: letters, roman numbers or numbers; null where it is none of them. */
export function placeOfLabel(label: string, roman: boolean): number | null {
	if (/^\d+$/.test(label)) return Number(label) - 1;
	const lower = label.toLowerCase();
	if (roman && romans.includes(lower)) return romans.indexOf(lower);
	return /^[a-z]$/.test(lower) ? lower.charCodeAt(0) - 97 : null;
}

/** The label that comes at a place, from 0, in the hand of another: "ii" behind "i", "B" behind "A"; null behind the last. */
export function labelAt(place: number, roman: boolean, like: string): string | null {
	if (/^\d/.test(like)) return String(place + 1);
	const label = roman ? romans[place] : place < 26 ? String.fromCharCode(97 + place) : undefined;
	if (label === undefined) return null;
	return /[a-z]/.test(like) ? label : label.toUpperCase();
}

/** What a line says as an option, or null: a letter, a roman number or a number with its sign, a box, or a bullet. */
export function optionMark(given: Line): OptionMark | null {
	const loneStar = /^\*\s*(?=\S)/.exec(given.text);
	if (given.list && given.list.kind !== 'bullet' && (given.list.level > 0 || given.list.kind === 'letter'))
		return {
			label: given.list.label,
			style: 'list',
			starred: loneStar !== null,
			ticked: null,
			bullet: false,
			rest: loneStar ? cut(given, loneStar[0].length) : given
		};
	let line = given;
	let bullet = line.list?.kind === 'bullet';
	const boxed =
		/^(?:[-–—•*+‣◦▪·]\s+)?(?:\[\s*([xX*✓✔ ]?)\s*\]|\(\s*([xX*✓✔]|\s)\s*\)|([☐☑☒✓✔✅❌✗✘⬜◻○◯●◉]))\uFE0F?\s*/u.exec(
			line.text
		);
	let ticked: boolean | null = null;
	if (boxed && !/^\[\s*\]\s*$/.test(line.text)) {
		ticked = boxed[3] ? /[☑☒✓✔✅●◉]/u.test(boxed[3]) : (boxed[1] ?? boxed[2] ?? '').trim() !== '';
		line = cut(line, boxed[0].length);
	} else if (/^[-–—•+‣◦▪·]\s+/.test(line.text)) {
		bullet = true;
		line = cut(line, /^[-–—•+‣◦▪·]\s+/.exec(line.text)![0].length);
	}
	const worded = /^(?:option|choice)\s+(?=\(?[A-Za-z0-9]{1,2}\s?[.):\]–-])/i.exec(line.text);
	if (worded) line = cut(line, worded[0].length);
	const star = /^\*\s*(?=\(?[A-Za-z0-9]{1,4}[.):\]]|\[?[A-Za-z](?:\]|\s[-–—]\s))/.exec(line.text);
	if (star) line = cut(line, star[0].length);
	else if (ticked === null && /^\*\s+/.test(line.text)) {
		bullet = true;
		line = cut(line, /^\*\s+/.exec(line.text)![0].length);
	}
	const label =
		/^(?:\(([A-Za-z]|[ivxIVX]{1,4}|\d{1,2})\)|\[([A-Za-z])\]|([A-Za-z]|[ivxIVX]{2,4}|\d{1,2})([.):\]])|([A-Za-z])\s([.)])\s|([A-Za-z])\s?([-–—])\s+(?=\S))\s*/.exec(
			line.text
		);
	const style = label ? (label[1] ? '()' : label[2] ? '[]' : (label[4] ?? label[6] ?? label[8])!) : '';
	// "e.g. x" and "3.5 metres" are words, not labels
	const words = label && !label[1] && !label[2] && /^[A-Za-z]\.[A-Za-z]\./.test(line.text);
	const decimal = label && /^\d+\.\d/.test(line.text);
	const shows = label !== null && (label[0].length < line.text.length || /<(img|math|object)\b/.test(line.markup));
	if (label && !words && !decimal && (shows || ticked !== null)) {
		const rest = cut(line, label[0].length);
		return {
			label: label[1] ?? label[2] ?? label[3] ?? label[5] ?? label[7] ?? '',
			style,
			starred: star !== null,
			ticked,
			bullet: false,
			rest: { ...rest, stressed: given.stressed }
		};
	}
	if (ticked !== null) return { label: '', style: 'box', starred: false, ticked, bullet: false, rest: line };
	const marked = given.list?.kind === 'bullet' ? loneStar : null;
	if (marked) line = cut(given, marked[0].length);
	return bullet && line.text
		? {
				label: '',
				style: 'bullet',
				starred: marked !== null,
				ticked: null,
				bullet: true,
				rest: { ...line, stressed: given.stressed }
			}
		: null;
}

/** A line of its own that says something of the question: its name in one word, and what it says. */
export interface Field {
	name:
		| 'answer'
		| 'model'
		| 'points'
		| 'category'
		| 'tags'
		| 'general'
		| 'correct'
		| 'incorrect'
		| 'partly'
		| 'title'
		| 'hint'
		| 'difficulty'
		| 'kind'
		| 'shuffle'
		| 'language'
		| 'tolerance'
		| 'order';
	value: Line;
}

const fieldNames: [RegExp, Field['name']][] = [
	[
		/^(?:the\s+)?(?:correct|right|accepted|expected)?\s*(?:answers?(?:\s*\(s\))?|ans|keys?|solutions?|options?\s+correct)$|^(?:(?:richtige\s+)?antwort(?:en)?|lösung(?:en)?|(?:bonnes?\s+)?réponses?|solution|respuestas?(?:\s+correctas?)?|rispost[ae](?:\s+corrett[ae])?|(?:juiste\s+)?antwoord(?:en)?|resposta(?:\s+correta)?|(?:правильн(?:ый|ые)\s+)?ответы?|(?:правильна\s+)?відповід[ьі]|(?:prawidłowa\s+)?odpowied(?:ź|zi)|(?:správná\s+)?odpověď|(?:rätt\s+|riktig\s+|rigtigt?\s+)?svar|(?:oikea\s+)?vastaus|(?:helyes\s+)?válasz|(?:răspuns|răspunsul)(?:\s+corect)?|(?:doğru\s+)?cevap|(?:točan\s+)?odgovor|(?:σωστή\s+)?απάντηση)$|^(?:correct|right)(?:\s+(?:options?|choices?))?$|^accept(?:ed)?$/,
		'answer'
	],
	[/^(?:an?\s+)?(?:model|sample|suggested|possible|example)\s+(?:answers?|responses?|solutions?)$/, 'model'],
	[
		/^(?:points?|marks?|score|worth|pts|weight|punkte?|балл(?:ы|ов)?|бал(?:и|ів)?|punkt(?:y|ów)?|poäng|poeng|point|puntos?|punti|punten|pontos?)$/,
		'points'
	],
	[
		/^(?:category|categories|topic|chapter|section|unit|kategorie|thema|catégorie|categoría|categoria|categorie)$/,
		'category'
	],
	[/^(?:tags?|keywords?|labels?)$/, 'tags'],
	[
		/^(?:feedback|general feedback|explanation|expl?|rationale|reason|reasoning|justification|comment|note|why|erklärung|begründung|rückmeldung|kommentar|explication|commentaire|explicación|comentario|retroalimentación|spiegazione|commento|uitleg|toelichting)$/,
		'general'
	],
	[/^(?:correct feedback|feedback \(?correct\)?|feedback if (?:correct|right)|if (?:correct|right))$/, 'correct'],
	[
		/^(?:incorrect feedback|wrong feedback|feedback \(?(?:incorrect|wrong)\)?|feedback if (?:incorrect|wrong)|if (?:incorrect|wrong))$/,
		'incorrect'
	],
	[/^(?:partly correct feedback|partial feedback)$/, 'partly'],
	[/^(?:title|name|heading)$/, 'title'],
	[/^(?:hints?|tip|hinweis|indice|pista|suggerimento)$/, 'hint'],
	[/^(?:difficulty|level)$/, 'difficulty'],
	[/^(?:type|kind|question type)$/, 'kind'],
	[/^(?:shuffle|mix)$/, 'shuffle'],
	[/^(?:language)$/, 'language'],
	[/^(?:tolerance|margin|accepted error|allowed error)$/, 'tolerance'],
	[/^(?:the )?(?:correct|right)?\s*(?:order|sequence)$/, 'order']
];

/** Forms of a field without a colon: "The answer is B", "Ans. B", "Answer → B", "Points 3", "2 marks". */
const looseFields: [RegExp, Field['name']][] = [
	[
		/^(?:the\s+)?(?:(?:correct|right|best)\s+)?(?:answer|option|choice)\s+is\s*:?\s*(\(?[A-Za-z]\)?(?:$|[.),:].*|\s+[-–—(].*)|(?:true|false)\b.*|[-+]?\d.*)$/i,
		'answer'
	],
	[/^(?:(?:correct|right)\s+)?(?:ans|answer|key)\s*(?:\.\s*|\s[-–—]+>?\s*|\s*(?:→|=>|->)\s*)(?![)\]])(.+)$/i, 'answer'],
	[/^(?:(?:correct|right)\s+)?(?:ans|answer|key)\s+(\(?[A-Z]\)?\.?|true|false)$/i, 'answer'],
	[/^(\(?[A-Z]\)?)\s+is\s+(?:the\s+)?(?:correct|right)(?:\s+(?:answer|option|choice|one))?\.?$/, 'answer'],
	[/^(?:points?|marks?|pts)\s+(\d+(?:[.,]\d+)?)\.?$/i, 'points'],
	[/^[[(]?\s*(\d+(?:[.,]\d+)?)\s*(?:points?|marks?|pts)\.?\s*[)\]]?$/i, 'points']
];

/** What a line says of its question in the form "Name: value", or null. */
export function fieldOf(line: Line): Field | null {
	// signs that stand in front of a word are decoration
	const decoration = /^[^\p{L}\p{N}([]*/u.exec(line.text)![0].length;
	const bracketed = /^([[(]\s*)((?:correct\s+|right\s+)?(?:ans|answers?|key)\b.*?)\s*[\])]$/i.exec(
		line.text.slice(decoration)
	);
	if (bracketed) {
		const from = decoration + bracketed[1]!.length;
		return fieldOf(cut(line, from, from + bracketed[2]!.length));
	}
	const text = line.text.slice(decoration);
	for (const [pattern, name] of looseFields) {
		const loose = pattern.exec(text);
		if (loose) {
			const at = decoration + text.indexOf(loose[1]!, loose.index + loose[0].indexOf(loose[1]!));
			return { name, value: cut(line, at, at + loose[1]!.length) };
		}
	}
	if (/^(?:the\s+)?(?:(?:correct|right)\s+)?answer$/i.test(text.trim()))
		return { name: 'answer', value: cut(line, line.text.length) };
	const found = /^(\p{L}[\p{L} ()]{1,32}?)\s*[:=]\s*(.*)$/u.exec(text);
	if (!found) return null;
	const word = found[1]!.toLowerCase().replace(/\s+/g, ' ').trim();
	const name = fieldNames.find(([pattern]) => pattern.test(word))?.[1];
	return name ? { name, value: cut(line, line.text.length - found[2]!.length) } : null;
}
