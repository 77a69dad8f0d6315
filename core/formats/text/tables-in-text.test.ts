import { describe, expect, it } from 'vitest';
import { short } from '../../test-support/short';
import { readMarkedText } from './grammar';
import { linesOf } from './lines';

const read = (text: string) =>
	readMarkedText(linesOf(text), 'a.txt', 'text').questions.map(({ question }) => short(question));
const stems = (text: string) =>
	readMarkedText(linesOf(text), 'a.txt', 'text').questions.map(({ question: { kind, stem } }) => [kind, stem]);

describe('figures under a stem', () => {
	const options = 'a) East\nb) West\nAnswer: B';
	it('are a part of it where options follow, however much they look like pairs', () => {
		const [[kind, stem] = []] = stems(`1. Use the readings. Which is deepest?\nEast = 4 m\nWest = 6 m\n${options}`);
		expect(kind).toBe('multiple-choice');
		expect(stem).toContain('East = 4 m');
		const table = stems(`1. Which is deepest?\n\n| East | 4 m |\n| West | 6 m |\n\n${options}`);
		expect(table).toEqual([['multiple-choice', expect.stringContaining('<td>4 m</td>')]]);
	});
	it('are a part of it where one of them is the answer', () => {
		const [[kind, stem] = []] = stems('1. Read the log. When did the wind veer?\n0400 = SW\n0800 = W\nAnswer: 0800');
		expect(kind).toBe('short-answer');
		expect(stem).toContain('0400 = SW');
	});
	it('are pairs where the stem asks to match them, with bars around them or without', () => {
		const lines = '1. Match the flags.\nA = Diver down\nH = Pilot on board';
		const table = '1. Match the flags.\n\n| A | Diver down |\n| H | Pilot on board |';
		expect(read(table)).toEqual(read(lines));
		expect(stems(table)[0]![0]).toBe('matching');
	});
});

describe('options that are told by letters of another alphabet', () => {
	it.each([
		['а) тумба\nб) якорь', 'Ответ: б'],
		['α) δέστρα\nβ) άγκυρα', 'Απάντηση: β'],
		['(А) тумба\n(Б) якорь', 'Правильный ответ: Б']
	])('are options, and their key is found: %j', (options, key) => {
		const { questions } = readMarkedText(linesOf(`1. Что?\n${options}\n${key}`), 'a.txt', 'text');
		const [{ question } = {}] = questions;
		expect(question && 'options' in question && question.options.map(({ credit }) => credit)).toEqual([0, 1]);
	});
	it('are words where no others follow', () => {
		expect(stems('1. Что такое\nа) кнехт?')).toEqual([['essay', 'Что такое а) кнехт?']]);
	});
});

describe('a list of answers in sections', () => {
	it('gives each answer to the question of its section', () => {
		const { questions } = readMarkedText(
			linesOf(
				'# Bow\n\n1. Which?\na) fore\nb) aft\n\n# Stern\n\n1. Which?\na) fore\nb) aft\n\n# Answers\n\nBow\n1. A\nStern\n1. B\n'
			),
			'a.txt',
			'text'
		);
		expect(
			questions.map(({ question }) => [
				question.category,
				'options' in question ? question.options.map(({ credit }) => credit) : []
			])
		).toEqual([
			[['Bow'], [1, 0]],
			[['Stern'], [0, 1]]
		]);
	});
});

describe('two lists to be matched', () => {
	const wanted = read('1. Match each knot with its use.\nBowline = Loop that holds\nReef knot = Joins two ends');
	it.each([
		['Answer: A-1, B-2', '1. Loop that holds\n2. Joins two ends'],
		['Answer: A2 B1', '1. Joins two ends\n2. Loop that holds']
	])('may have letters first and numbers below them: %s', (answer, second) => {
		const text = `1. Match each knot with its use.\nA. Bowline\nB. Reef knot\n${second}\n${answer}\n\n2. Which is a knot?\na) Bowline\nb) Cleat\nAnswer: A`;
		const found = read(text);
		expect(found.slice(0, 1)).toEqual(wanted);
		expect(found).toHaveLength(2);
	});
	it('are questions of their own where no answer pairs them', () => {
		const text =
			'1. Match each knot with its use.\na) Bowline\nb) Reef knot\nAnswer: A\n\n2. Which is a knot?\na) Bowline\nb) Cleat\nAnswer: A';
		expect(read(text)).toHaveLength(2);
	});
});
