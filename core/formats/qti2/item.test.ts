import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import type { Question } from '../../kinds';
import { opened, readAll, readBare } from '../../test-support/packages';

const head =
	'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="Q1" title="Knots" adaptive="false" timeDependent="false"';
const score =
	'<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>';
const most = (points: number) =>
	`<outcomeDeclaration identifier="MAXSCORE" cardinality="single" baseType="float"><defaultValue><value>${points}</value></defaultValue></outcomeDeclaration>`;
const response = (inner: string, cardinality = 'single', baseType = 'identifier') =>
	`<responseDeclaration identifier="RESPONSE" cardinality="${cardinality}" baseType="${baseType}">${inner}</responseDeclaration>`;
const correct = (...values: string[]) =>
	`<correctResponse>${values.map((value) => `<value>${value}</value>`).join('')}</correctResponse>`;
const choices = (max: number, ...texts: string[]) =>
	`<choiceInteraction responseIdentifier="RESPONSE" shuffle="true" maxChoices="${max}"><prompt>Which holds?</prompt>${texts
		.map((text, at) => `<simpleChoice identifier="${'ABCDEF'[at]}">${text}</simpleChoice>`)
		.join('')}</choiceInteraction>`;
const template = (name: string) =>
	`<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/${name}"/>`;
const entry = '<p>How many? <textEntryInteraction responseIdentifier="RESPONSE"/></p>';
const float = (value: number) => `<baseValue baseType="float">${value}</baseValue>`;
const given = '<variable identifier="RESPONSE"/>';
const key = '<correct identifier="RESPONSE"/>';
const set = (value: string) => `<setOutcomeValue identifier="SCORE">${value}</setOutcomeValue>`;
const when = (test: string, value: number) => `<responseIf>${test}${set(float(value))}</responseIf>`;
const inline = (inner: string) =>
	`<responseProcessing><responseCondition>${inner}</responseCondition></responseProcessing>`;

async function read(declarations: string, body: string, rest = '', root = `<assessmentItem ${head}>`) {
	const found = await readBare(
		'item.xml',
		`${root}${declarations}<itemBody>${body}</itemBody>${rest}</assessmentItem>`
	);
	return { question: found.questions[0] as Question, reports: found.about.get('Knots') ?? [], found };
}
const credits = (question: Question) => ('options' in question ? question.options.map((option) => option.credit) : []);

