import { plainText } from '../../markup/text';
import { emptyCommon, type ChoiceQuestion, type Question, type QuestionCommon } from '../../model/question';
import type { Report } from '../../reports/report';
import { childOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { isTrueFalse } from '../choices';
import { creditsByTrying } from '../credits';
import type { DocumentContext } from '../format';
import { cleaningFor } from '../media';
import { acceptedNumbers, parseNumber } from '../numbers';
import { placeFeedback, type Trial } from './feedback';
import { joinBlocks, materialBelow } from './material';
import { metadataOf } from './metadata';
import { runProcessing, UnknownCondition } from './process';

const responseNames = [
	'response_lid',
	'response_str',
	'response_num',
	'response_xy',
	'response_grp',
	'response_extension'
];
const ownMetadata = new Set([
	'qmd_maximumscore',
	'qmd_weighting',
	'cc_weighting',
	'cc_question_category',
	'cc_profile',
	'qmd_computerscored'
]);

/** What reading an item has found: the question and what there is to say about it. */
export interface ReadItem {
	question: Question;
	reports: Report[];
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
	if (given !== null && given > 0) return { points: given, full };
	// on the scale of a hundred the score is a share, and the weight alone says the points
	if (weight !== null && weight > 0) return { points: full === null || full === 100 ? weight : weight * full, full };
	return { points: full === 100 && cartridge ? 1 : full, full };
}

function unreadable(common: QuestionCommon, fragment: string, reason: string, context: DocumentContext): ReadItem {
	return {
		question: { ...common, kind: 'unreadable', reason, fragment },
		reports: [
			{
				rule: 'unreadable-kind',
				severity: 'broken',
				message: `${reason} It is kept as it came, and cannot be shown or marked here.`,
				place: { file: context.file, line: common.source!.line }
			}
		]
	};
}

/** Reads one item (QTI 1.2 ASI information model, 3.3): kind from structure, marks by trying its response processing. */
export function readItem12(
	item: XmlElement,
	fragment: string,
	endLine: number,
	category: string[],
	context: DocumentContext
): ReadItem {
	const identifier = item.attributes.ident ?? '';
	const common = emptyCommon(identifier, (item.attributes.title ?? '').trim());
	const cleaning = cleaningFor(common, context);
	const metadata = metadataOf(item);
	const place = { file: context.file, line: item.line };
	common.source = { format: context.format, file: context.file, line: item.line, endLine, identifier };
	common.category = category.length
		? category
		: metadata.get('cc_question_category')
			? metadata
					.get('cc_question_category')!
					.split(/\s*\/\s*/)
					.filter(Boolean)
			: context.category;
	common.tags = [...context.keywords];
	common.language = item.attributes['xml:lang'] ?? null;
	common.metadata = [...metadata].filter(([name]) => !ownMetadata.has(name)).map(([name, value]) => ({ name, value }));

	const presentation = childOf(item, 'presentation');
	const processing = childOf(item, 'resprocessing');
	const { points, full } = pointsOf(metadata, processing, context.format.startsWith('cc'));
	common.points = points;
	const responses = presentation ? descendants(presentation, ...responseNames) : [];
	common.stem = joinBlocks(
		presentation ? materialBelow(presentation, cleaning, (name) => responseNames.includes(name)) : []
	);
	const [response] = responses;
	if (!response) {
		const reports: Report[] = [];
		placeFeedback(item, common, [], cleaning);
		if (/^no$/i.test(metadata.get('qmd_computerscored') ?? '') || (points ?? 0) > 0)
			reports.push({
				rule: 'needs-person',
				severity: 'doubtful',
				message: `It ${points ? `carries ${points} points` : 'is to be marked by a person'} and asks for nothing that can be answered here. It was read as information; set it up again as an essay if an answer is wanted.`,
				place
			});
		return { question: { ...common, kind: 'information' }, reports };
	}
	if (responses.length > 1)
		return unreadable(
			common,
			fragment,
			`It asks for ${responses.length} answers in one question, which cannot be read yet.`,
			context
		);

	const ident = response.attributes.ident ?? '';
	const inside = materialBelow(response, cleaning, (name) => name.startsWith('render_'));
	common.stem = joinBlocks([common.stem, ...inside]);
	const cardinality = (response.attributes.rcardinality ?? 'Single').toLowerCase();
	const run = (values: string[]) =>
		processing
			? runProcessing(processing, new Map([[ident, values]]), cardinality !== 'multiple')
			: { score: 0, feedback: [] };
	const choice = childOf(response, 'render_choice');
	const fib = childOf(response, 'render_fib');
	try {
		if (response.name === 'response_lid' && choice && cardinality !== 'ordered') return readChoice();
		if (
			(response.name === 'response_str' || response.name === 'response_num') &&
			fib &&
			descendants(response, 'response_label').length < 2
		)
			return readText(fib);
	} catch (error) {
		if (!(error instanceof UnknownCondition)) throw error;
		return unreadable(common, fragment, `Its marking uses “${error.message}”, which cannot be followed here.`, context);
	}
	return unreadable(
		common,
		fragment,
		cardinality === 'ordered'
			? 'It asks to put things in order, which cannot be read yet.'
			: `It is answered through “${response.name}”, which cannot be read yet.`,
		context
	);

	function readChoice(): ReadItem {
		const reports: Report[] = [];
		const labels = descendants(choice!, 'response_label');
		const texts = labels.map((label) => joinBlocks(materialBelow(label, cleaning)));
		const idents = labels.map((label) => label.attributes.ident ?? '');
		const several = cardinality === 'multiple';
		const keyed = processing ? descendants(processing, 'varequal').map(trimmed) : [];
		const lostKeys = [...new Set(keyed)].filter((key) => idents.filter((one) => one === key).length !== 1);
		const repeated = [...new Set(idents.filter((one, at) => idents.indexOf(one) !== at))];
		if (repeated.length)
			reports.push({
				rule: 'repeated-identifier',
				severity: 'broken',
				message: `${repeated.length > 1 ? 'Several options share' : 'Two options share'} the identifier ${repeated.map((one) => `“${one}”`).join(', ')}, so the key does not say which of them is right. Mark the right one.`,
				place
			});
		const mark = (ticked: number[]) =>
			run(ticked.map((at) => idents[at]!).filter((one) => !repeated.includes(one))).score;
		const best = full ?? Math.max(1, ...labels.map((_, at) => mark([at])));
		const expected = idents.flatMap((one, at) => (keyed.includes(one) && mark([at]) > 0 ? [at] : []));
		const found = creditsByTrying(labels.length, several, best, mark, expected);
		if (!found.exact)
			reports.push({
				rule: 'marking-simplified',
				severity: 'doubtful',
				message:
					'Its marking cannot be held exactly. Each option was given what it adds to the score; look at the credit.',
				place
			});
		const kind: ChoiceQuestion['kind'] = several
			? 'multiple-response'
			: isTrueFalse(texts.map(plainText))
				? 'true-false'
				: 'multiple-choice';
		const trials: Trial[] = labels.map((_, at) => ({
			responses: new Map([[ident, [idents[at]!]]]),
			full: !several && found.credits[at]! >= 1,
			option: at
		}));
		if (several)
			trials.push({
				responses: new Map([[ident, idents.filter((_, at) => found.credits[at]! > 0)]]),
				full: true,
				option: null
			});
		const feedback = placeFeedback(item, common, trials, cleaning, !several);
		const shuffle = choice!.attributes.shuffle;
		return {
			question: {
				...common,
				kind,
				options: labels.map((label, at) => ({
					identifier: idents[at]!,
					text: texts[at]!,
					credit: found.credits[at]!,
					...(feedback.has(at) ? { feedback: feedback.get(at)! } : {}),
					pinned: /^no$/i.test(label.attributes.rshuffle ?? '')
				})),
				shuffle: shuffle === undefined ? null : /^yes$/i.test(shuffle),
				combination: found.combination,
				bounds: found.bounds,
				lostKeys
			},
			reports
		};
	}

	function readText(box: XmlElement): ReadItem {
		const reports: Report[] = [];
		const type = (response!.attributes.numtype ?? box.attributes.fibtype ?? 'String').toLowerCase();
		const numeric = response!.name === 'response_num' || ['integer', 'decimal', 'scientific'].includes(type);
		const conditions = processing
			? descendants(processing, 'varequal', 'varsubstring', 'varsubset', 'varlt', 'varlte', 'vargt', 'vargte')
			: [];
		const best = full ?? Math.max(1, ...conditions.map((node) => run([trimmed(node)]).score));
		const credit = (value: string) => Math.max(-1, Math.min(1, Math.round((run([value]).score / best) * 1e6) / 1e6));
		const texts = [
			...new Set(
				conditions.filter((node) => ['varequal', 'varsubstring', 'varsubset'].includes(node.name)).map(trimmed)
			)
		];
		const trialOf = (value: string): Trial => ({
			responses: new Map([[ident, [value]]]),
			full: credit(value) >= 1,
			option: null
		});
		const trials = [...conditions.map((node) => trialOf(trimmed(node))), trialOf('\u0001')];
		placeFeedback(item, common, trials, cleaning);
		if (numeric) {
			const critical = conditions.map((node) => parseNumber(trimmed(node))).filter((value) => value !== null);
			const accepted = acceptedNumbers(critical, (value) => credit(String(value)), []);
			return { question: { ...common, kind: 'numeric', whole: type === 'integer', accepted }, reports };
		}
		const rows = parseNumber(box.attributes.rows ?? '1') ?? 1;
		if (!conditions.length && (rows > 1 || !processing || /essay/.test(metadata.get('cc_profile') ?? '')))
			return { question: { ...common, kind: 'essay' }, reports };
		if (conditions.some((node) => node.name === 'varsubstring' || node.name === 'varsubset'))
			reports.push({
				rule: 'marking-simplified',
				severity: 'doubtful',
				message:
					'The file accepts any answer that contains the words of the key. Here only the words themselves are accepted; add the spellings that students will use.',
				place
			});
		const strict = (text: string) =>
			conditions.some((node) => trimmed(node) === text && /^yes$/i.test(node.attributes.case ?? ''));
		return {
			question: {
				...common,
				kind: 'short-answer',
				accepted: texts
					.map((text) => ({ text, credit: credit(text), caseSensitive: strict(text) }))
					.filter((one) => one.credit !== 0)
			},
			reports
		};
	}
}
