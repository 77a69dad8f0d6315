import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { memorySource } from '../../container/container';
import { openContainer } from '../open';
import { runsOf } from '../../test-support/runs';
import { readAll } from '../../test-support/packages';
import { anyQti12Habits, qti12Paper } from '../../test-support/qti12-papers';
import { short } from '../../test-support/short';
import { anyMeant, shortOf } from '../../test-support/typed-lists';

const runs = runsOf('PAPER', 250);

/** Those that one condition marks, so that what is shown when right and when wrong is told apart. */
const markedAtOnce = new Set(['multiple-choice', 'true-false', 'numeric']);

describe('a QTI 1.2 document written with any mixture of what the standard leaves open', () => {
	it('is read as it was meant, and nothing is reported of it', () =>
		fc.assert(
			fc.asyncProperty(anyMeant, anyQti12Habits, async (meant, habits) => {
				const document = qti12Paper(meant, habits);
				const container = await openContainer('a.xml', memorySource(new TextEncoder().encode(document)));
				const { questions, reports, about } = await readAll(container);
				const read = questions.map((question) => short(question).map((one) => one.replace('3.65–3.67', '3.66±0.01')));
				expect({ document, read }).toEqual({ document, read: meant.map(shortOf) });
				expect({ document, told: [...reports, ...[...about.values()].flat()] }).toEqual({ document, told: [] });
				questions.forEach((question, at) => {
					expect(question.title).toBe(habits.titled ? `Harbour ${at + 1}` : '');
					expect(question.category).toEqual(habits.sections === 'none' ? [] : ['Seamanship', 'Harbour work']);
					if (habits.maximum && question.kind !== 'essay') expect(question.points).toBe(habits.top);
					if (!habits.feedback || habits.wrong !== 'other' || !markedAtOnce.has(question.kind)) return;
					const shown = [question.feedback.correct, question.feedback.incorrect].map((one) => plainText(one ?? ''));
					expect({ document, shown }).toEqual({ document, shown: ['Well done.', 'Read it again.'] });
				});
			}),
			runs
		));
});