describe('choices of QTI 2', () => {
	it('takes match_correct for all the points', async () => {
		const { question } = await read(
			response(correct('B')) + score + most(3),
			choices(1, 'Reef knot', 'Bowline'),
			template('match_correct')
		);
		expect(question).toMatchObject({ kind: 'multiple-choice', points: 3, shuffle: true });
		expect(credits(question)).toEqual([0, 1]);
		expect(plainText(question.stem)).toBe('Which holds?');
	});
	it.each(['match_correct.xml', '/match_correct', 'rptemplates/match_correct'])(
		'knows the template as %s',
		async (spelling) => {
			const { question } = await read(
				response(correct('A')) + score,
				choices(1, 'Clove hitch', 'Granny'),
				`<responseProcessing template="${spelling}"/>`
			);
			expect(credits(question)).toEqual([1, 0]);
		}
	);
	it('takes a mapping with its bounds', async () => {
		const mapping =
			'<mapping lowerBound="0" upperBound="2" defaultValue="-1"><mapEntry mapKey="A" mappedValue="1"/><mapEntry mapKey="C" mappedValue="1"/></mapping>';
		const { question } = await read(
			response(correct('A', 'C') + mapping, 'multiple') + score + most(2),
			choices(0, 'A', 'B', 'C'),
			template('map_response')
		);
		expect(question).toMatchObject({ kind: 'multiple-response', combination: 'sum', bounds: { lower: 0, upper: 1 } });
		expect(credits(question)).toEqual([0.5, -0.5, 0.5]);
	});
	it('takes match_correct over several as all or nothing', async () => {
		const { question } = await read(
			response(correct('A', 'B'), 'multiple') + score,
			choices(0, 'A', 'B', 'C'),
			template('match_correct')
		);
		expect(question).toMatchObject({ kind: 'multiple-response', combination: 'all', points: 1 });
		expect(credits(question)).toEqual([0.5, 0.5, 0]);
	});
	it('follows written rules', async () => {
		const rules = inline(
			when(`<match>${given}${key}</match>`, 4) +
				`<responseElseIf><member><baseValue baseType="identifier">C</baseValue><multiple>${given}</multiple></member>${set(float(1))}</responseElseIf>`
		);
		const { question } = await read(response(correct('A')) + score, choices(1, 'A', 'B', 'C'), rules);
		expect(question.points).toBe(4);
		expect(credits(question)).toEqual([1, 0, 0.25]);
	});
	it('marks by the declared key where there are no rules', async () => {
		const { question } = await read(response(correct('B')), choices(1, 'A', 'B'));
		expect(credits(question)).toEqual([0, 1]);
	});
	it('marks by the declared key where the rules of a template are somewhere else, and says so', async () => {
		const { question, reports } = await read(
			response(correct('B')) + score,
			choices(1, 'A', 'B'),
			'<responseProcessing template="https://gullhaven.example/rules/own_way"/>'
		);
		expect(credits(question)).toEqual([0, 1]);
		expect(reports).toMatchObject([{ rule: 'marking-simplified', message: expect.stringContaining('own_way') }]);
	});
	it('keeps pinned options, and says nothing of shuffling where the file says nothing', async () => {
		const body = choices(1, 'A', 'None of these')
			.replace(' shuffle="true"', '')
			.replace('identifier="B"', 'identifier="B" fixed="true"');
		const { question } = await read(response(correct('A')) + score, body, template('match_correct'));
		expect(question).toMatchObject({ shuffle: null, options: [{ pinned: false }, { pinned: true }] });
	});
	it('names keys that are no options', async () => {
		const { question } = await read(response(correct('E')) + score, choices(1, 'A', 'B'), template('match_correct'));
		expect(question).toMatchObject({ lostKeys: ['E'] });
	});
	it('places feedback by what shows it', async () => {
		const outcome = '<outcomeDeclaration identifier="FEEDBACK" cardinality="single" baseType="identifier"/>';
		const say = (name: string) =>
			`<setOutcomeValue identifier="FEEDBACK"><baseValue baseType="identifier">${name}</baseValue></setOutcomeValue>`;
		const modal = (name: string, text: string) =>
			`<modalFeedback outcomeIdentifier="FEEDBACK" identifier="${name}" showHide="show">${text}</modalFeedback>`;
		const rules = inline(
			`<responseIf><match>${given}${key}</match>${set(float(1))}${say('good')}</responseIf><responseElse>${say('bad')}</responseElse>`
		);
		const { question } = await read(
			response(correct('A')) + score + outcome,
			choices(1, 'A', 'B', 'C'),
			rules + modal('good', 'Yes.') + modal('bad', '<p>No.</p>')
		);
		expect(question.feedback).toEqual({ correct: 'Yes.', incorrect: 'No.' });
	});
});

