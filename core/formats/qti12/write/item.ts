import { blanksIn } from '../../../markup/markers';
import {
	isChoice,
	type Blank,
	type ChoiceQuestion,
	type FillBlanksQuestion,
	type HotspotQuestion,
	type MatchingQuestion,
	type OrderingQuestion,
	type Question
} from '../../../kinds';
import type { Markup } from '../../../model/question';
import { escapeAttribute, escapeText, serialise } from '../../../xml/serialise';
import { parseXml } from '../../../xml/parse';
import type { XmlNode } from '../../../xml/tree';
import { isBlankMarker } from '../../../markup/markers';
import { mediaType } from '../../media';
import { tidy } from '../../../numbers/numbers';
import { areaText } from '../areas';
import { allOf, anyOf, condition, equals, insideTest, not, numberTest, setvar, textTest } from './conditions';
import { material } from './html';

type Address = (name: string) => string;

/** What depends on the kind: the presentation, the conditions that give points, and the test of a right answer. */
interface Parts {
	presentation: string;
	points: string[];
	/** The test that holds for a right answer; empty where there is none. */
	right: string;
	/** Conditions that show what belongs to single options. */
	shown?: string[];
	feedback?: { ident: string; markup: Markup }[];
}

const byCredit = <T extends { credit: number }>(list: T[]) => [...list].sort((a, b) => b.credit - a.credit);
const yesNo = (value: boolean | null) => (value === null ? '' : ` shuffle="${value ? 'Yes' : 'No'}"`);

/** Identifiers of one list, each once. */
function names(list: { identifier: string }[], letter: string): string[] {
	const seen = new Set<string>();
	return list.map((one, at) => {
		let name = one.identifier.trim() === one.identifier && one.identifier ? one.identifier : `${letter}${at + 1}`;
		while (seen.has(name)) name = `${name}_${at + 1}`;
		seen.add(name);
		return name;
	});
}

const label = (ident: string, inner: string, more = '') =>
	`<response_label ident="${escapeAttribute(ident)}"${more}>${inner}</response_label>`;
const stemOf = (stem: Markup, address: Address) => (stem ? material(stem, address) : '');

function choiceParts(question: ChoiceQuestion, scale: number, address: Address): Parts {
	const idents = names(question.options, 'C');
	const several = question.kind === 'multiple-response';
	const labels = question.options
		.map((option, at) => label(idents[at]!, material(option.text, address), option.pinned ? ' rshuffle="No"' : ''))
		.join('');
	const presentation = `${stemOf(question.stem, address)}<response_lid ident="R" rcardinality="${several ? 'Multiple' : 'Single'}"><render_choice${yesNo(question.shuffle)}>${labels}</render_choice></response_lid>`;
	const test = (at: number) => equals('R', idents[at]!);
	const places = question.options.map((_, at) => at);
	const right = places.filter((at) => question.options[at]!.credit > 0);
	const shown = places.flatMap((at) =>
		question.options[at]!.feedback
			? [condition(test(at), `<displayfeedback feedbacktype="Response" linkrefid="option ${at + 1}"/>`, true)]
			: []
	);
	const feedback = places.flatMap((at) =>
		question.options[at]!.feedback ? [{ ident: `option ${at + 1}`, markup: question.options[at]!.feedback }] : []
	);
	if (!several) {
		const best = Math.max(...question.options.map((option) => option.credit));
		return {
			presentation,
			points: places
				.filter((at) => question.options[at]!.credit !== 0)
				.map((at) => condition(test(at), setvar(question.options[at]!.credit * scale, 'Set'), false)),
			right: best >= 1 ? anyOf(places.filter((at) => question.options[at]!.credit >= 1).map(test)) : '',
			shown,
			feedback
		};
	}
	const whole = right.length ? allOf(places.map((at) => (right.includes(at) ? test(at) : not(test(at))))) : '';
	return {
		presentation,
		points:
			question.combination === 'all'
				? whole
					? [condition(whole, setvar(scale, 'Set'), false)]
					: []
				: places
						.filter((at) => question.options[at]!.credit !== 0)
						.map((at) => condition(test(at), setvar(question.options[at]!.credit * scale, 'Add'), true)),
		right: whole,
		shown,
		feedback
	};
}

