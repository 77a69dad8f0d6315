import { replaceVariables } from '../../../markup/markers';
import { isChoice, type ChoiceQuestion, type NumericQuestion, type Question } from '../../../kinds';
import type { Markup } from '../../../model/question';
import { parseXml } from '../../../xml/parse';
import { escapeAttribute, escapeText, serialise } from '../../../xml/serialise';
import { element, type XmlNode } from '../../../xml/tree';
import { bestNumber } from '../../../kinds/answers';
import { blanksParts } from './blanks';
import { calculatedParts } from './calculated';
import type { Dialect } from './dialect';
import { labelParts, matchParts, orderParts } from './pairs';
import {
	boundsText,
	byCredit,
	correct,
	declare,
	identifiersFor,
	number,
	setScore,
	shuffleText,
	type Address,
	type Parts,
	type Writing
} from './parts';
import { pointParts } from './points';
import { numberTest, textTest } from './tests';

const blockNames = new Set('p div table ul ol dl pre blockquote h1 h2 h3 h4 h5 h6 hr address'.split(' '));

const nodesOf = (markup: Markup): XmlNode[] => parseXml(`<x>${markup}</x>`).root?.children ?? [markup];

function addressed(nodes: XmlNode[], address: Address): XmlNode[] {
	return nodes.map((node) => {
		if (typeof node === 'string') return node;
		const attributes: Record<string, string> = {};
		for (const [name, value] of Object.entries(node.attributes))
			attributes[name] = value.startsWith('media:') ? address(value.slice(6)) : value;
		return { ...node, attributes, children: addressed(node.children, address) };
	});
}

const isBlock = (node: XmlNode) => typeof node !== 'string' && blockNames.has(node.name);

/** Rich text as it may stand where blocks and lines may. */
const flow = (markup: Markup, address: Address) => serialise(addressed(nodesOf(markup), address));

/** Rich text as blocks only. */
function blocks(markup: Markup, address: Address): string {
	const nodes = addressed(nodesOf(markup), address);
	if (nodes.some(isBlock)) return serialise(nodes);
	return nodes.length ? serialise([element('p', {}, nodes)]) : '';
}

function choiceParts(question: ChoiceQuestion, scale: number, address: Address): Parts {
	const identifiers = identifiersFor(question.options, 'C');
	const several = question.kind === 'multiple-response';
	const right = question.options.flatMap((option, at) => (option.credit > 0 ? [at] : []));
	const best = right.filter((at) => question.options[at]!.credit >= 1);
	const hasFeedback = question.options.some((option) => option.feedback);
	const options = question.options.map((option, at) => {
		const told = option.feedback ?? '';
		const tag = nodesOf(told).some(isBlock) ? 'feedbackBlock' : 'feedbackInline';
		const feedback = told
			? `<${tag} outcomeIdentifier="FEEDBACK_OPTION" identifier="${identifiers[at]}" showHide="show">${flow(told, address)}</${tag}>`
			: '';
		return `<simpleChoice identifier="${identifiers[at]}"${option.pinned ? ' fixed="true"' : ''}>${flow(option.text, address)}${feedback}</simpleChoice>`;
	});
	const shuffle = shuffleText(question.shuffle);
	const interaction = options.length
		? `<choiceInteraction responseIdentifier="RESPONSE"${shuffle} maxChoices="${several ? 0 : 1}">${options.join('')}</choiceInteraction>`
		: `<choiceInteraction responseIdentifier="RESPONSE"${shuffle} maxChoices="1"><simpleChoice identifier="NONE"/></choiceInteraction>`;
	const cardinality = several ? 'multiple' : 'single';
	const keys = (several ? right : best.length ? best.slice(0, 1) : right.slice(0, 1)).map((at) => identifiers[at]!);
	const option: Pick<Parts, 'outcomes' | 'extra'> = hasFeedback
		? {
				outcomes: `<outcomeDeclaration identifier="FEEDBACK_OPTION" cardinality="${cardinality}" baseType="identifier"/>`,
				extra: `<setOutcomeValue identifier="FEEDBACK_OPTION"><variable identifier="RESPONSE"/></setOutcomeValue>`
			}
		: {};
	const plain = several
		? question.combination === 'all'
		: best.length === 1 && question.options.every((one) => one.credit === 0 || one.credit === 1);
	if (plain || (!several && !question.options.some((one) => one.credit !== 0))) {
		if (scale === 1 || !right.length)
			return {
				declaration: declare(cardinality, 'identifier', correct(keys)),
				interaction,
				template: 'match_correct',
				...option
			};
		const rules = `<responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match>${setScore(scale)}</responseIf></responseCondition>`;
		return { declaration: declare(cardinality, 'identifier', correct(keys)), interaction, rules, ...option };
	}
	const bounds = several ? boundsText(question.bounds, scale) : '';
	const entries = question.options
		.map((one, at) => `<mapEntry mapKey="${identifiers[at]}" mappedValue="${number(one.credit * scale)}"/>`)
		.join('');
	return {
		declaration: declare(
			cardinality,
			'identifier',
			`${correct(keys)}<mapping${bounds} defaultValue="0">${entries}</mapping>`
		),
		interaction,
		template: 'map_response',
		...option
	};
}

