import { cleanOwn } from '../../kinds/clean-own';
import { bounds } from '../../model/bounds';
import { emptyCommon } from '../../model/question';
import type { Question } from '../../kinds';
import { faultOf } from '../../model/fault';
import { missingFields, parseQuestion } from '../../kinds/schema';
import { listed } from '../fit/words';
import type { DocumentContext, FormatName, ReadEvent, ReadQuestion } from '../format';

/** A question out of our own forms: its shape is checked, and its rich text cleaned, for anybody may have written it. */
export function* takeQuestion(
	value: unknown,
	number: number,
	line: number,
	context: DocumentContext,
	format: FormatName
): Generator<ReadEvent> {
	let question: Question;
	try {
		question = parseQuestion(value);
	} catch (error) {
		const title = (value as { title?: unknown } | null)?.title;
		const fragment = JSON.stringify(value ?? null);
		const missing = typeof value === 'object' && value ? missingFields(value as Record<string, unknown>) : [];
		const fault =
			missing.length > 1 ? `${listed(missing.map((name) => `“${name}”`))} are missing` : faultOf(error, value);
		const reason = `Question ${number} is not of the form: ${fault}.`;
		yield {
			type: 'question',
			question: {
				...emptyCommon('', typeof title === 'string' ? title : ''),
				source: { format, file: context.file, line, endLine: line, identifier: '' },
				kind: 'unreadable',
				reason,
				fragment
			},
			fragment,
			reports: []
		};
		return;
	}
	const cleaned = cleanOwn(question);
	const held: Question = {
		...cleaned,
		// what is known of a file is what is found here
		attachments: cleaned.attachments.map(({ name, mediaType }) => ({
			name,
			mediaType,
			hash: null,
			missing: !context.container.has(name)
		})),
		source: {
			format,
			file: context.file,
			line,
			endLine: line,
			identifier: question.source?.identifier ?? question.identifier
		}
	};
	yield { type: 'question', question: held, fragment: JSON.stringify(value, null, '\t'), reports: [] };
}

/** A question of ours whose text is not of its notation, kept as it came; `number` is its place in the file, from 1. */
export function keptDamaged(
	text: string,
	number: number,
	{ line, message }: { line: number; message: string },
	context: DocumentContext
): ReadQuestion {
	const said = (name: string) => new RegExp(`"${name}"\\s*:\\s*"((?:[^"\\\\\\n]|\\\\.)+)"`).exec(text)?.[1] ?? '';
	const identifier = said('identifier');
	const question: Question = {
		...emptyCommon(identifier, said('title')),
		source: {
			format: context.format,
			file: context.file,
			line,
			endLine: line + text.split('\n').length - 1,
			identifier
		},
		kind: 'unreadable',
		reason: `Question ${number} of “${context.file}”, in line ${line}, is damaged: ${message.replace(/\.$/, '')}.`,
		fragment: text
	};
	return { type: 'question', question, fragment: text, reports: [] };
}

const isText = (value: unknown): value is string => typeof value === 'string';

/** The questions of a file of ours that could be read, by the number that each has in the file. */
export class TakenQuestions {
	readonly #byNumber: ({ identifier: string; place: number } | undefined)[] = [];
	/** How many there are. */
	count = 0;

	/** Notes the question of a number, from 1. */
	add(number: number, identifier: string): void {
		this.count += 1;
		this.#byNumber[number] = { identifier, place: this.count };
	}

	/** The question of a number with its place among those that were read, or null where it could not be read. */
	find(number: unknown): { identifier: string; place: number } | null {
		return this.#byNumber[Number(number)] ?? null;
	}
}

/**
 * A category out of the list of our own forms: its steps from the top, or an object with them as `path`; null where it is
 * none.
 */
export function takeCategory(value: unknown): ReadEvent | null {
	const listed = Array.isArray(value) ? (value as unknown[]) : (value as { path?: unknown } | null)?.path;
	if (!Array.isArray(listed) || listed.length > bounds.depth) return null;
	const path = listed.filter(isText).map((step) => step.trim());
	return path.length && path.length === listed.length && path.every(Boolean) ? { type: 'category', path } : null;
}
