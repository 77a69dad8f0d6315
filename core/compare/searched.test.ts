import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldedWords } from '../markup/folded';
import { anyQuestion } from '../test-support/arbitrary';
import { choice, option, short } from '../test-support/questions';
import { foundBeside, searchedWords } from './searched';

describe('words in a search', () => {
	it('are the same without case, accents and ligatures', () => {
		expect(foldedWords('Größe, MARÉE; œuvre – smørrebrød’s Łódź')).toEqual([
			'grosse',
			'maree',
			'oeuvre',
			'smorrebrod',
			's',
			'lodz'
		]);
		expect(foldedWords('Mar\u0065\u0301e')).toEqual(foldedWords('Mar\u00e9e'));
	});
	it('are single letters where a script sets no spaces', () => {
		expect(foldedWords('潮汐 tide')).toEqual(['潮', '汐', 'tide']);
	});
	it('keep letters with their marks together', () => {
		expect(foldedWords('नमस्ते')).toHaveLength(1);
	});
});

describe('the words of a question', () => {
	const question = choice({
		identifier: 'knot-17',
		title: 'Loops',
		stem: '<p>Which knot makes a loop?</p>',
		options: [
			option('A', 'Bowline', 1, { feedback: 'It does not slip under <b>tension</b>.' }),
			option('B', 'Clove hitch', 0)
		],
		hints: ['Think of mooring.']
	});
	it('are those of its title, stem, options, feedback and hints, and its identifier', () => {
		expect(searchedWords(question)).toEqual(
			expect.arrayContaining(['loops', 'knot', 'bowline', 'hitch', 'tension', 'mooring', '17'])
		);
		expect(searchedWords(short([{ text: 'Café', credit: 1, caseSensitive: false }]))).toContain('cafe');
	});
	it('are no words of the program, and each is there once', () => {
		const words = searchedWords(question);
		expect(words).not.toEqual(expect.arrayContaining(['nothing']));
		expect(words).not.toContain('shuffled');
		expect(new Set(words).size).toBe(words.length);
	});
	it('are told with the part that has them, where title and stem do not show them', () => {
		expect(foundBeside(question, 'knot', 'Loops Which knot makes a loop?')).toBeNull();
		expect(foundBeside(question, 'knot bowl', 'Loops Which knot makes a loop?')).toEqual({
			part: 'option 1',
			before: '',
			text: 'Bowline'
		});
		expect(foundBeside(question, 'TENSION', 'Loops')).toEqual({
			part: 'feedback of option 1',
			before: 'It does not slip under ',
			text: 'tension.'
		});
		expect(foundBeside(question, 'anchor', 'Loops')).toBeNull();
	});
	it('are shown from shortly before the place, with the word in it', () => {
		const long = `${'The lee shore is near. '.repeat(40)}Then the anchor drags.`;
		const found = foundBeside(choice({ stem: long }), 'anchor', 'The lee shore');
		expect(found!.before).toMatch(/^….*Then the $/);
		expect(found!.text).toBe('anchor drags.');
		expect(found!.before.length).toBeLessThan(45);
	});
	it('are found by the beginning of any of them, in any question', () => {
		fc.assert(
			fc.property(anyQuestion, fc.nat(), (any, at) => {
				const words = searchedWords(any);
				fc.pre(words.length > 0);
				const word = words[at % words.length]!;
				const found = foundBeside(any, word, '');
				expect(found).not.toBeNull();
				expect(foldedWords(found!.text).some((other) => other.startsWith(word))).toBe(true);
				expect((found!.before + found!.text).length).toBeLessThanOrEqual(Math.max(161, 41 + found!.text.length));
			})
		);
	});
});
