import { figuresOf, type Figures, type Plan } from '../core/draws/sheets';
import { say, type Command } from './command';
import { lookedInto, withSheet } from './sheet';

const stepOf = (step: string) => step.replace(/~/g, '~0').replace(/\//g, '~1');
const inWords = (chance: number) => `${(chance * 100).toFixed(1)} %`;

/** The figures as `--json` prints them; what is named by people stands in objects without a prototype. */
function printed(
	plan: Plan,
	{ method, sittings, questions, overlap, points, seconds, categories, categoriesError }: Figures
) {
	const exact = method === 'counted';
	const byName = <Value>(entries: (readonly [string, Value])[]): Record<string, Value> =>
		Object.assign(Object.create(null) as Record<string, Value>, Object.fromEntries(entries));
	return {
		feasible: true,
		exact,
		method,
		sittings,
		questions: byName([...questions].map(([question, estimate]) => [plan.questions[question]!.id, estimate] as const)),
		overlap,
		points,
		...(seconds ? { seconds } : {}),
		categories: byName(categories.map(({ path, chances }) => [path.map(stepOf).join('/'), chances] as const)),
		categoriesError
	};
}

function inLines(
	plan: Plan,
	{ method, sittings, questions, overlap, points, categories, categoriesError }: Figures
): void {
	const exact = method === 'counted';
	const error = (of: number) => (of ? ` ± ${inWords(of)}` : '');
	say(`${exact ? sittings : `about ${sittings}`} different sittings${exact ? '' : ', by 20,000 that were drawn'}`);
	say(
		points.equal
			? `Everybody has ${points.most} points.`
			: `${points.least} to ${points.most} points, ${points.mean.toFixed(2)} on average.`
	);
	say(`Two students share ${overlap.expected.toFixed(2)} questions on average.`);
	for (const [question, { chance, error: own }] of [...questions].sort((a, b) => b[1].chance - a[1].chance))
		say(`${inWords(chance).padStart(7)}${error(own)}  ${plan.questions[question]!.id}`);
	for (const { path, chances } of categories)
		say(
			`${path.join(' › ')}: ${chances
				.map((chance, number) => ({ chance, number }))
				.filter(({ chance }) => chance > 0)
				.map(({ chance, number }) => `${number} in ${inWords(chance)}`)
				.join(', ')}${error(categoriesError)}`
		);
}

/** Says what students get of a sheet: chances, overlap, points, spread (docs/draws.md). */
export const chances: Command = {
	files: 1,
	run: ([file], options) =>
		withSheet(async () => {
			const looked = await lookedInto(file!, options);
			if ('unknown' in looked) {
				if (options.json) say(JSON.stringify({ feasible: null, message: looked.unknown }));
				else say(looked.unknown);
				return 1;
			}
			if ('conflict' in looked) {
				const { parts, message } = looked.conflict;
				if (options.json) say(JSON.stringify({ feasible: false, parts, message }));
				else say(message);
				return 1;
			}
			const figures = figuresOf(looked.plan, looked.sampler);
			if (options.json) say(JSON.stringify(printed(looked.plan, figures)));
			else inLines(looked.plan, figures);
			return 0;
		})
};
