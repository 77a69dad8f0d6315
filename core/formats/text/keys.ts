import { fold, plainText } from '../../markup/text';
import { numberAnswer } from '../drafts/number-answer';
import { truthOf } from '../drafts/words';
import { type Draft } from '../drafts/draft';
import { numberWithUnit } from './units';

type Options = Draft['options'];

const separator = String.raw`\s*(?:,\s*(?:and|&)\b|,|;|&|\/|\+|→|>|->|\band\b|\s)\s*`;
const lettersOnly = new RegExp(String.raw`^(?:both\s+)?\(?[A-Za-z]\)?(?:${separator}\(?[A-Za-z]\)?)*$`, 'i');
const labelsOnly = new RegExp(
	String.raw`^\(?(?:[A-Za-z]|\d{1,2}|[ivx]{1,4})[.)]?(?:${separator}\(?(?:[A-Za-z]|\d{1,2}|[ivx]{1,4})[.)]?)*$`,
	'i'
);
/** What a list of answers says where there is none to be marked by. */
const noAnswer =
	/^[([]?\s*(?:open(?:[-\s]ended)?|free|essay|answers?\s+(?:will\s+|may\s+)?var(?:y|ies)|var(?:y|ies|ious)|see\s+(?:rubric|text|notes?)|n\/?a|none given|-+|–|—|student'?s own.*|own words|[_.…\s]{3,})\s*[)\]]?\.?$/i;

/** Whether an answer says that there is none to be marked by, such as "open" or "answers vary". */
export function saysNoAnswer(value: string): boolean {
	return noAnswer.test(fold(value));
}

const sameText = (options: Options, text: string) =>
	options.some((option) => plainText(option.text).toLowerCase() === fold(text).toLowerCase());
const letter = (at: number) => String.fromCharCode(65 + at);

/** The letters of the options that labels name, where each of them is the label of one, as it is written in the file. */
function byLabels(parts: string[], labels: string[]): string[] | null {
	const plain = labels.map((label) => label.toLowerCase());
	const places = parts.map((part) => plain.indexOf(part.replace(/[().]/g, '').toLowerCase()));
	return places.length && places.every((at) => at >= 0) ? places.map(letter) : null;
}

const labelInList = /(?:^|[,;&\s]\s*|\s+and\s+)[([]?([A-Za-z]|[ivxIVX]{1,4}|\d{1,2})(?:[)\].:]|\s[-–—])\s+/g;

/** The letters of several options that are named with their texts, "(a) Hemp, (c) Manila"; null where a text is no such list. */
function labelledKeys(value: string, options: Options, labels: string[]): string[] | null {
	const found = [...value.matchAll(labelInList)];
	if (found.length < 2 || found[0]!.index !== 0) return null;
	const plain = labels.map((label) => label.toLowerCase());
	const places = found.map((sign, at) => {
		const place = plain.indexOf(sign[1]!.toLowerCase());
		const text = value.slice(sign.index + sign[0].length, found[at + 1]?.index).replace(/[\s,;.]+$/, '');
		return place >= 0 && plainText(options[place]!.text).toLowerCase().replace(/\.$/, '') === fold(text).toLowerCase()
			? place
			: -1;
	});
	return places.includes(-1) ? null : places.map(letter);
}

/** The answers that one text names: labels of options, texts of options, or what is accepted, between slashes and semicolons. */
export function keysOf(value: string, options: Options, labels: string[]): string[] {
	const plain = value
		.replace(/\.$/, '')
		.replace(/\s+only$/i, '')
		.trim();
	if (options.length) {
		if (sameText(options, plain)) return [plain];
		const labelled = labelledKeys(plain, options, labels);
		if (labelled) return labelled;
		const listed = labelsOnly.test(plain) || lettersOnly.test(plain);
		if (listed) {
			const parts = plain
				.replace(/^both\s+/i, '')
				.split(new RegExp(separator, 'i'))
				.filter(Boolean);
			const named = byLabels(parts, labels);
			if (named) return named;
			if (lettersOnly.test(plain)) return parts.map((one) => one.replace(/[()]/g, ''));
		}
		if (
			/^[([]?[A-Za-z0-9]{1,3}(?:[)\].:]|\s+[-–—])\s+\S/.test(plain) ||
			/^[A-Za-z0-9]{1,3}\s*\([^()]+\)$/.test(plain)
		) {
			const label = /^[([]?([A-Za-z0-9]{1,3})/.exec(plain)![1]!;
			return byLabels([label], labels) ?? [`${label}) ${plain.slice(plain.indexOf(label) + label.length + 1).trim()}`];
		}
		const texts = plain.split(/\s*(?:,\s*(?:and\s+)?|;|\s\/\s|\sand\s|\s&\s)\s*/i).filter(Boolean);
		if (texts.length > 1 && texts.every((text) => sameText(options, text))) return texts;
		return plain.split(/\s*;\s*|\s+\/\s+/).filter(Boolean);
	}
	if (numberAnswer(plain)) return [plain];
	const either = /^([^()]+?)\s*\((?:or|also|accept)\s+([^()]+)\)$/i.exec(plain);
	if (either) return [either[1]!, either[2]!];
	return value
		.split(/\s+\/\s+|\s*;\s*|\s+\|\s+/)
		.map((one) => one.trim())
		.filter(Boolean);
}

/**
 * An answer with the words that explain it taken apart: "False. It can capsize", "B, since the ebb runs out". They are
 * part of the answer where they repeat the option that it names.
 */
export function withoutReason(value: string, options: Options, labels: string[]): { key: string; reason: string } {
	const whole = { key: value, reason: '' };
	if (sameText(options, value.replace(/\.$/, '')) || labelledKeys(value, options, labels)) return whole;
	const found =
		/^(?:option\s+)?\(?(true|false|[A-Za-z]|\d{1,2})\)?\s*(?:[.,:;)]|\s[-–—]|\bbecause\b|\bsince\b|\((?=.+\)$))\s*(.+?)\s*$/is.exec(
			value
		);
	if (!found) return whole;
	const key = found[1]!;
	const rest = found[0].endsWith(')') && /\(/.test(value) ? found[2]!.replace(/\)$/, '') : found[2]!;
	if (/^(true|false)$/i.test(key)) {
		const free = !options.length || options.every((option) => truthOf(plainText(option.text)) !== null);
		return free && !/^(true|false)\b/i.test(rest) ? { key, reason: rest } : whole;
	}
	const at = labels.map((label) => label.toLowerCase()).indexOf(key.toLowerCase());
	if (at < 0 || lettersOnly.test(value) || labelsOnly.test(value)) return whole;
	const own = plainText(options[at]!.text).toLowerCase();
	const said = fold(rest).toLowerCase().replace(/\.$/, '');
	if (own === said) return whole;
	if (own.startsWith(said) && said.length > 3) return { key, reason: '' };
	if (said.startsWith(own)) return { key, reason: rest.slice(own.length).replace(/^\s*[-–—.,:;]\s*/, '') };
	return /\s/.test(said) && said.length > 12 ? { key, reason: rest } : whole;
}

/** Whether what one answer accepts is accepted by another as well: the same words, or a number within its tolerance or range. */
export function covers(wide: string, narrow: string): boolean {
	if (fold(wide).toLowerCase() === fold(narrow).toLowerCase()) return true;
	const truth = truthOf(wide);
	if (truth !== null && truth === truthOf(narrow)) return true;
	const [range, value] = [numberWithUnit(wide)?.number, numberWithUnit(narrow)?.number];
	if (!range || !value || !('value' in value)) return false;
	if ('value' in range) return Math.abs(value.value - range.value) <= range.tolerance + 1e-9;
	return (range.min ?? -Infinity) <= value.value && value.value <= (range.max ?? Infinity);
}

/** Whether two answers to a question without options say the same, or one of them accepts the other. */
export function sayTheSame(a: string, b: string): boolean {
	return covers(a, b) || covers(b, a);
}

/** A heading of a list of answers. */
export const keyHeading =
	/^(?:the\s+)?(?:answer\s*key|answers|key|keys|solutions?|correct answers|answer sheet|marking key)(?:\s*(?:&|and|with)\s*(?:explanations?|rationales?|feedback))?\s*:?$/i;

/** The numbers with their answers in a line of a list of answers: "1. A   2. C". */
export function keyEntries(text: string): { number: number; value: string }[] {
	const found = [
		...text.matchAll(/(?<=^|[\s,;|])(?:q(?:uestion)?\s*)?(\d{1,6})\s*(?:[.):](?!\d)|\s?[-–=→]\s?|\s)\s*/gi)
	];
	if (!found.length || found[0]!.index !== 0) return [];
	const starts = found.filter((one, at) => at === 0 || isNextKey(text, found[0]!, one));
	return starts.flatMap((start, at) => {
		const from = start.index + start[0].length;
		const end = starts[at + 1]?.index ?? text.length;
		const value = text
			.slice(from, end)
			.replace(/[,;|]\s*$/, '')
			.trim();
		return value ? [{ number: Number(start[1]), value }] : [];
	});
}

/** Whether a number within a line of answers begins the next one: it has the same sign, and comes after the first. */
function isNextKey(text: string, first: RegExpMatchArray, next: RegExpMatchArray): boolean {
	const sign = (found: RegExpMatchArray) => found[0].replace(/[\s\d,;|]|q(uestion)?/gi, '');
	if (sign(first) !== sign(next)) return false;
	if (!sign(next) && !/^\s*[A-Za-z]\b/.test(text.slice(next.index! + next[0].length))) return false;
	return Number(next[1]) > Number(first[1]);
}

/** An entry of a list of answers, with the line it stands in. */
export interface ListedAnswer {
	number: number;
	value: string;
	line: number;
	/** Why it is right, where the list says so beside it. */
	reason?: string;
}

/** A question as far as a list of answers has to know it. */
export interface Keyed {
	number: number;
	numbered: boolean;
	/** What the list says of it; null where it says nothing. */
	listed: string | null;
	/** Why that is right, where the list says so. */
	listedReason: string | null;
}

/** The first of some numbers in rising order that is not less than another; undefined where all are. */
function firstFrom(rising: number[], least: number): number | undefined {
	let [low, high] = [0, rising.length];
	while (low < high) {
		const middle = (low + high) >> 1;
		if (rising[middle]! < least) low = middle + 1;
		else high = middle;
	}
	return rising[low];
}

/**
 * Gives each entry of the lists of answers to its question: the next one of its number, since numbers may begin again
 * in each part of a paper. Gives back those that no question has the number of.
 */
export function giveAnswers(answers: ListedAnswer[], questions: Keyed[]): ListedAnswer[] {
	/** The places of the questions of each number, in order, and how many of them, from the first on, have their answer. */
	const places = new Map<number, { at: number[]; given: number }>();
	questions.forEach(({ number, numbered }, at) => {
		if (!numbered) return;
		const known = places.get(number);
		if (known) known.at.push(at);
		else places.set(number, { at: [at], given: 0 });
	});
	let from = 0;
	return answers.filter(({ number, value, reason }) => {
		const named = places.get(number);
		if (!named) return true;
		let place = firstFrom(named.at, from);
		if (place === undefined) {
			while (named.given < named.at.length && questions[named.at[named.given]!]!.listed !== null) named.given += 1;
			place = named.at[named.given];
		}
		if (place === undefined) return true;
		questions[place]!.listed = value;
		if (reason) questions[place]!.listedReason = reason;
		from = place + 1;
		return false;
	});
}
