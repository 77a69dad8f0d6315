import { checkBeside } from '../core/checks/one';
import { hashAttachments, type KnownFiles } from '../core/formats/hash';
import type { OtherFile, ReadEvent } from '../core/formats/format';
import type { Recipe } from '../core/formats/recipe/recipe';
import { readPackage } from '../core/formats/package/read';
import type { FoundQuiz } from '../core/model/quiz';
import type { Question } from '../core/kinds';
import type { Report } from '../core/reports/report';
import { codec } from '../src/lib/server/files/codec';
import { FileChecks } from './file-checks';
import { openFile } from './open';
import { called } from '../core/kinds/called';

/** A report with the question that it speaks of, or null for the file as a whole. */
export interface NamedReport extends Report {
	question: string | null;
	identifier: string | null;
	/** What else it speaks of: a category by its steps, a quiz by its title. */
	subject?: string;
}

/** Everything that was found in a file. */
export interface Reading {
	format: string | null;
	questions: Question[];
	quizzes: FoundQuiz[];
	/** The categories that the file lists, and those of its questions, in the order in which they come. */
	categories: string[][];
	reports: NamedReport[];
	/** What the file holds beside questions. */
	others: OtherFile[];
}

/** What is told while a file is read: each question with all that is said of it, and the rest as it comes. */
export interface Listener {
	question: (question: Question, reports: NamedReport[]) => void;
	/** What is said of the file, of its categories and quizzes, and of questions that were told before. */
	report: (report: NamedReport) => void;
	format?: (title: string) => void;
	quiz?: (quiz: FoundQuiz) => void;
	other?: (other: OtherFile) => void;
	category?: (path: string[]) => void;
}

/** Reads a file from disk, a question at a time, and checks each; none of them is held. All of the file counts as one bank. */
export async function readThrough(
	path: string,
	listener: Listener,
	recipe?: Recipe,
	on?: ReadonlySet<string>
): Promise<void> {
	const checking = new FileChecks();
	const files: KnownFiles = new Map();
	const { container, close } = await openFile(path);
	try {
		for await (const event of readPackage(container, codec, 0, recipe)) {
			if (event.type === 'question') await hashAttachments(event.question, container, null, files);
			tell(event, listener, checking, on);
		}
	} finally {
		await close();
	}
	for (const report of checking.findings()) listener.report(report);
}

function tell(event: ReadEvent, listener: Listener, checking: FileChecks, on?: ReadonlySet<string>): void {
	if (event.type === 'format') listener.format?.(event.title);
	else if (event.type === 'quiz') {
		checking.quiz(event.quiz);
		listener.quiz?.(event.quiz);
	} else if (event.type === 'category') {
		checking.category(event.path);
		listener.category?.(event.path);
	} else if (event.type === 'other') listener.other?.(event.other);
	else if (event.type === 'report') {
		// the check over quizzes says the same of all that cannot be filled
		if (event.report.rule !== 'draw-too-large')
			listener.report({ ...event.report, question: event.question ?? null, identifier: null });
	} else if (event.type === 'question') {
		const { question } = event;
		checking.add(question);
		const named = { question: called(question), identifier: question.identifier };
		const found = checkBeside(question, event.reports, { on });
		listener.question(
			question,
			[...event.reports, ...found].map((report) => ({ ...report, ...named }))
		);
	}
}

/** Reads a whole file from disk and checks its questions. */
export async function readFile(path: string, recipe?: Recipe): Promise<Reading> {
	const reading: Reading = { format: null, questions: [], quizzes: [], categories: [], reports: [], others: [] };
	const categories = new Map<string, string[]>();
	await readThrough(
		path,
		{
			question: (question, reports) => {
				reading.questions.push(question);
				if (question.category.length) categories.set(JSON.stringify(question.category), question.category);
				for (const report of reports) reading.reports.push(report);
			},
			report: (report) => reading.reports.push(report),
			format: (title) => (reading.format = title),
			quiz: (quiz) => reading.quizzes.push(quiz),
			other: (other) => reading.others.push(other),
			category: (path) => categories.set(JSON.stringify(path), path)
		},
		recipe
	);
	reading.categories = [...categories.values()];
	return reading;
}
