import type { ReaderRule } from '../../reports/rules';
import { readText, streamText } from '../../container/decode';
import { ZipWriter } from '../../container/write-zip';
import type { DocumentReader, ReadEvent, ToWrite } from '../format';
import { MediaFiles } from '../package/files';
import { ownName, ownQuiz, ownVersion, withOwnNames } from './form';
import { keptDamaged, takeCategory, TakenQuestions, takeQuestion } from './take';
import { takeQuiz } from './take-quiz';

const encoder = new TextEncoder();

/** Writes the archive: a zip with a head, the questions as JSON lines, and the files. */
export async function* writeArchive(
	{ title, count, question: ask, quizzes, categories = [], media, codec }: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const zip = new ZipWriter(codec);
	const files = new MediaFiles();
	yield* zip.add('barrow.json', [
		encoder.encode(
			`${JSON.stringify({ format: ownName, version: ownVersion, title, questions: count, categories, quizzes: quizzes.map(ownQuiz) }, null, '\t')}\n`
		)
	]);
	const lines = async function* () {
		const names = new MediaFiles();
		for (let at = 0; at < count; at += 1) {
			yield encoder.encode(`${JSON.stringify(withOwnNames(await ask(at), names))}\n`);
			written(at + 1);
		}
	};
	yield* zip.add('questions.jsonl', lines());
	for (let at = 0; at < count; at += 1)
		for (const { hash, path } of files.fresh(await ask(at))) yield* zip.add(path, media(hash));
	yield* zip.end();
}

/** Reads the archive, one question at a time. */
export const readArchive: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const taken = new TakenQuestions();
	let head: { quizzes?: unknown; categories?: unknown; questions?: unknown } = {};
	const told: ReadEvent[] = [];
	const trouble = (rule: ReaderRule, message: string, line = 1): ReadEvent => ({
		type: 'report',
		report: { rule, severity: 'broken', message, place: { file: context.file, line } }
	});
	const headFile = context.container.find('barrow.json');
	if (headFile) {
		try {
			head = JSON.parse((await readText(context.container, headFile)).text) as typeof head;
		} catch {
			yield trouble(
				'not-well-formed',
				'The head of the archive, “barrow.json”, cannot be read. Its questions were read, its quizzes were not.'
			);
		}
	}
	let rest = '';
	let number = 0;
	let asked = 0;
	let read = 0;
	const size = context.container.size(context.file);
	const lineEvents = function* (line: string): Generator<ReadEvent> {
		number += 1;
		if (!line.trim()) return;
		asked += 1;
		let value: unknown;
		try {
			value = JSON.parse(line);
		} catch (error) {
			const said = { line: number, message: (error as Error).message };
			const read = keptDamaged(line, asked, said, { ...context, format: 'archive' });
			taken.add(asked, read.question.identifier);
			yield read;
			return;
		}
		for (const event of takeQuestion(value, number, number, context, 'archive')) {
			if (event.type === 'question') taken.add(asked, event.question.identifier);
			yield event;
		}
	};
	for await (const piece of streamText(context.container, context.file, (report) =>
		told.push({ type: 'report', report })
	)) {
		yield* told.splice(0);
		read += piece.length;
		const lines = (rest + piece).split('\n');
		rest = lines.pop() ?? '';
		for (const line of lines) yield* lineEvents(line);
		yield { type: 'progress', bytesRead: Math.min(read, size), bytesTotal: size };
	}
	if (rest.trim()) yield* lineEvents(rest);
	if (typeof head.questions === 'number' && head.questions !== taken.count)
		yield trouble(
			'count-differs',
			`The archive says that it holds ${head.questions} questions, and ${taken.count} were found. Ask for it again.`
		);
	for (const value of Array.isArray(head.categories) ? (head.categories as unknown[]) : []) {
		const category = takeCategory(value);
		if (category) yield category;
	}
	for (const quiz of Array.isArray(head.quizzes) ? (head.quizzes as unknown[]) : []) {
		yield* takeQuiz(quiz, taken, context);
	}
};
