import { createHash } from 'node:crypto';
import { checkBeside } from '../core/checks';
import { canonicalForm } from '../core/compare/canonical';
import type { OtherFile, ReadEvent } from '../core/formats/format';
import type { Recipe } from '../core/formats/recipe/recipe';
import { readPackage } from '../core/formats/package/read';
import type { FoundQuiz } from '../core/model/quiz';
import type { Question } from '../core/kinds';
import type { Report } from '../core/reports/report';
import { codec } from './codec';
import { openFile } from './open';
import { nameOf } from './plain';

/** A report with the question that it speaks of, or null for the file as a whole. */
export interface NamedReport extends Report {
	question: string | null;
	identifier: string | null;
}

/** Everything that was found in a file. */
export interface Reading {
	format: string | null;
	questions: Question[];
	quizzes: FoundQuiz[];
	reports: NamedReport[];
	/** What the file holds beside questions. */
	others: OtherFile[];
}

/** What is told while a file is read: each question with all that is said of it, and the rest as it comes. */
export interface Listener {
	question: (question: Question, reports: NamedReport[]) => void;
	report: (report: NamedReport) => void;
	format?: (title: string) => void;
	quiz?: (quiz: FoundQuiz) => void;
	other?: (other: OtherFile) => void;
}

/** Reads a file from disk, a question at a time, and checks each; none of them is held. */
export async function readThrough(path: string, listener: Listener, recipe?: Recipe): Promise<void> {
	const seen = new Map<string, string>();
	const { container, close } = await openFile(path);
	try {
		for await (const event of readPackage(container, codec, 0, recipe)) tell(event, listener, seen);
	} finally {
		await close();
	}
}

function tell(event: ReadEvent, listener: Listener, seen: Map<string, string>): void {
	if (event.type === 'format') listener.format?.(event.title);
	else if (event.type === 'quiz') listener.quiz?.(event.quiz);
	else if (event.type === 'other') listener.other?.(event.other);
	else if (event.type === 'report')
		listener.report({ ...event.report, question: event.question ?? null, identifier: null });
	else if (event.type === 'question') {
		const { question } = event;
		const form = createHash('sha256').update(canonicalForm(question)).digest('base64');
		const named = { question: nameOf(question), identifier: question.identifier };
		const found = checkBeside(question, event.reports, { duplicateOf: () => seen.get(form) ?? null });
		if (!seen.has(form)) seen.set(form, `“${named.question}”`);
		listener.question(
			question,
			[...event.reports, ...found].map((report) => ({ ...report, ...named }))
		);
	}
}

/** Reads a whole file from disk and checks its questions. */
export async function readFile(path: string, recipe?: Recipe): Promise<Reading> {
	const reading: Reading = { format: null, questions: [], quizzes: [], reports: [], others: [] };
	await readThrough(
		path,
		{
			question: (question, reports) => {
				reading.questions.push(question);
				for (const report of reports) reading.reports.push(report);
			},
			report: (report) => reading.reports.push(report),
			format: (title) => (reading.format = title),
			quiz: (quiz) => reading.quizzes.push(quiz),
			other: (other) => reading.others.push(other)
		},
		recipe
	);
	return reading;
}
