import * as fc from 'fast-check';
import { expect, it } from 'vitest';
import { Printer } from './printer';

it('prints a list entry by entry just as it would be printed whole', () => {
	fc.assert(
		fc.property(fc.array(fc.jsonValue(), { maxLength: 5 }), fc.jsonValue(), (list, more) => {
			let text = '';
			const printer = new Printer((piece) => (text += piece));
			printer.open({ file: 'a "b".zip' }, 'questions');
			for (const value of list) printer.entry(value);
			printer.close({ quizzes: [], more });
			expect(text).toBe(`${JSON.stringify({ file: 'a "b".zip', questions: list, quizzes: [], more }, null, '\t')}\n`);
		})
	);
});
