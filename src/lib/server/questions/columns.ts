import { createHash } from 'node:crypto';
import { canonicalForm } from '$core/compare/canonical';
import { wordSet, type WordSet } from '$core/compare/near';
import { searchedWords } from '$core/compare/searched';
import { wordingOf } from '$core/compare/wording';
import { beginning, plainText } from '$core/markup/text';
import { visible } from '$core/markup/visible';
import type { Question } from '$core/kinds';
import type { Report } from '$core/reports/report';
import { isOrderBound, partCredits, shuffleOf } from '$core/take-in/adjust';

/** The columns that tell a question apart in a table, out of the question itself. */
export interface QuestionColumns {
	title: string;
	stemText: string;
	identifier: string;
	fingerprint: Buffer;
	wordHashes: Buffer;
	/** The words by which it is found (`searchedColumn`). */
	searchedWords: Buffer;
	partCredits: string;
	shuffle: boolean | null;
	tags: string;
	difficulty: string;
	language: string;
	hasFeedback: boolean;
	/** Its options name one another by letter or place, and are not shuffled. */
	orderBound: boolean;
	document: string;
}

/** How many bytes of words are kept with a question; where that is too little, all of them stand beside it too. */
const mostSearched = 1900;

/** Words as they are looked for: between spaces, behind a plus sign where not all of them have room. */
export function searchedColumn(words: readonly string[], most = mostSearched): Buffer {
	const all = Buffer.from(` ${words.join(' ')}`);
	if (all.length <= most) return all;
	const held = Buffer.concat([Buffer.from('+'), all]).subarray(0, most);
	return held.subarray(0, held.lastIndexOf(' '));
}

/** Works out those columns. */
export function columnsOf(question: Question): QuestionColumns {
	const stemText = plainText(question.stem);
	const words = wordSet(wordingOf(question));
	return {
		title: visible(question.title || beginning(stemText, 120)).slice(0, 500),
		stemText: stemText.slice(0, 16_000),
		identifier: question.identifier.slice(0, 190),
		fingerprint: createHash('sha256').update(canonicalForm(question)).digest(),
		wordHashes: Buffer.from(words.buffer, words.byteOffset, words.byteLength),
		searchedWords: searchedColumn(searchedWords(question)),
		partCredits: JSON.stringify(partCredits(question)),
		shuffle: shuffleOf(question),
		tags: JSON.stringify(question.tags),
		difficulty: (question.difficulty ?? '').slice(0, 60),
		language: (question.language ?? '').slice(0, 35),
		hasFeedback: Object.values(question.feedback).some(Boolean),
		orderBound: isOrderBound(question),
		document: JSON.stringify(question)
	};
}

/** The words of a question out of their column. */
export function wordsOfColumn(bytes: Buffer): WordSet {
	// a copy, for the bytes of a row need not stand at a multiple of four
	return new Uint32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

/** What is kept of a report at the most: letters of its message and of each of its words, and how many of these. */
const mostOfReport = { message: 4000, word: 300, words: 40, place: 1000 };
const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** A report as the columns rule, severity, message, words, place and line. */
export function reportColumns(report: Report): [string, string, string, string, string, number | null] {
	return [
		report.rule,
		report.severity,
		cut(report.message, mostOfReport.message),
		JSON.stringify((report.words ?? []).slice(0, mostOfReport.words).map((word) => cut(word, mostOfReport.word))),
		(report.place?.file ?? '').slice(0, mostOfReport.place),
		report.place?.line ?? null
	];
}

/**
 * The columns that a question, what is staged for it, and what it was before have alike. A new one is a migration of the
 * three tables and a name here; where it comes out of the document, `columnsOf` says how.
 */
const contentColumns = [
	'identifier',
	'kind',
	'title',
	'stem_text',
	'points',
	'tags',
	'shuffle',
	'difficulty',
	'language',
	'has_feedback',
	'machine',
	'document',
	'fingerprint',
	'word_hashes',
	'searched_words',
	'verified_by',
	'verified'
] as const;

type ContentColumn = (typeof contentColumns)[number];

/** Those columns as a list for SQL, each as it is or as `instead` has it: `q.title, q.points`. */
export function contentList(alias: string, instead: Partial<Record<ContentColumn, string>> = {}): string {
	return contentColumns.map((column) => instead[column] ?? `${alias}.${column}`).join(', ');
}

/** Those columns set from another table, for SQL: `q.title = v.title, q.points = v.points`. */
export function contentSet(to: string, from: string, instead: Partial<Record<ContentColumn, string>> = {}): string {
	return contentColumns.map((column) => `${to}.${column} = ${instead[column] ?? `${from}.${column}`}`).join(', ');
}

/** The names of those columns, for SQL. */
export const contentNames = contentColumns.join(', ');
