import {
	isChoice,
	type AcceptedNumber,
	type ChoiceQuestion,
	type Markup,
	type NumericQuestion,
	type Question
} from '../../model/question';
import { parseXml } from '../../xml/stream';
import { escapeAttribute, escapeText, serialise } from '../../xml/serialise';
import type { XmlElement, XmlNode } from '../../xml/tree';
import { tidy } from '../numbers';

const namespace = 'http://www.imsglobal.org/xsd/imsqti_v2p1';
const templates = 'http://www.imsglobal.org/question/qti_v2p1/rptemplates';
const blockNames = new Set('p div table ul ol dl pre blockquote h1 h2 h3 h4 h5 h6 hr address'.split(' '));

/** The address by which an item names an attachment of its question. */
export type Address = (name: string) => string;

/** An identifier as QTI allows it (2.1 information model, section 3: a name without a colon), made from any text. */
export function safeIdentifier(text: string, otherwise: string): string {
	return /^[A-Za-z_][A-Za-z0-9_.-]*$/.test(text) ? text : otherwise;
}

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
	return nodes.length ? serialise([{ name: 'p', attributes: {}, children: nodes, line: 0 } satisfies XmlElement]) : '';
}

const number = (value: number) => String(tidy(value));
const setScore = (value: number) =>
	`<setOutcomeValue identifier="SCORE"><baseValue baseType="float">${number(value)}</baseValue></setOutcomeValue>`;

/** The parts of an item that depend on its kind. */
interface Parts {
	declaration: string;
	interaction: string;
	/** The marking: a template's name, rules, or nothing. */
	template?: 'match_correct' | 'map_response';
	rules?: string;
	/** Rules that say which option's feedback is shown. */
	extra?: string;
	outcomes?: string;
}

const correct = (values: string[]) =>
	values.length
		? `<correctResponse>${values.map((value) => `<value>${escapeText(value)}</value>`).join('')}</correctResponse>`
		: '';
const declare = (cardinality: string, baseType: string, inner: string) =>
	`<responseDeclaration identifier="RESPONSE" cardinality="${cardinality}" baseType="${baseType}"${inner ? `>${inner}</responseDeclaration>` : '/>'}`;

function choiceIdentifiers(question: ChoiceQuestion): string[] {
	const seen = new Set<string>();
	return question.options.map((option, at) => {
		let identifier = safeIdentifier(option.identifier, `C${at + 1}`);
		while (seen.has(identifier)) identifier = `${identifier}_${at + 1}`;
		seen.add(identifier);
		return identifier;
	});
}

