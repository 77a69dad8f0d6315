import fc from 'fast-check';
import { escapeText } from '../xml/serialise';
import type { Files } from './packages';
import { numberMeant, optionsOf, type Meant } from './typed-lists';

/** How a program writes QTI 2.1 to 3.0; every field is one habit that the standard leaves open. */
export interface Qti2Habits {
	version: '2.1' | '2.2' | '3.0';
	prefix: string;
	namespaced: boolean;
	/** The address of a template of marking, before its name, and its ending. */
	template: [string, string] | null;
	guarded: boolean;
	/** The score is set, or added to what it was. */
	added: boolean;
	prompt: 'prompt' | 'body' | 'both';
	paragraphs: boolean;
	shuffled: 'true' | 'false' | null;
	most: 'one' | 'none' | 'all';
	several: 'match' | 'map';
	maximum: 'none' | 'MAXSCORE' | 'normalMaximum';
	top: number;
	accepted: 'map' | 'or' | 'branches';
	numbers: 'equal' | 'bounds';
	entry: 'in a paragraph of its own' | 'behind the stem' | 'extended';
	matched: 'matchInteraction' | 'blanks';
	category: 'none' | 'metadata' | 'folders';
	manifest: boolean;
	feedback: boolean;
	spaces: boolean;
	ident: (at: number) => string;
}

/** Any mixture of habits of writing QTI 2.1 to 3.0. */
export const anyQti2Habits: fc.Arbitrary<Qti2Habits> = fc
	.record({
		version: fc.constantFrom<Qti2Habits['version'][]>('2.1', '2.2', '3.0'),
		prefix: fc.constantFrom('', '', '', 'qti:'),
		namespaced: fc.boolean(),
		template: fc.option(
			fc.tuple(
				fc.constantFrom(
					'http://www.imsglobal.org/question/qti_v2p1/rptemplates/',
					'http://www.imsglobal.org/question/qti_v2p2/rptemplates/',
					'https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/',
					'/templates/RPTEMPLATES/',
					''
				),
				fc.constantFrom('', '.xml')
			)
		),
		guarded: fc.boolean(),
		added: fc.boolean(),
		prompt: fc.constantFrom<Qti2Habits['prompt'][]>('prompt', 'body', 'both'),
		paragraphs: fc.boolean(),
		shuffled: fc.constantFrom('true', 'false', null),
		most: fc.constantFrom<Qti2Habits['most'][]>('one', 'none', 'all'),
		several: fc.constantFrom<Qti2Habits['several'][]>('match', 'map'),
		maximum: fc.constantFrom<Qti2Habits['maximum'][]>('none', 'MAXSCORE', 'normalMaximum'),
		top: fc.constantFrom(1, 1, 2, 10),
		accepted: fc.constantFrom<Qti2Habits['accepted'][]>('map', 'or', 'branches'),
		numbers: fc.constantFrom<Qti2Habits['numbers'][]>('equal', 'bounds'),
		entry: fc.constantFrom<Qti2Habits['entry'][]>('in a paragraph of its own', 'behind the stem', 'extended'),
		matched: fc.constantFrom<Qti2Habits['matched'][]>('matchInteraction'),
		category: fc.constantFrom<Qti2Habits['category'][]>('none', 'metadata', 'folders'),
		manifest: fc.boolean(),
		feedback: fc.boolean(),
		spaces: fc.boolean(),
		ident: fc.constantFrom<Qti2Habits['ident'][]>(
			(at) => 'ABCDE'[at]!,
			(at) => `choice_${at}`,
			(at) => `i-9f3c.${at}`,
			(at) => `A${at}`
		)
	})
	// only a manifest can say a category, and a template marks with one point for all
	.map((habits) => ({
		...habits,
		category: habits.category === 'metadata' && !habits.manifest ? 'none' : habits.category,
		top: habits.template ? 1 : habits.top
	}));

const attribute = (name: string, value: string | null) => (value === null ? '' : ` ${name}="${value}"`);
const value = (text: string) => `<value>${escapeText(text)}</value>`;
const base = (type: string, text: string | number) =>
	`<baseValue baseType="${type}">${escapeText(String(text))}</baseValue>`;
