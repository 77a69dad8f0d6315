import { streamText } from '../../container/decode';
import { bounds, keptOfSource } from '../../model/bounds';
import type { Report } from '../../reports/report';
import { MediaFiles } from '../package/files';
import type { DocumentReader, ReadEvent, ToWrite } from '../format';
import { ownName, ownQuiz, ownVersion, withOwnNames } from './form';
import { membersOf } from './members';
import { keptDamaged, takeCategory, TakenQuestions, takeQuestion } from './take';
import { takeQuiz } from './take-quiz';
import { base64Of } from './base64';

const encoder = new TextEncoder();

/** Whether a text begins like our own JSON. */
export const isOwnJson = (start: string) => new RegExp(`^\\s*\\{\\s*"format"\\s*:\\s*"${ownName}"`).test(start);

/** Writes our own JSON: all questions of one file, with their pictures in base 64. The form is in docs/formats.md. */
export async function* writeJson(
	{ title, count, question: ask, quizzes, categories = [], media }: ToWrite,
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
		`\n\t],\n\t"categories": ${JSON.stringify(categories)},\n\t"quizzes": ${JSON.stringify(quizzes.map(ownQuiz), null, '\t').replace(/\n/g, '\n\t')},\n\t"files": [`
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

/** What a damaged entry is about, as far as can be told. */
const nameIn = (text: string) => {
	const title = /"title"\s*:\s*"((?:[^"\\\n]|\\.)+)"/.exec(text)?.[1];
	return title === undefined ? '' : `, “${title}”,`;
};

/** How much of what stands under a key is read here. */
const wanted = (key: string) => (['questions', 'quizzes', 'categories'].includes(key) ? bounds.source : keptOfSource);

/** Reads our own JSON, one question at a time. */
export const readJson: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const told: Report[] = [];
	const trouble = (message: string, line: number): ReadEvent => ({
		type: 'report',
		report: { rule: 'not-well-formed', severity: 'broken', message, place: { file: context.file, line } }
	});
	const taken = new TakenQuestions();
	const quizzes: unknown[] = [];
	let number = 0;
	const pieces = streamText(context.container, context.file, (report) => told.push(report));
	const kept = (text: string, line: number, message: string): ReadEvent => {
		const read = keptDamaged(text, number, { line, message }, { ...context, format: 'json' });
		taken.add(number, read.question.identifier);
		return read;
	};
	/** A damaged question, until something that follows it shows that the file does not just end there. */
	let cut: { text: string; line: number } | null = null;
	for await (const { key, text, length, line, entry, damaged } of membersOf(pieces, wanted)) {
		for (const report of told.splice(0)) yield { type: 'report', report };
		if (cut && damaged && !entry) continue;
		if (cut) yield kept(cut.text, cut.line, 'it does not end as it should');
		cut = null;
		const asked = entry && key === 'questions';
		if (asked) number += 1;
		let value: unknown = null;
		if (!damaged && !(asked && length > bounds.source) && (asked || ['quizzes', 'categories', 'version'].includes(key)))
			try {
				value = JSON.parse(text);
			} catch (error) {
				const { message } = error as Error;
				yield asked
					? kept(text, line, message)
					: trouble(
							`“${context.file}”, line ${line}: ${message}. What stands under “${key}” cannot be read. Mend it there, or ask for the file again.`,
							line
						);
				continue;
			}
		if (asked && length > bounds.source)
			yield kept(
				text.slice(0, keptOfSource),
				line,
				`it is longer than ${Math.round(bounds.source / 2 ** 20)} MB, which is the most for one question`
			);
		else if (damaged && asked) cut = { text, line };
		else if (damaged)
			yield trouble(
				`“${context.file}” is damaged or ends in the middle at line ${line}. What came before it was read. Mend it there, or ask for the file again.`,
				line
			);
		else if (asked)
			for (const event of takeQuestion(value, number, line, context, 'json')) {
				if (event.type === 'question') taken.add(number, event.question.identifier);
				yield event;
			}
		else if (key === 'quizzes') quizzes.push(value);
		else if (key === 'categories') {
			const category = takeCategory(value);
			if (category) yield category;
		} else if (key === 'version' && typeof value === 'number' && value > ownVersion)
			yield trouble(
				`“${context.file}” is of version ${value} of the form, and ${ownVersion} is known here. What is new in it may be missing.`,
				line
			);
	}
	if (cut)
		yield trouble(
			`“${context.file}” is damaged or ends in the middle at line ${cut.line}. Question ${number}${nameIn(cut.text)} is not whole and was not read; those before it were. Mend it there, or ask for the file again.`,
			cut.line
		);
	for (const quiz of quizzes) {
		yield* takeQuiz(quiz, taken, context);
	}
};
