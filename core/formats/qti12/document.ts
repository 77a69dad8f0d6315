import { streamText } from '../../container/decode';
import type { Report } from '../../reports/report';
import { streamXml } from '../../xml/stream';
import type { XmlElement } from '../../xml/tree';
import type { DocumentContext, ReadEvent, ReadQuestion } from '../format';
import { noteIdentifier } from '../identifiers';
import { takeAround } from './around';
import { besideQuestions } from './beside';
import { readDamaged12 } from './damaged';
import { faultReport } from './faults';
import { categoryOfMetadata, readItem12 } from './item';
import { metadataOf } from './metadata';
import { noteMaterials, placeMaterials, type Materials } from './references';
import { Sections12 } from './sections';
import { readMixing, readSelection, scoringOf } from './selection';

/** What is read as a whole, since it is small; sections and assessments pass by. */
const whole = new Set([
	'item',
	'itemref',
	'selection_ordering',
	'qtimetadata',
	'objectives',
	'sectioncontrol',
	'itemcontrol',
	'rubric',
	'presentation_material',
	'outcomes_processing',
	'duration',
	'qticomment',
	'itemfeedback',
	'reference',
	'assessmentcontrol',
	'assessfeedback',
	'sectionfeedback'
]);

/** A question as it was read, with the categories that its own metadata says. */
type Said = Omit<ReadQuestion, 'type'> & { said: string[] };
/** A thing that was passed over, or read whole. */
type Collected = { element: XmlElement; fragment: string; endLine: number };

/** A QTI 1.2 document while it is read. */
export class Document12 {
	/** What decoding says; it is told with what is read next. */
	readonly #told: Report[] = [];
	readonly #materials: Materials = new Map();
	readonly #sections: Sections12;
	/** How many questions of this document were read. */
	#asked = 0;
	#encoding: Report | null = null;

	constructor(private readonly context: DocumentContext) {
		this.#sections = new Sections12(context);
	}

	/** What is in the document, in its order. */
	async *events(): AsyncGenerator<ReadEvent> {
		const { context } = this;
		const pieces = streamText(context.container, context.file, (report) => {
			if (report.rule === 'wrong-encoding') this.#encoding = report;
			this.#told.push(report);
		});
		for await (const event of streamXml(pieces, { collect: (name) => whole.has(name), resumeAt: 'item' })) {
			yield* this.#reports();
			if (event.type === 'open') this.#sections.open(event);
			else if (event.type === 'close') {
				const { report, quiz } = this.#sections.close();
				if (report) yield { type: 'report', report };
				if (quiz) yield { type: 'quiz', quiz };
			} else if (event.type !== 'fault') yield* this.#element(event);
			else if (event.fragment !== null && event.rule === 'not-well-formed')
				yield this.#placed(
					readDamaged12(
						{ ...event, fragment: event.fragment },
						{ category: this.#sections.titles(), materials: this.#materials, context }
					)
				);
			else yield { type: 'report', ...faultReport(event, context) };
		}
		yield* this.#reports();
	}

	*#reports(): Generator<ReadEvent> {
		for (const report of this.#told.splice(0)) yield { type: 'report', report };
	}

	/** Notes a question with the section and the banks that it stands in. */
	#placed({ said, ...read }: Said): ReadQuestion {
		this.#asked += 1;
		const reference = { identifier: read.question.identifier, file: this.context.file, place: this.#asked };
		this.context.banks.add(reference, this.#sections.banks());
		this.#sections.take(reference);
		const metadata = said.length ? said : this.context.category;
		const category = this.#sections.titles();
		return {
			type: 'question',
			...read,
			categories: {
				...(metadata.length ? { metadata } : {}),
				...(category.length ? { sections: category } : {})
			}
		};
	}

	*#element(collected: Collected): Generator<ReadEvent> {
		const { element } = collected;
		for (const report of this.#around(element)) yield { type: 'report', report };
		if (element.name === 'reference' || element.name === 'presentation_material')
			noteMaterials(element, this.#materials);
		if (element.name === 'selection_ordering') {
			const report = this.#selection(element);
			if (report) yield { type: 'report', report };
		} else if (element.name === 'itemref') {
			if (this.#sections.part()) this.#sections.take({ identifier: element.attributes.linkrefid ?? '', file: null });
		} else if (element.name === 'item') yield this.#item(collected);
	}

	/** Takes what stands around the questions of a quiz, and gives what of it has no place. */
	#around(element: XmlElement): Report[] {
		const { context } = this;
		const { quiz } = this.#sections;
		const holder = this.#sections.holdingQuiz();
		const around = holder && takeAround(element, holder);
		const beside = around?.isTaken ? null : besideQuestions(element, this.#sections.holder(), context);
		const scoring = element.name === 'outcomes_processing' && quiz ? scoringOf(element, quiz, context) : null;
		const unheld: Report | null =
			holder && around?.unheld
				? {
						rule: 'quiz-rules',
						severity: 'doubtful',
						message: `“${holder.title}” also says ${around.unheld}, which a quiz here does not hold. The questions are not touched by that; set it up by hand where it is needed.`,
						place: { file: context.file, line: element.line }
					}
				: null;
		return [beside, unheld, scoring].filter((report) => report !== null);
	}

	#selection(element: XmlElement): Report | null {
		const holder = this.#sections.holdingQuiz();
		if (holder) {
			this.#sections.mix(readMixing(element), element.line);
			return null;
		}
		const open = this.#sections.part();
		if (!open) return null;
		const { more, report } = readSelection(element, open.part, this.context);
		open.more.push(...more);
		return report;
	}

	#item({ element, fragment, endLine }: Collected): ReadQuestion {
		const { context } = this;
		const unknown = placeMaterials(element, this.#materials);
		const { question, reports } = readItem12(element, fragment, endLine, this.#sections.titles(), context);
		if (unknown.length)
			reports.push({
				rule: 'missing-material',
				severity: 'broken',
				message: `It shows material that stands elsewhere, under ${unknown.map((label) => `“${label}”`).join(', ')}, and that is not in the file. Ask for it, and put it in by hand.`,
				place: { file: context.file, line: element.line }
			});
		noteIdentifier(question, context, reports);
		if (this.#encoding && /[^\u0000-\u007f]/.test(fragment)) reports.push(this.#encoding); // eslint-disable-line no-control-regex
		return this.#placed({ question, fragment, reports, said: categoryOfMetadata(metadataOf(element)) });
	}
}