const unitXml = (unit: string | undefined) => (unit ? ` <span class="unit">${escapeText(unit)}</span>` : '');
const entry = (unit?: string) => `<p><textEntryInteraction responseIdentifier="RESPONSE"/>${unitXml(unit)}</p>`;

function numericParts(question: NumericQuestion, scale: number): Parts {
	const ordered = byCredit(question.accepted);
	const best = bestNumber(question.accepted, question.whole);
	const key = best === null ? [] : [best];
	const branches = ordered.map(
		(accepted, at) =>
			`<${at ? 'responseElseIf' : 'responseIf'}>${numberTest(accepted)}${setScore(accepted.credit * scale)}</${at ? 'responseElseIf' : 'responseIf'}>`
	);
	return {
		declaration: declare('single', question.whole ? 'integer' : 'float', correct(key)),
		interaction: question.slider
			? `<sliderInteraction responseIdentifier="RESPONSE" lowerBound="${question.slider.lower}" upperBound="${question.slider.upper}"${question.slider.step === null ? '' : ` step="${question.slider.step}"`}/>`
			: entry(question.unit),
		...(branches.length
			? { rules: `<responseCondition>${branches.join('')}</responseCondition>` }
			: { template: 'match_correct' as const })
	};
}

function shortParts(question: Extract<Question, { kind: 'short-answer' }>, scale: number): Parts {
	const key = byCredit(question.accepted.filter((one) => one.credit > 0 && one.match !== 'pattern'))
		.slice(0, 1)
		.map((one) => one.text);
	if (question.accepted.some((one) => one.match)) {
		const branches = byCredit(question.accepted).map((answer, at) => {
			const tag = at ? 'responseElseIf' : 'responseIf';
			return `<${tag}>${textTest(answer)}${setScore(answer.credit * scale)}</${tag}>`;
		});
		return {
			declaration: declare('single', 'string', correct(key)),
			interaction: entry(),
			rules: `<responseCondition>${branches.join('')}</responseCondition>`
		};
	}
	const entries = question.accepted
		.map(
			(one) =>
				`<mapEntry mapKey="${escapeAttribute(one.text)}" mappedValue="${number(one.credit * scale)}" caseSensitive="${one.caseSensitive}"/>`
		)
		.join('');
	return {
		declaration: declare(
			'single',
			'string',
			`${correct(key)}${entries ? `<mapping defaultValue="0">${entries}</mapping>` : ''}`
		),
		interaction: entry(),
		template: 'map_response'
	};
}

