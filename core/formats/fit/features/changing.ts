import { markupOfText } from '../../../markup/clean';
import { conform } from '../../../markup/conform';
import { serialise } from '../../../xml/serialise';
import { parseXml } from '../../../xml/parse';
import { plainText } from '../../../markup/text';
import { type Blank, type Question } from '../../../kinds';
import type { AcceptedNumber, AcceptedText } from '../../../model/pieces';
import type { Markup } from '../../../model/question';

export const round = (value: number) => Math.round(value * 1e6) / 1e6;
export const languageTag = /^[A-Za-z]{1,8}(-[A-Za-z0-9]{1,8})*$/;
export const byMachine = (question: Question) =>
	!['essay', 'information', 'unreadable', 'file-upload'].includes(question.kind);

export function withoutFeedback(part: 'general' | 'correct' | 'incorrect' | 'partly') {
	return (question: Question): Question => {
		if (question.feedback[part] === undefined) return question;
		const { [part]: _, ...feedback } = question.feedback;
		return { ...question, feedback };
	};
}

/** Changes every list of accepted texts in a question; the same object where nothing changes. */
export function onTexts(question: Question, change: (texts: AcceptedText[]) => AcceptedText[]): Question {
	if (question.kind === 'short-answer') {
		const accepted = change(question.accepted);
		return accepted === question.accepted ? question : { ...question, accepted };
	}
	if (question.kind !== 'fill-blanks') return question;
	return onBlanks(question, (blank) => {
		if (blank.form !== 'text') return blank;
		const accepted = change(blank.accepted);
		return accepted === blank.accepted ? blank : { ...blank, accepted };
	});
}

export function onBlanks(question: Question, change: (blank: Blank) => Blank): Question {
	if (question.kind !== 'fill-blanks') return question;
	const blanks = question.blanks.map(change);
	return blanks.some((blank, at) => blank !== question.blanks[at]) ? { ...question, blanks } : question;
}

export const changed = <T>(list: T[], change: (one: T) => T): T[] => {
	const out = list.map(change);
	return out.some((one, at) => one !== list[at]) ? out : list;
};

export const shown = /<(img|object)\b([^>]*?)(?:\/>|>[\s\S]*?<\/object>)/g;

/** What a picture or a sound is called, for people: what it shows, and its file. */
export function nameOfShown(attributes: string): Markup {
	const said = (name: string) => new RegExp(`\\b${name}="([^"]*)"`).exec(attributes)?.[1]?.trim() ?? '';
	const file = (said('src') || said('data'))
		.split('/')
		.pop()!
		.replace(/^media:/, '');
	// an attribute escapes more than a text does
	return markupOfText(plainText(said('alt') ? `${said('alt')} (${file})` : file));
}

/** Rich text without its pictures, in the form of rich text again; where nothing else is in it, it says what was shown. */
export function withoutPictures(markup: Markup): Markup {
	if (!/<(img|object)\b/.test(markup)) return markup;
	const bare = serialise(conform(parseXml(`<x>${markup.replace(shown, '')}</x>`).root?.children ?? [])).trim();
	return plainText(bare) || /<(math|span|div|var)\b/.test(bare)
		? bare
		: [...markup.matchAll(shown)].map((found) => nameOfShown(found[2]!)).join(', ');
}

/** Rich text as plain text that is escaped again. */
export const plain = (markup: Markup) => (/[<&]/.test(markup) ? markupOfText(plainText(markup)) : markup);

export function onNumbers(question: Question, change: (numbers: AcceptedNumber[]) => AcceptedNumber[]): Question {
	if (question.kind !== 'numeric') return question;
	const accepted = change(question.accepted);
	return accepted === question.accepted ? question : { ...question, accepted };
}

/** Rich text in the one form of rich text, after something was taken out of it. */
export const tidyMarkup = (markup: Markup): Markup =>
	serialise(conform(parseXml(`<x>${markup}</x>`).root?.children ?? [])).trim();

export const hasPositive = (credits: number[]) => credits.some((credit) => credit > 0);
