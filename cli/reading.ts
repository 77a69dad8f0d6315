import { checkQuestion } from '../core/checks';
import { canonicalForm } from '../core/compare/canonical';
import type { OtherFile, ReadEvent } from '../core/formats/format';
import type { Recipe } from '../core/formats/recipe/recipe';
import { readPackage } from '../core/formats/package/read';
import type { FoundQuiz } from '../core/model/quiz';
import type { Question } from '../core/model/question';
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

/** Reads a whole file from disk and checks its questions. */
export async function readFile(path: string, recipe?: Recipe): Promise<Reading> {
	const reading: Reading = { format: null, questions: [], quizzes: [], reports: [], others: [] };
	const seen = new Map<string, string>();
	const { container, close } = await openFile(path);
	try {
		for await (const event of readPackage(container, codec, 0, recipe)) take(event, reading, seen);
	} finally {
		await close();
	}
	return reading;
}

function take(event: ReadEvent, reading: Reading, seen: Map<string, string>): void {
	if (event.type === 'format') reading.format = event.title;
	else if (event.type === 'quiz') reading.quizzes.push(event.quiz);
	else if (event.type === 'other') reading.others.push(event.other);
	else if (event.type === 'report')
		reading.reports.push({ ...event.report, question: event.question ?? null, identifier: null });
	else if (event.type === 'question') {
		const { question } = event;
		const form = canonicalForm(question);
		const named = { question: nameOf(question), identifier: question.identifier };
		const found = checkQuestion(question, { duplicateOf: () => seen.get(form) ?? null });
		for (const report of [...event.reports, ...found]) reading.reports.push({ ...report, ...named });
		if (!seen.has(form)) seen.set(form, `“${named.question}”`);
		reading.questions.push(question);
	}
}
