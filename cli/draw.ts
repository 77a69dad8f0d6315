import { drawingRule, sittings } from '../core/draws/sheets';
import { partName } from '../core/draws/sheets/plan';
import { say, type Command } from './command';
import { Printer } from './printer';
import { lookedInto, withSheet } from './sheet';

/** So many sittings are drawn at once at the most. */
const mostSittings = 1_000_000;

/** Draws sittings from a sheet, by seeds that follow one another (docs/draws.md). */
export const draw: Command = {
	files: 1,
	run: ([file], options) =>
		withSheet(async () => {
			const { seed, count: asked = '1' } = options;
			const count = /^\d+$/.test(asked) ? Number(asked) : 0;
			if (!seed || count < 1 || count > mostSittings) {
				process.stderr.write(
					seed
						? `Say how many, from 1 to ${mostSittings}: --count 30\n`
						: 'Say a seed, from which the same sitting comes for ever: --seed TC-S27-1\n'
				);
				return 2;
			}
			const looked = await lookedInto(file!, options);
			if (!('sampler' in looked)) {
				process.stderr.write(`${'conflict' in looked ? looked.conflict.message : looked.unknown}\n`);
				return 1;
			}
			const { plan, sampler } = looked;
			const named = (questions: number[]) => questions.map((question) => plan.questions[question]!.id);
			const list = new Printer();
			if (options.json) list.open({ rule: drawingRule }, 'sittings');
			for (const { seed: own, parts, points, order } of sittings(plan, sampler, seed, count)) {
				if (options.json) {
					list.entry({ seed: own, parts: parts.map(named), ...(order ? { order } : {}), points });
					continue;
				}
				say(`${own}, ${points} points`);
				for (const part of order ?? parts.keys())
					say(`  ${partName(plan.parts[part]!.title, part)}: ${named(parts[part]!).join(', ')}`);
			}
			if (options.json) list.close({});
			return 0;
		})
};
