import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blankQuestion } from '../kinds/blank';
import type { Question } from '../kinds';
import { anyQuestion } from '../test-support/arbitrary';
import { earnings } from './earnings';

describe('what answers earn', () => {
	it('is told for the best, the worst and a guessed one', () => {
		expect(earnings(blankQuestion('multiple-choice', 1, ''))).toEqual({ best: 1, worst: 0, guessed: 0.25 });
		expect(earnings(blankQuestion('true-false', 1, ''))).toEqual({ best: 1, worst: 0, guessed: 0.5 });
		const several = { ...blankQuestion('multiple-response', 1, ''), bounds: { lower: null, upper: null } } as Question;
		expect(earnings(several)).toMatchObject({ best: 1, worst: -1 });
		expect(earnings(blankQuestion('matching', 1, ''))).toMatchObject({ best: 1, guessed: 0.5 });
		expect(earnings(blankQuestion('ordering', 1, ''))?.guessed).toBeCloseTo(1 / 6);
		expect(earnings(blankQuestion('short-answer', 1, ''))?.guessed).toBeNull();
		expect(earnings(blankQuestion('essay', 1, ''))).toBeNull();
	});
	it('is never more for the worst or a guess than for the best', () => {
		fc.assert(
			fc.property(anyQuestion, (question) => {
				const earned = earnings(question);
				if (!earned || earned.guessed === null) return;
				expect(earned.worst).toBeLessThanOrEqual(earned.guessed + 1e-9);
				expect(earned.guessed).toBeLessThanOrEqual(Math.max(earned.best, earned.worst) + 1e-9);
			})
		);
	});
});
