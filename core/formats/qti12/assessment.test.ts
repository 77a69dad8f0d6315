import { describe, expect, it } from 'vitest';
import { opened, readAll, readBare } from '../../test-support/packages';

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
		expect(found.quizzes[0]!.parts[0]!.questions).toEqual([{ identifier: 'a', file: null }]);
		const twice = await readBare('twice.xml', document(item('a') + item('a')));
		expect(twice.questions).toHaveLength(2);
		expect([...twice.about.values()].flat().map(({ rule }) => rule)).toEqual(['repeated-question-identifier']);
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
	it('names the attempts and the time that it allows, since a quiz here does not hold them', async () => {
		const field = (label: string, entry: string) =>
			`<qtimetadatafield><fieldlabel>${label}</fieldlabel><fieldentry>${entry}</fieldentry></qtimetadatafield>`;
		const found = await readBare(
			'paper.xml',
			document(
				`<assessment ident="A" title="Paper"><qtimetadata>${field('cc_profile', 'cc.exam.v0p1')}${field('cc_maxattempts', '2')}${field('qmd_timelimit', '30')}</qtimetadata><section ident="S" title="Lights">${item('a')}</section></assessment>`
			)
		);
		const [report] = found.reports.filter(({ rule }) => rule === 'quiz-rules');
		expect(report!.message).toContain('“Paper” also says “cc_maxattempts: 2”, “qmd_timelimit: 30”');
		expect(report!.message).not.toContain('cc_profile');
	});
});
