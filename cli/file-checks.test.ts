import { describe, expect, it } from 'vitest';
import type { FoundQuiz } from '../core/model/quiz';
import { choice } from '../core/test-support/questions';
import { FileChecks } from './file-checks';

const names = ['t1', 't2', 'l1', 'l2'];
const questions = names.map((identifier) =>
	choice({
		identifier,
		title: `Question ${identifier}`,
		stem: `What does ${identifier} say?`,
		category: [identifier.startsWith('t') ? 'Tides' : 'Lights'],
		source: { format: 'json', file: 'a.json', line: 1, endLine: 1, identifier }
	})
);
const named = (identifier: string) => ({ identifier, file: 'a.json', place: names.indexOf(identifier) + 1 });
const part = { title: 'Mixed', path: [], bank: null, draw: 3, pointsEach: 1, shuffle: true };
const found = (more: Partial<FoundQuiz>, least = 0) => {
	const sheet = {
		order: 'shuffled' as const,
		shuffleOptions: true,
		pool: null,
		quotas: [{ by: 'category' as const, values: [{ category: ['Tides'] }], spread: null, least, most: null }]
	};
	const checks = new FileChecks();
	for (const question of questions) checks.add(question);
	checks.quiz({
		identifier: 'Z',
		title: 'Week 6',
		source: { file: 'a.json', line: 1 },
		parts: [{ ...part, questions: names.map(named), sheet }],
		...more
	});
	return [...checks.findings()].filter(({ rule }) => rule === 'quiz-unfillable').map(({ message }) => message);
};

describe('the checks over the quizzes of a file', () => {
	it('heed quotas', () => {
		expect(found({}, 2)).toEqual([]);
		expect(found({}, 3).join()).toContain('at least 3 of “Tides”');
	});
	it('heed pairs that never come together', () => {
		const rules = { never: [[named('t1'), named('t2')]], together: [], partsShuffled: false, fixedOptions: [] };
		expect(found({ rules })).toEqual([]);
		expect(found({ rules }, 2).join()).toContain('cannot be filled');
	});
	it('count what a part names twice once', () => {
		const twice = [{ ...part, draw: null, questions: [named('t1'), named('t1')] }];
		expect(found({ parts: twice })).toEqual([]);
	});
});
