import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { memorySource } from '../../container/container';
import { openContainer } from '../open';
import type { Question } from '../../kinds';
import { runsOf } from '../../test-support/runs';
import {
	anySheetHabits,
	anyTableHabits,
	kept,
	keptRows,
	workbook,
	type TableHabits
} from '../../test-support/kept-tables';
import { opened, readAll } from '../../test-support/packages';
import { short } from '../../test-support/short';
import { anyMeant, shortOf, type Meant } from '../../test-support/typed-lists';

const runs = runsOf('KEPT', 250);

const expectAsMeant = (text: string, questions: Question[], meant: Meant[], habits: TableHabits) => {
	expect({ text, read: questions.map(short) }).toEqual({ text, read: meant.map(shortOf) });
	for (const { category, points, feedback } of questions)
		expect({ text, category, points, feedback }).toEqual({
			text,
			category: habits.category ? ['Seamanship', 'Harbour'] : [],
			points: habits.points ? 2 : null,
			feedback: habits.feedback ? { general: 'See the handbook of the school.' } : {}
		});
};

describe('a table of questions kept with any mixture of habits', () => {
	it('is read as it was meant', () =>
		fc.assert(
			fc.asyncProperty(anyMeant, anyTableHabits, async (meant, habits) => {
				const text = kept(meant, habits);
				const name = habits.delimiter === '\t' ? 'a.tsv' : 'a.csv';
				const container = await openContainer(name, memorySource(new TextEncoder().encode(text)));
				expectAsMeant(text, (await readAll(container)).questions, meant, habits);
			}),
			runs
		));
	it('is read as it was meant from a workbook, however that stores it', () =>
		fc.assert(
			fc.asyncProperty(anyMeant, anyTableHabits, anySheetHabits, async (meant, habits, stored) => {
				const rows = keptRows(meant, habits);
				const { questions } = await readAll(await opened(workbook(rows, stored)));
				expectAsMeant(JSON.stringify({ rows, stored }), questions, meant, habits);
			}),
			runs
		));
});
