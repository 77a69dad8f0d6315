import { readFileSync } from 'node:fs';
import Ajv from 'ajv/dist/2020';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawing, everyFilling, some, type SheetToTry } from '../../test-support/sheets';
import { Generator } from '../../numbers/generator';
import { figuresOf, lookInto, planOf, sittings, type Plan } from '.';
import { thinned } from './conflict';
import { sheetJsonSchema } from './json-schema';
import { isValid, type Sampler } from './sampler';
import { amountOf, pointsMeasure } from './totals';

const look = (sheet: SheetToTry) => lookInto(planOf(sheet));
function fillable(sheet: SheetToTry): { plan: Plan; sampler: Sampler } {
	const looked = look(sheet);
	if (!('sampler' in looked)) throw new Error('conflict' in looked ? looked.conflict.message : looked.unknown);
	return looked;
}
const conflict = (sheet: SheetToTry) => {
	const looked = look(sheet);
	return 'conflict' in looked ? looked.conflict : null;
};
/** What students get, by names. */
function figures(sheet: SheetToTry) {
	const { plan, sampler } = fillable(sheet);
	const found = figuresOf(plan, sampler);
	return {
		...found,
		chances: Object.fromEntries([...found.questions].map(([at, { chance }]) => [plan.questions[at]!.id, chance])),
		categories: Object.fromEntries(found.categories.map(({ path, chances }) => [path.join('/'), chances]))
	};
}
const draw = (sheet: SheetToTry, seed: string, count = 1) => {
	const { plan, sampler } = fillable(sheet);
	return [...sittings(plan, sampler, seed, count)].map((sitting) => ({
		...sitting,
		parts: sitting.parts.map((part) => part.map((at) => plan.questions[at]!.id))
	}));
};
const levels = some('l', 4, ['Tides', 'Levels']);
const heights = some('h', 3, ['Tides', 'Heights']);

/** Sheets of up to seven questions in which all that a sheet can say comes up. */
const anySheet: fc.Arbitrary<SheetToTry> = fc
	.record({
		count: fc.integer({ min: 1, max: 7 }),
		seed: fc.array(fc.nat(1_000_000), { minLength: 40, maxLength: 40 })
	})
	.map(({ count, seed }) => {
		let at = 0;
		const pick = (limit: number) => seed[at++ % seed.length]! % limit;
		const questions = Array.from({ length: count }, (_, place) => ({
			id: `q${place}`,
			category: [['A'], ['A', 'B'], ['C']][pick(3)]!,
			kind: ['numeric', 'essay'][pick(2)]!,
			points: pick(3),
			tags: pick(2) ? ['t'] : []
		}));
		const ids = questions.map(({ id }) => id);
		const parts = Array.from({ length: 1 + pick(3) }, () => {
			if (!pick(5)) return { questions: [ids[pick(count)]!] };
			const quotas = pick(2)
				? [
						[{ by: 'category', value: ['A'], least: pick(2), most: 1 + pick(2) }],
						[{ by: 'tag', value: 't', least: 1 }],
						[{ by: 'kind', values: ['numeric', 'essay'], spread: pick(2) ? 'equal' : 'proportional' }]
					][pick(3)]!
				: [];
			const pool = [{}, { categories: [{ path: ['A'] }] }, { kinds: ['essay'], include: [ids[pick(count)]!] }][
				pick(3)
			]!;
			return { draw: pick(6) ? 1 + pick(3) : null, pool, quotas, ...(pick(3) ? {} : { points: 2 }) };
		});
		const never = count > 2 && pick(2) ? [[ids[0]!, ids[1]!], ...(pick(2) ? [[ids[1]!, ids[2]!]] : [])] : [];
		const together = count > 4 && pick(2) ? [[ids[4]!, ids[3]!]] : [];
		return { questions, parts, never, together };
	});

