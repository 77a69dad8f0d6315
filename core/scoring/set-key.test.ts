import { describe, expect, it } from 'vitest';
import { blankQuestion } from '../kinds/blank';
import { isChoice, type Question } from '../kinds';
import { checkQuestion } from '../checks/one';
import { bestCredit } from './score';
import { withKey } from './set-key';

const credits = (question: Question) => (isChoice(question) ? question.options.map(({ credit }) => credit) : []);
const keyless = (kind: 'multiple-choice' | 'multiple-response'): Question => {
	const question = blankQuestion(kind, 1, '');
	return isChoice(question)
		? { ...question, lostKeys: ['Z'], options: question.options.map((option) => ({ ...option, credit: 0 })) }
		: question;
};

describe('an option that is made the key', () => {
	it('is the only one where one is chosen', () => {
		const first = withKey(keyless('multiple-choice'), 'B');
		expect(credits(first)).toEqual([0, 1, 0, 0]);
		expect(credits(withKey(first, 'C'))).toEqual([0, 0, 1, 0]);
		expect(checkQuestion(first).map(({ rule }) => rule)).not.toContain('no-key');
		expect(checkQuestion(first).map(({ rule }) => rule)).not.toContain('lost-key');
	});
	it('shares the credit with others where several are, and is taken back by a second time', () => {
		let question = keyless('multiple-response');
		for (const key of ['A', 'B', 'C']) question = withKey(question, key);
		expect(bestCredit(question)).toBe(1);
		expect(credits(withKey(question, 'B'))).toEqual([0.5, 0, 0.5, 0]);
		expect(credits(withKey(blankQuestion('multiple-response', 1, ''), 'A'))).toEqual([-1, 1, -1, -1]);
	});
	it('is nothing where there are no options', () => {
		const essay = blankQuestion('essay', 1, '');
		expect(withKey(essay, 'A')).toBe(essay);
	});
});
