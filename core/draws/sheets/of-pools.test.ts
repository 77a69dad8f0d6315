import { describe, expect, it } from 'vitest';
import { figuresOf, lookInto } from '.';
import { exactParts } from './exact-parts';
import { planOfPools } from './of-pools';
import type { PlannedQuestion } from './plan';

const questions = Array.from({ length: 12 }, (_, at): PlannedQuestion => ({
	id: `q${at}`,
	category: ['Bank'],
	kind: 'numeric',
	points: at % 3 ? 1 : 2,
	difficulty: null,
	tags: [],
	seconds: null,
	isText: false
}));
const pool = [...questions.keys()];
const worth = (points: number, number: number) => ({
	by: 'points' as const,
	value: [points, points],
	least: number,
	most: number
});
const part = { title: 'Mixed', draw: 6, points: null, order: 'shuffled' as const, pool, isList: false };
const rules = { never: [], together: [], partsShuffled: false };

describe('a part with quotas over points', () => {
	it('is worth the same for every student, as it is not without them', () => {
		const pointsOf = (quotas: ReturnType<typeof worth>[]) => {
			const plan = planOfPools(questions, [{ ...part, quotas }], rules);
			const looked = lookInto(plan);
			return 'sampler' in looked ? figuresOf(plan, looked.sampler).points : null;
		};
		expect(pointsOf([])).toMatchObject({ equal: false, least: 6, most: 10 });
		expect(pointsOf([worth(1, 4), worth(2, 2)])).toMatchObject({ equal: true, least: 8, most: 8 });
	});
	it('is exactly a part for each worth', () => {
		const plan = planOfPools(questions, [{ ...part, quotas: [worth(1, 4), worth(2, 2)] }], rules);
		expect(exactParts(plan, plan.parts[0]!)).toMatchObject([
			{ title: 'Mixed: 1 point each', draw: 4, questions: pool.filter((at) => at % 3) },
			{ title: 'Mixed: 2 points each', draw: 2, questions: pool.filter((at) => at % 3 === 0) }
		]);
	});
});
