import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Generator } from '../../numbers/generator';
import { componentsOf } from './cells';
import { Network } from './network';
import { planOf } from './plan';
import { Turns } from './turns';

/** A whole number below a limit, with all of its bits, as it is drawn. */
function below(generator: Generator, limit: bigint): bigint {
	if (limit <= 2n ** 32n) return BigInt(generator.below(Number(limit)));
	const words = Math.ceil(limit.toString(16).length / 8);
	const range = 1n << BigInt(32 * words);
	for (;;) {
		let value = 0n;
		for (let word = 0; word < words; word += 1) value = (value << 32n) | BigInt(generator.next());
		if (value < range - (range % limit)) return value % limit;
	}
}

/** A network of parts that draw from overlapping chapters: of few fillings, or of more than a number of 53 bits can tell. */
function networkOf(chapters: number, each: number, draw: number): Network {
	const sheet = {
		questions: Array.from({ length: chapters * each }, (_, at) => ({
			id: `q${at}`,
			category: [`C${Math.floor(at / each)}`]
		})),
		parts: Array.from({ length: chapters }, (_, at) => ({
			draw,
			pool: { categories: [{ path: [`C${at}`] }, { path: [`C${(at + 1) % chapters}`] }] },
			quotas: [{ by: 'category', value: [`C${at}`], least: 1 }]
		}))
	};
	return new Network(componentsOf(planOf(sheet))![0]!);
}

describe('a turn of drawing', () => {
	it('goes where the whole number falls that is drawn below the number of all fillings, and uses as many words', () => {
		const any = fc.record({
			chapters: fc.integer({ min: 1, max: 6 }),
			each: fc.integer({ min: 6, max: 400 }),
			draw: fc.integer({ min: 1, max: 4 })
		});
		fc.assert(
			fc.property(any, fc.string(), ({ chapters, each, draw }, seed) => {
				const network = networkOf(chapters, each, draw);
				const [fast, slow] = [new Generator(seed), new Generator(seed)];
				const turns = new Turns(network);
				network.steps.forEach((_, at) => {
					const { from, to, move } = network.moves[at]!;
					const lists: number[][] = network.layers[at]!.states.map(() => []);
					from.forEach((state, each) => lists[state]!.push(each));
					lists.forEach((moves, state) => {
						const all = network.completions[at]![state]!;
						if (!all) return;
						for (let time = 0; time < 20; time += 1) {
							let rest = below(slow, all);
							const wanted = moves.find((each) => {
								const ways = network.ways(at, state, move[each]!) * network.completions[at + 1]![to[each]!]!;
								if (rest < ways) return true;
								rest -= ways;
								return false;
							});
							const place = turns.draw(at, state, fast);
							expect([...turns.numbers.subarray(place, place + 2)]).toEqual([move[wanted!], to[wanted!]]);
						}
					});
				});
				expect(fast.next()).toBe(slow.next());
			}),
			{ numRuns: 30 }
		);
	});
});
