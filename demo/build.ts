import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { emptyCommon } from '../core/model/question';
import type { AcceptedNumber } from '../core/model/pieces';
import type { ChoiceQuestion, Question } from '../core/kinds';
import { escapeText } from '../core/xml/serialise';

/** What may be said of a demo question beside its words. */
export interface Extras {
	points?: number;
	feedback?: string;
	right?: string;
	wrong?: string;
	/** The name of a picture in demo/pictures, with what it shows. */
	picture?: [name: string, alt: string];
	tags?: string[];
	shuffle?: boolean;
}

/** A question of a demo bank: its category is filled in by the bank. */
export type Draft = (category: string[], number: number) => Question;

const pictureFolder = new URL('./pictures/', import.meta.url);

/** The bytes of a demo picture. */
export function picture(name: string): Uint8Array {
	return readFileSync(new URL(name, pictureFolder));
}

function common(title: string, stem: string, extras: Extras, category: string[], number: number) {
	const question = emptyCommon(`GH-${String(number).padStart(3, '0')}`, title);
	question.stem = escapeText(stem);
	question.points = extras.points ?? 1;
	question.category = category;
	question.tags = extras.tags ?? [];
	question.language = 'en';
	if (extras.feedback) question.feedback.general = escapeText(extras.feedback);
	if (extras.right) question.feedback.correct = escapeText(extras.right);
	if (extras.wrong) question.feedback.incorrect = escapeText(extras.wrong);
	if (extras.picture) {
		const [name, alt] = extras.picture;
		const path = `pictures/${name}`;
		question.stem = `<p>${question.stem}</p><p><img src="media:${path}" alt="${escapeText(alt)}"/></p>`;
		question.attachments = [
			{
				name: path,
				mediaType: 'image/svg+xml',
				hash: createHash('sha256').update(picture(name)).digest('hex'),
				missing: false
			}
		];
	}
	return question;
}

/** Options as they are written in the demo: a star before the key, "= 0.5 " before an option with a part of the credit, "| " before what is told of it, "^" before a pinned one. */
function options(lines: string[]): ChoiceQuestion['options'] {
	return lines.map((line, at) => {
		const [, key, pinned, credit, text, told] = /^(\*)?(\^)?(?:=\s*(-?[\d.]+)\s+)?(.*?)(?:\s+\|\s+(.*))?$/.exec(line)!;
		return {
			identifier: String.fromCharCode(65 + at),
			text: escapeText(text!),
			credit: credit ? Number(credit) : key ? 1 : 0,
			pinned: Boolean(pinned),
			...(told ? { feedback: escapeText(told) } : {})
		};
	});
}

const choice =
	(
		kind: ChoiceQuestion['kind'],
		title: string,
		stem: string,
		lines: ChoiceQuestion['options'],
		extras: Extras,
		parts: Partial<ChoiceQuestion> = {}
	): Draft =>
	(category, number) => ({
		...common(title, stem, extras, category, number),
		kind,
		options: lines,
		shuffle: extras.shuffle ?? kind !== 'true-false',
		combination: 'sum',
		bounds: { lower: null, upper: null },
		lostKeys: [],
		...parts
	});

/** A multiple choice; the key has a star. */
export const one = (title: string, stem: string, lines: string[], extras: Extras = {}) =>
	choice('multiple-choice', title, stem, options(lines), extras);
/** A true or false. */
export const truth = (title: string, stem: string, isTrue: boolean, extras: Extras = {}) =>
	choice('true-false', title, stem, options([`${isTrue ? '*' : ''}True`, `${isTrue ? '' : '*'}False`]), extras);
/** A multiple response: the right ones share the credit, each wrong one takes as much away, never below nothing. */
export function several(title: string, stem: string, lines: string[], extras: Extras = {}): Draft {
	const found = options(lines);
	const share = Math.round((1 / found.filter((option) => option.credit > 0).length) * 1e6) / 1e6;
	return choice(
		'multiple-response',
		title,
		stem,
		found.map((option) => ({ ...option, credit: option.credit > 0 ? share : -share })),
		{ points: 2, ...extras },
		{ bounds: { lower: 0, upper: 1 } }
	);
}
/** A short answer; the first text is the key, "= 0.5 text" earns a part, a capital sign "!" before a text makes capitals matter. */
export const word =
	(title: string, stem: string, texts: string[], extras: Extras = {}): Draft =>
	(category, number) => ({
		...common(title, stem, extras, category, number),
		kind: 'short-answer',
		accepted: texts.map((line) => {
			const [, credit, capitals, text] = /^(?:=\s*([\d.]+)\s+)?(!)?(.*)$/.exec(line)!;
			return { text: text!, credit: credit ? Number(credit) : 1, caseSensitive: Boolean(capitals) };
		})
	});
/** A number, with its tolerance, or a range. */
export const figure =
	(
		title: string,
		stem: string,
		accepted: [value: number, tolerance: number] | { from: number; to: number },
		extras: Extras = {}
	): Draft =>
	(category, number) => {
		const key: AcceptedNumber = Array.isArray(accepted)
			? { value: accepted[0], tolerance: accepted[1], credit: 1 }
			: { min: accepted.from, max: accepted.to, includesMin: true, includesMax: true, credit: 1 };
		return {
			...common(title, stem, extras, category, number),
			kind: 'numeric',
			whole: Array.isArray(accepted) && accepted[1] === 0 && Number.isInteger(accepted[0]),
			accepted: [key]
		};
	};
/** An essay. */
export const essay =
	(title: string, stem: string, extras: Extras = {}): Draft =>
	(category, number) => ({ ...common(title, stem, { points: 5, ...extras }, category, number), kind: 'essay' });
/** Information. */
export const note =
	(title: string, stem: string, extras: Extras = {}): Draft =>
	(category, number) => ({ ...common(title, stem, extras, category, number), kind: 'information', points: null });

/** The drafts of a bank, by category path, as questions in order. */
export function bank(parts: [path: string, drafts: Draft[]][]): Question[] {
	let number = 0;
	return parts.flatMap(([path, drafts]) => drafts.map((draft) => draft(path.split(' / '), (number += 1))));
}
