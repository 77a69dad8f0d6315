import { describe, expect, it } from 'vitest';
import { categoryOrder } from './category-order';

const find = (...paths: string[][]) => categoryOrder.find(paths.map((path) => ({ path, questions: 1 })));

describe('categories that sort wrongly by letters', () => {
	it.each([
		['no categories', []],
		['names without numbers', [['Tides'], ['Lights']]],
		['numbers of one figure', [['1 Tides'], ['2 Lights'], ['3 Ropes']]],
		['padded numbers', [['01 Tides'], ['02 Lights'], ['10 Ropes']]],
		['numbers that do not lead', [['Week A'], ['Week B']]],
		['ten on another level', [['1'], ['2'], ['2', '10'], ['2', '11']]]
	])('passes over %s', (_, paths) => {
		expect(find(...paths)).toEqual([]);
	});
	it.each([
		['10 before 2', [['1'], ['2'], ['10']], [], 'at the top of the bank stand as 1, 10, 2'],
		['weeks', [['Week 2'], ['Week 10']], [], 'Week 10, Week 2; what is meant is Week 2, Week 10'],
		['a level below', [['Tides'], ['Tides', '9'], ['Tides', '12']], ['Tides'], 'under “Tides”'],
		['numbers with points', [['1.2'], ['1.10']], [], '1.10, 1.2'],
		['many of them', Array.from({ length: 12 }, (_, at) => [`${at + 1}`]), [], '1, 10, 11, 12 …'],
		['a number behind words', [['Chart no. 3'], ['Chart no. 21']], [], 'Chart no. 3, Chart no. 21']
	])('finds %s', (_, paths, subject, says) => {
		const findings = find(...paths);
		expect(findings).toEqual([expect.objectContaining({ subject, message: expect.stringContaining(says) as string })]);
	});
});