describe('written answers of QTI 2', () => {
	it('reads words from a mapping', async () => {
		const mapping =
			'<mapping defaultValue="0"><mapEntry mapKey="bowline" mappedValue="2" caseSensitive="false"/><mapEntry mapKey="loop" mappedValue="1"/></mapping>';
		const { question } = await read(
			response(correct('bowline') + mapping, 'single', 'string') + score + most(2),
			entry,
			template('map_response')
		);
		expect(question).toMatchObject({
			kind: 'short-answer',
			accepted: [
				{ text: 'bowline', credit: 1, caseSensitive: false },
				{ text: 'loop', credit: 0.5, caseSensitive: true }
			]
		});
	});
	it('finds out whether capitals matter', async () => {
		const match = (strict: boolean) =>
			inline(when(`<stringMatch caseSensitive="${strict}">${given}${key}</stringMatch>`, 1));
		for (const strict of [true, false]) {
			const { question } = await read(response(correct('OUT'), 'single', 'string') + score, entry, match(strict));
			expect(question).toMatchObject({ accepted: [{ text: 'OUT', credit: 1, caseSensitive: strict }] });
		}
	});
	it.each([
		['absolute', '0.5 0.5', { value: 10, tolerance: 0.5, credit: 1 }],
		['relative', '10', { value: 10, tolerance: 1, credit: 1 }],
		['absolute', '1 2', { min: 9, max: 12, includesMin: true, includesMax: true, credit: 1 }],
		['exact', '', { value: 10, tolerance: 0, credit: 1 }]
	])('reads a number with a tolerance that is %s, %s', async (mode, tolerance, accepted) => {
		const test = `<equal toleranceMode="${mode}"${tolerance ? ` tolerance="${tolerance}"` : ''}>${given}${key}</equal>`;
		const { question } = await read(response(correct('10'), 'single', 'float') + score, entry, inline(when(test, 1)));
		expect(question).toMatchObject({ kind: 'numeric', accepted: [accepted] });
	});
	it('reads a range from comparisons', async () => {
		const test = `<and><gt>${given}${float(3)}</gt><lte>${given}${float(5)}</lte></and>`;
		const { question } = await read(response('', 'single', 'float') + score, entry, inline(when(test, 1)));
		expect(question).toMatchObject({
			accepted: [{ min: 3, max: 5, includesMin: false, includesMax: true, credit: 1 }]
		});
	});
	it('is an essay where a long text has no key', async () => {
		const { question } = await read(
			response('', 'single', 'string') + score + most(8),
			'<extendedTextInteraction responseIdentifier="RESPONSE"><prompt>Describe it.</prompt></extendedTextInteraction>'
		);
		expect(question).toMatchObject({ kind: 'essay', points: 8 });
	});
});

describe('what cannot be held', () => {
	it.each([
		['graphicOrderInteraction', 'to put places of a picture in order'],
		['drawingInteraction', 'to draw'],
		['customInteraction', 'that only its maker knows']
	])('keeps %s as it came', async (name, words) => {
		const { question, reports } = await read(
			response('') + score,
			`<p>Do it.</p><${name} responseIdentifier="RESPONSE"/>`
		);
		expect(question).toMatchObject({ kind: 'unreadable' });
		expect('reason' in question && question.reason).toContain(words);
		expect('fragment' in question && question.fragment).toContain(`<${name}`);
		expect(reports).toEqual([]);
	});
	it('keeps an item with rules that it cannot follow', async () => {
		const { question } = await read(
			response(correct('1'), 'single', 'string') + score,
			entry,
			inline(when(`<customOperator class="ours">${given}</customOperator>`, 1))
		);
		expect(question).toMatchObject({ kind: 'unreadable' });
	});
});

