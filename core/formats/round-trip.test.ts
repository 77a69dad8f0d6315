import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { proofLine } from '../compare/proof';
import type { Question } from '../kinds';
import { parseQuestion } from '../kinds/schema';
import { anyQuestion } from '../test-support/arbitrary';
import { back, complaints, schemasOf, written } from '../test-support/written';
import { writtenFormats } from '.';

describe.each(writtenFormats.map((format) => [format.name, format] as const))('%s', (name, format) => {
	it('is valid, and loses just what the loss table says, for any questions', async () => {
		await fc.assert(
			fc.asyncProperty(fc.array(anyQuestion, { minLength: 8, maxLength: 8 }), async (questions) => {
				for (const question of questions) expect(parseQuestion(JSON.parse(JSON.stringify(question)))).toBeDefined();
				const { container, found } = await back(await written(format, questions), `file${format.ending}`);
				const sent: { question: Question; at: number; which: number }[] = questions.flatMap((question, at) =>
					format.loss(question).fitted.map((_, which) => ({ question, at, which }))
				);
				expect(found.questions.map((one) => one.title)).toHaveLength(sent.length);
				sent.forEach(({ question, which }, at) => {
					const loss = format.loss(question);
					const line = proofLine(at, question, found.questions[at], loss, which);
					expect({
						outcome: line.outcome === 'changed-otherwise' ? line.differences : 'as foretold',
						fitted: loss.fitted[which]
					}).toMatchObject({ outcome: 'as foretold' });
					// what is said to be kept is kept
					if (loss.outcome === 'kept') expect(line.outcome).toBe('identical');
					else expect(loss.what.length).toBeGreaterThan(0);
				});
				const wanted = schemasOf[name];
				if (wanted) expect(await complaints(container, wanted)).toBe('');
			}),
			{ numRuns: 25, seed: Number(process.env.FUZZ_SEED ?? 20_261_123) }
		);
	}, 120_000);
	it('gives the same bytes for the same questions', async () => {
		const [questions] = fc.sample(fc.array(anyQuestion, { minLength: 6, maxLength: 6 }), { numRuns: 1, seed: 7 });
		expect(await written(format, questions!)).toEqual(await written(format, questions!));
	});
});
