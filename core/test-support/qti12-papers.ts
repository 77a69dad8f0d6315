import fc from 'fast-check';
import { escapeText } from '../xml/serialise';
import { numberMeant, optionsOf, type Meant } from './typed-lists';

/** How a program writes QTI 1.2 (ASI information model); every field is one habit that the standard leaves open. */
export interface Qti12Habits {
	prefix: string;
	doctype: boolean;
	/** Where the texts of a presentation stand: by themselves, in a flow, or each in flows of their own. */
	flow: 'none' | 'flow' | 'nested';
	text: (words: string) => string;
	titled: boolean;
	cardinality: boolean;
	variable: string | null;
	action: 'Set' | 'Add' | null;
	top: number;
	maximum: boolean;
	wrong: 'none' | 'other' | 'not' | 'each';
	goOn: 'Yes' | 'No' | null;
	several: 'all' | 'sum';
	accepted: 'side by side' | 'or' | 'conditions';
	numbers: 'response_num' | 'response_str';
	inAnd: boolean;
	shuffled: 'Yes' | 'No' | null;
	matched: 'lids' | 'grp';
	openRules: 'none' | 'empty' | 'other';
	sections: 'none' | 'nested' | 'objectbank';
	feedback: boolean;
	/** Identifiers of options as some programs make them. */
	ident: (at: number) => string;
	itemtype: boolean;
	order: boolean;
}

/** Any mixture of habits of writing QTI 1.2. */
export const anyQti12Habits: fc.Arbitrary<Qti12Habits> = fc.record({
	prefix: fc.constantFrom('', '', 'qti:', 'ims:'),
	doctype: fc.boolean(),
	flow: fc.constantFrom<Qti12Habits['flow'][]>('none', 'flow', 'nested'),
	text: fc.constantFrom<Qti12Habits['text'][]>(
		(words) => `<mattext>${escapeText(words)}</mattext>`,
		(words) => `<mattext texttype="text/plain" xml:space="preserve">\n  ${escapeText(words)}\n</mattext>`,
		(words) => `<mattext texttype="text/html">${escapeText(`<p>${escapeText(words)}</p>`)}</mattext>`,
		(words) =>
			`<mattext texttype="text/html"><![CDATA[<div><span style="x">${escapeText(words)}</span></div>]]></mattext>`,
		(words) => `<mattext texttype="TEXT/HTML"><![CDATA[${escapeText(words)}<br>]]></mattext>`,
		(words) =>
			`<mattext texttype="text/xhtml"><p xmlns="http://www.w3.org/1999/xhtml">${escapeText(words)}</p></mattext>`,
		(words) => `<matemtext>${escapeText(words)}</matemtext>`
	),
	titled: fc.boolean(),
	cardinality: fc.boolean(),
	variable: fc.constantFrom('SCORE', 'que_score', 'Score', null),
	action: fc.constantFrom('Set', 'Add', null),
	top: fc.constantFrom(1, 1, 100, 4),
	maximum: fc.boolean(),
	wrong: fc.constantFrom<Qti12Habits['wrong'][]>('none', 'other', 'not', 'each'),
	goOn: fc.constantFrom('Yes', 'No', null),
	several: fc.constantFrom<Qti12Habits['several'][]>('all', 'sum'),
	accepted: fc.constantFrom<Qti12Habits['accepted'][]>('side by side', 'or', 'conditions'),
	numbers: fc.constantFrom<Qti12Habits['numbers'][]>('response_num', 'response_str'),
	inAnd: fc.boolean(),
	shuffled: fc.constantFrom('Yes', 'No', null),
	matched: fc.constantFrom<Qti12Habits['matched'][]>('lids', 'grp'),
	openRules: fc.constantFrom<Qti12Habits['openRules'][]>('none', 'empty', 'other'),
	sections: fc.constantFrom<Qti12Habits['sections'][]>('none', 'nested', 'objectbank'),
	feedback: fc.boolean(),
	ident: fc.constantFrom<Qti12Habits['ident'][]>(
		(at) => 'ABCDE'[at]!,
		(at) => String(at),
		(at) => `QUE_1_A_${at + 1}`,
		(at) => `a1b2c3d4e5f60718293a4b5c6d7e8f9${at}`,
		(at) => `option ${at + 1}`
	),
	itemtype: fc.boolean(),
	order: fc.boolean()
});