const response = '<variable identifier="RESPONSE"/>';
const right = '<correct identifier="RESPONSE"/>';

/** What an item declares of its response, what it asks, and how it is marked. */
interface Parts {
	cardinality: string;
	type: string;
	correct: string[];
	mapped: [string, number][] | null;
	asked: string;
	/** The conditions that earn all the points, each by itself; null where the mapping says what is earned. */
	tests: string[] | null;
}

function partsOf(meant: Meant, habits: Qti2Habits): Parts {
	const { ident, paragraphs, shuffled } = habits;
	const shuffle = attribute('shuffle', shuffled);
	const inner = (text: string) => (paragraphs ? `<p>${escapeText(text)}</p>` : escapeText(text));
	const prompt = habits.prompt === 'prompt' ? `<prompt>${escapeText(meant.stem)}</prompt>` : '';
	const matches = `<match>${response}${right}</match>`;
	if ('options' in meant || meant.kind === 'true-false') {
		const options = optionsOf(meant);
		const several = meant.kind === 'multiple-response';
		const rights = options.flatMap((one, at) => (one.right ? [ident(at)] : []));
		const most = !several ? '1' : habits.most === 'none' ? '0' : String(options.length);
		const map = several && habits.several === 'map';
		return {
			cardinality: several ? 'multiple' : 'single',
			type: 'identifier',
			correct: rights,
			mapped: map ? options.map((one, at) => [ident(at), (one.right ? 1 : -1) * (habits.top / rights.length)]) : null,
			asked: `<choiceInteraction responseIdentifier="RESPONSE"${shuffle} maxChoices="${most}">${prompt}${options.map((one, at) => `<simpleChoice identifier="${ident(at)}">${inner(one.text)}</simpleChoice>`).join('')}</choiceInteraction>`,
			tests: map ? null : [matches]
		};
	}
	const entry =
		habits.entry === 'extended' && meant.kind === 'short-answer'
			? `<extendedTextInteraction responseIdentifier="RESPONSE" expectedLength="20">${prompt}</extendedTextInteraction>`
			: `<textEntryInteraction responseIdentifier="RESPONSE" expectedLength="12"/>`;
	if (meant.kind === 'short-answer') {
		const map = habits.accepted === 'map';
		const same = (one: string) => `<stringMatch caseSensitive="false">${response}${base('string', one)}</stringMatch>`;
		const tests = meant.answers.map(same);
		return {
			cardinality: 'single',
			type: 'string',
			correct: [meant.answers[0]!],
			mapped: map ? meant.answers.map((one) => [one, habits.top]) : null,
			asked: entry,
			tests: map ? null : habits.accepted === 'or' && tests.length > 1 ? [`<or>${tests.join('')}</or>`] : tests
		};
	}
	if (meant.kind === 'numeric') {
		const { value: answer, tolerance, bounds } = numberMeant(meant.answers[0]!);
		const within = bounds
			? `<and><gte>${response}${base('float', bounds[0])}</gte><lte>${response}${base('float', bounds[1])}</lte></and>`
			: `<equal toleranceMode="exact">${response}${right}</equal>`;
		const equal = tolerance
			? `<equal toleranceMode="absolute" tolerance="${tolerance} ${tolerance}">${response}${right}</equal>`
			: within;
		return {
			cardinality: 'single',
			type: 'float',
			correct: [answer],
			mapped: null,
			asked: entry,
			tests: [habits.numbers === 'equal' ? equal : within]
		};
	}
	if (meant.kind === 'matching') {
		const choice = (id: string, text: string) =>
			`<simpleAssociableChoice identifier="${id}" matchMax="1">${inner(text)}</simpleAssociableChoice>`;
		return {
			cardinality: 'multiple',
			type: 'directedPair',
			correct: meant.pairs.map((_, at) => `L${at} R${at}`),
			mapped: meant.pairs.map((_, at) => [`L${at} R${at}`, habits.top / meant.pairs.length]),
			asked: `<matchInteraction responseIdentifier="RESPONSE"${shuffle} maxAssociations="0">${prompt}<simpleMatchSet>${meant.pairs.map(([left], at) => choice(`L${at}`, left)).join('')}</simpleMatchSet><simpleMatchSet>${meant.pairs.map(([, to], at) => choice(`R${at}`, to)).join('')}</simpleMatchSet></matchInteraction>`,
			tests: null
		};
	}
	return {
		cardinality: 'single',
		type: 'string',
		correct: [],
		mapped: null,
		asked: `<extendedTextInteraction responseIdentifier="RESPONSE" expectedLines="10">${prompt}</extendedTextInteraction>`,
		tests: null
	};
}

