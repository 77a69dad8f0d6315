import { describe, expect, it } from 'vitest';
import { opened, readAll, type Files } from '../../test-support/packages';

const namespace = 'http://www.imsglobal.org/xsd/imsqti_v2p1';
const item = (identifier: string, points?: number) =>
	`<assessmentItem xmlns="${namespace}" identifier="${identifier}" title="${identifier}" adaptive="false" timeDependent="false">${points === undefined ? '' : `<outcomeDeclaration identifier="MAXSCORE" cardinality="single" baseType="float"><defaultValue><value>${points}</value></defaultValue></outcomeDeclaration>`}<itemBody><p>${identifier}</p><extendedTextInteraction responseIdentifier="R"/></itemBody></assessmentItem>`;
const reference = (identifier: string, inner = '') =>
	`<assessmentItemRef identifier="ref-${identifier}" href="../items/${identifier}.xml">${inner}</assessmentItemRef>`;
const test = (body: string) =>
	`<assessmentTest xmlns="${namespace}" identifier="T" title="Spring paper"><testPart identifier="P" navigationMode="nonlinear" submissionMode="simultaneous">${body}</testPart></assessmentTest>`;
const section = (title: string, inner: string) =>
	`<assessmentSection identifier="S" title="${title}" visible="true">${inner}</assessmentSection>`;
const items = (...names: string[]): Files => Object.fromEntries(names.map((name) => [`items/${name}.xml`, item(name)]));
const read = async (files: Files) => {
	const found = await readAll(await opened(files));
	return { ...found, quiz: found.quizzes[0]! };
};
const names = (list: { file: string | null }[]) => list.map((one) => one.file?.replace(/^items\/|\.xml$/g, ''));

