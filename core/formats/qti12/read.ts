import type { ReaderRule } from '../../reports/rules';
import { lookup } from '../../model/lookup';
import type { FoundPart, FoundQuiz } from '../../model/quiz';
import { streamText } from '../../container/decode';
import { beginning, plainText } from '../../markup/text';
import type { Report } from '../../reports/report';
import { repairXml } from '../../xml/repair';
import { parseXml, streamXml } from '../../xml/stream';
import { descendants, trimmed, type XmlElement } from '../../xml/tree';
import type { Question } from '../../kinds';
import { damagedQuestion, type DamagedSource } from '../damaged';
import type { DocumentContext, DocumentReader, ReadEvent, ReadQuestion } from '../format';
import { noteIdentifier } from '../identifiers';
import { categoryOfMetadata, readItem12 } from './item';
import { joinBlocks, materialBelow } from './material';
import { metadataOf } from './metadata';
import { noteMaterials, placeMaterials, type Materials } from './references';
import { takeAround } from './around';
import { drawsSections, readMixing, readSelection, scoringOf } from './selection';

const mostWords = 300;
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

const quiet = { media: (address: string) => address, removed: () => undefined };
const saidOf = lookup<string>({
	presentation_material: 'begins with words of its own',
	rubric: 'has instructions of its own',
	assessfeedback: 'has feedback on the whole',
	sectionfeedback: 'has feedback on the whole',
	duration: 'has a time limit'
});

/** What stands in a section or an assessment itself, beside its questions, and has no place in a bank. */
function besideQuestions(node: XmlElement, holder: string, context: DocumentContext): Report | null {
	const said = saidOf[node.name];
	if (!said) return null;
	const words = beginning(plainText(joinBlocks(materialBelow(node, quiet))) || trimmed(node), mostWords);
	if (!words) return null;
	return {
		rule: 'words-of-section',
		severity: 'doubtful',
		message: `“${holder || context.file}” ${said}, which is not part of any question: “${words}”. It was not taken along; where students need it, put it into the stems.`,
		place: { file: context.file, line: node.line }
	};
}

interface Section {
	name: string;
	ident: string;
	title: string;
	part: FoundPart | null;
	/** Parts that the section draws from further banks. */
	more: FoundPart[];
	line: number;
}

function faultReport(
	event: { rule: ReaderRule; line: number; message: string; inside: XmlElement | null },
	context: DocumentContext
): { report: Report; question?: string } {
	const name = event.inside?.attributes.title || event.inside?.attributes.ident;
	const where = `“${context.file}”, line ${event.line}`;
	const place = { file: context.file, line: event.line };
	if (event.rule === 'bad-entity')
		return {
			report: { rule: event.rule, severity: 'untidy', message: `${where}: ${event.message}.`, place },
			...(name ? { question: name } : {})
		};
	if (event.rule === 'external-entity' || event.rule === 'entity-expansion')
		return {
			report: {
				rule: event.rule,
				severity: 'broken',
				message: `“${context.file}” was refused: ${event.message}. Nothing was fetched. Ask for a file without a document type.`,
				place
			}
		};
	const lost = name
		? `The question “${name}” is not whole and was not read; those before it were`
		: 'What stands between the questions there was passed over; the questions before it and after it were read';
	return {
		report: {
			rule: event.rule,
			severity: 'broken',
			message: `${where}: ${event.rule === 'cut-off' ? 'the file ends in the middle' : event.message}. ${lost}. Mend the file there, or ask for it again.`,
			place
		},
		...(name ? { question: name } : {})
	};
}

const titlesOf = (sections: Section[]) =>
	sections.filter((section) => section.name === 'section' && section.title).map((section) => section.title);

/** Reads as much as can be made out of an item that is not well-formed; it is kept as it came. */
function readDamaged12(
	source: DamagedSource,
	{ sections, materials, context }: { sections: Section[]; materials: Materials; context: DocumentContext }
): Omit<ReadQuestion, 'type'> & { said: string[] } {
	const { root } = parseXml(repairXml(source.fragment));
	const category = titlesOf(sections);
	let mended: Question | null = null;
	if (root?.name === 'item') {
		placeMaterials(root, materials);
		mended = readItem12(root, source.fragment, source.to, category, context).question;
	}
	const around = category.length ? { ...context, category } : context;
	const { type: _, ...read } = damagedQuestion(source, mended, around, { identifier: 'ident' });
	return { ...read, said: root ? categoryOfMetadata(metadataOf(root)) : [] };
}

/** Reads an item anew that was kept since it is not well-formed, with that put right; null where it is still no item. */
export function readItem12Again(fragment: string, context: DocumentContext): ReadQuestion | null {
	const { root } = parseXml(repairXml(fragment));
	// what it shows from elsewhere in the file cannot be had any more
	if (root?.name !== 'item' || descendants(root, 'matref', 'material_ref').length) return null;
	return { type: 'question', fragment, ...readItem12(root, fragment, 0, context.category, context) };
}

