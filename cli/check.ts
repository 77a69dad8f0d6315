import { checkOf, checks, mendTitle } from '../core/checks';
import { mendAll } from '../core/checks/mend-all';
import { mendFor } from '../core/checks/one';
import { writtenFormat, writtenFormats } from '../core/formats';
import { defaultFit } from '../core/formats/fit/fit';
import { mendFiles } from './mend-files';
import { mendTools } from '../core/formats/mend-tools';
import type { Question } from '../core/kinds';
import { languagesOf } from '../core/language/detect';
import { severities, type Severity } from '../core/reports/report';
import { recipeOf, say, type Command, type Options } from './command';
import { Printer } from './printer';
import { readFile, readThrough, type NamedReport } from './reading';
import { writeAndProve } from './write';

/** So many findings of one rule are printed; of more, the number is said. */
const mostOfRule = 10_000;

/** What a finding is printed as, one line each, the worst first. */
class Lines {
	readonly #said = new Map<Severity, string[]>(severities.map((severity) => [severity, []]));
	/** How often each rule has spoken. */
	readonly #byRule = new Map<string, { severity: Severity; count: number }>();

	add({ rule, severity, place, question, subject, message }: NamedReport): void {
		const spoken = this.#byRule.get(`${severity} ${rule}`) ?? { severity, count: 0 };
		this.#byRule.set(`${severity} ${rule}`, spoken);
		spoken.count += 1;
		if (spoken.count > mostOfRule) return;
		const where = place ? ` (${place.file}${place.line ? `:${place.line}` : ''})` : '';
		this.#said
			.get(severity)!
			.push(
				`${severity.padEnd(8)} ${question ? `“${question}”` : subject ? `“${subject}”` : 'the file'}${where}: ${message}`
			);
	}

	print(): void {
		for (const severity of severities) {
			for (const line of this.#said.get(severity)!) say(line);
			for (const [rule, spoken] of this.#byRule)
				if (spoken.severity === severity && spoken.count > mostOfRule)
					say(`${severity.padEnd(8)} and ${spoken.count - mostOfRule} more of ${rule.slice(severity.length + 1)}`);
		}
	}
}

/** A finding as `--json` prints it: its question by its identifier, else its title, else the start of its stem. */
function snagOf(report: NamedReport, question: Question | null): object {
	const { rule, severity, message, words = [], place, subject } = report;
	// of one question a mend says itself whether it fits; of many, the check has one or has none
	const mend = question ? mendFor(rule, question)?.title : report.question !== null ? mendTitle(rule) : null;
	return {
		check: rule,
		severity,
		question: report.identifier || report.question,
		...(subject === undefined ? {} : { subject }),
		message,
		words,
		file: place?.file ?? null,
		line: place?.line ?? null,
		mend: mend ?? null
	};
}

/** The checks that are asked for, or null for all; gives words for people where one is unknown. */
function wanted(only: string | undefined): { ids: Set<string> | null } | { unknown: string } {
	if (only === undefined) return { ids: null };
	const ids = only
		.split(',')
		.map((id) => id.trim())
		.filter(Boolean);
	const unknown = ids.filter((id) => !checkOf(id));
	return unknown.length || !ids.length
		? {
				unknown: `There is no check called “${unknown.join('”, “')}”. There are: ${checks.map(({ id }) => id).join(', ')}`
			}
		: { ids: new Set(ids) };
}

/** Mends what checks find in a file, says in numbers what was mended, and writes what comes of it. */
async function mendFile(file: string, to: string, options: Options): Promise<number> {
	const asked = wanted(options.mend);
	const format = writtenFormat(options.to ?? '');
	if ('unknown' in asked || !format) {
		process.stderr.write(
			`${'unknown' in asked ? asked.unknown : `Say what to write: --to ${writtenFormats.map(({ name }) => name).join(', --to ')}`}\n`
		);
		return 2;
	}
	const { questions, quizzes, categories } = await readFile(file, await recipeOf(options));
	const named = new Set(
		quizzes.flatMap(({ parts }) => parts.flatMap((part) => part.questions.map((one) => one.identifier)))
	);
	const { fileFor, files } = await mendFiles(file, questions, asked.ids!);
	const done = mendAll(questions, [...asked.ids!], { ...mendTools, fileFor, languagesOf }, ({ identifier }) =>
		named.has(identifier)
	);
	for (const [id, count] of done.mended)
		say(
			`${id}: ${count} ${count === 1 ? 'question' : 'questions'} mended${mendTitle(id) || id === 'exact-duplicate' ? '' : ', since this check has no mend'}`
		);
	return writeAndProve(file, { questions: done.questions, quizzes, categories, files }, to, format, defaultFit);
}

/** Says what is wrong in a file, as lines or as JSON (docs/checks.md). */
export const check: Command = {
	files: (options) => (options.mend === undefined ? 1 : 2),
	async run([file, to], options) {
		if (options.mend !== undefined) return mendFile(file!, to!, options);
		const asked = wanted(options.only);
		if ('unknown' in asked) {
			process.stderr.write(`${asked.unknown}\n`);
			return 2;
		}
		const recipe = await recipeOf(options);
		const counts = new Map<Severity, number>();
		const lines = new Lines();
		const list = new Printer();
		let format = '';
		let questions = 0;
		const note = (report: NamedReport, question: Question | null) => {
			if (asked.ids && !asked.ids.has(report.rule)) return;
			counts.set(report.severity, (counts.get(report.severity) ?? 0) + 1);
			if (options.json) list.entry(snagOf(report, question));
			else lines.add(report);
		};
		if (options.json) list.open({}, 'snags');
		await readThrough(
			file!,
			{
				question: (question, found) => {
					questions += 1;
					for (const report of found) note(report, question);
				},
				report: (report) => note(report, null),
				format: (title) => (format = title)
			},
			recipe,
			asked.ids ?? undefined
		);
		if (options.json) list.close({ questions });
		else {
			lines.print();
			say(
				`${questions} questions, ${severities.map((severity) => `${counts.get(severity) ?? 0} ${severity}`).join(', ')}${format ? ` · ${format}` : ''}`
			);
		}
		return counts.get('broken') ? 1 : 0;
	}
};
