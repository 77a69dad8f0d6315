import { plainText } from '../../markup/text';
import { withCommon, emptyCommon, type QuestionCommon } from '../../model/question';
import type { Question } from '../../kinds';
import type { Report } from '../../reports/report';
import { childOf, childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import type { DocumentContext } from '../format';
import { attach, cleaningFor } from '../media';
import { reshapedReport } from '../reshaped';
import { parseNumber } from '../../numbers/numbers';
import { partBoxes } from './boxes';
import { readChoice12 } from './choice';
import { placeFeedback } from './feedback';
import { isOfOptions, joinBlocks, materialBelow } from './material';
import { metadataOf } from './metadata';
import { partPlaces } from './places';
import { readGroup12, readOrder12, readPoints12 } from './order';
import { UnknownCondition } from './process';
import {
	cardinalityOf,
	namedInVain,
	responseNames,
	saysBlanks,
	Unheld,
	type ReadItem,
	type Reading12
} from './reading';
import { readSeveral12 } from './several';
import { isOpen, readText12 } from './text';
import { keptOfSource } from '../../model/bounds';
import { tooManyParts } from '../too-many';

const ownMetadata = new Set([
	'qmd_maximumscore',
	'qmd_weighting',
	'cc_weighting',
	'cc_question_category',
	'cc_profile',
	'qmd_computerscored',
	'qmd_keywords',
	'qmd_levelofdifficulty'
]);

/** The category that the metadata of an item says (Common Cartridge 1.3, question bank profile), in its steps. */
export function categoryOfMetadata(metadata: Map<string, string>): string[] {
	return (metadata.get('cc_question_category') ?? '').split(/\s*\/\s*/).filter(Boolean);
}

function pointsOf(
	metadata: Map<string, string>,
	processing: XmlElement | undefined,
	cartridge: boolean
): { points: number | null; full: number | null } {
	const variables = processing ? descendants(processing, 'decvar') : [];
	const most = parseNumber(
		variables.find((node) => (node.attributes.varname ?? 'SCORE').toUpperCase() === 'SCORE')?.attributes.maxvalue ??
			variables[0]?.attributes.maxvalue ??
			''
	);
	const given = parseNumber(metadata.get('qmd_maximumscore') ?? '');
	const weight = parseNumber(metadata.get('cc_weighting') ?? metadata.get('qmd_weighting') ?? '');
	const full = most !== null && most > 0 ? most : null;
	if (given !== null && given >= 0) return { points: given, full };
	// on the scale of a hundred the score is a share, and the weight alone says the points
	if (weight !== null && weight > 0) return { points: full === null || full === 100 ? weight : weight * full, full };
	return { points: full === 100 && cartridge ? 1 : full, full };
}

function unreadable(common: QuestionCommon, fragment: string, reason: string): ReadItem {
	return {
		question: withCommon(common, { kind: 'unreadable', reason, fragment }),
		reports: []
	};
}

/** Takes what an item says beside its presentation: comments and the like, and rubrics, of which those for students stand in front of the stem. */
function takeBeside(item: XmlElement, common: QuestionCommon, cleaning: ReturnType<typeof cleaningFor>): void {
	for (const name of ['qticomment', 'duration', 'objectives'])
		for (const node of childrenOf(item, name)) {
			const value = plainText(joinBlocks(materialBelow(node, cleaning))) || trimmed(node);
			if (value) common.metadata.push({ name, value });
		}
	for (const rubric of [...childrenOf(item, 'rubric'), ...childrenOf(item, 'itemrubric')]) {
		const view = rubric.attributes.view ?? 'All';
		const text = joinBlocks(materialBelow(rubric, cleaning));
		if (!text) continue;
		if (/^(All|Candidate)$/i.test(view)) common.stem = joinBlocks([text, common.stem]);
		else common.metadata.push({ name: `rubric for ${view.toLowerCase()}`, value: plainText(text) });
	}
}

/** An item that asks for nothing that can be answered. */
function withoutResponses(
	item: XmlElement,
	common: QuestionCommon,
	cleaning: ReturnType<typeof cleaningFor>,
	metadata: Map<string, string>,
	place: Report['place']
): ReadItem {
	const reports: Report[] = [];
	const { points } = common;
	placeFeedback(item, common, [], cleaning);
	if (/^no$/i.test(metadata.get('qmd_computerscored') ?? '') || (points ?? 0) > 0)
		reports.push({
			rule: 'needs-person',
			severity: 'doubtful',
			message: `It ${points ? `carries ${points} points` : 'is to be marked by a person'} and asks for nothing that can be answered here. It was read as information; set it up again as an essay if an answer is wanted.`,
			place
		});
	return { question: withCommon(common, { kind: 'information' }), reports };
}

/** Reads one item (QTI 1.2 ASI information model, 3.3): kind from structure, marks by trying its response processing. */
export function readItem12(
	given: XmlElement,
	fragment: string,
	endLine: number,
	category: string[],
	context: DocumentContext
): ReadItem {
	const tooMany = tooManyParts(given, 'response_label', ...responseNames);
	const { item, parted } = tooMany ? { item: given, parted: 'no' as const } : partPlaces(partBoxes(given));
	const identifier = item.attributes.ident ?? '';
	const common = emptyCommon(identifier, (item.attributes.title ?? '').trim());
	const cleaning = cleaningFor(common, context);
	const metadata = metadataOf(item);
	const place = { file: context.file, line: item.line };
	common.source = { format: context.format, file: context.file, line: item.line, endLine, identifier };
	const said = categoryOfMetadata(metadata);
	common.category = category.length ? category : said.length ? said : context.category;
	const keywords = (metadata.get('qmd_keywords') ?? '').split(/\s*[,;]\s*/).filter(Boolean);
	common.tags = [...new Set([...context.keywords, ...keywords])];
	const difficulty = metadata.get('qmd_levelofdifficulty') ?? context.difficulty;
	if (difficulty) common.difficulty = difficulty;
	common.language = item.attributes['xml:lang'] ?? null;
	common.metadata = [...metadata].filter(([name]) => !ownMetadata.has(name)).map(([name, value]) => ({ name, value }));

	if (tooMany) return unreadable(common, fragment.slice(0, keptOfSource), tooMany);
	const presentation = childOf(item, 'presentation');
	const processing = childOf(item, 'resprocessing');
	const { points, full } = pointsOf(metadata, processing, context.format.startsWith('cc'));
	common.points = points;
	const responses = presentation ? descendants(presentation, ...responseNames) : [];
	common.stem = joinBlocks(
		presentation ? materialBelow(presentation, cleaning, (name) => responseNames.includes(name)) : []
	);
	takeBeside(item, common, cleaning);
	if (!responses.length) return withoutResponses(item, common, cleaning, metadata, place);
	const reports: Report[] = parted === 'no' ? [] : [reshapedReport(parted === 'pictures', place)];
	const reading: Reading12 = {
		common,
		cleaning,
		item,
		presentation,
		processing,
		responses,
		cardinalities: new Map(responses.map((one) => [one.attributes.ident ?? '', cardinalityOf(one)])),
		metadata,
		full,
		reports,
		place,
		attach: (address) => attach(common, context, address)
	};
	const lost = namedInVain(reading);
	if (lost.length) common.lostKeys = lost;
	try {
		const question = readResponses(reading);
		return { question, reports };
	} catch (error) {
		const reason =
			error instanceof Unheld
				? error.message
				: error instanceof UnknownCondition
					? `Its marking uses “${error.message}”, which cannot be followed here.`
					: null;
		if (reason === null) throw error;
		return unreadable(common, fragment, reason);
	}
}

/** Whether a single written answer stands in the middle of a sentence: in one flow with words that do not end one. */
function isInSentence({ presentation, cleaning }: Reading12, response: XmlElement): boolean {
	const flow = presentation && descendants(presentation, 'flow').find((node) => node.children.includes(response));
	if (!flow) return false;
	const before = childrenOf(flow)
		.slice(0, childrenOf(flow).indexOf(response))
		.filter((node) => node.name === 'material');
	const last = before.at(-1);
	if (!last) return false;
	const text = plainText(
		materialBelow({ ...flow, children: [last] }, { ...cleaning, media: (address) => address }).join(' ')
	);
	const [fib] = descendants(response, 'render_fib');
	const tall = (parseNumber(fib?.attributes.rows ?? '1') ?? 1) > 1;
	return !tall && text !== '' && !/[?.!:;…=]["”)]?$/.test(text);
}

function readResponses(reading: Reading12): Question {
	const { common, cleaning, responses } = reading;
	const [response] = responses;
	const single = responses.length === 1;
	if (!single || saysBlanks(reading)) return readSeveral12(reading);
	const written = response!.name === 'response_str' || response!.name === 'response_num';
	const cardinality = cardinalityOf(response!);
	if (written && childOf(response, 'render_fib') && !isOpen(reading, response!) && isInSentence(reading, response!))
		return readSeveral12(reading);
	const inner = materialBelow(response!, cleaning, isOfOptions);
	common.stem = joinBlocks([common.stem, ...inner]);
	if (response!.name === 'response_lid' && childOf(response, 'render_choice'))
		return cardinality === 'ordered' ? readOrder12(reading, response!) : readChoice12(reading, response!);
	if (childOf(response, 'render_hotspot')) return readPoints12(reading, response!);
	if (response!.name === 'response_grp' && childOf(response, 'render_choice')) return readGroup12(reading, response!);
	const labels = descendants(response!, 'response_label');
	if (written && (childOf(response, 'render_slider') || (childOf(response, 'render_fib') && labels.length < 2)))
		return readText12(reading, response!);
	throw new Unheld(`It is answered through “${response!.name}” in a form that is not known here.`);
}
