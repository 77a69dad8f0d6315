import { zipSync } from 'fflate';
import { memorySource, type Container } from '../container/container';
import { openContainer } from '../formats/open';
import type { ReadEvent } from '../formats/format';
import type { Recipe } from '../formats/recipe/recipe';
import { readPackage } from '../formats/package/read';
import { plainText } from '../markup/text';
import type { FoundQuiz } from '../model/quiz';
import type { Question } from '../kinds';
import type { Report } from '../reports/report';

/** Files of a package by their paths. */
export type Files = Record<string, string | Uint8Array>;

const bytesOf = (content: string | Uint8Array) =>
	typeof content === 'string' ? new TextEncoder().encode(content) : content;

/** A zip of files, packed or only put together. */
export function zipped(files: Files, packed = true): Uint8Array {
	return zipSync(Object.fromEntries(Object.entries(files).map(([path, content]) => [path, bytesOf(content)])), {
		level: packed ? 6 : 0
	});
}

/** A package of files, opened. */
export function opened(files: Files, packed = true): Promise<Container> {
	return openContainer('package.zip', memorySource(zipped(files, packed)));
}

/** What was found in a package. */
export interface Found {
	questions: Question[];
	quizzes: FoundQuiz[];
	reports: Report[];
	/** The reports by question, by its title. */
	about: Map<string, Report[]>;
	fragments: string[];
	events: ReadEvent[];
}

/** Reads a whole container. */
export async function readAll(container: Container, recipe?: Recipe): Promise<Found> {
	const found: Found = { questions: [], quizzes: [], reports: [], about: new Map(), fragments: [], events: [] };
	for await (const event of readPackage(container, undefined, 0, recipe)) {
		found.events.push(event);
		if (event.type === 'quiz') found.quizzes.push(event.quiz);
		if (event.type === 'report') found.reports.push(event.report);
		if (event.type === 'question') {
			found.questions.push(event.question);
			found.fragments.push(event.fragment);
			const { title, stem } = event.question;
			found.about.set(title || plainText(stem), event.reports);
		}
	}
	return found;
}

/** Reads one bare file. */
export async function readBare(name: string, content: string | Uint8Array): Promise<Found> {
	return readAll(await openContainer(name, memorySource(bytesOf(content))));
}