describe('whole documents', () => {
	it.each([
		['2.0', 'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p0"', 'qti20'],
		['2.1', 'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1"', 'qti21'],
		['2.2', 'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p2"', 'qti22'],
		['without a namespace', '', 'qti21']
	])('reads an item of QTI %s', async (_, namespace, format) => {
		const { question } = await read(
			response(correct('A')) + score,
			choices(1, 'A', 'B'),
			template('match_correct'),
			`<assessmentItem ${namespace} identifier="Q" title="Knots">`
		);
		expect(question).toMatchObject({ kind: 'multiple-choice', source: { format } });
	});
	it('reads an item with prefixes', async () => {
		const { question } = await read(response(correct('A')) + score, choices(1, 'A', 'B'), template('match_correct'));
		const prefixed = await readBare(
			'item.xml',
			`<q:assessmentItem xmlns:q="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="Q1" title="Knots"><q:responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><q:correctResponse><q:value>A</q:value></q:correctResponse></q:responseDeclaration><q:itemBody><q:choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><q:prompt>Which holds?</q:prompt><q:simpleChoice identifier="A">A</q:simpleChoice><q:simpleChoice identifier="B">B</q:simpleChoice></q:choiceInteraction></q:itemBody></q:assessmentItem>`
		);
		expect(credits(prefixed.questions[0]!)).toEqual(credits(question));
	});
	it('refuses outside entities and entity bombs at once, and reads on', async () => {
		const evil = (declaration: string) =>
			`<!DOCTYPE assessmentItem [${declaration}]><assessmentItem ${head}><itemBody><p>&x;</p></itemBody></assessmentItem>`;
		const bomb = Array.from({ length: 20 }, (_, at) => `<!ENTITY a${at + 1} "${`&a${at};`.repeat(10)}">`).join('');
		const found = await readAll(
			await opened({
				'a.xml': evil('<!ENTITY x SYSTEM "http://192.0.2.1/secret">'),
				'b.xml': evil(`<!ENTITY a0 "ha">${bomb}`),
				'c.xml': `<assessmentItem ${head}><itemBody><p>Still here.</p></itemBody></assessmentItem>`
			})
		);
		expect(found.reports.map((report) => report.rule)).toEqual(['external-entity', 'entity-expansion']);
		expect(found.questions.map((question) => question.stem)).toEqual(['Still here.']);
	});
	it('says that a shared stimulus is not read, and keeps the question', async () => {
		const { question, reports } = await read(
			`${response(correct('A'))}${score}<assessmentStimulusRef identifier="s" href="../stimuli/forecast.xml"/>`,
			choices(1, 'A', 'B'),
			template('match_correct')
		);
		expect(question.kind).toBe('multiple-choice');
		expect(reports).toMatchObject([
			{ rule: 'shared-stimulus', message: expect.stringContaining('stimuli/forecast.xml') }
		]);
	});
	it('keeps a file that is not well-formed as a question that counts, with its title and where it is wrong', async () => {
		const { found } = await read('', '<p>\n\nShip & shore</p>');
		expect(found.questions).toMatchObject([
			{ kind: 'unreadable', title: 'Knots', faultLine: 3, stem: 'Ship &amp; shore' }
		]);
		expect(found.reports).toEqual([]);
	});
	it('reads a file in Windows-1252 that says nothing of it, and reports the guess', async () => {
		const text = `<assessmentItem ${head}><itemBody><p>M\u00f6we</p></itemBody></assessmentItem>`;
		const found = await readBare(
			'item.xml',
			Uint8Array.from(text, (sign) => sign.charCodeAt(0))
		);
		expect(found.questions[0]!.stem).toBe('Möwe');
		expect(found.about.get('Knots')).toMatchObject([{ rule: 'wrong-encoding' }]);
	});
});

describe('what stands in an item beside its question', () => {
	const about = async (attributes: string, choice: string, more = '') => {
		const found = await readBare(
			'a.xml',
			`<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="B" title="Beside" timeDependent="false" ${attributes}><responseDeclaration identifier="R" cardinality="multiple" baseType="identifier"><correctResponse><value>A</value><value>B</value></correctResponse></responseDeclaration><itemBody><choiceInteraction responseIdentifier="R" shuffle="true" ${choice}><prompt>Which are hitches?</prompt><simpleChoice identifier="A">Clove</simpleChoice><simpleChoice identifier="B">Rolling</simpleChoice><simpleChoice identifier="C">Bowline</simpleChoice></choiceInteraction></itemBody>${more}</assessmentItem>`
		);
		return found.about.get('Beside')!.filter((report) => report.rule === 'beside-question');
	};
	it.each([
		['adaptive="true"', 'maxChoices="0"', '', 'in several steps'],
		['adaptive="false"', 'maxChoices="2"', '', 'at most 2 of the 3 options'],
		['adaptive="false"', 'maxChoices="0" minChoices="2"', '', 'at least 2 options'],
		[
			'adaptive="false"',
			'maxChoices="0"',
			'<companionMaterialsInfo><calculator><description>A calculator</description></calculator></companionMaterialsInfo>',
			'“A calculator”'
		],
		[
			'adaptive="false"',
			'maxChoices="0"',
			'<catalogInfo><catalog id="c"><card support="spoken"><htmlContent><p>Say it slowly</p></htmlContent></card></catalog></catalogInfo>',
			'“Say it slowly”'
		]
	])('is named: %s %s %s', async (attributes, choice, more, words) => {
		const [report] = await about(attributes, choice, more);
		expect(report!.message).toContain(words);
	});
	it('is nothing where as many may be chosen as there are', async () => {
		expect(await about('adaptive="false"', 'maxChoices="3"')).toEqual([]);
		expect(await about('adaptive="false"', 'maxChoices="0" minChoices="1"')).toEqual([]);
	});
});
