import type { QuizProof } from '../core/compare/quizzes';
import { QuestionPlaces } from '../core/formats/question-places';
import { codec } from '../src/lib/server/files/codec';
import { digest } from '../src/lib/server/files/digest';
import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { guessRecipe } from '../core/formats/recipe/of-file';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { hashAttachments, type KnownFiles } from '../core/formats/hash';
import { proveFile, type FileProof, type ProvedQuestion } from '../core/formats/prove';
import { compareBanks } from '../core/compare/banks';
import type { FitOptions } from '../core/formats/fit/fit';
import { writtenFormat, writtenFormats } from '../core/formats';
import type { Format, OtherFile } from '../core/formats/format';
import type { QuizToWrite } from '../core/model/quiz';
import type { FoundQuiz } from '../core/model/quiz';
import type { Question } from '../core/kinds';
import { openFile } from './open';
import { nameOf, plainQuestion, plainQuiz } from './plain';
import { Printer } from './printer';
import { check } from './check';
import { recipeOf, say, type Command } from './command';
import { readFile, readThrough, type NamedReport } from './reading';

const print = (value: unknown) => say(JSON.stringify(value, null, '\t'));

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
		const hashes = new Map() as KnownFiles;
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

/** What became of one question that is not as it was sent, in a line. */
function provedLine({ outcome, question, loss, differences }: ProvedQuestion): string {
	const what =
		outcome === 'changed-otherwise' || outcome === 'missing'
			? differences.map(({ field, before, after }) => `${field} was ${before}, is ${after}`)
			: loss.what;
	const name = outcome === 'left-behind' ? 'left behind ' : outcome.padEnd(12);
	return `${name} “${nameOf(question)}”: ${what.join('; ')}`;
}

async function prove(
	questions: Question[],
	quizzes: QuizToWrite[],
	to: string,
	format: Format,
	options: FitOptions
): Promise<number> {
	const { container, close } = await openFile(to);
	const lines: string[] = [];
	let proof: FileProof;
	try {
		proof = await proveFile(
			{ container, codec, digest },
			{ format, options, count: questions.length, question: async (at) => questions[at]!, quizzes },
			(proved) => {
				if (proved.outcome !== 'identical') lines.push(provedLine(proved));
			}
		);
	} finally {
		await close();
	}
	lines.forEach((line) => say(line));
	for (const words of proof.quizzes.foretold) say(`${'quiz, foretold'.padEnd(12)} ${words}`);
	for (const words of proof.quizzes.otherwise) say(`${'quiz'.padEnd(12)} ${words}`);
	const { identical, foretold, otherwise, missing, leftBehind, sent } = proof;
	say(
		`${questions.length} questions${sent + leftBehind === questions.length ? '' : `, written as ${sent}`}: ${identical} identical, ${foretold} changed as foretold, ${otherwise} changed otherwise, ${missing} missing, ${leftBehind} left behind${quizWords(quizzes.length, proof.quizzes)}`
	);
	return otherwise + missing + proof.quizzes.otherwise.length ? 1 : 0;
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
	['recipe', recipe]
]);
