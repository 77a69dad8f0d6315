import { readText } from '../../container/decode';
import { MediaFiles } from '../package/files';
import type { DocumentReader, ReadEvent, ToWrite } from '../format';
import { linesOfRecords } from '../recipe/json';
import { ownName, ownQuiz, ownVersion, withOwnNames } from './form';
import { takeQuestion, takeQuiz } from './take';
import { base64Of } from './base64';

const encoder = new TextEncoder();

/** Whether a text begins like our own JSON. */
export const isOwnJson = (start: string) => new RegExp(`^\\s*\\{\\s*"format"\\s*:\\s*"${ownName}"`).test(start);

/** Writes our own JSON: all questions of one file, with their pictures in base 64. The form is in docs/formats.md. */
export async function* writeJson(
	{ title, count, question: ask, quizzes, media }: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const names = new MediaFiles();
	const files = new Map<string, { name: string; mediaType: string }>();
	yield encoder.encode(
		`{\n\t"format": "${ownName}",\n\t"version": ${ownVersion},\n\t"title": ${JSON.stringify(title)},\n\t"questions": [`
	);
	for (let at = 0; at < count; at += 1) {
		const question = withOwnNames(await ask(at), names);
		for (const { hash, name, mediaType } of question.attachments) if (hash) files.set(hash, { name, mediaType });
		const text = JSON.stringify(question, null, '\t').replace(/\n/g, '\n\t\t');
		yield encoder.encode(`${at ? ',' : ''}\n\t\t${text}`);
		written(at + 1);
	}
	yield encoder.encode(
		`\n\t],\n\t"quizzes": ${JSON.stringify(quizzes.map(ownQuiz), null, '\t').replace(/\n/g, '\n\t')},\n\t"files": [`
	);
	let first = true;
	for (const [hash, { name, mediaType }] of files) {
		yield encoder.encode(
			`${first ? '' : ','}\n\t\t${JSON.stringify({ name, mediaType, hash, data: await base64Of(media(hash)) })}`
		);
		first = false;
	}
	yield encoder.encode('\n\t]\n}\n');
}

/** Reads our own JSON. */
export const readJson: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const { text, report } = await readText(context.container, context.file);
	if (report) yield { type: 'report', report };
	const trouble = (message: string): ReadEvent => ({
		type: 'report',
		report: { rule: 'not-well-formed', severity: 'broken', message, place: { file: context.file, line: 1 } }
	});
	let value: { version?: unknown; questions?: unknown; quizzes?: unknown };
	try {
		value = JSON.parse(text) as typeof value;
	} catch (error) {
		yield trouble(
			`“${context.file}” is no well-formed JSON: ${(error as Error).message}. It may have been cut short; ask for it again.`
		);
		return;
	}
	if (typeof value.version === 'number' && value.version > ownVersion)
		yield trouble(
			`“${context.file}” is of version ${value.version} of the form, and ${ownVersion} is known here. What is new in it may be missing.`
		);
	const questions: unknown[] = Array.isArray(value.questions) ? (value.questions as unknown[]) : [];
	const lines = linesOfRecords(text, questions);
	const identifiers: string[] = [];
	for (const [at, one] of questions.entries())
		for (const event of takeQuestion(one, at + 1, lines[at]!, context, 'json')) {
			if (event.type === 'question') identifiers.push(event.question.identifier);
			yield event;
		}
	for (const one of Array.isArray(value.quizzes) ? (value.quizzes as unknown[]) : []) {
		const quiz = takeQuiz(one, identifiers, context);
		if (quiz) yield { type: 'quiz', quiz };
	}
};