/** Holds what is counted against all sittings, gone through one by one. */
function heldAgainstAll(sheet: SheetToTry): void {
	const plan = planOf(sheet);
	const all = everyFilling(plan);
	const looked = lookInto(plan);
	expect('sampler' in looked).toBe(all.length > 0);
	if (!('sampler' in looked)) return;
	const found = figuresOf(plan, looked.sampler);
	expect(found.sittings).toBe(String(all.length));
	const given = all.map((way) => new Set([...way.keys()].flatMap((unit) => plan.units[unit]!.counted)));
	for (const [at, { chance }] of found.questions)
		expect(chance).toBeCloseTo(given.filter((own) => own.has(at)).length / all.length, 8);
	const worth = all.map((way) =>
		[...way].reduce((sum, [unit, part]) => sum + amountOf(plan, pointsMeasure(plan), unit, part), 0)
	);
	expect(found.points.least).toBeCloseTo(Math.min(...worth), 8);
	expect(found.points.most).toBeCloseTo(Math.max(...worth), 8);
	expect(found.points.mean).toBeCloseTo(worth.reduce((sum, one) => sum + one, 0) / all.length, 8);
	for (const { path, chances } of found.categories) {
		const counts = given.map(
			(own) => [...own].filter((at) => path.every((step, depth) => plan.questions[at]!.category[depth] === step)).length
		);
		chances.forEach((chance, number) =>
			expect(chance).toBeCloseTo(counts.filter((count) => count === number).length / all.length, 8)
		);
	}
	const shared = given.flatMap((one) => given.map((other) => [...one].filter((at) => other.has(at)).length));
	found.overlap.atLeast.forEach((chance, number) =>
		expect(chance).toBeCloseTo(shared.filter((count) => count >= number).length / shared.length, 8)
	);
	expect(found.overlap.expected).toBeCloseTo(shared.reduce((sum, one) => sum + one, 0) / shared.length, 8);
}

/** Pairs and threes that must not come together, alike but for their points, beside questions that go with all. */
const anyPairs: fc.Arbitrary<SheetToTry> = fc
	.record({
		size: fc.constantFrom(2, 3),
		groups: fc.integer({ min: 1, max: 3 }),
		others: fc.integer({ min: 0, max: 2 }),
		draws: fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 2 }),
		fixed: fc.boolean(),
		apart: fc.boolean()
	})
	.map(({ size, groups, others, draws, fixed, apart }) => {
		const group = (at: number) => Array.from({ length: size }, (_, place) => `g${at}-${place}`);
		const all = Array.from({ length: groups }, (_, at) => group(at));
		const questions = [...all.flat(), ...Array.from({ length: others }, (_, at) => `o${at}`)].map((id, at) => ({
			id,
			category: apart && at % 2 ? ['A', 'B'] : ['A'],
			points: at % 3
		}));
		return {
			questions,
			parts: draws.map((draw, at) => ({ draw, pool: {}, ...(fixed && at ? { points: 5 } : {}) })),
			never: all.flatMap((ids) => ids.flatMap((id, at) => ids.slice(at + 1).map((other) => [id, other])))
		};
	});

