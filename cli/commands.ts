import { placesOfFitted, quizDifferences } from '../core/compare/quizzes';
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
import type { Format, QuizToWrite } from '../core/formats/format';
import type { FoundQuiz } from '../core/model/quiz';
import type { Question } from '../core/model/question';
import { severities } from '../core/reports/report';
import { openFile } from './open';
import { nameOf, plainQuestion, plainQuiz } from './plain';
import { readFile } from './reading';

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
		const { format, questions, quizzes, reports, others } = await readFile(file!, await recipeOf(options));
		if (options.json) print({ format, questions, quizzes, reports, others });
		else
			print({
				file: file!.split('/').pop(),
				questions: questions.map(plainQuestion),
				quizzes: quizzes.map(plainQuiz),
				problems: reports.map(({ rule, severity, message, question, identifier, place }) => ({
					question,
					identifier,
					about: rule,
					severity,
					why: message,
					...place
				}))
			});
		return 0;
	}
};

const check: Command = {
	files: 1,
	async run([file], options) {
		const { format, questions, reports } = await readFile(file!, await recipeOf(options));
		if (options.json) print(reports);
		else {
			for (const severity of severities)
				for (const report of reports.filter((one) => one.severity === severity)) {
					const place = report.place
						? ` (${report.place.file}${report.place.line ? `:${report.place.line}` : ''})`
						: '';
					say(
						`${severity.padEnd(8)} ${report.question ? `“${report.question}”` : 'the file'}${place}: ${report.message}`
					);
				}
			say(
				`${questions.length} questions, ${severities.map((severity) => `${reports.filter((one) => one.severity === severity).length} ${severity}`).join(', ')}${format ? ` · ${format}` : ''}`
			);
		}
		return reports.some((report) => report.severity === 'broken') ? 1 : 0;
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
	for (const words of quizDifferences(quizzes, back.quizzes, { sent: writtenAt, found: (one) => placesBack.find(one) }))
		say(`${'quiz'.padEnd(12)} ${words}`);
	const count = (outcome: string) => lines.filter((line) => line.outcome === outcome).length;
	say(
		`${questions.length} questions${lines.length + lost.length === questions.length ? '' : `, written as ${lines.length}`}: ${count('identical')} identical, ${count('changed-as-foretold')} changed as foretold, ${count('changed-otherwise')} changed otherwise, ${count('missing')} missing, ${lost.length} left behind`
	);
	return count('changed-otherwise') + count('missing') ? 1 : 0;
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
