import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isChoice, type Question } from '../kinds';
import { parseQuestion } from '../kinds/schema';
import { anyQuestion } from '../test-support/arbitrary';
import { applyEdit, edits, editShape, editWords, type EditAsked } from './index';

const asked: EditAsked[] = [
	{ edit: 'points', points: 2.5 },
	{ edit: 'tags', add: ['tides', 'neaps'], remove: ['old'] },
	{ edit: 'shuffle', on: true },
	{ edit: 'shuffle', on: false },
	{ edit: 'pin', which: 'last' },
	{ edit: 'pin', which: 'none' },
	{ edit: 'difficulty', difficulty: 'hard' },
	{ edit: 'difficulty', difficulty: '' },
	{ edit: 'language', language: 'de' },
	{ edit: 'replace', find: 'e', put: '<&>', exactCase: false, wholeWords: false },
	{ edit: 'replace', find: 'tide', put: '', exactCase: true, wholeWords: true }
];
const question = (stem: string): Question =>
	parseQuestion({
		kind: 'multiple-choice',
		identifier: 'a',
		title: 'Tides',
		stem,
		points: 1,
		category: [],
		tags: ['old', 'kept'],
		language: null,
		feedback: { general: '<p>The tide turns.</p>' },
		hints: [],
		attachments: [],
		metadata: [],
		removed: [],
		source: null,
		options: [
			{ identifier: 'A', text: 'tide', credit: 1, pinned: false },
			{ identifier: 'B', text: 'None of these', credit: 0, pinned: false }
		],
		shuffle: null,
		combination: 'sum',
		bounds: { lower: null, upper: null },
		lostKeys: []
	});

describe('what is done to many questions at once', () => {
	it('gives a question that is one still, does nothing the second time, and leaves the rest alone', () => {
		expect(new Set(asked.map(({ edit }) => edit))).toEqual(new Set(edits));
		fc.assert(
			fc.property(anyQuestion, fc.constantFrom(...asked.slice(0, 9)), (before, what) => {
				const after = applyEdit(before, what);
				expect(parseQuestion(JSON.parse(JSON.stringify(after)))).toEqual(JSON.parse(JSON.stringify(after)));
				expect(applyEdit(after, what), 'nothing is left to do').toBe(after);
				expect(after.stem).toBe(before.stem);
				expect(after.identifier).toBe(before.identifier);
			})
		);
	});
	it('says what it does', () => {
		expect(asked.map((what) => editWords(what).says).slice(0, 3)).toEqual([
			'2.5 points each',
			'+ tides, + neaps, − old',
			'shuffled'
		]);
	});
	it.each([
		[{ edit: 'points', points: -1 }, '0 or more'],
		[{ edit: 'points', points: 'many' }, 'number'],
		[{ edit: 'constructor' }, 'no such thing'],
		[{ edit: 'replace', find: '', put: '' }, 'what to look for'],
		[{ edit: 'language', language: 'a language' }, 'written as'],
		[{}, 'not named'],
		[null, 'not named']
	])('is refused in words where it is not whole: %j', (value, words) => {
		expect(() => editShape.validateSync(value)).toThrow(words);
	});
	it('leaves what earns no points without any', () => {
		const note = { ...question('x'), kind: 'information' } as unknown as Question;
		expect(applyEdit(note, { edit: 'points', points: 3 })).toBe(note);
	});
	it('pins the last option, and lets it go', () => {
		const pinned = applyEdit(question('x'), { edit: 'pin', which: 'last' });
		expect(isChoice(pinned) && pinned.options.map((option) => option.pinned)).toEqual([false, true]);
		expect(applyEdit(pinned, { edit: 'pin', which: 'none' })).toEqual(question('x'));
	});
	it('adds and takes tags', () => {
		expect(applyEdit(question('x'), { edit: 'tags', add: ['kept', 'new'], remove: ['old'] }).tags).toEqual([
			'kept',
			'new'
		]);
	});
});

describe('words that are replaced', () => {
	const replaced = (
		stem: string,
		find: string,
		put: string,
		more: Partial<{ exactCase: boolean; wholeWords: boolean }> = {}
	) => applyEdit(question(stem), { edit: 'replace', find, put, exactCase: false, wholeWords: false, ...more }).stem;
	it('are found in what is read, and never in marks and names', () => {
		expect(replaced('<p class="p">A <em>p</em> and Fish &amp; chips</p>', 'p', 'q')).toBe(
			'<p class="p">A <em>q</em> and Fish &amp; chiqs</p>'
		);
		expect(replaced('<p>Fish &amp; chips</p>', 'Fish & chips', 'a < b')).toBe('<p>a &lt; b</p>');
		expect(replaced('a amp b &amp; c', 'amp', 'volt')).toBe('a volt b &amp; c');
	});
	it('can be whole words, and with their capitals', () => {
		expect(replaced('Tide, tides, tide.', 'tide', 'stream', { wholeWords: true })).toBe('stream, tides, stream.');
		expect(replaced('Tide, tides, tide.', 'tide', 'stream', { exactCase: true })).toBe('Tide, streams, stream.');
		expect(replaced('Größe größer', 'größe', 'x', { wholeWords: true })).toBe('x größer');
	});
	it('take signs as they are written, and put them so', () => {
		expect(replaced('1.5 m (or 1x5)', '1.5', '$1 $&')).toBe('$1 $&amp; m (or 1x5)');
	});
	it('are replaced in options and feedback too', () => {
		const after = applyEdit(question('x'), {
			edit: 'replace',
			find: 'tide',
			put: 'stream',
			exactCase: false,
			wholeWords: false
		});
		expect(isChoice(after) && after.options[0]!.text).toBe('stream');
		expect(after.feedback.general).toBe('<p>The stream turns.</p>');
	});
});
