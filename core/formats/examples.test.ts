import { describe, expect, it } from 'vitest';
import { parseQuestion } from '../kinds/schema';
import { back, written } from '../test-support/written';
import { exampleQuestions } from './examples';
import { writtenFormat } from './index';

describe('the templates', () => {
	it.each(['text', 'csv', 'xlsx'])(
		'as %s hold one of each kind, and are read back with nothing changed but what is said',
		async (name) => {
			const format = writtenFormat(name)!;
			const { found } = await back(await written(format, exampleQuestions), `template${format.ending}`);
			expect(found.questions.map((one) => one.kind)).toEqual(
				exampleQuestions.flatMap((one) => format.loss(one).fitted.map((fitted) => fitted.kind))
			);
			for (const question of exampleQuestions)
				expect(format.loss(question).outcome, `${name}: ${question.title}`).not.toBe('lost');
		}
	);
	it('are of the right shape', () => {
		for (const question of exampleQuestions)
			expect(parseQuestion(JSON.parse(JSON.stringify(question)))).toEqual(question);
	});
});
