import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { runsOf } from '../../test-support/runs';
import { opened, readAll } from '../../test-support/packages';
import { anyQti2Habits, qti2Package, type Qti2Habits } from '../../test-support/qti2-packages';
import { short } from '../../test-support/short';
import { anyMeant, shortOf, type Meant } from '../../test-support/typed-lists';

const runs = runsOf('PACKAGE', 150);

const categories: Record<Qti2Habits['category'], (at: number) => string[]> = {
	none: () => [],
	metadata: () => ['Seamanship', 'Harbour'],
	folders: (at) => [at % 2 ? 'Ropes' : 'Tides']
};

/** Whether the rules of an item say what is shown when right and when wrong; a mapping alone does not. */
const showsFeedback = ({ kind }: Meant, { feedback, accepted }: Qti2Habits) =>
	feedback &&
	(['multiple-choice', 'true-false', 'numeric'].includes(kind) || (kind === 'short-answer' && accepted !== 'map'));

describe('a QTI 2 or 3 package written with any mixture of what the standard leaves open', () => {
	it('is read as it was meant, and nothing is reported of it', () =>
		fc.assert(
			fc.asyncProperty(anyMeant, anyQti2Habits, async (meant, habits) => {
				const files = qti2Package(meant, habits);
				const { questions, reports, about } = await readAll(await opened(files));
				questions.sort((a, b) => (a.identifier < b.identifier ? -1 : 1));
				const read = questions.map((question) => short(question).map((one) => one.replace('3.65–3.67', '3.66±0.01')));
				expect({ files, read }).toEqual({ files, read: meant.map(shortOf) });
				expect({ files, told: [...reports, ...[...about.values()].flat()] }).toEqual({ files, told: [] });
				questions.forEach((question, at) => {
					expect(question.title).toBe(`Harbour ${at + 1}`);
					expect(question.category).toEqual(categories[habits.category](at));
					if (habits.maximum !== 'none' && question.kind !== 'essay') expect(question.points).toBe(habits.top);
					if (!showsFeedback(meant[at]!, habits)) return;
					const shown = [question.feedback.correct, question.feedback.incorrect].map((one) => plainText(one ?? ''));
					expect({ files, shown }).toEqual({ files, shown: ['Well done.', 'Read it again.'] });
				});
			}),
			runs
		));
});