function partsOf(question: Exclude<Question, { kind: 'unreadable' }>, writing: Writing): Parts {
	const { scale, address } = writing;
	if (isChoice(question)) return choiceParts(question, scale, address);
	switch (question.kind) {
		case 'numeric':
			return numericParts(question, scale);
		case 'short-answer':
			return shortParts(question, scale);
		case 'fill-blanks':
			return blanksParts(question, writing);
		case 'matching':
			return matchParts(question, writing);
		case 'ordering':
			return orderParts(question, writing);
		case 'hotspot':
			return pointParts(question, writing);
		case 'label-image':
			return labelParts(question, writing);
		case 'calculated': {
			const parts = calculatedParts(question, scale);
			return { ...parts, interaction: entry(question.unit) };
		}
		case 'essay':
			return {
				declaration: declare('single', 'string', ''),
				interaction: '<extendedTextInteraction responseIdentifier="RESPONSE"/>'
			};
		case 'file-upload':
			return {
				declaration: declare('single', 'file', ''),
				interaction: `<uploadInteraction responseIdentifier="RESPONSE"${question.accepts ? ` type="${escapeAttribute(question.accepts)}"` : ''}/>`
			};
		case 'information':
			return { declaration: '', interaction: '' };
	}
}

function feedbackParts(
	question: Question,
	scale: number,
	address: Address
): { outcomes: string; rules: string; modal: string } {
	const { general, correct: right, incorrect, partly } = question.feedback;
	const modal = (name: string, outcome: string, markup: Markup | undefined) =>
		markup
			? `<modalFeedback outcomeIdentifier="${outcome}" identifier="${name}" showHide="show">${flow(markup, address)}</modalFeedback>`
			: '';
	const set = (name: string) =>
		`<setOutcomeValue identifier="FEEDBACK"><baseValue baseType="identifier">${name}</baseValue></setOutcomeValue>`;
	const marked = Boolean(right || incorrect || partly);
	const score = '<variable identifier="SCORE"/>';
	return {
		outcomes:
			(general
				? '<outcomeDeclaration identifier="FEEDBACK_GENERAL" cardinality="single" baseType="identifier"><defaultValue><value>general</value></defaultValue></outcomeDeclaration>'
				: '') +
			(marked ? '<outcomeDeclaration identifier="FEEDBACK" cardinality="single" baseType="identifier"/>' : ''),
		rules: marked
			? `<responseCondition><responseIf><gte>${score}<baseValue baseType="float">${number(scale - 1e-4 * scale)}</baseValue></gte>${set('correct')}</responseIf>${partly ? `<responseElseIf><gt>${score}<baseValue baseType="float">0</baseValue></gt>${set('partly')}</responseElseIf>` : ''}<responseElse>${set('incorrect')}</responseElse></responseCondition>`
			: '',
		modal:
			modal('correct', 'FEEDBACK', right) +
			modal('partly', 'FEEDBACK', partly) +
			modal('incorrect', 'FEEDBACK', incorrect) +
			modal('general', 'FEEDBACK_GENERAL', general)
	};
}

const templateRules = (name: string) =>
	name === 'match_correct'
		? `<responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match>${setScore(1)}</responseIf></responseCondition>`
		: `<responseCondition><responseIf><isNull><variable identifier="RESPONSE"/></isNull>${setScore(0)}</responseIf><responseElse><setOutcomeValue identifier="SCORE"><${name === 'map_response' ? 'mapResponse' : 'mapResponsePoint'} identifier="RESPONSE"/></setOutcomeValue></responseElse></responseCondition>`;

/** An unreadable question as it came, with its addresses made anew. */
function carried(
	{ source, attachments, fragment }: Extract<Question, { kind: 'unreadable' }>,
	address: Address
): string {
	const folder = (source?.file ?? '').split('/').slice(0, -1);
	const names = new Set(attachments.map((attachment) => attachment.name));
	const text = fragment.replace(
		/\b(src|data|href)(\s*=\s*)"([^"]*)"/g,
		(whole, attribute: string, sign: string, value: string) => {
			let decoded = value;
			try {
				decoded = decodeURIComponent(value);
			} catch {
				// a stray percent sign stands for itself
			}
			const steps: string[] = [];
			for (const step of [...folder, ...decoded.split('/')])
				if (step === '..') steps.pop();
				else if (step && step !== '.') steps.push(step);
			return names.has(steps.join('/')) ? `${attribute}${sign}"${escapeAttribute(address(steps.join('/')))}"` : whole;
		}
	);
	return `<?xml version="1.0" encoding="UTF-8"?>\n${text.trim()}\n`;
}

