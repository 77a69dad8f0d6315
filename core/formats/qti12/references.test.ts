import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { readBare } from '../../test-support/packages';

const box = '<response_str ident="R"><render_fib rows="4"/></response_str>';
const item = (ident: string, inner: string) =>
	`<item ident="${ident}" title="${ident}"><presentation>${inner}${box}</presentation></item>`;
const read = (inner: string) => readBare('bank.xml', `<questestinterop>${inner}</questestinterop>`);
const stems = (found: Awaited<ReturnType<typeof read>>) => found.questions.map(({ stem }) => plainText(stem));

describe('material that is given once in a QTI 1.2 file', () => {
	const chart = '<material label="CHART"><mattext>The chart shows a wreck.</mattext></material>';
	it('is shown in each question that refers to it, out of the reference list or out of the item itself', async () => {
		const found = await read(
			`<section ident="S"><reference>${chart}</reference>${item('a', '<material_ref linkrefid="CHART"/><material><mattext>What does it mean?</mattext></material>')}${item('b', '<material><mattext label="OWN">Twice </mattext><matref linkrefid="OWN"/></material>')}</section>`
		);
		expect(stems(found)).toEqual(['The chart shows a wreck. What does it mean?', 'Twice Twice']);
		expect(found.reports).toEqual([]);
	});
	it('is missed in words where nobody gives it', async () => {
		const found = await read(
			item('a', '<material_ref linkrefid="LOST"/><material><mattext>Say why.</mattext></material>')
		);
		expect(stems(found)).toEqual(['Say why.']);
		expect(found.about.get('a')!.map(({ rule }) => rule)).toEqual(['missing-material']);
		expect(found.about.get('a')![0]!.message).toContain('“LOST”');
	});
	it('comes to an end where it names itself', async () => {
		const found = await read(
			`<section ident="S"><reference><material label="A"><matref linkrefid="B"/><mattext label="C">c</mattext></material><material label="B"><matref linkrefid="A"/></material></reference>${item('a', '<material_ref linkrefid="A"/>')}</section>`
		);
		expect(found.questions).toHaveLength(1);
	});
});

describe('what a section says beside its questions', () => {
	it('is quoted in a report, and is part of no question', async () => {
		const found = await read(
			`<assessment ident="T" title="Spring test"><section ident="S" title="Lights"><presentation_material><flow_mat><material><mattext>Use the table of lights.</mattext></material></flow_mat></presentation_material>${item('a', '<material><mattext>Which light is it?</mattext></material>')}</section></assessment>`
		);
		expect(stems(found)).toEqual(['Which light is it?']);
		expect(found.reports.map(({ rule }) => rule)).toEqual(['words-of-section']);
		expect(found.reports[0]!.message).toContain('“Lights” begins with words of its own');
		expect(found.reports[0]!.message).toContain('Use the table of lights.');
	});
});