describe('a test of QTI 2', () => {
	it('is a quiz whose parts are its sections, with how many are drawn and in what order', async () => {
		const { quiz, questions } = await read({
			...items('a', 'b', 'c'),
			'tests/t.xml': test(
				section('Warm-up', `<ordering shuffle="false"/>${reference('a')}`) +
					section('Lights', `<selection select="1"/><ordering shuffle="true"/>${reference('b')}${reference('c')}`)
			)
		});
		expect(questions).toHaveLength(3);
		expect(quiz.title).toBe('Spring paper');
		expect(quiz.parts.map(({ title, draw, shuffle, questions: list }) => [title, draw, shuffle, names(list)])).toEqual([
			['Warm-up', null, false, ['a']],
			['Lights', 1, true, ['b', 'c']]
		]);
	});
	it('gives the questions the categories of its sections, one within the other', async () => {
		const { questions } = await read({
			...items('a', 'b'),
			'tests/t.xml': test(section('Lights', reference('a') + section('Sidelights', reference('b'))))
		});
		expect(questions.map(({ identifier, category }) => [identifier, category])).toEqual([
			['a', ['Lights']],
			['b', ['Lights', 'Sidelights']]
		]);
	});
	it('reads sections that stand in files of their own', async () => {
		const { quiz } = await read({
			...items('a'),
			'sections/s.xml': `<assessmentSection xmlns="${namespace}" identifier="S" title="Apart" visible="true">${reference('a')}</assessmentSection>`,
			'tests/t.xml': test('<assessmentSectionRef identifier="S" href="../sections/s.xml"/>')
		});
		expect(quiz.parts.map(({ title, questions }) => [title, names(questions)])).toEqual([['Apart', ['a']]]);
	});
	it('says the points of each question by its weight', async () => {
		const { quiz } = await read({
			'items/a.xml': item('a', 2),
			'items/b.xml': item('b', 2),
			'tests/t.xml': test(
				section(
					'All',
					reference('a', '<weight identifier="W" value="1.5"/>') +
						reference('b', '<weight identifier="W" value="1.5"/>')
				)
			)
		});
		expect(quiz.parts[0]!.pointsEach).toBe(3);
	});
	it('says so where its weights give the questions of a part different points', async () => {
		const weighed = async (first: number, second: number) => {
			const { quiz, reports } = await read({
				'items/a.xml': item('a', 2),
				'items/b.xml': item('b', 4),
				'tests/t.xml': test(
					section(
						'All',
						reference('a', `<weight identifier="W" value="${first}"/>`) +
							reference('b', `<weight identifier="W" value="${second}"/>`)
					)
				)
			});
			return [quiz.parts[0]!.pointsEach, reports.map((report) => report.message).join()];
		};
		expect(await weighed(2, 1)).toEqual([4, '']);
		const [each, message] = await weighed(3, 1);
		expect(each).toBeNull();
		expect(message).toContain('“ref-a” 6, “ref-b” 4');
	});
	it('is reported where it draws more than there is, and where a file is missing', async () => {
		const { quiz, reports } = await read({
			...items('a'),
			'tests/t.xml': test(
				section('Lights', `<selection select="4"/>${reference('a')}`) +
					'<assessmentSectionRef identifier="S" href="../sections/gone.xml"/>'
			)
		});
		expect(quiz.parts).toHaveLength(1);
		expect(reports.map(({ rule }) => rule).sort()).toEqual(['draw-too-large', 'missing-file']);
	});
	it('is read under the names of QTI 3.0 too', async () => {
		const { quiz } = await read({
			'items/a.xml':
				'<qti-assessment-item xmlns="http://www.imsglobal.org/xsd/imsqtiasi_v3p0" identifier="a" title="a" adaptive="false" time-dependent="false"><qti-item-body><p>a</p></qti-item-body></qti-assessment-item>',
			'tests/t.xml':
				'<qti-assessment-test xmlns="http://www.imsglobal.org/xsd/imsqtiasi_v3p0" identifier="T" title="Third"><qti-test-part identifier="P" navigation-mode="linear" submission-mode="individual"><qti-assessment-section identifier="S" title="One" visible="true"><qti-selection select="1"/><qti-ordering shuffle="true"/><qti-assessment-item-ref identifier="R" href="../items/a.xml"/></qti-assessment-section></qti-test-part></qti-assessment-test>'
		});
		expect(quiz).toMatchObject({ title: 'Third', parts: [{ title: 'One', draw: 1, shuffle: true }] });
	});
	it('that draws sections of one size draws groups of questions, each with the category of its section', async () => {
		const { quiz, questions, reports } = await read({
			...items('a', 'b', 'c', 'd'),
			'tests/t.xml': test(
				section(
					'Either',
					`<selection select="1"/>${section('Bow', reference('a') + reference('b'))}${section('Stern', reference('c') + reference('d'))}`
				)
			)
		});
		expect(quiz.parts.map(({ title, draw, questions: list }) => [title, draw, names(list)])).toEqual([
			['Either', 2, ['a', 'b', 'c', 'd']]
		]);
		expect(quiz.rules?.together.map(names)).toEqual([
			['a', 'b'],
			['c', 'd']
		]);
		expect(questions.map(({ category }) => category.at(-1))).toEqual(['Bow', 'Bow', 'Stern', 'Stern']);
		expect(reports).toEqual([]);
	});
	it('that draws sections of other sizes says so, and loses none of their questions', async () => {
		const { quiz, reports } = await read({
			...items('a', 'b', 'c'),
			'tests/t.xml': test(
				section(
					'Either',
					`<selection select="1"/>${section('Bow', reference('a') + reference('b'))}${section('Stern', reference('c'))}`
				)
			)
		});
		expect(quiz.parts.map(({ title }) => title)).toEqual(['Bow', 'Stern']);
		expect(reports.map(({ message }) => message).join()).toContain('“Either” draws 1 of 2 things');
	});
	it('names once a question that is not there, also where its section draws sections', async () => {
		const { quiz, reports } = await read({
			...items('a', 'b', 'c'),
			'tests/t.xml': test(
				section(
					'Either',
					`<selection select="1"/>${section('Bow', reference('a') + reference('gone'))}${section('Stern', reference('b') + reference('c'))}`
				)
			)
		});
		expect(quiz.parts.map((part) => names(part.questions))).toEqual([['a'], ['b', 'c']]);
		expect(reports.filter(({ rule }) => rule === 'missing-question')).toHaveLength(1);
	});
	it('names a question that it refers to and the package has not, and counts only those that are there', async () => {
		const { quiz, reports } = await read({
			...items('a'),
			'tests/t.xml': test(section('Lights', `<selection select="2"/>${reference('a')}${reference('gone')}`))
		});
		expect(quiz.parts.map((part) => names(part.questions))).toEqual([['a']]);
		const missing = reports.find((report) => report.rule === 'missing-question')!;
		expect(missing.message).toContain('“ref-gone” in “items/gone.xml”');
		expect(reports.map((report) => report.rule)).toContain('draw-too-large');
	});
	it.each([
		['rules on attempts', '<itemSessionControl maxAttempts="3"/>', ''],
		['time limits', '<timeLimits maxTime="30"/>', ''],
		['time limits', '<timeLimits minTime="30" maxTime="60"/>', ''],
		['time limits', '', '<timeLimits maxTime="60"/>'],
		['rules on attempts', '', '<itemSessionControl showSolution="true"/>'],
		['jumps between', '', '<branchRule target="EXIT_TEST"><baseValue baseType="boolean">true</baseValue></branchRule>']
	])('names %s of a section or of one of its questions', async (words, ofSection, ofQuestion) => {
		const { quiz, reports } = await read({
			...items('a'),
			'tests/t.xml': test(section('Lights', `${ofSection}${reference('a', ofQuestion)}`))
		});
		expect(names(quiz.parts[0]!.questions)).toEqual(['a']);
		expect(reports.find((report) => report.rule === 'quiz-rules')!.message).toContain(words);
	});
});

