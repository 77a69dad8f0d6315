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
	const text = line.text.slice(count, end);
	const trimmed = text.trim();
	const plainMarkup = escapeText(line.text) === line.markup;
	return {
		...line,
		text: trimmed,
		markup: plainMarkup ? escapeText(trimmed) : cutMarkup(line.markup, line.text, trimmed)
	};
}

/** Rich text without what its plain text has lost at its ends. */
function cutMarkup(markup: Markup, before: string, after: string): Markup {
	if (before === after) return markup;
	const lead = before.indexOf(after);
	if (lead < 0) return escapeText(after);
	let skip = lead;
	let keep = after.length;
	let out = '';
	for (const token of markup.match(/<[^>]*>|&[a-z#0-9]+;|[^<&]/gi) ?? []) {
		if (token.startsWith('<')) {
			out += token;
			continue;
		}
		if (skip > 0) skip -= 1;
		else if (keep > 0) {
			out += token;
			keep -= 1;
		}
	}
	return out.replace(/<([a-z0-9]+)[^>]*><\/\1>/gi, '').trim();
}

/** A Markdown line without its signs of emphasis, and whether all of it was emphasised. */
export function withoutEmphasis(line: Line): Line {
	const whole = /^(\*\*|__)(?=\S)(.+?)(?<=\S)\1$/.exec(line.text);
	if (whole && !whole[2]!.includes(whole[1]!))
		return { ...line, text: whole[2]!, markup: escapeText(whole[2]!), stressed: true };
	if (!/\*\*|__/.test(line.text) || escapeText(line.text) !== line.markup) return line;
	const text = line.text
		.replace(/\*\*(?=\S)(.+?)(?<=\S)\*\*/g, '$1')
		.replace(/(?<!\w)__(?=[^\s_])(.+?)(?<=[^\s_])__(?!\w)/g, '$1');
	const markup = escapeText(line.text)
		.replace(/\*\*(?=\S)(.+?)(?<=\S)\*\*/g, '<b>$1</b>')
		.replace(/(?<!\w)__(?=[^\s_])(.+?)(?<=[^\s_])__(?!\w)/g, '<b>$1</b>');
	return { ...line, text, markup };
}

const questionStart =
	/^(?:(?:(question|quest|item|problem|exercise|no|nr|q)\b\.?\s*[#:]?\s*|q)(\d{1,4})\s*(?:([.):])|\s[-–—]\s|\s*[-–—]\s+|$)|#?(\d{1,4})\s*(?:([.)])(?!\d)|\s[-–—]\s|[-–—]\s+|:(?=\s)))\s*(.*)$/i;

/** A number that begins a question: "1.", "Q1)", "Question 1:", "1 -". */
export interface NumberMark {
	number: number;
	style: string;
	rest: Line;
}

/** The number with which a line begins a question, or null. */
export function numberMark(line: Line): NumberMark | null {
	if (line.list?.kind === 'number' && line.list.level === 0)
		return { number: Number(line.list.label) || 0, style: 'list', rest: line };
	const bare = line.text.replace(/^(\*\*|__)/, '');
	const emphasised = bare !== line.text;
	const found = questionStart.exec(bare);
	if (!found) return null;
	const [, word, worded, wordedEnd, plain, plainEnd, rest = ''] = found;
	const text = emphasised ? rest.replace(/^\s*(\*\*|__)\s*/, '').replace(/(\*\*|__)$/, '') : rest;
	const style = word || worded ? `q${wordedEnd ?? '-'}` : (plainEnd ?? '-');
	const from = line.text.length - rest.length;
	const cutLine = emphasised ? { ...line, text: text.trim(), markup: escapeText(text.trim()) } : cut(line, from);
	return { number: Number(worded ?? plain), style, rest: withoutEmphasis(cutLine) };
}

const romans = ['i', 'ii', 'iii', 'iv', 'v', 'vi', 'vii', 'viii', 'ix', 'x', 'xi', 'xii'];

/** The place that a label stands for, from 0: letters, roman numbers or numbers; null where it is none of them. */
export function placeOfLabel(label: string, roman: boolean): number | null {
	if (/^\d+$/.test(label)) return Number(label) - 1;
	const lower = label.toLowerCase();
	if (roman && romans.includes(lower)) return romans.indexOf(lower);
	return /^[a-z]$/.test(lower) ? lower.charCodeAt(0) - 97 : null;
}

/** What a line says as an option, or null: a letter, a roman number or a number with its sign, a box, or a bullet. */
export function optionMark(given: Line): OptionMark | null {
	if (given.list && given.list.kind !== 'bullet' && (given.list.level > 0 || given.list.kind === 'letter'))
		return { label: given.list.label, style: 'list', starred: false, ticked: null, bullet: false, rest: given };
	const emphasised = withoutEmphasis(given);
	let line = emphasised;
	let bullet = line.list?.kind === 'bullet';
	const boxed = /^(?:[-•*+]\s+)?(?:\[\s*([xX*✓✔ ]?)\s*\]|([☐☑☒✓✔✅]))\s*/.exec(line.text);
	let ticked: boolean | null = null;
	if (boxed && !/^\[\s*\]\s*$/.test(line.text)) {
		ticked = boxed[2] ? boxed[2] !== '☐' : (boxed[1] ?? '').trim() !== '';
		line = cut(line, boxed[0].length);
	} else if (/^[-•+‣◦▪·]\s+/.test(line.text)) {
		bullet = true;
		line = cut(line, /^[-•+‣◦▪·]\s+/.exec(line.text)![0].length);
	}
	const star = /^\*\s*(?=\(?[A-Za-z0-9]{1,4}[.):\]])/.exec(line.text);
	if (star) line = cut(line, star[0].length);
	else if (ticked === null && /^\*\s+/.test(line.text)) {
		bullet = true;
		line = cut(line, /^\*\s+/.exec(line.text)![0].length);
	}
	const label =
		/^(?:\(([A-Za-z]|[ivxIVX]{1,4}|\d{1,2})\)|\[([A-Za-z])\]|([A-Za-z]|[ivxIVX]{2,4}|\d{1,2})([.):\]])(?=\s|\S))\s*/.exec(
			line.text
		);
	const style = label ? (label[1] ? '()' : label[2] ? '[]' : label[4]!) : '';
	// "e.g. x" and "3.5 metres" are words, not labels
	const words = label && !label[1] && !label[2] && /^[A-Za-z]\.[A-Za-z]\./.test(line.text);
	const decimal = label && /^\d+\.\d/.test(line.text);
	if (label && !words && !decimal && (label[0].length < line.text.length || ticked !== null)) {
		const rest = cut(line, label[0].length);
		return {
			label: label[1] ?? label[2] ?? label[3] ?? '',
			style,
			starred: star !== null,
			ticked,
			bullet: false,
			rest: { ...rest, stressed: emphasised.stressed }
		};
	}
	if (ticked !== null) return { label: '', style: 'box', starred: false, ticked, bullet: false, rest: line };
	return bullet && line.text
		? {
				label: '',
				style: 'bullet',
				starred: false,
				ticked: null,
				bullet: true,
				rest: { ...line, stressed: emphasised.stressed }
			}
		: null;
}

/** A line of its own that says something of the question: its name in one word, and what it says. */
export interface Field {
	name:
		| 'answer'
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
		| 'language';
	value: Line;
}

const fieldNames: [RegExp, Field['name']][] = [
	[
		/^(?:the\s+)?(?:correct|right|accepted|expected|model)?\s*(?:answers?|ans|keys?|solutions?|options?\s+correct)$|^(?:correct|right)(?:\s+(?:options?|choices?|answer\s*\(s\)))?$|^answer\(s\)$|^accept(?:ed)?$/,
		'answer'
	],
	[/^(?:points?|marks?|score|worth|pts|weight)$/, 'points'],
	[/^(?:category|categories|topic|chapter|section|unit)$/, 'category'],
	[/^(?:tags?|keywords?|labels?)$/, 'tags'],
	[/^(?:feedback|general feedback|explanation|rationale|reason|comment|note|why)$/, 'general'],
	[/^(?:correct feedback|feedback \(?correct\)?|feedback if (?:correct|right)|if (?:correct|right))$/, 'correct'],
	[
		/^(?:incorrect feedback|wrong feedback|feedback \(?(?:incorrect|wrong)\)?|feedback if (?:incorrect|wrong)|if (?:incorrect|wrong))$/,
		'incorrect'
	],
	[/^(?:partly correct feedback|partial feedback)$/, 'partly'],
	[/^(?:title|name|heading)$/, 'title'],
	[/^(?:hints?|tip)$/, 'hint'],
	[/^(?:difficulty|level)$/, 'difficulty'],
	[/^(?:type|kind|question type)$/, 'kind'],
	[/^(?:shuffle|mix)$/, 'shuffle'],
	[/^(?:language)$/, 'language']
];

/** What a line says of its question in the form "Name: value", or null. */
export function fieldOf(given: Line): Field | null {
	const line = given.list?.kind === 'bullet' ? given : withoutEmphasis(given);
	const found = /^[>*_\s-]*([A-Za-z][A-Za-z ()]{1,32}?)\s*(?:\*\*|__)?\s*[:=]\s*(?:\*\*|__)?\s*(.*)$/.exec(line.text);
	if (!found) return null;
	const word = found[1]!.toLowerCase().replace(/\s+/g, ' ').trim();
	const name = fieldNames.find(([pattern]) => pattern.test(word))?.[1];
	if (!name) return null;
	const value = cut(line, line.text.length - found[2]!.length);
	return { name, value: withoutEmphasis(value) };
}
