import { placesOfFitted, proveQuizzes, type QuizProof } from '../core/compare/quizzes';
import { fitQuizzes } from '../core/formats/fit/quizzes';
import { QuestionPlaces } from '../core/formats/question-places';
import { codec } from './codec';
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { readFile as readText, rename, rm } from 'node:fs/promises';
import { ContainerError } from '../core/container/container';
import { guessRecipe } from '../core/formats/recipe/of-file';
import { parseRecipe, type Recipe } from '../core/formats/recipe/recipe';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { hashAttachments, type Digest } from '../core/compare/hash';
import { compareBanks } from '../core/compare/banks';
import { proofLine } from '../core/compare/proof';
import type { FitOptions } from '../core/formats/fit/fit';
import { writtenFormat, writtenFormats } from '../core/formats';
import type { Format, OtherFile, QuizToWrite } from '../core/formats/format';
import type { FoundQuiz } from '../core/model/quiz';
import type { Question } from '../core/model/question';
import { severities, type Severity } from '../core/reports/report';
import { openFile } from './open';
import { nameOf, plainQuestion, plainQuiz } from './plain';
import { Printer } from './printer';
import { readFile, readThrough, type NamedReport } from './reading';

/** What may be said beside the files. */
export interface Options {
	plain?: boolean;
	json?: boolean;
	to?: string;
	mapping?: string;
	/** How many questions stand in for a calculated one. */
	'worked-out'?: string;
}

/** A command: how many files it wants, and what it does. It gives the exit code. */
export interface Command {
	files: number;
	run: (files: string[], options: Options) => Promise<number>;
}

const say = (line: string) => process.stdout.write(`${line}\n`);
const print = (value: unknown) => say(JSON.stringify(value, null, '\t'));

const digest: Digest = async (pieces) => {
	const hash = createHash('sha256');
	for await (const piece of pieces) hash.update(piece);
	return hash.digest('hex');
};

/** The recipe in the file that `--mapping` names. Throws a ContainerError that says what is wrong with it. */
async function recipeOf({ mapping }: Options): Promise<Recipe | undefined> {
	if (mapping === undefined) return undefined;
	try {
		return parseRecipe(JSON.parse(await readText(mapping, 'utf8')));
	} catch (error) {
		if ((error as NodeJS.ErrnoException).code) throw error;
		throw new ContainerError('bad-recipe', `The recipe “${mapping}” cannot be used: ${(error as Error).message}.`);
	}
}

