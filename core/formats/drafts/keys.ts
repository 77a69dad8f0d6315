import { plainText, fold } from '../../markup/text';

import { type Draft, type KeyForm } from './draft';
import { truthOf } from './words';
import { numberAnswer } from './number-answer';

/** The letter of the option at a place, from 0. */
export const letterOf = (at: number) => String.fromCharCode(65 + at);

/** The place of the option that a key names by a form, or null. */
function placeOf(key: string, form: KeyForm, options: Draft['options']): number | null {
	const plain = fold(key).replace(/^[([]\s*|\s*[)\].:]$/g, '');
	if (form === 'letter') {
		const letter = /^(?:option|choice|answer)?\s*([A-Za-z])$/i.exec(plain)?.[1];
		const at = letter ? letter.toUpperCase().charCodeAt(0) - 65 : -1;
		return at >= 0 && at < options.length ? at : null;
	}
	if (form === 'index' || form === 'index0') {
		const at = /^\d+$/.test(plain) ? Number(plain) - (form === 'index' ? 1 : 0) : -1;
		return at >= 0 && at < options.length ? at : null;
	}
	if (form === 'text') {
		const wanted = fold(key).toLowerCase();
		const places = options.flatMap((option, at) => (plainText(option.text).toLowerCase() === wanted ? [at] : []));
		return places.length === 1 || places.length > 1 ? places[0]! : null;
	}
	if (form === 'truth') {
		const truth = truthOf(key, true);
		const found = truth === null ? -1 : options.findIndex((option) => truthOf(plainText(option.text)) === truth);
		return found < 0 ? null : found;
	}
	return null;
}

/** The places that keys name; what names none is left over. */
export function resolveKeys(
	keys: string[],
	forms: readonly KeyForm[],
	options: Draft['options']
): { places: number[]; lost: string[] } {
	const places: number[] = [];
	const lost: string[] = [];
	for (const key of keys) {
		let found: number | null = null;
		for (const form of forms) if (found === null) found = placeOf(key, form, options);
		// "AC" for A and C, "b) the text" for b
		if (found === null && forms.includes('letter')) {
			const several = /^[A-Z]{2,6}$/.test(key.trim())
				? [...key.trim()].map((one) => placeOf(one, 'letter', options))
				: [];
			if (several.length && several.every((one) => one !== null)) {
				places.push(...several);
				continue;
			}
			const lettered = /^\(?([A-Za-z])[).:]\s+(.*)$/.exec(key.trim());
			if (lettered) found = placeOf(lettered[1]!, 'letter', options);
		}
		if (found === null) lost.push(key);
		else places.push(found);
	}
	return { places: [...new Set(places)].sort((a, b) => a - b), lost };
}

/** A key text split where it names several; a text that is itself an option, or a number with its tolerance, stays whole. */
export function splitKeys(
	text: string,
	separators: string[],
	options: Draft['options'],
	forms: readonly KeyForm[]
): string[] {
	const whole = fold(text);
	if (!whole) return [];
	if (options.length ? resolveKeys([whole], forms, options).places.length : numberAnswer(whole)) return [whole];
	let parts = [whole];
	for (const separator of separators) parts = parts.flatMap((part) => part.split(separator));
	return parts.map((part) => part.trim()).filter(Boolean);
}

const fewestWordsOfReason = 5;
const wordsIn = (text: string) => text.split(/\s+/).length;

/**
 * What a second answer of a question says beside the first: the same, another key, or the reason, where it is a sentence
 * that names no option.
 */
export function secondKey(
	meant: string[],
	other: string[],
	options: Draft['options'],
	forms: readonly KeyForm[]
): 'same' | 'other' | 'reason' {
	const [first, second] = [fold(meant.join('; ')), fold(other.join('; '))];
	if (options.length) {
		const [named, found] = [resolveKeys(meant, forms, options), resolveKeys(other, forms, options)];
		if (!found.lost.length && named.places.join() === found.places.join()) return 'same';
		return !found.places.length && wordsIn(second) > 2 ? 'reason' : 'other';
	}
	if (first.toLowerCase() === second.toLowerCase()) return 'same';
	return wordsIn(second) >= fewestWordsOfReason && wordsIn(first) < fewestWordsOfReason ? 'reason' : 'other';
}