/** Conditions that each hold only where none before does, so that the first that fits is the only one. */
function exclusive(tests: { test: string; credit: number }[]): { test: string; credit: number }[] {
	return tests.map(({ test, credit }, at) => ({
		test: at ? allOf([test, not(anyOf(tests.slice(0, at).map((one) => one.test)))]) : test,
		credit
	}));
}

const fib = (type: string, rows = 1) =>
	`<render_fib fibtype="${type}" prompt="Box" rows="${rows}" columns="${rows > 1 ? 60 : 30}"/>`;

function responseOf(blank: Blank, ident: string, address: Address): string {
	const at = escapeAttribute(ident);
	if (blank.form === 'number')
		return `<response_num ident="${at}" rcardinality="Single" numtype="${blank.whole ? 'Integer' : 'Decimal'}">${fib(blank.whole ? 'Integer' : 'Decimal')}</response_num>`;
	if (blank.form === 'list') {
		const idents = names(blank.entries, 'E');
		const labels = blank.entries.map((one, place) => label(idents[place]!, material(one.text, address))).join('');
		return `<response_lid ident="${at}" rcardinality="${blank.several ? 'Multiple' : 'Single'}"><render_choice${yesNo(blank.shuffle)}>${labels}</render_choice></response_lid>`;
	}
	return `<response_str ident="${at}" rcardinality="Single">${fib('String', blank.form === 'open' ? 8 : 1)}</response_str>`;
}

/** What the answers to a blank earn, each by a test; the tests exclude each other. */
function testsOf(blank: Blank, ident: string): { test: string; credit: number }[] {
	if (blank.form === 'text')
		return exclusive(byCredit(blank.accepted).map((one) => ({ test: textTest(ident, one), credit: one.credit })));
	if (blank.form === 'number')
		return exclusive(byCredit(blank.accepted).map((one) => ({ test: numberTest(ident, one), credit: one.credit })));
	if (blank.form !== 'list') return [];
	const idents = names(blank.entries, 'E');
	return blank.entries.flatMap((one, at) =>
		one.credit === 0 ? [] : [{ test: equals(ident, idents[at]!), credit: one.credit }]
	);
}

function blankParts(question: FillBlanksQuestion, scale: number, address: Address): Parts {
	const idents = names(question.blanks, 'B');
	const place = new Map(question.blanks.map((blank, at) => [blank.identifier, at]));
	const response = (identifier: string) => {
		const at = place.get(identifier);
		return at === undefined ? '' : responseOf(question.blanks[at]!, idents[at]!, address);
	};
	const rights = question.blanks.map((blank, at) => {
		const tests = testsOf(blank, idents[at]!).filter((one) => one.credit >= 1 - 1e-6);
		if (blank.form === 'list' && blank.several)
			return allOf(
				testsOf(blank, idents[at]!)
					.filter((one) => one.credit > 0)
					.map((one) => one.test)
			);
		return anyOf(tests.map((one) => one.test));
	});
	const whole = rights.every((test, at) => test || question.blanks[at]!.form === 'open') ? allOf(rights) : '';
	return {
		presentation: flows(question.stem, response, address),
		points:
			question.combination === 'all'
				? whole
					? [condition(whole, setvar(scale, 'Set'), false)]
					: []
				: question.blanks.flatMap((blank, at) =>
						testsOf(blank, idents[at]!).map(({ test, credit }) =>
							condition(test, setvar(credit * blank.share * scale, 'Add'), true)
						)
					),
		right: whole
	};
}