const inspect: Command = {
	files: 1,
	async run([file], options) {
		const recipe = await recipeOf(options);
		const reports: NamedReport[] = [];
		const quizzes: FoundQuiz[] = [];
		const others: OtherFile[] = [];
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
				other: (other) => others.push(other)
			},
			recipe
		);
		if (!questions) head();
		list.close(
			options.json
				? { quizzes, reports, others }
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

/** So many findings of one rule are printed; of more, the number is said. */
const mostOfRule = 10_000;

const check: Command = {
	files: 1,
	async run([file], options) {
		const recipe = await recipeOf(options);
		const said = new Map<Severity, string[]>(severities.map((severity) => [severity, []]));
		const counts = new Map<Severity, number>();
		/** How often each rule has spoken. */
		const byRule = new Map<string, { severity: Severity; count: number }>();
		const reports: NamedReport[] = [];
		let format = '';
		let questions = 0;
		const note = (report: NamedReport) => {
			const { rule, severity } = report;
			counts.set(severity, (counts.get(severity) ?? 0) + 1);
			if (options.json) return void reports.push(report);
			const spoken = byRule.get(`${severity} ${rule}`) ?? { severity, count: 0 };
			byRule.set(`${severity} ${rule}`, spoken);
			spoken.count += 1;
			if (spoken.count > mostOfRule) return;
			const place = report.place ? ` (${report.place.file}${report.place.line ? `:${report.place.line}` : ''})` : '';
			said
				.get(severity)!
				.push(
					`${severity.padEnd(8)} ${report.question ? `“${report.question}”` : 'the file'}${place}: ${report.message}`
				);
		};
		await readThrough(
			file!,
			{
				question: (_, found) => {
					questions += 1;
					found.forEach(note);
				},
				report: note,
				format: (title) => (format = title)
			},
			recipe
		);
		if (options.json) print(reports);
		else {
			for (const severity of severities) {
				for (const line of said.get(severity)!) say(line);
				for (const [rule, spoken] of byRule)
					if (spoken.severity === severity && spoken.count > mostOfRule)
						say(`${severity.padEnd(8)} and ${spoken.count - mostOfRule} more of ${rule.slice(severity.length + 1)}`);
			}
			say(
				`${questions} questions, ${severities.map((severity) => `${counts.get(severity) ?? 0} ${severity}`).join(', ')}${format ? ` · ${format}` : ''}`
			);
		}
		return counts.get('broken') ? 1 : 0;
	}
};

/** The quizzes of a package with their questions by place instead of by identifier. */
function quizzesToWrite(quizzes: FoundQuiz[], questions: Question[]): QuizToWrite[] {
	const places = new QuestionPlaces();
	for (const question of questions) places.add(question);
	return quizzes.map((quiz) => ({
		identifier: quiz.identifier,
		title: quiz.title,
		parts: quiz.parts.map((part) => ({
			title: part.title,
			draw: part.draw,
			pointsEach: part.pointsEach,
			shuffle: part.shuffle ?? false,
			questions: part.questions.flatMap((one) => {
				const place = places.find(one);
				return place === undefined ? [] : [place - 1];
			})
		}))
	}));
}

const convert: Command = {
	files: 2,
	async run([from, to], options) {
		const format = writtenFormat(options.to ?? '');
		if (!format) {
			process.stderr.write(`Say what to write: --to ${writtenFormats.map((one) => one.name).join(', --to ')}\n`);
			return 2;
		}
		const fitting: FitOptions = { workedOut: Number(options['worked-out'] ?? 1) };
		if (!Number.isInteger(fitting.workedOut) || fitting.workedOut < 1) {
			process.stderr.write('Say how many: --worked-out 5\n');
			return 2;
		}
		const { questions, quizzes } = await readFile(from!, await recipeOf(options));
		const { container, close } = await openFile(from!);
		const hashes = new Map<string, string | null>();
		const paths = new Map<string, string>();
		for (const question of questions) {
			await hashAttachments(question, container, digest, hashes);
			for (const { hash, name } of question.attachments) if (hash) paths.set(hash, name);
		}
		const unfinished = `${to!}.part`;
		try {
			const pieces = format.write({
				identifier: 'PACKAGE',
				title: from!.split('/').pop()!,
				count: questions.length,
				question: async (at) => questions[at]!,
				quizzes: quizzesToWrite(quizzes, questions),
				media: (hash) => container.stream(paths.get(hash)!),
				codec,
				options: fitting
			});
			await pipeline(Readable.from(pieces), createWriteStream(unfinished));
			await rename(unfinished, to!);
		} finally {
			await rm(unfinished, { force: true });
			await close();
		}
		return prove(questions, quizzesToWrite(quizzes, questions), to!, format, fitting);
	}
};

/** What became of the quizzes, for the last line. */
function quizWords(all: number, { sent, leftBehind, foretold, otherwise }: QuizProof): string {
	if (!all) return '';
	const changed = foretold.length && sent ? ', changed as foretold' : '';
	return `; ${all} ${all === 1 ? 'quiz' : 'quizzes'}: ${sent} written${otherwise.length ? ', changed otherwise' : changed}, ${leftBehind} left behind`;
}

async function prove(
	questions: Question[],
	quizzes: QuizToWrite[],
	to: string,
	format: Format,
	fitting: FitOptions
): Promise<number> {
	const back = await readFile(to);
	const written = await openFile(to);
	const hashes = new Map<string, string | null>();
	for (const question of back.questions) await hashAttachments(question, written.container, digest, hashes);
	await written.close();
	const losses = questions.map((question) => format.loss(question, fitting));
	const order = format.order?.(questions.length, quizzes) ?? [...questions.keys()];
	const sent = order.flatMap((at) =>
		losses[at]!.fitted.map((_, which) => ({ question: questions[at]!, loss: losses[at]!, which }))
	);
	const lost = questions.filter((_, at) => losses[at]!.outcome === 'lost');
	const lines = sent.map((one, at) => proofLine(at, one.question, back.questions[at], one.loss, one.which));
	questions.forEach((question, at) => {
		if (losses[at]!.outcome === 'lost') say(`left behind  “${nameOf(question)}”: ${losses[at]!.what.join('; ')}`);
	});
	for (const line of lines) {
		if (line.outcome === 'identical') continue;
		const { question, loss: said } = sent[line.at]!;
		const what =
			line.outcome === 'changed-as-foretold'
				? said.what.join('; ')
				: line.differences.map(({ field, before, after }) => `${field} was ${before}, is ${after}`).join('; ');
		say(`${line.outcome.padEnd(12)} “${nameOf(question)}”: ${what}`);
	}
	const placesBack = new QuestionPlaces();
	for (const question of back.questions) placesBack.add(question);
	const writtenAt = placesOfFitted(
		losses.map((one) => one.fitted.length),
		order
	);
	const fittedQuizzes = fitQuizzes(quizzes, format.quizLimits, (at) => losses[at]!.fitted.length);
	const quizProof = proveQuizzes(fittedQuizzes, back.quizzes, {
		sent: writtenAt,
		found: (one) => placesBack.find(one)
	});
	for (const words of quizProof.foretold) say(`${'quiz, foretold'.padEnd(12)} ${words}`);
	for (const words of quizProof.otherwise) say(`${'quiz'.padEnd(12)} ${words}`);
	const count = (outcome: string) => lines.filter((line) => line.outcome === outcome).length;
	say(
		`${questions.length} questions${lines.length + lost.length === questions.length ? '' : `, written as ${lines.length}`}: ${count('identical')} identical, ${count('changed-as-foretold')} changed as foretold, ${count('changed-otherwise')} changed otherwise, ${count('missing')} missing, ${lost.length} left behind${quizWords(quizzes.length, quizProof)}`
	);
	return count('changed-otherwise') + count('missing') + quizProof.otherwise.length ? 1 : 0;
}

const compare: Command = {
	files: 2,
	async run([left, right], options) {
		const [before, after] = [await readHashed(left!), await readHashed(right!)];
		const found = compareBanks(before, after);
		if (options.json) print(found);
		else {
			for (const { before: a, after: b, differences } of found.changed)
				say(
					`changed      “${nameOf(a)}”${nameOf(a) === nameOf(b) ? '' : ` (“${nameOf(b)}”)`}: ${differences.map((one) => `${one.field} was ${one.before}, is ${one.after}`).join('; ')}`
				);
			for (const question of found.onlyBefore) say(`only in ${left}  “${nameOf(question)}”`);
			for (const question of found.onlyAfter) say(`only in ${right}  “${nameOf(question)}”`);
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
	const hashes = new Map<string, string | null>();
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
	['recipe', recipe]
]);