function marking(parts: Parts, meant: Meant, habits: Qti2Habits): string {
	const { template, top } = habits;
	if (meant.kind === 'essay') return '';
	const plain = parts.tests?.length === 1 && parts.tests[0] === `<match>${response}${right}</match>`;
	if (template && !habits.feedback && (parts.tests === null || plain))
		return `<responseProcessing template="${template[0]}${parts.tests ? 'match_correct' : 'map_response'}${template[1]}"/>`;
	const earned = (what: string) =>
		`<setOutcomeValue identifier="SCORE">${habits.added ? `<sum><variable identifier="SCORE"/>${what}</sum>` : what}</setOutcomeValue>`;
	const shown = (name: string) =>
		habits.feedback ? `<setOutcomeValue identifier="FEEDBACK">${base('identifier', name)}</setOutcomeValue>` : '';
	if (parts.tests === null) {
		const map = earned('<mapResponse identifier="RESPONSE"/>');
		const whole = habits.guarded
			? `<responseCondition><responseIf><isNull>${response}</isNull><setOutcomeValue identifier="SCORE">${base('float', 0)}</setOutcomeValue></responseIf><responseElse>${map}</responseElse></responseCondition>`
			: map;
		return `<responseProcessing>${whole}</responseProcessing>`;
	}
	const [first, ...others] = parts.tests as [string, ...string[]];
	const reward = earned(base('float', top)) + shown('well');
	const guard = habits.guarded ? `<responseIf><isNull>${response}</isNull>${shown('again')}</responseIf>` : '';
	const branch = (test: string, name: string) => `<${name}>${test}${reward}</${name}>`;
	return `<responseProcessing><responseCondition>${guard}${branch(first, guard ? 'responseElseIf' : 'responseIf')}${others
		.map((test) => branch(test, 'responseElseIf'))
		.join(
			''
		)}<responseElse><setOutcomeValue identifier="SCORE">${base('float', 0)}</setOutcomeValue>${shown('again')}</responseElse></responseCondition></responseProcessing>`;
}

const kebab = (name: string) => name.replace(/[A-Z]/g, (sign) => `-${sign.toLowerCase()}`);
const html = new Set(['p', 'div', 'span']);

/** The same with the names of QTI 3.0, or with a prefix. */
function renamed(document: string, { version, prefix }: Qti2Habits): string {
	return document.replace(
		/<(\/?)([A-Za-z]+)([^<>]*?)(\/?)>/g,
		(_, close: string, name: string, rest: string, end: string) => {
			const three = version === '3.0' && !html.has(name);
			const attributes = three
				? rest.replace(/ ([a-zA-Z]+)=/g, (whole, one: string) => (one === 'xmlns' ? whole : ` ${kebab(one)}=`))
				: rest;
			const own = prefix && !html.has(name) ? prefix : '';
			return `<${close}${own}${three ? `qti-${kebab(name)}` : name}${attributes}${end}>`;
		}
	);
}

const spaces: Record<Qti2Habits['version'], string> = {
	'2.1': 'http://www.imsglobal.org/xsd/imsqti_v2p1',
	'2.2': 'http://www.imsglobal.org/xsd/imsqti_v2p2',
	'3.0': 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0'
};

