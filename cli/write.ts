import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { QuizProof } from '../core/compare/quizzes';
import { withFiles } from '../core/container/with-files';
import type { FitOptions } from '../core/formats/fit/fit';
import type { Format } from '../core/formats/format';
import { hashAttachments, type KnownFiles } from '../core/formats/hash';
import { proveFile, type FileProof, type ProvedQuestion } from '../core/formats/prove';
import { QuestionPlaces } from '../core/formats/question-places';
import type { Question } from '../core/kinds';
import { lookInto, totalOf, type Plan } from '../core/draws/sheets';
import { exactParts } from '../core/draws/sheets/exact-parts';
import { planOfQuiz } from '../core/draws/sheets/of-quiz';
import type { FoundQuestion, FoundQuiz, PartToWrite, QuizToWrite } from '../core/model/quiz';
import { renamedPart, renamedRules, type CarriedPart } from '../core/model/sheet';
import { codec } from '../src/lib/server/files/codec';
import { digest } from '../src/lib/server/files/digest';
import { say } from './command';
import { openFile } from './open';
import { called } from '../core/kinds/called';
import type { Reading } from './reading';

/** The quizzes of a package with their questions by place instead of by identifier. */
function quizzesToWrite(quizzes: FoundQuiz[], questions: Question[]): QuizToWrite[] {
	const places = new QuestionPlaces();
	for (const question of questions) places.add(question);
	const placeOf = (named: FoundQuestion) => {
		const place = places.find(named);
		return place === undefined ? undefined : place - 1;
	};
	return quizzes.map((quiz) => {
		const plan = planOfQuiz(quiz, questions, (named) => places.find(named));
		const looked = quiz.settings?.pass == null ? null : lookInto(plan);
		const points = looked && 'sampler' in looked ? totalOf(plan, looked.sampler) : null;
		return {
			identifier: quiz.identifier,
			title: quiz.title,
			...(quiz.settings ? { settings: quiz.settings } : {}),
			...(quiz.rules ? { rules: renamedRules(quiz.rules, placeOf) } : {}),
			points: points?.least === points?.most ? (points?.least ?? null) : null,
			parts: quiz.parts.map((part, at): PartToWrite => ({
				title: part.title,
				draw: part.draw,
				pointsEach: part.pointsEach,
				shuffle: part.shuffle ?? false,
				questions: part.questions.flatMap((named) => placeOf(named) ?? []),
				...(part.sheet ? carried(part.sheet, plan, at, placeOf) : {})
			}))
		};
	});
}

function carried(
	sheet: CarriedPart<FoundQuestion>,
	plan: Plan,
	at: number,
	placeOf: (named: FoundQuestion) => number | undefined
): Pick<PartToWrite, 'sheet' | 'exact'> {
	const exact = exactParts(plan, plan.parts[at]!);
	return { sheet: renamedPart(sheet, placeOf), ...(exact ? { exact } : {}) };
}

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
	return `${name} “${called(question)}”: ${what.join('; ')}`;
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

/**
 * Writes questions that were read from a file in a format, with its quizzes and files, and holds what was written against
 * them; `files` take the place of those of the file, by their paths. Gives the exit code: 1 where something is not as it was foretold.
 */
export async function writeAndProve(
	from: string,
	{
		questions,
		quizzes,
		categories,
		files = new Map()
	}: Pick<Reading, 'questions' | 'quizzes' | 'categories'> & { files?: ReadonlyMap<string, Uint8Array> },
	to: string,
	format: Format,
	options: FitOptions
): Promise<number> {
	const { container: opened, close } = await openFile(from);
	const container = withFiles(opened, files);
	const hashes = new Map() as KnownFiles;
	const paths = new Map<string, string>();
	for (const question of questions) {
		await hashAttachments(question, container, digest, hashes);
		for (const { hash, name } of question.attachments) if (hash) paths.set(hash, name);
	}
	const unfinished = `${to}.part`;
	try {
		const pieces = format.write({
			identifier: 'PACKAGE',
			title: from.split('/').pop()!,
			count: questions.length,
			question: async (at) => questions[at]!,
			quizzes: quizzesToWrite(quizzes, questions),
			categories,
			media: (hash) => container.stream(paths.get(hash)!),
			codec,
			options
		});
		await pipeline(Readable.from(pieces), createWriteStream(unfinished));
		await rename(unfinished, to);
	} finally {
		await rm(unfinished, { force: true });
		await close();
	}
	return prove(questions, quizzesToWrite(quizzes, questions), to, format, options);
}