const attribute = (name: string, value: string | null) => (value === null ? '' : ` ${name}="${value}"`);

/** What is marked: a condition, and what it earns, a share of all. */
interface Rule {
	test: string;
	earns: number;
	right?: boolean;
}

function rules(marks: Rule[], wrongTest: string | null, habits: Qti12Habits): string {
	const { variable, action, top, goOn, feedback } = habits;
	const setvar = (value: number) =>
		`<setvar${attribute('varname', variable)}${attribute('action', action)}>${Math.round(value * top * 1e4) / 1e4}</setvar>`;
	const condition = (test: string, earns: number, link: string | null, on: string | null) =>
		`<respcondition${attribute('continue', on)}><conditionvar>${test}</conditionvar>${setvar(earns)}${
			link && feedback ? `<displayfeedback feedbacktype="Response" linkrefid="${link}"/>` : ''
		}</respcondition>`;
	const sum = marks.length > 1;
	// what adds up has to go on, and has to be added
	const on = sum ? 'Yes' : goOn;
	const adding = sum ? { ...habits, action: 'Add' as const } : habits;
	const own = (rule: Rule) =>
		condition(rule.test, rule.earns, rule.right === false ? null : sum ? null : 'RIGHT', on).replace(
			setvar(rule.earns),
			`<setvar${attribute('varname', adding.variable)}${attribute('action', adding.action)}>${Math.round(rule.earns * top * 1e4) / 1e4}</setvar>`
		);
	const wrong = wrongTest && !sum ? condition(wrongTest, 0, 'WRONG', null) : '';
	const maximum = habits.maximum ? ` minvalue="0" maxvalue="${top}"` : '';
	return `<resprocessing><outcomes><decvar${attribute('varname', variable)} vartype="Decimal" defaultval="0"${maximum}/></outcomes>${marks.map(own).join('')}${wrong}</resprocessing>`;
}

/** What the parts of an item are written with, as its habits are. */
class Writing {
	readonly single: string;
	readonly shuffled: string;
	readonly ident: Qti12Habits['ident'];

	constructor(readonly habits: Qti12Habits) {
		this.single = habits.cardinality ? ' rcardinality="Single"' : '';
		this.shuffled = attribute('shuffle', habits.shuffled);
		this.ident = habits.ident;
	}

	material(words: string): string {
		const { flow, text } = this.habits;
		const plain = `<material>${text(words)}</material>`;
		return flow === 'nested' ? `<flow_mat class="Block"><flow_mat>${plain}</flow_mat></flow_mat>` : plain;
	}

	label(id: string, words: string): string {
		const own = `<response_label ident="${id}">${this.material(words)}</response_label>`;
		return this.habits.flow === 'none' ? own : `<flow_label class="Block">${own}</flow_label>`;
	}

	/** The test for a wrong answer: everything else, not the right one, each of the others; or nothing. */
	wrongOf(test: string, others: string[]): string | null {
		const { wrong } = this.habits;
		if (wrong === 'other') return '<other/>';
		if (wrong === 'not') return `<not>${test}</not>`;
		return wrong === 'each' && others.length ? `<or>${others.join('')}</or>` : null;
	}

	/** The test for everything else, where the habits have one. */
	get otherwise(): string | null {
		return this.habits.wrong === 'other' ? '<other/>' : null;
	}
}

/** What an item asks for, and how it is marked. */
interface Asked {
	asked: string;
	marking: string;
}

const equal = (respident: string, value: string) =>
	`<varequal respident="${respident}">${escapeText(value)}</varequal>`;

