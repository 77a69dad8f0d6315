// Measures what students get of draw sheets, held against one pass that parses the sheet, and 100,000 sittings against bare
// shuffling (Fisher and Yates): node --import tsx bench/draws.ts
import { Generator } from '../core/numbers/generator';
import { figuresOf, lookInto, planOf, sittings } from '../core/draws/sheets';

const chapters = 20;
const each = 250;

const questionsOf = (size: number) =>
	Array.from({ length: chapters * size }, (_, at) => ({
		id: `q${at}`,
		category: ['Bank', `Chapter ${Math.floor(at / size)}`],
		kind: at % 3 ? 'multiple-choice' : 'numeric',
		points: 1 + (at % 2),
		seconds: 60
	}));

/** Twenty parts, each of which draws from its own chapter and the next one, with a quota for its own. */
const overlapping = {
	questions: questionsOf(each),
	parts: Array.from({ length: chapters }, (_, at) => ({
		draw: 4,
		pool: {
			categories: [{ path: ['Bank', `Chapter ${at}`] }, { path: ['Bank', `Chapter ${(at + 1) % chapters}`] }]
		},
		quotas: [{ by: 'category', value: ['Bank', `Chapter ${at}`], least: 1 }]
	}))
};
/** The same over 100,000 questions. */
const large = { ...overlapping, questions: questionsOf(5000) };
/** Ten parts of five, each from its chapter and the next: sittings of 50. */
const fifty = {
	...overlapping,
	parts: overlapping.parts.slice(0, 10).map((part) => ({ ...part, draw: 5, quotas: [] }))
};
/** Twenty parts that all draw from the whole bank. */
const whole = { ...overlapping, parts: overlapping.parts.map(() => ({ draw: 4, pool: {}, points: 1 })) };
/** One part with quotas over all chapters, and three hundred pairs that must not come together. */
const pairs = {
	...overlapping,
	parts: [
		{
			draw: 40,
			pool: {},
			quotas: [
				{
					by: 'category',
					values: Array.from({ length: chapters }, (_, at) => ['Bank', `Chapter ${at}`]),
					spread: 'equal'
				}
			]
		}
	],
	never: Array.from({ length: 300 }, (_, at) => [`q${at * 16}`, `q${at * 16 + 3}`])
};

const middle = (times: number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
function timed<Value>(work: () => Value): { value: Value; time: number } {
	const times: number[] = [];
	let value: Value;
	for (let at = 0; at < 5; at += 1) {
		const begun = performance.now();
		value = work();
		times.push(performance.now() - begun);
	}
	return { value: value!, time: middle(times) };
}

console.log('sheet                     parse  feasible  figures  a sitting  figures to parse  method');
for (const [name, sheet] of Object.entries({ overlapping, large, whole, pairs })) {
	const text = JSON.stringify(sheet);
	const parse = timed(() => JSON.parse(text) as unknown);
	const plan = planOf(parse.value);
	const looked = timed(() => lookInto(plan));
	if (!('sampler' in looked.value)) throw new Error(`${name} cannot be filled`);
	const { sampler } = looked.value;
	const figures = timed(() => figuresOf(plan, sampler));
	const drawn = timed(() => [...sittings(plan, sampler, 'bench-1', 20)]);
	const ms = (time: number) => `${time.toFixed(1)} ms`;
	console.log(
		`${name.padEnd(20)} ${ms(parse.time).padStart(10)} ${ms(looked.time).padStart(9)} ${ms(figures.time).padStart(8)} ${ms(drawn.time / 20).padStart(10)} ${(figures.time / parse.time).toFixed(1).padStart(17)}  ${sampler.method}`
	);
}

/** So many sittings as bare shuffling draws them: 50 of 5,000, the beginning of a shuffle, with the same generator. */
function bare(count: number): number {
	const places = Int32Array.from({ length: chapters * each }, (_, at) => at);
	let sum = 0;
	for (let sitting = 0; sitting < count; sitting += 1) {
		const generator = new Generator(`bench-${sitting}`);
		for (let at = 0; at < 50; at += 1) {
			const other = at + generator.below(places.length - at);
			const held = places[at]!;
			places[at] = places[other]!;
			places[other] = held;
			sum += places[at]!;
		}
	}
	return sum;
}
const many = 100_000;
const plan = planOf(fifty);
const looked = lookInto(plan);
if (!('sampler' in looked)) throw new Error('sittings of 50 cannot be drawn');
const begun = performance.now();
bare(many);
const raw = performance.now() - begun;
let given = 0;
const from = performance.now();
for (const { parts } of sittings(plan, looked.sampler, 'bench-1', many)) given += parts.length;
const drawnIn = performance.now() - from;
console.log(
	`${many.toLocaleString('en')} sittings of 50 (${given / many} parts): ${Math.round(drawnIn)} ms; bare Fisher and Yates ${Math.round(raw)} ms: ratio ${(drawnIn / raw).toFixed(1)} (goal 3)`
);
