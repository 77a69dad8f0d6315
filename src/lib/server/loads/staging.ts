import { createHash } from 'node:crypto';
import { canonicalForm } from '../../../../core/compare/canonical';
import { wordingOf, wordSet, type WordSet } from '../../../../core/compare/near';
import { beginning, plainText } from '../../../../core/markup/text';
import { visible } from '../../../../core/markup/visible';
import type { Question } from '../../../../core/model/question';
import type { Report } from '../../../../core/reports/report';
import { isOrderBound, partCredits, shuffleOf } from '../../../../core/take-in/adjust';

/** The columns that tell a question apart in a table, out of the question itself. */
export interface QuestionColumns {
	title: string;
	stemText: string;
	identifier: string;
	fingerprint: Buffer;
	wordHashes: Buffer;
	partCredits: string;
	shuffle: boolean | null;
	tags: string;
	/** Its options name one another by letter or place, and are not shuffled. */
	orderBound: boolean;
	document: string;
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
		partCredits: JSON.stringify(partCredits(question)),
		shuffle: shuffleOf(question),
		tags: JSON.stringify(question.tags),
		orderBound: isOrderBound(question),
		document: JSON.stringify(question)
	};
}

/** The words of a question out of their column. */
export function wordsOfColumn(bytes: Buffer): WordSet {
	// a copy, for the bytes of a row need not stand at a multiple of four
	return new Uint32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

/** A report as the columns rule, severity, message, words, place and line. */
export function reportColumns(report: Report): [string, string, string, string, string, number | null] {
	return [
		report.rule,
		report.severity,
		report.message,
		JSON.stringify(report.words ?? []),
		report.place?.file ?? '',
		report.place?.line ?? null
	];
}
