import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exactParts } from './exact-parts';
import { figuresOf, lookInto, planOf } from '.';

const questions = (counts: readonly number[]) =>
	counts.flatMap((count, category) =>
		Array.from({ length: count }, (_, at) => ({ id: `${category}-${at}`, category: [`C${category}`] }))
	);
const figures = (form: object) => {
	const looked = lookInto(planOf(form));
	return 'sampler' in looked ? figuresOf(looked.plan, looked.sampler) : null;
};

describe('parts that are exactly a part with quotas', () => {
	it('have as many sittings, and give each question the same chance', () => {
		const cells = fc.array(fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 3 })), {
			minLength: 1,
			maxLength: 4
		});
		fc.assert(
			fc.property(cells, (drawn) => {
				const wanted = drawn.map(([size, draw]) => Math.min(size, draw));
				const draw = wanted.reduce((sum, own) => sum + own, 0);
				if (!draw) return;
				const all = questions(drawn.map(([size]) => size));
				const quotas = wanted.map((own, at) => ({ by: 'category', value: [`C${at}`], least: own, most: own }));
				const form = { questions: all, parts: [{ draw, pool: {}, quotas }] };
				const plan = planOf(form);
				const parts = exactParts(plan, plan.parts[0]!)!;
				const apart = figures({
					questions: all,
					parts: parts.map((part) => ({
						draw: part.draw,
						pool: { include: part.questions.map((at) => all[at]!.id), kinds: ['none'] }
					}))
				})!;
				const whole = figures(form)!;
				expect(apart.sittings).toBe(whole.sittings);
				for (const [question, { chance }] of whole.questions)
					expect(apart.questions.get(question)?.chance ?? 0).toBeCloseTo(chance, 9);
			}),
			{ numRuns: 200 }
		);
	});
	it('are none where numbers are left open, values share questions, or pairs and groups are in it', () => {
		const of = (quotas: object[], more: object = {}) => {
			const plan = planOf({ questions: questions([3, 3]), parts: [{ draw: 2, pool: {}, quotas }], ...more });
			return exactParts(plan, plan.parts[0]!);
		};
		const both = { by: 'category', values: [['C0'], ['C1']], spread: 'equal' };
		expect(of([both])).toHaveLength(2);
		expect(of([])).toBeNull();
		expect(of([{ by: 'category', value: ['C0'], least: 1 }])).toBeNull();
		expect(of([{ by: 'category', value: ['C0'], least: 1, most: 1 }])).toBeNull();
		expect(of([both, { by: 'category', value: ['C0'], least: 0, most: 0 }])).toBeNull();
		expect(of([both], { never: [['0-0', '1-0']] })).toBeNull();
		expect(of([both], { together: [['0-0', '0-1']] })).toBeNull();
	});
});