describe('a sheet', () => {
	it('is counted, and gives each question the chance, the spread, the points and the overlap that going through all sittings gives', () => {
		fc.assert(fc.property(anySheet, heldAgainstAll), { numRuns: 400 });
	});
	it('is counted as well where many pairs that must not come together are alike', () => {
		fc.assert(fc.property(anyPairs, heldAgainstAll), { numRuns: 150 });
	});
	it('can be filled with fewer alike questions exactly where it can be with all of them', () => {
		const scaled = fc.tuple(anySheet, fc.integer({ min: 1, max: 6 }));
		fc.assert(
			fc.property(scaled, ([sheet, times]) => {
				// each question several times over, under names of their own
				const more = sheet.questions.flatMap((question) =>
					Array.from({ length: times - 1 }, (_, at) => ({ ...question, id: `${question.id}~${at}` }))
				);
				const plan = planOf({ ...sheet, questions: [...sheet.questions, ...more] });
				const less = thinned(plan);
				expect(less.units.length).toBeLessThanOrEqual(plan.units.length);
				expect('conflict' in lookInto(less)).toBe('conflict' in lookInto(plan));
			}),
			{ numRuns: 200 }
		);
	});
	it('that cannot be filled names parts of which any one taken out makes the others hold', () => {
		fc.assert(
			fc.property(anySheet, (sheet) => {
				const found = conflict(sheet);
				if (!found) return;
				expect(found.message).toMatch(/\.$/);
				const holds = (parts: number[]) =>
					everyFilling(planOf({ ...sheet, parts: parts.map((part) => sheet.parts[part]!) })).length > 0;
				expect(holds(found.parts)).toBe(false);
				for (const part of found.parts)
					expect(holds(found.parts.filter((other) => other !== part)) || found.parts.length === 1).toBe(true);
			}),
			{ numRuns: 300 }
		);
	});
	it('draws every valid sitting as often as any other, also where pools overlap', () => {
		const sheet = {
			questions: [...some('a', 3, ['A']), ...some('b', 1, ['B'])],
			parts: [drawing(1, [['A'], ['B']]), drawing(2, [['A']])]
		};
		const { plan } = fillable(sheet);
		const counts = new Map<string, number>();
		const drawn = 12_000;
		for (const { parts } of draw(sheet, 'u-1', drawn)) {
			const key = parts.map((part) => [...part].sort().join()).join(' ');
			counts.set(key, (counts.get(key) ?? 0) + 1);
		}
		const all = everyFilling(plan).length;
		expect(counts.size).toBe(all);
		const square = [...counts.values()].reduce((sum, count) => sum + (count - drawn / all) ** 2 / (drawn / all), 0);
		// chi square with 5 degrees of freedom is over 25 once in 7,000 times; the seed is always the same
		expect(square).toBeLessThan(25);
	});
	it('gives each question, and so many of a category, as often in 100,000 sittings as its exact chance says', () => {
		const sheet = {
			questions: [...some('t', 9, ['Tides']), ...some('l', 7, ['Lights']), ...some('r', 5, ['Rules'])],
			parts: [
				drawing(3, [['Tides'], ['Lights']], { quotas: [{ by: 'category', value: ['Lights'], least: 1, most: 2 }] }),
				drawing(2, [['Lights'], ['Rules']]),
				drawing(2, [['Tides']])
			],
			never: [
				['t1', 'l1'],
				['l2', 'r1']
			],
			together: [['r2', 'r3']]
		};
		const drawn = 100_000;
		const { plan, sampler } = fillable(sheet);
		const found = figuresOf(plan, sampler);
		expect(sampler.method).toBe('counted');
		const counts = new Map<string, number>();
		const categories = new Map<number, number>();
		for (const { parts } of draw(sheet, 'f-1', drawn)) {
			const given = parts.flat();
			for (const id of given) counts.set(id, (counts.get(id) ?? 0) + 1);
			const lights = given.filter((id) => id.startsWith('l')).length;
			categories.set(lights, (categories.get(lights) ?? 0) + 1);
		}
		// five deviations of a share: over that once in 1.7 million times for each; the seed is always the same
		const isNear = (count: number, chance: number) =>
			Math.abs(count / drawn - chance) <= 5 * Math.sqrt((chance * (1 - chance)) / drawn) + 1e-12;
		for (const [place, { chance, error }] of found.questions) {
			expect(error).toBe(0);
			const { id } = plan.questions[place]!;
			expect({ id, near: isNear(counts.get(id) ?? 0, chance) }).toEqual({ id, near: true });
		}
		const spread = found.categories.find(({ path }) => path.join() === 'Lights')!.chances;
		spread.forEach((chance, lights) =>
			expect({ lights, near: isNear(categories.get(lights) ?? 0, chance) }).toEqual({ lights, near: true })
		);
	});
	it('gives valid sittings, the same from the same seed for ever', () => {
		const sheet = {
			questions: [...levels, ...heights],
			parts: [
				drawing(3, [['Tides']], { quotas: [{ by: 'category', value: ['Tides', 'Levels'], least: 1, most: 2 }] }),
				drawing(2, [['Tides', 'Levels']])
			],
			never: [['l1', 'h1']],
			together: [['h2', 'h3']]
		};
		expect(draw(sheet, 't-09', 2)).toEqual([
			{ seed: 't-09', parts: expect.any(Array) as string[][], points: 5 },
			{ seed: 't-10', parts: expect.any(Array) as string[][], points: 5 }
		]);
		expect(draw(sheet, 'kept')).toEqual(draw(sheet, 'kept'));
		expect(draw(sheet, 'kept')[0]!.parts).toMatchInlineSnapshot(`
			[
			  [
			    "l1",
			    "h2",
			    "h3",
			  ],
			  [
			    "l3",
			    "l2",
			  ],
			]
		`);
		for (const { parts } of draw(sheet, 's-1', 200)) {
			const given = parts.flat();
			expect(new Set(given).size).toBe(given.length);
			expect(given.includes('l1') && given.includes('h1')).toBe(false);
			expect(given.includes('h2')).toBe(given.includes('h3'));
			if (given.includes('h2')) {
				const [first] = parts.filter((part) => part.includes('h2'));
				expect(first![first!.indexOf('h2') + 1]).toBe('h3');
			}
		}
	});
	it.each([
		['with digits at the end they go on', 't-1', ['t-1', 't-2']],
		['as many figures stay', 't-09', ['t-09', 't-10']],
		['with none, numbers are added', 'spring', ['spring', 'spring-2']]
	])('has seeds that follow: %s', (_, seed, seeds) => {
		const sheet = { questions: levels, parts: [drawing(1, [['Tides']])] };
		expect(draw(sheet, seed, 2).map((sitting) => sitting.seed)).toEqual(seeds);
	});
	it('keeps the order of categories and bank, of a list, or goes from easy to hard', () => {
		const questions = [
			{ id: 'b', category: ['B'], difficulty: 0.5 },
			{ id: 'a', category: ['A'], difficulty: 0.9 },
			{ id: 'b2', category: ['B'] },
			{ id: 'c', category: ['A'], difficulty: 0.1 }
		];
		const order = (part: object) => draw({ questions, parts: [part] }, 's')[0]!.parts[0];
		expect(order({ draw: null, pool: {}, order: 'kept' })).toEqual(['b', 'b2', 'a', 'c']);
		expect(order({ draw: 4, pool: {}, order: 'easy first' })).toEqual(['c', 'b', 'a', 'b2']);
		expect(order({ questions: ['c', 'b2', 'a'] })).toEqual(['c', 'b2', 'a']);
	});
	it('with shuffled parts says in which order they are shown', () => {
		const sheet: SheetToTry = {
			questions: levels,
			parts: [drawing(1, [['Tides']]), drawing(1, [['Tides']]), drawing(1, [['Tides']])],
			'parts-order': 'shuffled'
		};
		const orders = new Set(draw(sheet, 'o-1', 60).map(({ order }) => order!.join()));
		expect(orders.size).toBe(6);
	});
	it('of no parts has one empty sitting, and an empty pool gives nothing', () => {
		expect(figures({ questions: levels, parts: [] })).toMatchObject({ sittings: '1', points: { most: 0 } });
		expect(draw({ questions: levels, parts: [drawing(null, [['Nowhere']])] }, 's')[0]!.parts).toEqual([[]]);
	});
	it('lets texts travel with their group and count in nothing', () => {
		const sheet = {
			questions: [{ id: 'text', kind: 'information', category: ['Other'], points: 5 }, ...levels],
			parts: [drawing(2, [['Tides']])],
			together: [['text', 'l1', 'l2']]
		};
		const texts = draw(sheet, 's-1', 60)
			.flatMap(({ parts }) => parts)
			.filter((part) => part.includes('text'));
		expect(texts.length).toBeGreaterThan(0);
		expect(new Set(texts.map((part) => part.join()))).toEqual(new Set(['text,l1,l2']));
		expect(figures(sheet)).toMatchObject({ sittings: '2', points: { least: 2, most: 2 } });
		expect(
			draw({ questions: sheet.questions, parts: [{ questions: ['text', 'l1'], points: 3 }] }, 's')[0]!.points
		).toBe(3);
	});
	it('spreads quotas equally and in proportion, floors and ceilings both allowed', () => {
		const spread = (kind: string) =>
			figures({
				questions: [...some('l', 6, ['L']), ...some('h', 3, ['H'])],
				parts: [drawing(3, [['L'], ['H']], { quotas: [{ by: 'category', values: [['L'], ['H']], spread: kind }] })]
			}).categories;
		// equal: one or two of each; in proportion: two and one
		expect(spread('equal').L!.map((chance) => chance > 0)).toEqual([false, true, true]);
		expect(spread('proportional')).toEqual({ L: [0, 0, 1], H: [0, 1] });
	});
	it('adds up how long its questions take and how hard they are, where that is known of all', () => {
		const questions = [
			{ id: 'a', difficulty: 0.2, seconds: 60 },
			{ id: 'b', difficulty: 0.4, seconds: 30 },
			{ id: 'c', difficulty: 0.9, seconds: 90 }
		];
		const parts = [drawing(2, [], { pool: {} })];
		const known = figures({ questions, parts });
		expect(known.seconds).toMatchObject({ least: 90, most: 150, mean: 120, equal: false, error: 0 });
		expect(known.difficulty).toMatchObject({ least: 0.6, most: 1.3, mean: 1, equal: false, error: 0 });
		const unknown = figures({ questions: [{ id: 'a', difficulty: 0.2 }, { id: 'b' }], parts });
		expect([unknown.seconds, unknown.difficulty]).toEqual([null, null]);
	});
	it('of 20 parts over 5,000 questions with pools that overlap and quotas is counted exactly', () => {
		const questions = Array.from({ length: 20 }, (_, at) => some(`c${at}-`, 250, ['Bank', `Chapter ${at}`])).flat();
		const parts = Array.from({ length: 20 }, (_, at) =>
			drawing(
				4,
				[
					['Bank', `Chapter ${at}`],
					['Bank', `Chapter ${(at + 1) % 20}`]
				],
				{
					quotas: [{ by: 'category', value: ['Bank', `Chapter ${at}`], least: 1 }]
				}
			)
		);
		const found = figures({ questions, parts });
		expect(found.method).toBe('counted');
		expect([...found.questions.values()].reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(80, 6);
		expect(found.sittings.length).toBeGreaterThan(100);
	});
	it.each([
		[5, 'rejected'],
		[11, 'chain']
	])('beyond what can be counted is drawn all the same, with errors that hold: %i of 30 (%s)', (size, method) => {
		// no two neighbours of a row of 30 together: there are C(31 - size, size) such sets (Kaplansky, 1943)
		const questions = some('q', 30, ['Bank']);
		const never = questions.slice(1).map(({ id }, at) => [questions[at]!.id, id]);
		const sheet = { questions, parts: [{ draw: size, pool: {} }], never };
		const { plan, sampler } = fillable(sheet);
		expect(sampler.method).toBe(method);
		const found = figuresOf(plan, sampler);
		const chosen = (all: number, some: number): number => (some ? (chosen(all - 1, some - 1) * all) / some : 1);
		const first = chosen(30 - size, size - 1) / chosen(31 - size, size);
		const { chance, error } = found.questions.get(0)!;
		expect(Math.abs(chance - first)).toBeLessThan(2 * error);
		expect(error).toBeLessThan(0.05);
		expect([...found.questions.values()].reduce((all, estimate) => all + estimate.chance, 0)).toBeCloseTo(size, 6);
		expect(found.overlap.error).toBeGreaterThan(0);
		for (const { parts } of draw(sheet, 's-1', 3)) expect(new Set(parts.flat()).size).toBe(size);
		expect(isValid(plan, sampler.draw(new Generator('x')))).toBe(true);
		if (method === 'rejected') expect(found.sittings).toBe(`10^${Math.floor(Math.log10(chosen(31 - size, size)))}`);
	});
});

describe('a sheet that cannot be filled', () => {
	const words = (sheet: SheetToTry) => conflict(sheet)?.message;
	it('says which parts want more than there is, and what would mend it', () => {
		const sheet = {
			questions: [...some('l', 8, ['Tides', 'Levels']), ...some('x', 9, ['Lights'])],
			parts: [
				drawing(4, [['Tides', 'Levels']], { title: 'Warm-up' }),
				drawing(2, [['Lights']], { title: 'Lights' }),
				drawing(5, [['Tides', 'Levels']], { title: 'Heights' })
			]
		};
		expect(conflict(sheet)).toEqual({
			parts: [0, 2],
			message: 'Warm-up and Heights want 9 from “Tides › Levels”, which has 8: draw 1 less, or add 1 question.'
		});
	});
	it('says what other parts give, where that is what leaves too few', () => {
		const sheet = {
			questions: levels,
			parts: [
				{ title: 'Always', questions: ['l1'] },
				{ ...drawing(4, [['Tides']]), title: 'Levels' }
			]
		};
		expect(words(sheet)).toBe(
			'Levels wants 4 from “Tides › Levels”, which has 3 beside what Always gives: draw 1 less, or add 1 question.'
		);
	});
	it('says which quota, pair, group or list it is', () => {
		const part = (quota: object) => drawing(3, [['Tides']], { title: 'Watch', quotas: [quota] });
		expect(words({ questions: levels, parts: [part({ by: 'tag', value: 'sums', least: 1 })] })).toMatch(
			/Watch wants at least 1 of the tag “sums” among 3, of which its pool has 0/
		);
		expect(
			words({ questions: levels, parts: [drawing(1, [['Tides']], { quotas: [{ by: 'kind', value: '', least: 2 }] })] })
		).toMatch(/at least 2/);
		const pairs = { questions: levels.slice(0, 2), parts: [drawing(2, [['Tides']])], never: [['l1', 'l2']] };
		expect(words(pairs)).toMatch(/pairs that must not come together.*Draw 1 in Part 1/);
		const group = {
			questions: levels,
			parts: [drawing(3, [['Tides']])],
			together: [
				['l1', 'l2'],
				['l3', 'l4']
			]
		};
		expect(words(group)).toMatch(/groups come whole.*Draw 2/);
		const torn = { questions: levels, parts: [{ questions: ['l1'] }], together: [['l1', 'l2']] };
		expect(words(torn)).toMatch(/“l2” is missing/);
		expect(words({ questions: levels, parts: [{ questions: ['l1'] }, { questions: ['l1'] }] })).toMatch(
			/“l1”, and no question comes twice/
		);
	});
});

describe('a wrong sheet', () => {
	const part = drawing(1, [['Tides']]);
	it.each<[string, unknown, RegExp]>([
		['no object', [], /A sheet is a JSON object/],
		['no parts', { questions: [] }, /^parts: is missing/],
		['a question without a name', { questions: [{}], parts: [] }, /^questions\[0\]\.id: is missing/],
		['two of one name', { questions: [levels[0], levels[0]], parts: [] }, /^questions\[1\]\.id: “l1”/],
		['a negative draw', { questions: levels, parts: [{ draw: -1, pool: {} }] }, /^parts\[0\]\.draw: /],
		['a draw of nothing', { questions: levels, parts: [{ draw: 0, pool: {} }] }, /^parts\[0\]\.draw: /],
		[
			'half a question',
			{ questions: levels, parts: [{ draw: 1.5, pool: {} }] },
			/^parts\[0\]\.draw: has to be a whole/
		],
		[
			'a number as a text',
			{ questions: levels, parts: [{ draw: '3', pool: {} }] },
			/^parts\[0\]\.draw: has to be a number/
		],
		['a pool without a number', { questions: levels, parts: [{ pool: {} }] }, /^parts\[0\]\.draw: is missing/],
		['neither list nor pool', { questions: levels, parts: [{ draw: 1 }] }, /^parts\[0\]: has neither/],
		[
			'a list with a number',
			{ questions: levels, parts: [{ draw: 1, questions: ['l1'] }] },
			/^parts\[0\]\.draw: goes with a pool/
		],
		[
			'an unknown question',
			{ questions: levels, parts: [{ questions: ['l9'] }] },
			/^parts\[0\]\.questions\[0\]: there is no question “l9”/
		],
		['an unknown pair', { questions: levels, parts: [part], never: [['l1', 'x']] }, /^never\[0\]\[1\]/],
		[
			'a pair of one',
			{ questions: levels, parts: [part], never: [['l1', 'l1']] },
			/^never\[0\]: “l1” cannot be kept from itself/
		],
		['a pair of three', { questions: levels, parts: [part], never: [['l1', 'l2', 'l3']] }, /^never\[0\]: /],
		[
			'one in two groups',
			{
				questions: levels,
				parts: [part],
				together: [
					['l1', 'l2'],
					['l2', 'l3']
				]
			},
			/^together\[1\]\[0\]/
		],
		['a list that names one twice', { questions: levels, parts: [{ questions: ['l1', 'l1'] }] }, /named twice/],
		[
			'a list of what cannot be read',
			{ questions: [{ id: 'u', kind: 'unreadable' }], parts: [{ questions: ['u'] }] },
			/cannot be read/
		],
		[
			'a kept list that parts a group',
			{ questions: levels, parts: [{ questions: ['l1', 'l3', 'l2'] }], together: [['l1', 'l2']] },
			/stands apart/
		],
		[
			'a quota with the least over the most',
			{ questions: levels, parts: [{ ...part, quotas: [{ by: 'tag', value: 'x', least: 2, most: 1 }] }] },
			/^parts\[0\]\.quotas\[0\]: “least” 2 is over “most” 1/
		],
		[
			'a quota of no measure',
			{ questions: levels, parts: [{ ...part, quotas: [{ by: 'colour', value: 'x' }] }] },
			/^parts\[0\]\.quotas\[0\]\.by/
		],
		['a range upside down', { questions: levels, parts: [{ draw: 1, pool: { difficulty: [0.8, 0.2] } }] }, /difficulty/]
	])('of %s says where and what to do', (_, sheet, words) => {
		expect(() => planOf(sheet)).toThrow(words);
	});
	it('warns of what may be a slip, and goes on', () => {
		const { warnings } = planOf({
			questions: levels,
			parts: [{ draw: null, pool: { categories: [{ path: ['Tide'] }] }, quota: [] }]
		});
		expect(warnings).toEqual([
			'parts[0].quota: there is no such thing in a sheet; it is left aside.',
			'parts[0].pool.categories[0]: no question stands in “Tide”.'
		]);
	});
	it('is of the published schema where it is right, and the schema is the one of docs', () => {
		const published = readFileSync(new URL('../../../docs/sheet.schema.json', import.meta.url), 'utf8');
		expect(JSON.parse(published)).toEqual(sheetJsonSchema());
		const fits = new Ajv({ allowUnionTypes: true }).compile(sheetJsonSchema());
		fc.assert(fc.property(anySheet, (sheet) => fits(JSON.parse(JSON.stringify(sheet)))));
		expect(fits({ questions: [{ id: 'a' }], parts: [{ draw: '3', pool: {} }] })).toBe(false);
	});
	it('takes names like any other that a programme may stumble over', () => {
		const odd = ['__proto__', 'constructor', 'toString'].map((id) => ({
			id,
			category: ['__proto__'],
			tags: ['constructor']
		}));
		expect(figures({ questions: odd, parts: [drawing(2, [['__proto__']])] }).questions.size).toBe(3);
	});
});