/** A stem with blanks as flows: what stands in one line in one flow, text and responses side by side. */
function flows(stem: Markup, response: (identifier: string) => string, address: Address): string {
	const nodes = parseXml(`<x>${stem}</x>`).root?.children ?? [];
	const isBlock = (node: XmlNode) =>
		typeof node !== 'string' && /^(p|div|ul|ol|table|h\d|blockquote|pre|dl|hr|address)$/.test(node.name);
	const line = (children: XmlNode[]): string => {
		let out = '';
		let run: XmlNode[] = [];
		const end = () => {
			const text = serialise(run);
			if (text.trim()) out += material(text, address);
			run = [];
		};
		for (const child of children)
			if (typeof child !== 'string' && isBlankMarker(child)) {
				end();
				out += response(child.attributes.id!);
			} else run.push(child);
		end();
		return out;
	};
	const blocks: string[] = [];
	let run: XmlNode[] = [];
	const end = () => {
		if (serialise(run).trim()) blocks.push(line(run));
		run = [];
	};
	for (const node of nodes) {
		if (!isBlock(node)) {
			run.push(node);
			continue;
		}
		end();
		if (typeof node === 'string') continue;
		if (isBlankMarker(node)) blocks.push(response(node.attributes.id!));
		else if (node.name === 'p' && blanksIn(serialise([node])).length) blocks.push(line(node.children));
		else blocks.push(material(serialise([node]), address));
	}
	end();
	return `<flow class="blanks">${blocks.map((block) => `<flow>${block}</flow>`).join('')}</flow>`;
}

function matchParts(question: MatchingQuestion, scale: number, address: Address): Parts {
	const lefts = names(question.left, 'L');
	const rights = names(question.right, 'R');
	const left = new Map(question.left.map((one, at) => [one.identifier, lefts[at]!]));
	const right = new Map(question.right.map((one, at) => [one.identifier, rights[at]!]));
	const labels = question.right.map((one, at) => label(rights[at]!, material(one.text, address))).join('');
	const rows = question.left
		.map(
			(one, at) =>
				`<flow><response_lid ident="${escapeAttribute(lefts[at]!)}" rcardinality="${one.uses === 1 ? 'Single' : 'Multiple'}">${material(one.text, address)}<render_choice${yesNo(question.shuffle)}>${labels}</render_choice></response_lid></flow>`
		)
		.join('');
	const known = question.pairs.filter((pair) => left.has(pair.left) && right.has(pair.right));
	const test = (pair: { left: string; right: string }) => equals(left.get(pair.left)!, right.get(pair.right)!);
	const whole = allOf(known.filter((pair) => pair.credit > 0).map(test));
	return {
		presentation: `<flow>${stemOf(question.stem, address)}${rows}</flow>`,
		points:
			question.combination === 'all'
				? whole
					? [condition(whole, setvar(scale, 'Set'), false)]
					: []
				: known
						.filter((pair) => pair.credit !== 0)
						.map((pair) => condition(test(pair), setvar(pair.credit * scale, 'Add'), true)),
		right: whole
	};
}

function orderParts(question: OrderingQuestion, scale: number, address: Address): Parts {
	const presented = question.presented.flatMap((one) => question.items.find((item) => item.identifier === one) ?? []);
	const idents = names(presented, 'I');
	const ident = new Map(presented.map((item, at) => [item.identifier, idents[at]!]));
	const labels = presented.map((item, at) => label(idents[at]!, material(item.text, address))).join('');
	const order = question.items.map((item) => ident.get(item.identifier)!);
	const whole = allOf(order.map((one, at) => equals('R', one, at + 1)));
	return {
		presentation: `${stemOf(question.stem, address)}<response_lid ident="R" rcardinality="Ordered"><render_choice${yesNo(question.shuffle)}>${labels}</render_choice></response_lid>`,
		points:
			question.rule === 'all'
				? [condition(whole, setvar(scale, 'Set'), false)]
				: order.map((one, at) => condition(equals('R', one, at + 1), setvar(scale / order.length, 'Add'), true)),
		right: whole
	};
}

