import { digest } from '../src/lib/server/files/digest';
import { guessRecipe } from '../core/formats/recipe/of-file';
import { hashAttachments, type KnownFiles } from '../core/formats/hash';
import { compareBanks } from '../core/compare/banks';
import type { FitOptions } from '../core/formats/fit/fit';
import { writtenFormat, writtenFormats } from '../core/formats';
import type { OtherFile } from '../core/formats/format';
import type { FoundQuiz } from '../core/model/quiz';
import type { Question } from '../core/kinds';
import { openFile } from './open';
import { called } from '../core/kinds/called';
import { plainQuestion, plainQuiz } from './plain';
import { Printer } from './printer';
import { chances } from './chances';
import { check } from './check';
import { draw } from './draw';
import { recipeOf, say, type Command } from './command';
import { paperKinds, writePaper } from './paper';
import { readFile, readThrough, type NamedReport } from './reading';
import { writeAndProve } from './write';

const print = (value: unknown) => say(JSON.stringify(value, null, '\t'));

const inspect: Command = {
	files: 1,
	async run([file], options) {
		const recipe = await recipeOf(options);
		const reports: NamedReport[] = [];
		const quizzes: FoundQuiz[] = [];
		const others: OtherFile[] = [];
		const categories: string[][] = [];
		let format: string | null = null;
		let questions = 0;
		const write = options.json ? (value: unknown) => value : (value: unknown) => plainQuestion(value as Question);
		// the questions are printed as they are read, and none of them is held
		const list = new Printer();
		const head = () => list.open(options.json ? { format } : { file: file!.split('/').pop() }, 'questions');
		await readThrough(
			file!,
			{
				question: (question, said) => {
					if (!questions) head();
					questions += 1;
					list.entry(write(question));
					for (const report of said) reports.push(report);
				},
				report: (report) => reports.push(report),
				format: (title) => (format = title),
				quiz: (quiz) => quizzes.push(quiz),
				other: (other) => others.push(other),
				category: (path) => categories.push(path)
			},
			recipe
		);
		if (!questions) head();
		list.close(
			options.json
				? { categories, quizzes, reports, others }
				: {
						quizzes: quizzes.map(plainQuiz),
						problems: reports.map(({ rule, severity, message, question, identifier, place }) => ({
							question,
							identifier,
							about: rule,
							severity,
							why: message,
							...place
						}))
					}
		);
		return 0;
	}
};

const convert: Command = {
	files: 2,
	async run([from, to], options) {
		const onPaper = paperKinds.find((kind) => kind === options.to);
		if (onPaper)
			return writePaper(from!, (await readFile(from!, await recipeOf(options))).questions, to!, onPaper, options);
		const format = writtenFormat(options.to ?? '');
		if (!format) {
			process.stderr.write(
				`Say what to write: --to ${[...writtenFormats.map((one) => one.name), ...paperKinds].join(', --to ')}\n`
			);
			return 2;
		}
		const fitting: FitOptions = { workedOut: Number(options['worked-out'] ?? 1) };
		if (!Number.isInteger(fitting.workedOut) || fitting.workedOut < 1) {
			process.stderr.write('Say how many: --worked-out 5\n');
			return 2;
		}
		return writeAndProve(from!, await readFile(from!, await recipeOf(options)), to!, format, fitting);
	}
};

const compare: Command = {
	files: 2,
	async run([left, right], options) {
		const [before, after] = [await readHashed(left!), await readHashed(right!)];
		const found = compareBanks(before, after);
		if (options.json) print(found);
		else {
			for (const { before: a, after: b, differences } of found.changed)
				say(
					`changed      “${called(a)}”${called(a) === called(b) ? '' : ` (“${called(b)}”)`}: ${differences.map((one) => `${one.field} was ${one.before}, is ${one.after}`).join('; ')}`
				);
			for (const question of found.onlyBefore) say(`only in ${left}  “${called(question)}”`);
			for (const question of found.onlyAfter) say(`only in ${right}  “${called(question)}”`);
			say(
				`${found.same} the same, ${found.changed.length} changed, ${found.onlyBefore.length} only in ${left}, ${found.onlyAfter.length} only in ${right}`
			);
		}
		return found.changed.length + found.onlyBefore.length + found.onlyAfter.length ? 1 : 0;
	}
};

/** The questions of a file with the hashes of their pictures. */
async function readHashed(path: string): Promise<Question[]> {
	const { questions } = await readFile(path);
	const { container, close } = await openFile(path);
	const hashes = new Map() as KnownFiles;
	for (const question of questions) await hashAttachments(question, container, digest, hashes);
	await close();
	return questions;
}

const recipe: Command = {
	files: 2,
	async run([verb, file]) {
		if (verb !== 'guess') {
			process.stderr.write('Say what to do with it: ./barrow recipe guess FILE\n');
			return 2;
		}
		const { container, close } = await openFile(file!);
		try {
			const guessed = await guessRecipe(container);
			if (!guessed) {
				say('Nothing in the file reads like questions, so no recipe could be guessed.');
				return 1;
			}
			print(guessed);
			return 0;
		} finally {
			await close();
		}
	}
};

/** The commands by their names. */
export const commands = new Map<string, Command>([
	['inspect', inspect],
	['check', check],
	['convert', convert],
	['compare', compare],
	['recipe', recipe],
	['draw', draw],
	['chances', chances]
]);
