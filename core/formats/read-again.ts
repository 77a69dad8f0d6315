import { resolvePath, type Container } from '../container/container';
import { FileList } from '../container/file-list';
import type { Attachment } from '../model/question';
import type { Question, UnreadableQuestion } from '../kinds';
import { Banks } from './banks';
import type { DocumentContext, FormatName, ReadQuestion } from './format';
import { SeenIdentifiers } from './identifiers';
import { readOwnAgain } from './own/xml';
import { readItem12Again } from './qti12/damaged';
import { readItemAgain } from './qti2/item';

/** A package as far as a question knows it: the files that it uses. None of them can be read. */
function containerOf(attachments: Attachment[]): Container {
	const files = FileList.of(attachments.filter((one) => !one.missing).map(({ name }) => ({ path: name, size: 0 })));
	return {
		packaged: true,
		files,
		has: (path) => files.number(path) >= 0,
		size: () => 0,
		find: (path) => files.find(path),
		stream: async function* () {},
		bytes: async () => new Uint8Array(),
		reports: []
	};
}

type Again = (question: UnreadableQuestion, context: DocumentContext) => ReadQuestion | null;

/**
 * The readers of single questions that may be kept since they are not well-formed, each with its format, by the name of
 * the element that is the question: one of our own files may bring a question that came from elsewhere.
 */
const readers = new Map<string, { format: FormatName; again: Again }>([
	['item', { format: 'qti12', again: ({ fragment }, context) => readItem12Again(fragment, context) }],
	[
		'assessmentItem',
		{ format: 'qti21', again: ({ fragment, stimulus }, context) => readItemAgain(fragment, context, stimulus) }
	],
	[
		'qti-assessment-item',
		{ format: 'qti30', again: ({ fragment, stimulus }, context) => readItemAgain(fragment, context, stimulus) }
	],
	['question', { format: 'xml', again: ({ fragment }, context) => readOwnAgain(fragment, context) }]
]);

/** The name of the first element of a source, without its prefix. */
const rootOf = (fragment: string) => /<(?:[A-Za-z_][\w.-]*:)?([A-Za-z_][\w.-]*)/.exec(fragment)?.[1] ?? '';

/**
 * Reads a question anew that was kept since its markup is not well-formed, with that put right: every word is kept, and
 * so are its place, its category, its tags and its files. Null where it cannot be read even so.
 */
export function readAgain(question: UnreadableQuestion): Question | null {
	const { source, attachments, category, tags } = question;
	const read = readers.get(rootOf(question.fragment));
	if (!source || !read) return null;
	const found = read.again(question, {
		container: containerOf(attachments),
		file: source.file,
		format: /^(?:qti|cc)/.test(source.format) ? (source.format as FormatName) : read.format,
		resolve: (address) => resolvePath(source.file, address),
		category,
		keywords: [],
		difficulty: question.difficulty ?? null,
		banks: new Banks(),
		identifiers: new SeenIdentifiers()
	});
	if (!found || found.question.kind === 'unreadable') return null;
	const stored = new Map(attachments.map((one) => [one.name, one]));
	return {
		...found.question,
		category,
		tags: [...new Set([...tags, ...found.question.tags])],
		source,
		attachments: found.question.attachments.map((one) => stored.get(one.name) ?? one)
	};
}