function pointParts(question: HotspotQuestion, scale: number, address: Address): Parts {
	const idents = names(question.shapes, 'A');
	const several = question.picks !== 1;
	const { picture } = question;
	const size = (side: string, value: number | null) => (value === null ? '' : ` ${side}="${Math.round(value)}"`);
	const type = mediaType(picture.name).startsWith('image/') ? mediaType(picture.name) : 'image/png';
	const image = `<material><matimage imagtype="${type}" uri="${escapeAttribute(address(picture.name))}"${size('width', picture.width)}${size('height', picture.height)}>${escapeText(picture.alt)}</matimage></material>`;
	const labels = question.shapes
		.map((shape, at) => {
			const area = areaText(shape);
			return area ? label(idents[at]!, area.text, ` rarea="${area.type}"`) : '';
		})
		.join('');
	const element = question.mode === 'areas' ? 'response_lid' : 'response_xy';
	const most = several && question.picks ? ` maxnumber="${question.picks}"` : '';
	const tests = question.shapes.map((shape, at) =>
		question.mode === 'areas' ? equals('R', idents[at]!) : insideTest('R', shape)
	);
	const right = question.shapes.flatMap((shape, at) => (shape.credit > 0 ? [at] : []));
	const whole = right.length
		? several
			? allOf(tests.map((test, at) => (right.includes(at) ? test : not(test))))
			: anyOf(tests.filter((_, at) => question.shapes[at]!.credit >= 1))
		: '';
	return {
		presentation: `${stemOf(question.stem, address)}<${element} ident="R" rcardinality="${several ? 'Multiple' : 'Single'}"><render_hotspot${most}>${image}${labels}</render_hotspot></${element}>`,
		points:
			several && question.combination === 'all'
				? whole
					? [condition(whole, setvar(scale, 'Set'), false)]
					: []
				: question.shapes.flatMap((shape, at) =>
						shape.credit || question.mode === 'points'
							? [condition(tests[at]!, setvar(shape.credit * scale, several ? 'Add' : 'Set'), several)]
							: []
					),
		right: whole
	};
}

function partsOf(question: Question, scale: number, address: Address): Parts {
	if (isChoice(question)) return choiceParts(question, scale, address);
	const stem = stemOf(question.stem, address);
	switch (question.kind) {
		case 'short-answer':
		case 'numeric': {
			const numeric = question.kind === 'numeric';
			const tests = numeric
				? byCredit(question.accepted).map((one) => ({ test: numberTest('R', one), credit: one.credit }))
				: byCredit(question.accepted).map((one) => ({ test: textTest('R', one), credit: one.credit }));
			const type = numeric ? (question.whole ? 'Integer' : 'Decimal') : 'String';
			const slider =
				numeric && question.slider
					? `<render_slider lowerbound="${question.slider.lower}" upperbound="${question.slider.upper}"${question.slider.step === null ? '' : ` step="${question.slider.step}"`}/>`
					: null;
			const response = numeric
				? `<response_num ident="R" rcardinality="Single" numtype="${type}">${slider ?? fib(type)}</response_num>`
				: `<response_str ident="R" rcardinality="Single">${fib(type)}</response_str>`;
			return {
				presentation: `${stem}${response}`,
				points: tests.map(({ test, credit }) => condition(test, setvar(credit * scale, 'Set'), false)),
				right: anyOf(tests.filter((one) => one.credit >= 1).map((one) => one.test))
			};
		}
		case 'fill-blanks':
			return blankParts(question, scale, address);
		case 'matching':
			return matchParts(question, scale, address);
		case 'ordering':
			return orderParts(question, scale, address);
		case 'hotspot':
			return pointParts(question, scale, address);
		case 'essay':
			return {
				presentation: `${stem}<response_str ident="R" rcardinality="Single">${fib('String', 8)}</response_str>`,
				points: [],
				right: ''
			};
		// without a response of its own: what the limits say is not held never comes here as it is
		case 'information':
		case 'file-upload':
		case 'label-image':
		case 'calculated':
		case 'unreadable':
			return { presentation: stem || material('', address), points: [], right: '' };
	}
}