function choosing(meant: Parameters<typeof optionsOf>[0], writing: Writing): Asked {
	const { habits, ident, single, shuffled } = writing;
	const options = optionsOf(meant);
	const several = meant.kind === 'multiple-response';
	const asked = `<response_lid ident="R"${several ? ' rcardinality="Multiple"' : single}><render_choice${shuffled}>${options.map(({ text }, place) => writing.label(ident(place), text)).join('')}</render_choice></response_lid>`;
	const rights = options.flatMap(({ right }, place) => (right ? [equal('R', ident(place))] : []));
	const wrongs = options.flatMap(({ right }, place) => (right ? [] : [equal('R', ident(place))]));
	if (!several)
		return { asked, marking: rules([{ test: rights[0]!, earns: 1 }], writing.wrongOf(rights[0]!, wrongs), habits) };
	if (habits.several === 'all') {
		const test = [...rights, ...wrongs.map((wrong) => `<not>${wrong}</not>`)].join('');
		const whole = habits.inAnd ? `<and>${test}</and>` : test;
		return { asked, marking: rules([{ test: whole, earns: 1 }], writing.otherwise, habits) };
	}
	const marks = [
		...rights.map((test) => ({ test, earns: 1 / rights.length })),
		...wrongs.map((test) => ({ test, earns: -1 / rights.length, right: false }))
	];
	return { asked, marking: rules(marks, null, habits) };
}

function writingShort(answers: readonly string[], { habits, single, otherwise }: Writing): Asked {
	const asked = `<response_str ident="S"${single}><render_fib fibtype="String" prompt="Box" rows="1" columns="30"><response_label ident="X"/></render_fib></response_str>`;
	const tests = answers.map((answer) => equal('S', answer));
	if (habits.accepted === 'conditions' && tests.length > 1) {
		const marks = tests.map((test) => ({ test, earns: 1 }));
		return {
			asked,
			marking: rules(marks, null, { ...habits, action: 'Set' }).replace(/action="Add"/g, 'action="Set"')
		};
	}
	const test = habits.accepted === 'or' ? `<or>${tests.join('')}</or>` : tests.join('');
	return { asked, marking: rules([{ test, earns: 1 }], otherwise, habits) };
}

function writingNumber(answer: string, { habits, single, otherwise }: Writing): Asked {
	const fib = `<render_fib fibtype="Decimal"${habits.order ? ' rows="1"' : ''}><response_label ident="Y"/></render_fib>`;
	const asked =
		habits.numbers === 'response_num'
			? `<response_num ident="N" numtype="Decimal"${single}>${fib}</response_num>`
			: `<response_str ident="N"${single}>${fib}</response_str>`;
	const { value, bounds } = numberMeant(answer);
	const within = bounds
		? `<vargte respident="N">${bounds[0]}</vargte><varlte respident="N">${bounds[1]}</varlte>`
		: equal('N', value);
	const test = habits.inAnd ? `<and>${within}</and>` : within;
	return { asked, marking: rules([{ test, earns: 1 }], otherwise, habits) };
}

function matching(pairs: readonly (readonly [string, string])[], writing: Writing): Asked {
	const { habits, ident, single, shuffled } = writing;
	const rights = pairs.map((pair) => pair[1]);
	if (habits.matched === 'lids') {
		const labels = rights.map((right, other) => writing.label(ident(other), right)).join('');
		return {
			asked: pairs
				.map(
					([left], place) =>
						`<response_lid ident="R${place}"${single}>${writing.material(left)}<render_choice${shuffled}>${labels}</render_choice></response_lid>`
				)
				.join(''),
			marking: rules(
				pairs.map((_, place) => ({ test: equal(`R${place}`, ident(place)), earns: 1 / pairs.length })),
				null,
				habits
			)
		};
	}
	const group = rights.map((_, place) => `T${place}`).join(',');
	const lefts = pairs.map(
		([left], place) =>
			`<response_label ident="L${place}" match_group="${group}" match_max="1">${writing.material(left)}</response_label>`
	);
	return {
		asked: `<response_grp ident="G" rcardinality="Multiple"><render_choice${shuffled}>${lefts.join('')}${rights.map((right, place) => writing.label(`T${place}`, right)).join('')}</render_choice></response_grp>`,
		marking: rules(
			pairs.map((_, place) => ({
				test: `<varsubset respident="G">L${place},T${place}</varsubset>`,
				earns: 1 / pairs.length
			})),
			null,
			habits
		)
	};
}