function itemOf(meant: Meant, at: number, habits: Qti2Habits): string {
	const parts = partsOf(meant, habits);
	const newline = habits.spaces ? '\n    ' : '';
	const mapping = parts.mapped
		? `<mapping defaultValue="0">${parts.mapped.map(([key, one]) => `<mapEntry mapKey="${escapeText(key)}" mappedValue="${Math.round(one * 1e4) / 1e4}"${parts.type === 'string' ? ' caseSensitive="false"' : ''}/>`).join('')}</mapping>`
		: '';
	const declared = `<responseDeclaration identifier="RESPONSE" cardinality="${parts.cardinality}" baseType="${parts.type}">${parts.correct.length ? `<correctResponse>${parts.correct.map(value).join('')}</correctResponse>` : ''}${mapping}</responseDeclaration>`;
	const normal = habits.maximum === 'normalMaximum' ? ` normalMaximum="${habits.top}"` : '';
	const outcomes = `<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"${normal}><defaultValue>${value('0')}</defaultValue></outcomeDeclaration>${
		habits.maximum === 'MAXSCORE'
			? `<outcomeDeclaration identifier="MAXSCORE" cardinality="single" baseType="float"><defaultValue>${value(String(habits.top))}</defaultValue></outcomeDeclaration>`
			: ''
	}${habits.feedback ? '<outcomeDeclaration identifier="FEEDBACK" cardinality="single" baseType="identifier"/>' : ''}`;
	const inline = parts.asked.startsWith('<textEntry');
	const outside = habits.prompt !== 'prompt' || inline;
	const stem = outside ? escapeText(meant.stem) : '';
	const body = inline
		? habits.entry === 'behind the stem'
			? `<p>${stem} ${parts.asked}</p>`
			: `<p>${stem}</p>${newline}<p>${parts.asked}</p>`
		: `${stem ? `<p>${stem}</p>${newline}` : ''}${parts.asked}`;
	const modal = habits.feedback
		? '<modalFeedback outcomeIdentifier="FEEDBACK" identifier="well" showHide="show">Well done.</modalFeedback><modalFeedback outcomeIdentifier="FEEDBACK" identifier="again" showHide="show"><p>Read it again.</p></modalFeedback>'
		: '';
	const inside = [
		declared,
		outcomes,
		`<itemBody>${newline}${body}${newline}</itemBody>`,
		marking(parts, meant, habits),
		modal
	].join(newline);
	const { prefix, version } = habits;
	const space = habits.namespaced || prefix ? ` xmlns${prefix ? ':qti' : ''}="${spaces[version]}"` : '';
	const open = `<assessmentItem${space.replace('xmlns:qti', 'xmlnsqti')} identifier="HARBOUR-${at + 1}" title="Harbour ${at + 1}" adaptive="false" timeDependent="false">`;
	return `<?xml version="1.0" encoding="UTF-8"?>\n${renamed(`${open}${inside}</assessmentItem>`, habits).replace('xmlnsqti', 'xmlns:qti')}\n`;
}

const types: Record<Qti2Habits['version'], string> = {
	'2.1': 'imsqti_item_xmlv2p1',
	'2.2': 'imsqti_item_xmlv2p2',
	'3.0': 'imsqti_item_xmlv3p0'
};

/** The files of a package of some questions, written with some habits. */
export function qti2Package(meant: Meant[], habits: Qti2Habits): Files {
	const files: Files = {};
	// items in two folders are told apart by them
	const path = (at: number) =>
		habits.category === 'folders' ? `${at % 2 ? 'Ropes' : 'Tides'}/item${at}.xml` : `items/item${at}.xml`;
	meant.forEach((one, at) => (files[path(at)] = itemOf(one, at, habits)));
	if (!habits.manifest) return files;
	const lom =
		habits.category === 'metadata'
			? '<metadata><imsmd:lom><imsmd:classification><imsmd:taxonpath><imsmd:taxon><imsmd:entry><imsmd:langstring>Seamanship</imsmd:langstring></imsmd:entry></imsmd:taxon><imsmd:taxon><imsmd:entry><imsmd:langstring>Harbour</imsmd:langstring></imsmd:entry></imsmd:taxon></imsmd:taxonpath></imsmd:classification></imsmd:lom></metadata>'
			: '';
	const resources = meant.map(
		(_, at) =>
			`<resource identifier="R${at}" type="${types[habits.version]}" href="${path(at)}">${lom}<file href="${path(at)}"/></resource>`
	);
	files['imsmanifest.xml'] =
		`<?xml version="1.0"?><manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1" xmlns:imsmd="http://www.imsglobal.org/xsd/imsmd_v1p2" identifier="M"><organizations/><resources>${resources.join('')}</resources></manifest>`;
	return files;
}
