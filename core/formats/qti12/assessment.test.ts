import { describe, expect, it } from 'vitest';
import { opened, readAll, readBare, zipped } from '../../test-support/packages';
import { partsFound } from '../../test-support/quizzes';

const item = (ident: string) =>
	`<item ident="${ident}" title="${ident}"><presentation><material><mattext>${ident}?</mattext></material></presentation></item>`;
const order = (count: number, type = 'Random', bank = '') =>
	`<selection_ordering><selection>${bank ? `<sourcebank_ref>${bank}</sourcebank_ref>` : ''}<selection_number>${count}</selection_number></selection><order order_type="${type}"/></selection_ordering>`;
const document = (body: string) => `<questestinterop>${body}</questestinterop>`;

describe('an assessment of QTI 1.2', () => {
	it('is a quiz whose parts are its sections, with how many are drawn', async () => {
		const found = await readBare(
			'paper.xml',
			document(
				`<assessment ident="A" title="Paper"><section ident="S1" title="Lights">${order(1)}${item('a')}${item('b')}</section><section ident="S2" title="Knots">${order(1, 'Sequential')}${item('c')}</section></assessment>`
			)
		);
		expect(found.quizzes).toMatchObject([
			{
				title: 'Paper',
				parts: [
					{ title: 'Lights', draw: 1, shuffle: true, questions: [{ identifier: 'a' }, { identifier: 'b' }] },
					{ title: 'Knots', draw: 1, shuffle: false, questions: [{ identifier: 'c' }] }
				]
			}
		]);
		expect(found.questions.map((question) => question.category)).toEqual([['Lights'], ['Lights'], ['Knots']]);
	});
	it('draws from a bank that stands in another file, whichever is read first', async () => {
		const found = await readAll(
			await opened({
				'a-paper.xml': document(
					`<assessment ident="A" title="Paper"><section ident="S" title="From the bank">${order(2, 'Random', 'BANK')}</section></assessment>`
				),
				'b-bank.xml': document(`<objectbank ident="BANK">${item('x')}${item('y')}${item('z')}</objectbank>`)
			})
		);
		expect(found.quizzes[0]!.parts[0]).toMatchObject({ draw: 2, bank: 'BANK' });
		expect(found.quizzes[0]!.parts[0]!.questions.map((one) => one.identifier)).toEqual(['x', 'y', 'z']);
		expect(found.reports).toEqual([]);
	});
	it('has a part for each bank that one section draws from', async () => {
		const select = (bank: string, count: number, more = '') =>
			`<selection><sourcebank_ref>${bank}</sourcebank_ref><selection_number>${count}</selection_number>${more}</selection>`;
		const found = await readBare(
			'paper.xml',
			document(
				`<objectbank ident="A">${item('a')}${item('b')}</objectbank><objectbank ident="B">${item('c')}</objectbank><assessment ident="Q" title="Paper"><section ident="S" title="Both"><selection_ordering>${select('A', 2)}${select('B', 1, '<not_selection><selection_metadata mdname="level" mdoperator="EQ">hard</selection_metadata></not_selection>')}<order order_type="Random"/></selection_ordering></section></assessment>`
			)
		);
		expect(found.quizzes[0]!.parts).toMatchObject([
			{ title: 'Both', draw: 2, shuffle: true, questions: [{ identifier: 'a' }, { identifier: 'b' }] },
			{ title: 'Both', draw: 1, shuffle: true, questions: [{ identifier: 'c' }] }
		]);
		expect(found.reports).toMatchObject([{ rule: 'draw-condition' }]);
		expect(found.reports[0]!.message).toContain('“not (level EQ hard)”');
	});
	const drawing = (...sections: string[]) =>
		readBare(
			'paper.xml',
			document(
				`<assessment ident="A" title="Paper"><section ident="S" title="Either">${order(1)}${sections.join('')}</section></assessment>`
			)
		);
	const inner = (title: string, ...idents: string[]) =>
		`<section ident="S-${title}" title="${title}">${idents.map((ident) => item(ident)).join('')}</section>`;
	it('that draws sections of one size draws groups of questions, each with the category of its section', async () => {
		const found = await drawing(inner('Lights', 'a', 'b'), inner('Knots', 'c', 'd'));
		const [quiz] = found.quizzes;
		expect(quiz!.parts.map(({ title, draw, questions }) => [title, draw, questions.length])).toEqual([
			['Either', 2, 4]
		]);
		expect(quiz!.rules?.together.map((group) => group.map(({ identifier }) => identifier))).toEqual([
			['a', 'b'],
			['c', 'd']
		]);
		expect(quiz!.parts[0]!.questions.map(({ path }) => path?.at(-1))).toEqual(['Lights', 'Lights', 'Knots', 'Knots']);
		expect(found.reports).toEqual([]);
	});
	it('that draws sections of one question draws questions', async () => {
		const { quizzes } = await drawing(inner('Lights', 'a'), inner('Knots', 'b'), item('c'));
		expect(quizzes[0]!.parts.map(({ draw, questions }) => [draw, questions.length])).toEqual([[1, 3]]);
		expect(quizzes[0]!.rules).toBeUndefined();
	});
	it('that draws sections of other sizes says so, and has each of them as a part', async () => {
		const found = await drawing(inner('Lights', 'a', 'b'), inner('Knots', 'c'));
		expect(found.quizzes[0]!.parts.map((part) => part.title)).toEqual(['Lights', 'Knots']);
		expect(found.reports).toMatchObject([{ rule: 'draws-sections', place: { line: 1 } }]);
	});
	it('names a way of scoring that is more than a sum, and a mark to pass', async () => {
		const saidOf = async (attributes: string, cut: string) =>
			(
				await readBare(
					'paper.xml',
					document(
						`<assessment ident="A" title="Paper"><outcomes_processing ${attributes}><outcomes><decvar varname="SCORE"${cut}/></outcomes></outcomes_processing><section ident="S" title="P">${item('a')}</section></assessment>`
					)
				)
			).reports.map((report) => report.message);
		expect(await saidOf('scoremodel="SumOfScores"', '')).toEqual([]);
		expect((await saidOf('scoremodel="NumberCorrect"', ' cutvalue="6"'))[0]).toContain(
			'“scoremodel: NumberCorrect”, “cutvalue: 6”'
		);
	});
	it('says so where the bank is nowhere', async () => {
		const found = await readBare(
			'paper.xml',
			document(
				`<assessment ident="A" title="Paper"><section ident="S" title="P">${order(2, 'Random', 'GONE')}${item('a')}</section></assessment>`
			)
		);
		expect(found.reports.map(({ rule }) => rule).sort()).toEqual(['draw-too-large', 'unknown-bank']);
	});
	it('refers to items by name, and an item that stands twice is told', async () => {
		const found = await readBare(
			'paper.xml',
			document(
				`<objectbank ident="B">${item('a')}</objectbank><assessment ident="A" title="Paper"><section ident="S" title="P"><itemref linkrefid="a"/></section></assessment>`
			)
		);
		expect(found.quizzes[0]!.parts[0]!.questions).toEqual([{ identifier: 'a', file: 'paper.xml', place: 1 }]);
		const twice = await readBare('twice.xml', document(item('a') + item('a')));
		expect(twice.questions).toHaveLength(2);
		expect([...twice.about.values()].flat().map(({ rule }) => rule)).toEqual(['repeated-question-identifier']);
	});
	it('refers to the items of its own package, where others beside it have the same names', async () => {
		const inner = (title: string) =>
			zipped({
				'paper.xml': document(
					`<objectbank ident="B">${item('b')}${item('a').replace('title="', `title="${title} `)}</objectbank><assessment ident="A" title="${title}"><section ident="S" title="P"><itemref linkrefid="a"/></section></assessment>`
				)
			});
		const found = await readAll(await opened({ 'one.zip': inner('Tides'), 'two.zip': inner('Ropes') }));
		const asked = partsFound(found).map((parts) => parts.flatMap(({ items }) => items));
		expect(found.quizzes.map(({ title }) => title)).toEqual(['Tides', 'Ropes']);
		expect(asked).toEqual([[expect.stringMatching(/^Tides /)], [expect.stringMatching(/^Ropes /)]]);
	});
	it('leaves the root section out of the categories', async () => {
		const found = await readBare(
			'bank.xml',
			document(
				`<assessment ident="A" title="T"><section ident="root_section" title="root section"><section ident="S" title="Lights">${item('a')}</section></section></assessment>`
			)
		);
		expect(found.questions[0]!.category).toEqual(['Lights']);
	});
	describe('what stands around its questions', () => {
		const field = (label: string, entry: string) =>
			`<qtimetadatafield><fieldlabel>${label}</fieldlabel><fieldentry>${entry}</fieldentry></qtimetadatafield>`;
		const around = async (inner: string) => {
			const { quizzes, reports } = await readBare(
				'paper.xml',
				document(
					`<assessment ident="A" title="Paper">${inner}<section ident="S" title="Lights">${item('a')}</section></assessment>`
				)
			);
			return { settings: quizzes[0]!.settings, said: reports.map(({ message }) => message).join(' ') };
		};
		it('says that its parts come in a random order, and that it draws of them', async () => {
			const order = '<order order_type="Random"/>';
			const read = (selection: string, more = '') =>
				readBare(
					'paper.xml',
					document(
						`<assessment ident="A" title="Paper"><selection_ordering>${selection}${order}</selection_ordering><section ident="S" title="Lights">${item('a')}</section><section ident="T" title="Sounds">${item('b')}${more}</section></assessment>`
					)
				);
			const mixed = await read('<selection/>');
			expect(mixed.quizzes[0]!.rules?.partsShuffled).toBe(true);
			expect(mixed.quizzes[0]!.parts.map(({ shuffle }) => shuffle)).toEqual([null, null]);
			expect(mixed.reports).toEqual([]);
			const one = '<selection><selection_number>1</selection_number></selection>';
			const [paper] = (await read(one)).quizzes;
			expect(
				paper!.parts.map(({ title, draw, shuffle, questions }) => [title, draw, shuffle, questions.length])
			).toEqual([['Paper', 1, true, 2]]);
			expect(paper!.rules).toBeUndefined();
			const uneven = await read(one, item('c'));
			expect(uneven.quizzes[0]!.parts.map(({ title }) => title)).toEqual(['Lights', 'Sounds']);
			expect(uneven.reports.map(({ message }) => message).join()).toContain('“Paper” draws 1 of the sections in it');
		});
		it('is read into the quiz: its time and attempts, its words, what is shown, its pass mark', async () => {
			const { settings, said } = await around(
				`<duration>PT1H30M</duration><qtimetadata>${field('cc_profile', 'cc.exam.v0p1')}${field('cc_maxattempts', '2')}</qtimetadata><assessmentcontrol feedbackswitch="No" solutionswitch="Yes"/><rubric view="Candidate"><material><mattext texttype="text/html">&lt;p&gt;No phones.&lt;/p&gt;&lt;p&gt;Take a pencil.&lt;/p&gt;</mattext></material></rubric><outcomes_processing scoremodel="SumOfScores"><outcomes><decvar vartype="Decimal" minvalue="0" maxvalue="20" cutvalue="12"/></outcomes></outcomes_processing>`
			);
			expect(said).toBe('');
			expect(settings).toEqual({
				minutes: 90,
				attempts: 2,
				shown: ['points', 'right answers'],
				shownWhen: 'at once',
				instructions: 'No phones.\n\nTake a pencil.',
				pass: 60
			});
		});
		it.each([
			[field('qmd_timelimit', '30'), { minutes: 30 }],
			[field('cc_maxattempts', 'Unlimited'), undefined],
			[field('qmd_feedbackpermitted', 'Yes'), { shown: ['points', 'feedback'], shownWhen: 'at once' }]
		])('is read from its metadata (%s)', async (fields, settings) => {
			const found = await around(`<qtimetadata>${fields}</qtimetadata>`);
			expect(found).toEqual({ settings, said: '' });
		});
		it.each([
			[`<qtimetadata>${field('cc_maxattempts', 'twice')}</qtimetadata>`, '“cc_maxattempts: twice”'],
			[`<qtimetadata>${field('qmd_timelimit', '-5')}</qtimetadata>`, '“qmd_timelimit: -5”'],
			[`<qtimetadata>${field('qmd_weighting', '3')}</qtimetadata>`, '“qmd_weighting: 3”'],
			['<duration>an hour</duration>', 'has a time limit'],
			['<duration>P2Y</duration>', 'has a time limit'],
			[
				'<rubric view="Scorer"><material><mattext>Half a point for the unit.</mattext></material></rubric>',
				'Half a point for the unit.'
			],
			[
				'<outcomes_processing><outcomes><decvar vartype="Decimal" cutvalue="12"/></outcomes></outcomes_processing>',
				'“cutvalue: 12”'
			]
		])('is named where a quiz has no place for it (%s)', async (inner, words) => {
			const { settings, said } = await around(inner);
			expect(settings).toBeUndefined();
			expect(said).toContain(words);
		});
	});
});