function writingAtLength({ habits, single }: Writing): Asked {
	const asked = `<response_str ident="E"${single}><render_fib rows="10" columns="60" prompt="Box"/></response_str>`;
	if (habits.openRules === 'none') return { asked, marking: '' };
	return {
		asked,
		marking:
			habits.openRules === 'empty'
				? '<resprocessing><outcomes><decvar/></outcomes></resprocessing>'
				: '<resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal"/></outcomes><respcondition><conditionvar><other/></conditionvar><setvar varname="SCORE">0</setvar></respcondition></resprocessing>'
	};
}

function askedOf(meant: Meant, writing: Writing): Asked {
	if ('options' in meant || meant.kind === 'true-false') return choosing(meant, writing);
	if (meant.kind === 'short-answer') return writingShort(meant.answers, writing);
	if (meant.kind === 'numeric') return writingNumber(meant.answers[0]!, writing);
	return meant.kind === 'matching' ? matching(meant.pairs, writing) : writingAtLength(writing);
}

function item(meant: Meant, at: number, habits: Qti12Habits): string {
	const writing = new Writing(habits);
	const { asked, marking } = askedOf(meant, writing);
	const stem = writing.material(meant.stem);
	const shown =
		habits.flow === 'none'
			? stem + asked
			: habits.flow === 'flow'
				? `<flow class="Block">${stem}${asked}</flow>`
				: `<flow><flow>${stem}</flow><flow>${asked}</flow></flow>`;
	const metadata = habits.itemtype
		? `<itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>qmd_computerscored</fieldlabel><fieldentry>Yes</fieldentry></qtimetadatafield></qtimetadata></itemmetadata>`
		: '';
	const feedback = habits.feedback
		? `<itemfeedback ident="RIGHT" view="All">${writing.material('Well done.')}</itemfeedback><itemfeedback ident="WRONG">${writing.material('Read it again.')}</itemfeedback>`
		: '';
	return `<item ident="I${at}"${habits.titled ? ` title="Harbour ${at + 1}"` : ''}>${metadata}<presentation>${shown}</presentation>${marking}${feedback}</item>`;
}

/** A QTI 1.2 document of some questions, written with some habits. */
export function qti12Paper(meant: Meant[], habits: Qti12Habits): string {
	const items = meant.map((one, at) => item(one, at, habits)).join('\n');
	const body =
		habits.sections === 'none'
			? items
			: habits.sections === 'nested'
				? `<assessment ident="A" title="Harbour"><section ident="S0"><section ident="S1" title="Seamanship"><section ident="S2" title="Harbour work">${items}</section></section></section></assessment>`
				: `<objectbank ident="B"><section ident="S1" title="Seamanship"><section ident="S2" title="Harbour work">${items}</section></section></objectbank>`;
	const { prefix } = habits;
	const document = `<questestinterop${prefix ? '' : habits.order ? ' xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"' : ''}>${body}</questestinterop>`;
	const named = prefix
		? document
				.replace(/<(\/?)(?!!|p\b|div\b|span\b|br\b)(?=[a-z_])/g, (_, close: string) => `<${close}${prefix}`)
				.replace(
					`<${prefix}questestinterop`,
					`<${prefix}questestinterop xmlns:${prefix.slice(0, -1)}="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"`
				)
		: document;
	const doctype = habits.doctype && !prefix ? '<!DOCTYPE questestinterop SYSTEM "ims_qtiasiv1p2.dtd">\n' : '';
	return `<?xml version="1.0" encoding="UTF-8"?>\n${doctype}${named}\n`;
}