/** How an item says its points and its other properties, which the profiles do in their own ways. */
export interface Profile {
	/** The labels and entries of the item's metadata. */
	fields: (question: Question) => [string, string][];
	/** The score that stands for all the points. */
	scale: (question: Question) => number;
	/** The order of the conditions of kinds that a person marks. */
	cartridge: boolean;
}

/** The greatest sum of what is taken off, so that no bound of the score hides any of it. */
function least(question: Question): number {
	const credits = isChoice(question)
		? question.options.map((option) => option.credit)
		: question.kind === 'matching'
			? question.pairs.map((pair) => pair.credit)
			: question.kind === 'hotspot'
				? question.shapes.map((shape) => shape.credit)
				: question.kind === 'short-answer' || question.kind === 'numeric'
					? question.accepted.map((one) => one.credit)
					: [];
	return credits.filter((credit) => credit < 0).reduce((sum, credit) => sum + credit, 0);
}

/** One question as an item (QTI 1.2 ASI binding, 3.3). */
export function writeItem12(question: Question, ident: string, address: Address, profile: Profile): string {
	if (question.kind === 'unreadable') return question.fragment.trim();
	const scale = profile.scale(question);
	const parts = partsOf(question, scale, address);
	const { general, correct, incorrect } = question.feedback;
	const show = (link: string) => `<displayfeedback feedbacktype="Response" linkrefid="${link}"/>`;
	const other = '<other/>';
	const told = [
		...(parts.shown ?? []),
		...(correct ? [condition(parts.right || other, show('correct'), true)] : []),
		...(incorrect ? [condition(not(parts.right) || other, show('incorrect'), true)] : []),
		...(general ? [condition(other, show('general'), true)] : []),
		...question.hints.map((_, at) =>
			condition(other, `<displayfeedback feedbacktype="Hint" linkrefid="hint ${at + 1}"/>`, true)
		)
	];
	// a written answer without a key is told from an essay by its marking
	const keyless =
		question.kind === 'short-answer' && !parts.points.length
			? [condition('<unanswered respident="R"/>', setvar(0, 'Set'), true)]
			: [];
	const conditions = [...told, ...parts.points, ...keyless];
	const minimum = least(question) * scale;
	const byPerson = ['essay', 'information'].includes(question.kind);
	const most = byPerson ? '' : ` maxvalue="${tidy(scale)}"`;
	const processing = conditions.length
		? `<resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" defaultval="0" minvalue="${tidy(minimum)}"${most}/></outcomes>${conditions.join('')}</resprocessing>`
		: '';
	const feedback = [
		...(parts.feedback ?? []),
		...(correct ? [{ ident: 'correct', markup: correct }] : []),
		...(incorrect ? [{ ident: 'incorrect', markup: incorrect }] : []),
		...(general ? [{ ident: 'general', markup: general }] : [])
	]
		.map((one) => `<itemfeedback ident="${one.ident}">${material(one.markup, address)}</itemfeedback>`)
		.join('');
	const hints = question.hints
		.map(
			(hint, at) =>
				`<itemfeedback ident="hint ${at + 1}"><hint><hintmaterial>${material(hint, address)}</hintmaterial></hint></itemfeedback>`
		)
		.join('');
	const fields = profile
		.fields(question)
		.map(
			([name, value]) =>
				`<qtimetadatafield><fieldlabel>${escapeText(name)}</fieldlabel><fieldentry>${escapeText(value)}</fieldentry></qtimetadatafield>`
		)
		.join('');
	const metadata = fields ? `<itemmetadata><qtimetadata>${fields}</qtimetadata></itemmetadata>` : '';
	const language = question.language ? ` xml:lang="${question.language}"` : '';
	return `<item ident="${escapeAttribute(ident)}" title="${escapeAttribute(question.title)}"${language}>${metadata}<presentation>${parts.presentation}</presentation>${processing}${feedback}${hints}</item>`;
}