function choiceParts(question: ChoiceQuestion, scale: number, address: Address): Parts {
	const identifiers = choiceIdentifiers(question);
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
	const shuffle = question.shuffle === null ? '' : ` shuffle="${question.shuffle}"`;
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
	const { lower, upper } = question.bounds;
	const bounds = several
		? `${lower === null ? '' : ` lowerBound="${number(lower * scale)}"`}${upper === null ? '' : ` upperBound="${number(upper * scale)}"`}`
		: '';
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

const byCredit = <T extends { credit: number }>(list: T[]) => [...list].sort((a, b) => b.credit - a.credit);
const entry = '<p><textEntryInteraction responseIdentifier="RESPONSE"/></p>';

function numberTest(accepted: AcceptedNumber): string {
	const base = (value: number) => `<baseValue baseType="float">${value}</baseValue>`;
	const variable = '<variable identifier="RESPONSE"/>';
	if ('value' in accepted)
		return accepted.tolerance
			? `<equal toleranceMode="absolute" tolerance="${accepted.tolerance} ${accepted.tolerance}">${variable}${base(accepted.value)}</equal>`
			: `<equal toleranceMode="exact">${variable}${base(accepted.value)}</equal>`;
	const tests = [
		...(accepted.min === null
			? []
			: [
					`<${accepted.includesMin ? 'gte' : 'gt'}>${variable}${base(accepted.min)}</${accepted.includesMin ? 'gte' : 'gt'}>`
				]),
		...(accepted.max === null
			? []
			: [
					`<${accepted.includesMax ? 'lte' : 'lt'}>${variable}${base(accepted.max)}</${accepted.includesMax ? 'lte' : 'lt'}>`
				])
	];
	if (!tests.length) return `<not><isNull>${variable}</isNull></not>`;
	return tests.length > 1 ? `<and>${tests.join('')}</and>` : tests[0]!;
}

function numericParts(question: NumericQuestion, scale: number): Parts {
	const ordered = byCredit(question.accepted);
	const [best] = ordered;
	const middle = !best
		? null
		: 'value' in best
			? best.value
			: best.min !== null && best.max !== null
				? (best.min + best.max) / 2
				: (best.min ?? best.max);
	const key = middle === null ? [] : [question.whole ? String(Math.round(middle)) : number(middle)];
	const branches = ordered.map(
		(accepted, at) =>
			`<${at ? 'responseElseIf' : 'responseIf'}>${numberTest(accepted)}${setScore(accepted.credit * scale)}</${at ? 'responseElseIf' : 'responseIf'}>`
	);
	return {
		declaration: declare('single', question.whole ? 'integer' : 'float', correct(key)),
		interaction: entry,
		...(branches.length
			? { rules: `<responseCondition>${branches.join('')}</responseCondition>` }
			: { template: 'match_correct' as const })
	};
}

function partsOf(question: Exclude<Question, { kind: 'unreadable' }>, scale: number, address: Address): Parts {
	if (isChoice(question)) return choiceParts(question, scale, address);
	if (question.kind === 'numeric') return numericParts(question, scale);
	if (question.kind === 'short-answer') {
		const entries = question.accepted
			.map(
				(one) =>
					`<mapEntry mapKey="${escapeAttribute(one.text)}" mappedValue="${number(one.credit * scale)}" caseSensitive="${one.caseSensitive}"/>`
			)
			.join('');
		const key = byCredit(question.accepted.filter((one) => one.credit > 0))
			.slice(0, 1)
			.map((one) => one.text);
		return {
			declaration: declare(
				'single',
				'string',
				`${correct(key)}${entries ? `<mapping defaultValue="0">${entries}</mapping>` : ''}`
			),
			interaction: entry,
			template: 'map_response'
		};
	}
	if (question.kind === 'essay')
		return {
			declaration: declare('single', 'string', ''),
			interaction: '<extendedTextInteraction responseIdentifier="RESPONSE"/>'
		};
	return { declaration: '', interaction: '' };
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
	name === 'map_response'
		? '<responseCondition><responseIf><isNull><variable identifier="RESPONSE"/></isNull><setOutcomeValue identifier="SCORE"><baseValue baseType="float">0</baseValue></setOutcomeValue></responseIf><responseElse><setOutcomeValue identifier="SCORE"><mapResponse identifier="RESPONSE"/></setOutcomeValue></responseElse></responseCondition>'
		: `<responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match>${setScore(1)}</responseIf></responseCondition>`;

/** One question as a QTI 2.1 assessmentItem. An unreadable one is carried on as it came, with its addresses made anew. */
export function writeItem21(question: Question, identifier: string, address: Address): string {
	if (question.kind === 'unreadable') {
		const { source, attachments } = question;
		const folder = (source?.file ?? '').split('/').slice(0, -1);
		const names = new Set(attachments.map((attachment) => attachment.name));
		const fragment = question.fragment.replace(
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
		return `<?xml version="1.0" encoding="UTF-8"?>\n${fragment.trim()}\n`;
	}
	const scale = question.points || 1;
	const parts = partsOf(question, scale, address);
	const feedback = feedbackParts(question, scale, address);
	const inline =
		parts.rules ?? (parts.template && (feedback.rules || parts.extra) ? templateRules(parts.template) : '');
	const processing = inline
		? `<responseProcessing>${inline}${feedback.rules}${parts.extra ?? ''}</responseProcessing>`
		: parts.template
			? `<responseProcessing template="${templates}/${parts.template}"/>`
			: '';
	// what a machine marks has points: where none were given, they become 1, as the loss table says
	const points = question.points ?? (question.kind === 'essay' || question.kind === 'information' ? null : 1);
	const most =
		points === null
			? ''
			: `<outcomeDeclaration identifier="MAXSCORE" cardinality="single" baseType="float"><defaultValue><value>${number(points)}</value></defaultValue></outcomeDeclaration>`;
	const language =
		question.language && /^[A-Za-z]{1,8}(-[A-Za-z0-9]{1,8})*$/.test(question.language)
			? ` xml:lang="${question.language}"`
			: '';
	return [
		'<?xml version="1.0" encoding="UTF-8"?>',
		`<assessmentItem xmlns="${namespace}" identifier="${escapeAttribute(identifier)}" title="${escapeAttribute(question.title)}" adaptive="false" timeDependent="false"${language}>`,
		parts.declaration,
		'<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>',
		most,
		feedback.outcomes + (parts.outcomes ?? ''),
		`<itemBody>${blocks(question.stem, address)}${parts.interaction}</itemBody>`,
		processing,
		feedback.modal,
		'</assessmentItem>',
		''
	]
		.filter((line, at, all) => line || at === all.length - 1)
		.join('\n');
}
