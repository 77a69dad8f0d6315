import { kindName, kinds } from '../kinds';
import { features } from './fit/features';
import { ways } from './fit/nearest';
import { quizTraits } from './fit/quiz-limits';
import type { Format } from './format';

const row = (cells: string[]) => `| ${cells.join(' | ')} |`;

/** What each written format keeps, changes and leaves out, as three Markdown tables made from its limits. */
export function formatTables(formats: Format[]): string {
	const names = formats.map((format) => `\`${format.name}\``);
	const rule = row(['---', ...formats.map(() => '---')]);
	const kindRows = kinds
		.filter((kind) => kind !== 'unreadable')
		.map((kind) => {
			const cells = formats.map(({ limits }) => {
				if (limits.holds[kind]) return 'kept';
				const known = ways.filter((way) => way.from === kind);
				const way = known.find((one) => limits.holds[one.to]) ?? known[0];
				return way ? kindName(way.to).toLowerCase() : 'left behind';
			});
			return row([kindName(kind), ...cells]);
		});
	const featureRows = features.map((feature) =>
		row([
			feature.title,
			...formats.map(({ limits }) => (limits.features.includes(feature.name) ? 'kept' : '–')),
			feature.otherwise
		])
	);
	const quizRows = quizTraits.map(({ name, title, otherwise }) =>
		row([title, ...formats.map(({ quizLimits }) => (quizLimits.carries && quizLimits[name] ? 'kept' : '–')), otherwise])
	);
	return [
		'### Kinds',
		'',
		'What is not kept becomes the kind that is named.',
		'',
		row(['Kind', ...names]),
		rule,
		...kindRows,
		'',
		'### Features',
		'',
		'What is not kept (–) is changed as the last column says, and the loss table says so for each question.',
		'',
		row(['Feature', ...names, 'Where it is not kept']),
		row(['---', ...formats.map(() => '---'), '---']),
		...featureRows,
		'',
		'### Quizzes',
		'',
		'The loss table says for each quiz what becomes of it, and the proof holds the quiz that is read back against that.',
		'',
		row(['Of a quiz', ...names, 'Where it is not kept']),
		row(['---', ...formats.map(() => '---'), '---']),
		...quizRows,
		''
	].join('\n');
}
