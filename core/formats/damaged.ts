import { emptyCommon } from '../model/question';
import type { Question } from '../kinds';
import { attributeIn } from '../xml/repair';
import type { DocumentContext, ReadQuestion } from './format';
import { noteIdentifier } from './identifiers';

/** What is wrong with the source of a question, and where it stands: lines of its file. */
export interface DamagedSource {
	line: number;
	message: string;
	from: number;
	to: number;
	fragment: string;
}

/**
 * A question whose source is not well-formed, kept as it came. It is called, and filed, as can be made out: by `mended`,
 * which is what was read of it once its markup was put right, or else by the attributes that the format uses for that.
 */
export function damagedQuestion(
	source: DamagedSource,
	mended: Question | null,
	context: DocumentContext,
	attributes: { identifier: string }
): ReadQuestion {
	const { fragment, line } = source;
	const identifier = mended?.identifier ?? attributeIn(fragment, attributes.identifier);
	const { category } = context;
	const common = { ...emptyCommon(identifier, attributeIn(fragment, 'title')), category, tags: [...context.keywords] };
	const known = mended && {
		title: mended.title,
		stem: mended.stem,
		points: mended.points,
		category: mended.category,
		tags: mended.tags,
		language: mended.language,
		attachments: mended.attachments,
		metadata: mended.metadata,
		...(mended.difficulty === undefined ? {} : { difficulty: mended.difficulty }),
		...(mended.stimulus === undefined ? {} : { stimulus: mended.stimulus })
	};
	const question: Question = {
		...common,
		...known,
		source: { format: context.format, file: context.file, line: source.from, endLine: source.to, identifier },
		kind: 'unreadable',
		reason: `Its markup is not well-formed, in line ${line} of “${context.file}”: ${source.message.replace(/\.$/, '')}.`,
		fragment,
		faultLine: line
	};
	const reports: ReadQuestion['reports'] = [];
	noteIdentifier(question, context, reports);
	return { type: 'question', question, fragment, reports };
}
