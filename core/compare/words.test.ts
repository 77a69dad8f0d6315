import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Question } from '../kinds';
import { anyQuestion } from '../test-support/arbitrary';
import { choice } from '../test-support/questions';
import { canonicalForm } from './canonical';
import { wordDifferences } from './words';

describe('the differences of two questions in words', () => {
	it('are none for the same', () => {
		expect(wordDifferences(choice(), choice())).toEqual([]);
	});
	it('name the part, and show the words that went and came', () => {
		const before = choice();
		const after = choice({
			stem: before.stem.replace('warm', 'cold'),
			options: before.options.map((one, at) => (at === 1 ? { ...one, credit: 0.5 } : one)),
			points: 2
		});
		const found = wordDifferences(before, after);
		expect(found.map((one) => one.part)).toEqual(['stem', 'points', 'option 2']);
		expect(found[0]!.stretches.filter((one) => one.only).map((one) => [one.only, one.text])).toEqual([
			['before', 'warm'],
			['after', 'cold']
		]);
		expect(found[0]!.stretches.map((one) => (one.only === 'before' ? '' : one.text)).join('')).toBe(
			'Which cloud comes first as a cold front draws near?'
		);
	});
	it('tell what is set otherwise in the same words', () => {
		const [found, ...more] = wordDifferences(choice({ stem: 'a warm front' }), choice({ stem: 'a <b>warm</b> front' }));
		expect(more).toEqual([]);
		expect(found!.part).toBe('stem, how it is set');
		expect(
			found!.stretches
				.filter((one) => one.only === 'after')
				.map((one) => one.text)
				.join('')
		).toContain('<b>');
	});
	it('say nothing of the name of a picture whose content is the same, and name one whose content is another', () => {
		const picture = (name: string, hash: string) =>
			choice({
				stem: `Look: <img src="media:${name}" alt=""/>`,
				attachments: [{ name, mediaType: 'image/png', hash, missing: false }]
			});
		expect(wordDifferences(picture('a.png', 'one'), picture('b/c.png', 'one'))).toEqual([]);
		expect(wordDifferences(picture('a.png', 'one'), picture('a.png', 'two')).map((one) => one.part)).toContain(
			'pictures and files'
		);
	});
	it('are found wherever the content of two questions differs', () => {
		fc.assert(
			fc.property(anyQuestion, anyQuestion, (before, after) => {
				if (canonicalForm(before) !== canonicalForm(after)) expect(wordDifferences(before, after)).not.toEqual([]);
				expect(wordDifferences(before, before)).toEqual([]);
			}),
			{ numRuns: 300 }
		);
	});
	it('are found for every single value that is changed, in every kind', () => {
		/** The places of all single values in a question, but for those by which its parts are only known to one another. */
		const placesIn = (value: unknown, path: string[] = []): string[][] =>
			typeof value !== 'object' || value === null
				? [path]
				: Object.entries(value).flatMap(([name, inner]) =>
						/^(identifier|source|removed|lostKeys|attachments|name|left|right|word|presented|form|kind|mode|shape)$/.test(
							name
						)
							? []
							: placesIn(inner, [...path, name])
					);
		const otherwise = (value: unknown, name: string) => {
			if (name === 'combination') return value === 'all' ? 'sum' : 'all';
			if (name === 'rule') return value === 'all' ? 'position' : 'all';
			if (typeof value === 'number') return value + 0.5;
			return typeof value === 'boolean' ? !value : typeof value === 'string' ? `${value}x` : value;
		};
		fc.assert(
			fc.property(anyQuestion, fc.nat(), (question, pick) => {
				const places = placesIn(question);
				const place = places[pick % places.length]!;
				const changed = structuredClone(question) as unknown as Record<string, unknown>;
				const holder = place.slice(0, -1).reduce((at, name) => at[name] as Record<string, unknown>, changed);
				const last = place.at(-1)!;
				holder[last] = otherwise(holder[last], last);
				const after = changed as unknown as Question;
				if (canonicalForm(question) !== canonicalForm(after))
					expect(wordDifferences(question, after), place.join('.')).not.toEqual([]);
			}),
			{ numRuns: 600 }
		);
	});
});