describe('what stands around a test', () => {
	const around = async (inner: string, control = '', words = '') => {
		const { quiz, reports } = await read({
			...items('a', 'b'),
			't.xml': `<assessmentTest xmlns="${namespace}" identifier="T" title="Paper">${inner}<testPart identifier="P" navigationMode="nonlinear" submissionMode="simultaneous">${control}<assessmentSection identifier="S" title="All" visible="true">${words}<assessmentItemRef identifier="r" href="items/a.xml"/></assessmentSection><assessmentSection identifier="S2" title="More" visible="true"><rubricBlock view="candidate"><p>Two points each.</p></rubricBlock><assessmentItemRef identifier="q" href="items/b.xml"/></assessmentSection></testPart></assessmentTest>`
		});
		return { settings: quiz.settings, reports: reports.map(({ message }) => message) };
	};
	it('is read into the quiz: its time, what is shown afterwards, its pass mark, its instructions', async () => {
		const { settings, reports } = await around(
			'<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" normalMaximum="20" masteryValue="12"/><timeLimits maxTime="2700"/>',
			'<itemSessionControl maxAttempts="1" showSolution="true"/>',
			'<rubricBlock view="candidate proctor"><p>No <b>phones</b>.</p><p>Take<br/>a pencil.</p></rubricBlock>'
		);
		expect(reports).toEqual([]);
		expect(settings).toEqual({
			minutes: 45,
			pass: 60,
			shown: ['points', 'own answers', 'right answers'],
			shownWhen: 'at once',
			instructions: 'No phones.\n\nTake\na pencil.\n\nMore: Two points each.'
		});
	});
	it('puts its parts in a random order, where its only section shuffles those in it', async () => {
		const both = `${section('Bow', reference('a'))}${section('Stern', reference('b'))}`;
		const quizOf = async (inner: string) => (await read({ ...items('a', 'b'), 'tests/t.xml': test(inner) })).quiz;
		const mixed = await quizOf(section('All', `<ordering shuffle="true"/>${both}`));
		expect(mixed.parts.map(({ title }) => title)).toEqual(['Bow', 'Stern']);
		expect(mixed.rules?.partsShuffled).toBe(true);
		expect((await quizOf(section('All', both))).rules).toBeUndefined();
		expect((await quizOf(both)).rules).toBeUndefined();
	});
	it('is named where a quiz has no place for it', async () => {
		const { settings, reports } = await around(
			'<timeLimits minTime="60" maxTime="2700"/>',
			'<itemSessionControl maxAttempts="3"/>',
			'<rubricBlock view="scorer"><p>Half a point for the unit.</p></rubricBlock>'
		);
		expect(settings).toEqual({ minutes: 45, instructions: 'Two points each.' });
		expect(reports.join()).toContain('time limits');
		expect(reports.join()).toContain('rules on attempts');
		expect(reports.join()).toContain('Half a point for the unit.');
	});
	it('is not there where the test says nothing', async () => {
		const { quiz } = await read({ ...items('a'), 't.xml': test(section('All', reference('a'))) });
		expect(quiz.settings).toBeUndefined();
	});
});

describe('settings of a test that no quiz here holds', () => {
	const about = async (part: string, inner: string, after = '') =>
		(
			await read({
				...items('a', 'b'),
				't.xml': `<assessmentTest xmlns="${namespace}" identifier="T" title="Paper"><testPart identifier="P" ${part} submissionMode="individual"><assessmentSection identifier="S" title="All" visible="true">${inner}</assessmentSection></testPart>${after}</assessmentTest>`
			})
		).reports.map((report) => report.message);
	const ref = (name: string, attributes = '') =>
		`<assessmentItemRef identifier="r-${name}" href="items/${name}.xml" ${attributes}/>`;
	const scoring = (inner: string) => `<outcomeProcessing>${inner}</outcomeProcessing>`;
	const sum =
		'<setOutcomeValue identifier="SCORE"><sum><testVariables variableIdentifier="SCORE"/></sum></setOutcomeValue>';
	it.each([
		['navigationMode="linear"', ref('a'), '', 'without a way back'],
		[
			'navigationMode="nonlinear"',
			`<selection select="1" withReplacement="true"/>${ref('a')}${ref('b')}`,
			'',
			'drawn more than once'
		],
		[
			'navigationMode="nonlinear"',
			`<selection select="1"/>${ref('a', 'required="true"')}${ref('b')}`,
			'',
			'always drawn'
		],
		[
			'navigationMode="nonlinear"',
			`<ordering shuffle="true"/>${ref('a', 'fixed="true"')}${ref('b')}`,
			'',
			'keep their place'
		],
		[
			'navigationMode="nonlinear"',
			ref('a'),
			scoring(
				`${sum}<outcomeCondition><outcomeIf><isNull><variable identifier="SCORE"/></isNull></outcomeIf></outcomeCondition>`
			),
			'more than a sum'
		]
	])('are named: %s %s %s', async (part, inner, after, words) => {
		const messages = await about(part, inner, after);
		expect(messages).toHaveLength(1);
		expect(messages[0]).toContain(words);
	});
	it('are none where it asks for nothing more than its questions and their sum', async () => {
		expect(
			await about(
				'navigationMode="nonlinear"',
				`<ordering shuffle="true"/>${ref('a')}${ref('b', 'required="false" fixed="false"')}`,
				scoring(sum)
			)
		).toEqual([]);
	});
});