/** Reads a QTI 1.2 document, one item at a time, with its sections as categories and its assessments as quizzes. */
export const readQti12: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const told: Report[] = [];
	const sections: Section[] = [];
	const materials: Materials = new Map();
	let quiz: FoundQuiz | null = null;
	/** How many questions of this document were read. */
	let asked = 0;
	let encoding: Report | null = null;
	/** Notes a question with the section and the banks that it stands in. */
	const place12 = ({ said, ...read }: Omit<ReadQuestion, 'type'> & { said: string[] }): ReadQuestion => {
		asked += 1;
		const reference = { identifier: read.question.identifier, file: context.file, place: asked };
		const bank = sections.findLast((section) => section.name === 'objectbank' || section.name === 'section');
		const inBanks = sections.filter((one) => one.ident && (one.name === 'objectbank' || one === bank));
		context.banks.add(
			reference,
			inBanks.map((one) => one.ident)
		);
		sections.findLast((one) => one.part)?.part?.questions.push(reference);
		const metadata = said.length ? said : context.category;
		const category = titlesOf(sections);
		return {
			type: 'question',
			...read,
			categories: {
				...(metadata.length ? { metadata } : {}),
				...(category.length ? { sections: category } : {})
			}
		};
	};
	const pieces = streamText(context.container, context.file, (report) => {
		if (report.rule === 'wrong-encoding') encoding = report;
		told.push(report);
	});
	for await (const event of streamXml(pieces, { collect: (name) => whole.has(name), resumeAt: 'item' })) {
		for (const report of told.splice(0)) yield { type: 'report', report };
		if (event.type === 'fault') {
			if (event.fragment !== null && event.rule === 'not-well-formed')
				yield place12(readDamaged12({ ...event, fragment: event.fragment }, { sections, materials, context }));
			else yield { type: 'report', ...faultReport(event, context) };
			continue;
		}
		if (event.type === 'open') {
			const title = (event.attributes.title ?? '').trim();
			if (event.name === 'assessment')
				quiz = {
					identifier: event.attributes.ident ?? '',
					title: title || context.file,
					parts: [],
					source: { file: context.file, line: event.line }
				};
			const path = [
				...sections.filter((section) => section.name === 'section' && section.title).map((section) => section.title),
				title
			].filter(Boolean);
			const part: FoundPart | null =
				quiz && event.name === 'section'
					? { title: title || quiz.title, path, bank: null, questions: [], draw: null, pointsEach: null, shuffle: null }
					: null;
			sections.push({
				name: event.name,
				ident: event.attributes.ident ?? '',
				title: /^root.?section$/i.test(title) ? '' : title,
				part,
				more: [],
				line: event.line
			});
			continue;
		}
		if (event.type === 'close') {
			const closed = sections.pop();
			if (closed?.part) {
				const { part, more } = closed;
				const holds = [part, ...more].filter((one) => one.questions.length || one.bank);
				if (!holds.length && part.draw !== null)
					yield { type: 'report', report: drawsSections(part, { file: context.file, line: closed.line }) };
				quiz!.parts.push(...holds);
			}
			if (event.name === 'assessment' && quiz) {
				if (quiz.parts.length) yield { type: 'quiz', quiz };
				quiz = null;
			}
			continue;
		}
		const { element } = event;
		const section = sections.findLast((one) => one.part) ?? null;
		const part = section?.part ?? null;
		const holder = quiz && sections.at(-1)?.name === 'assessment' ? quiz : null;
		const around = holder && takeAround(element, holder);
		const beside = around?.isTaken
			? null
			: besideQuestions(element, sections.at(-1)?.title || quiz?.title || '', context);
		if (beside) yield { type: 'report', report: beside };
		if (holder && around?.unheld)
			yield {
				type: 'report',
				report: {
					rule: 'quiz-rules',
					severity: 'doubtful',
					message: `“${holder.title}” also says ${around.unheld}, which a quiz here does not hold. The questions are not touched by that; set it up by hand where it is needed.`,
					place: { file: context.file, line: element.line }
				}
			};
		if (element.name === 'reference' || element.name === 'presentation_material') noteMaterials(element, materials);
		const scoring = element.name === 'outcomes_processing' && quiz ? scoringOf(element, quiz, context) : null;
		if (scoring) yield { type: 'report', report: scoring };
		if (holder && element.name === 'selection_ordering') {
			const { partsShuffled, report } = readMixing(element, holder, context);
			if (partsShuffled) holder.rules = { never: [], together: [], partsShuffled, fixedOptions: [] };
			if (report) yield { type: 'report', report };
		} else if (element.name === 'selection_ordering' && part) {
			const { more, report } = readSelection(element, part, context);
			section!.more.push(...more);
			if (report) yield { type: 'report', report };
		} else if (element.name === 'itemref' && part)
			part.questions.push({ identifier: element.attributes.linkrefid ?? '', file: null });
		else if (element.name === 'item') {
			const unknown = placeMaterials(element, materials);
			const { question, reports } = readItem12(element, event.fragment, event.endLine, titlesOf(sections), context);
			if (unknown.length)
				reports.push({
					rule: 'missing-material',
					severity: 'broken',
					message: `It shows material that stands elsewhere, under ${unknown.map((label) => `“${label}”`).join(', ')}, and that is not in the file. Ask for it, and put it in by hand.`,
					place: { file: context.file, line: element.line }
				});
			noteIdentifier(question, context, reports);
			if (encoding && /[^\u0000-\u007f]/.test(event.fragment)) reports.push(encoding); // eslint-disable-line no-control-regex
			const said = categoryOfMetadata(metadataOf(element));
			yield place12({ question, fragment: event.fragment, reports, said });
		}
	}
	for (const report of told.splice(0)) yield { type: 'report', report };
};