/** The variables of a calculated question as the standard prints them. */
function withPrinted(question: Question, xml: string): string {
	if (question.kind !== 'calculated') return xml;
	const decimals = new Map(question.variables.map((one) => [one.name, one.decimals]));
	return replaceVariables(xml, (name) => {
		const digits = decimals.get(name);
		const format = digits === null || digits === undefined ? '' : ` format="${digits === 0 ? '%d' : `%.${digits}f`}"`;
		return `<printedVariable identifier="${name}"${format}/>`;
	});
}

/** Every picture with a text, which the standard wants of it: an empty one where nothing is said (QTI 2.1, information model, 8.3). */
const withTexts = (xml: string) => xml.replace(/<img(?![^<>]*\salt=)([^<>]*?)\/>/g, '<img$1 alt=""/>');

/** One question as an assessmentItem of a version. An unreadable one is carried on as it came. `stimulus` is the address of its shared text. */
export function writeItem(
	question: Question,
	identifier: string,
	address: Address,
	dialect: Dialect,
	stimulus: { identifier: string; href: string } | null = null
): string {
	if (question.kind === 'unreadable') return carried(question, address);
	const scale = question.points || 1;
	const writing: Writing = {
		scale,
		address,
		flow: (markup) => flow(markup, address),
		blocks: (markup) => blocks(markup, address),
		textLabels: dialect.name !== 'qti21'
	};
	const parts = partsOf(question, writing);
	const feedback = feedbackParts(question, scale, address);
	const inline =
		parts.rules ?? (parts.template && (feedback.rules || parts.extra) ? templateRules(parts.template) : '');
	const processing = inline
		? `<responseProcessing>${inline}${feedback.rules}${parts.extra ?? ''}</responseProcessing>`
		: parts.template
			? `<responseProcessing template="${dialect.templates}/${parts.template}${dialect.templateEnding}"/>`
			: '';
	const most =
		question.points === null
			? ''
			: `<outcomeDeclaration identifier="MAXSCORE" cardinality="single" baseType="float"><defaultValue><value>${number(question.points)}</value></defaultValue></outcomeDeclaration>`;
	const language = question.language ? ` xml:lang="${question.language}"` : '';
	const hints = question.hints
		.map((hint) => `<infoControl title="Hint">${blocks(hint, address)}</infoControl>`)
		.join('');
	const body = `${parts.body ?? blocks(question.stem, address)}${parts.interaction}${hints}`;
	const xml = [
		'<?xml version="1.0" encoding="UTF-8"?>',
		`<assessmentItem xmlns="${dialect.namespace}" identifier="${escapeAttribute(identifier)}" title="${escapeAttribute(question.title)}" adaptive="false" timeDependent="false"${language}>`,
		parts.declaration,
		'<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>',
		most,
		feedback.outcomes + (parts.outcomes ?? ''),
		(parts.templates?.declarations ?? '') + (parts.templates?.processing ?? ''),
		stimulus
			? `<assessmentStimulusRef identifier="${stimulus.identifier}" href="${escapeAttribute(stimulus.href)}"/>`
			: '',
		`<itemBody>${body}</itemBody>`,
		processing,
		feedback.modal,
		'</assessmentItem>',
		''
	]
		.filter((line, at, all) => line || at === all.length - 1)
		.join('\n');
	return dialect.rename(withTexts(withPrinted(question, xml)));
}

/** A shared text as an assessmentStimulus of a version. */
export function writeStimulus(
	content: Markup,
	title: string,
	identifier: string,
	address: Address,
	dialect: Dialect
): string {
	return dialect.rename(
		withTexts(
			`<?xml version="1.0" encoding="UTF-8"?>\n<assessmentStimulus xmlns="${dialect.namespace}" identifier="${identifier}" title="${escapeAttribute(title)}">\n<stimulusBody>${blocks(content, address)}</stimulusBody>\n</assessmentStimulus>\n`
		)
	);
}
