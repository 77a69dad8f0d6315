import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import type { Question } from '../../kinds';
import { readBare } from '../../test-support/packages';

const labels = (...texts: string[]) =>
	texts
		.map(
			(text, at) =>
				`<response_label ident="${'ABCDEFGHIJKL'[at]}"><material><mattext>${text}</mattext></material></response_label>`
		)
		.join('');
const choices = (cardinality: string, ...texts: string[]) =>
	`<response_lid ident="R" rcardinality="${cardinality}"><render_choice shuffle="Yes">${labels(...texts)}</render_choice></response_lid>`;
const stem = '<material><mattext>Which sail is set first?</mattext></material>';
const rules = (max: number, conditions: string, name = 'SCORE') =>
	`<resprocessing><outcomes><decvar varname="${name}" vartype="Decimal" minvalue="0" maxvalue="${max}"/></outcomes>${conditions}</resprocessing>`;
const when = (condition: string, action: string, value: number, more = '') =>
	`<respcondition ${more}><conditionvar>${condition}</conditionvar><setvar varname="SCORE" action="${action}">${value}</setvar></respcondition>`;
const is = (value: string) => `<varequal respident="R">${value}</varequal>`;

async function read(inner: string, attributes = 'ident="i1" title="Sails"') {
	const found = await readBare('bank.xml', `<questestinterop><item ${attributes}>${inner}</item></questestinterop>`);
	return {
		question: found.questions[0] as Question,
		reports: found.about.get(found.questions[0]?.title ?? '') ?? [],
		found
	};
}
const credits = (question: Question) => ('options' in question ? question.options.map((option) => option.credit) : []);

describe('the kind of a QTI 1.2 item', () => {
	it('is multiple choice for one answer among several', async () => {
		const { question } = await read(
			`<presentation>${stem}${choices('Single', 'The main', 'The jib')}</presentation>${rules(1, when(is('A'), 'Set', 1))}`
		);
		expect(question).toMatchObject({
			kind: 'multiple-choice',
			title: 'Sails',
			points: 1,
			shuffle: true,
			combination: 'sum',
			lostKeys: []
		});
		expect(plainText(question.stem)).toBe('Which sail is set first?');
	});
	it.each([
		['True', 'False'],
		['false', 'true'],
		['Yes', 'No'],
		['Right.', 'Wrong.']
	])('is true or false for the options %s and %s', async (first, second) => {
		const { question } = await read(
			`<presentation>${stem}${choices('Single', first, second)}</presentation>${rules(1, when(is('A'), 'Set', 1))}`
		);
		expect(question.kind).toBe('true-false');
	});
	it('is an essay for a box of several rows without a key', async () => {
		const { question } = await read(
			`<presentation>${stem}<response_str ident="R"><render_fib rows="8" columns="60"/></response_str></presentation>`
		);
		expect(question).toMatchObject({ kind: 'essay', points: null });
	});
	it('is numeric for a box that wants a number', async () => {
		const { question } = await read(
			`<presentation>${stem}<response_str ident="R"><render_fib fibtype="Integer"/></response_str></presentation>${rules(1, when(is('12'), 'Set', 1))}`
		);
		expect(question).toMatchObject({
			kind: 'numeric',
			whole: true,
			accepted: [{ value: 12, tolerance: 0, credit: 1 }]
		});
	});
	it('is information where nothing is asked', async () => {
		const { question, reports } = await read(`<presentation>${stem}</presentation>`);
		expect(question.kind).toBe('information');
		expect(reports).toEqual([]);
	});
	it('is information that needs a person where points are given for nothing that can be answered', async () => {
		const { reports } = await read(
			`<itemmetadata><qmd_maximumscore>5</qmd_maximumscore></itemmetadata><presentation>${stem}</presentation>`
		);
		expect(reports).toMatchObject([{ rule: 'needs-person', severity: 'doubtful' }]);
	});
	it.each([
		['an answer that only its maker knows', '<response_extension ident="R"/>'],
		[
			'a place in a picture',
			'<response_xy ident="R"><render_hotspot><response_label ident="S"/></render_hotspot></response_xy>'
		],
		['several answers under one name', `${choices('Single', 'A', 'B')}${choices('Single', 'C', 'D')}`]
	])('is unreadable, reported and kept as it came for %s', async (_, response) => {
		const { question, reports, found } = await read(`<presentation>${stem}${response}</presentation>`);
		expect(question).toMatchObject({ kind: 'unreadable', title: 'Sails' });
		// the check of what cannot be read says so, once
		expect(reports).toEqual([]);
		expect('fragment' in question && question.fragment).toBe(found.fragments[0]);
		expect(found.fragments[0]).toMatch(/^<item ident="i1"[\s\S]*<\/item>$/);
	});
});

describe('the marking of a QTI 1.2 item', () => {
	const single = (max: number, conditions: string) =>
		read(`<presentation>${stem}${choices('Single', 'A', 'B', 'C')}</presentation>${rules(max, conditions)}`);
	const multiple = (max: number, conditions: string) =>
		read(`<presentation>${stem}${choices('Multiple', 'A', 'B', 'C')}</presentation>${rules(max, conditions)}`);

	it('takes a score as a share of the greatest', async () => {
		const { question } = await single(100, when(is('B'), 'Set', 100) + when(is('C'), 'Set', 25));
		expect(credits(question)).toEqual([0, 1, 0.25]);
	});
	it('follows conditions that end the run', async () => {
		const { question } = await single(2, when(is('A'), 'Set', 2, 'continue="No"') + when('<other/>', 'Set', 0));
		expect(credits(question)).toEqual([1, 0, 0]);
	});
	it('follows or and not', async () => {
		const { question } = await single(
			1,
			when(`<or>${is('A')}${is('C')}</or>`, 'Set', 1) + when(`<not><or>${is('A')}${is('C')}</or></not>`, 'Set', 0.5)
		);
		expect(credits(question)).toEqual([1, 0.5, 1]);
	});
	it('adds what each option adds', async () => {
		const go = 'continue="Yes"';
		const { question } = await multiple(
			2,
			when(is('A'), 'Add', 1, go) + when(is('B'), 'Subtract', 1, go) + when(is('C'), 'Add', 1, go)
		);
		expect(question).toMatchObject({ kind: 'multiple-response', combination: 'sum' });
		expect(credits(question)).toEqual([0.5, -0.5, 0.5]);
	});
	it('adds on where the file forgets to say that it goes on', async () => {
		const { question } = await multiple(2, when(is('A'), 'Add', 1) + when(is('C'), 'Add', 1));
		expect(credits(question)).toEqual([0.5, 0, 0.5]);
	});
	it('sees that all have to be right or nothing counts', async () => {
		const { question } = await multiple(3, when(`<and>${is('A')}<not>${is('B')}</not>${is('C')}</and>`, 'Set', 3));
		expect(question).toMatchObject({ combination: 'all', points: 3 });
		expect(credits(question)).toEqual([0.5, 0, 0.5]);
	});
	it('takes any name of the score', async () => {
		const { question } = await read(
			`<presentation>${stem}${choices('Single', 'A', 'B')}</presentation>${rules(4, when(is('A'), 'Set', 4).replace('SCORE', 'que_score'), 'que_score')}`
		);
		expect(question.points).toBe(4);
		expect(credits(question)).toEqual([1, 0]);
	});
	it('reports a key that no option has', async () => {
		const { question } = await single(1, when(is('Z'), 'Set', 1));
		expect(question).toMatchObject({ lostKeys: ['Z'] });
	});
	it('does not guess between options with one identifier', async () => {
		const { question, reports } = await read(
			`<presentation>${stem}${choices('Single', 'A', 'B').replace('ident="B"', 'ident="A"')}</presentation>${rules(1, when(is('A'), 'Set', 1))}`
		);
		expect(credits(question)).toEqual([0, 0]);
		expect(reports).toMatchObject([{ rule: 'repeated-identifier' }]);
	});
	it('says so where a condition cannot be followed', async () => {
		const { question } = await single(1, when('<durlt respident="R">5</durlt>', 'Set', 1));
		expect(question).toMatchObject({ kind: 'unreadable' });
		expect('reason' in question && question.reason).toContain('durlt');
	});
	it('takes the points from the metadata before the score', async () => {
		const metadata =
			'<itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>qmd_maximumscore</fieldlabel><fieldentry>4</fieldentry></qtimetadatafield></qtimetadata></itemmetadata>';
		const { question } = await read(
			`${metadata}<presentation>${stem}${choices('Single', 'A', 'B')}</presentation>${rules(100, when(is('A'), 'Set', 100))}`
		);
		expect(question.points).toBe(4);
		expect(credits(question)).toEqual([1, 0]);
	});
	it('reads ranges, open and closed, and a smaller credit around them', async () => {
		const bounds = (low: number, high: number, lowName = 'vargte', highName = 'varlte') =>
			`<and><${lowName} respident="R">${low}</${lowName}><${highName} respident="R">${high}</${highName}></and>`;
		const { question } = await read(
			`<presentation>${stem}<response_num ident="R"><render_fib fibtype="Decimal"/></response_num></presentation>${rules(
				2,
				when(bounds(3.1, 3.3), 'Set', 2) + when(bounds(3, 4, 'vargt', 'varlt'), 'Set', 1)
			)}`
		);
		expect(question).toMatchObject({
			kind: 'numeric',
			accepted: [
				{ min: 3.1, max: 3.3, includesMin: true, includesMax: true, credit: 1 },
				{ min: 3, max: 4, includesMin: false, includesMax: false, credit: 0.5 }
			]
		});
	});
	it('reads accepted words with their capitals', async () => {
		const word = (text: string, strict: string) => `<varequal respident="R" case="${strict}">${text}</varequal>`;
		const { question } = await read(
			`<presentation>${stem}<response_str ident="R"><render_fib fibtype="String"/></response_str></presentation>${rules(
				2,
				when(word('CD', 'Yes'), 'Set', 2) +
					when(`<or>${word('datum', 'No')}${word('chart datum', 'No')}</or>`, 'Set', 1)
			)}`
		);
		expect(question).toMatchObject({
			kind: 'short-answer',
			accepted: [
				{ text: 'CD', credit: 1, caseSensitive: true },
				{ text: 'datum', credit: 0.5, caseSensitive: false },
				{ text: 'chart datum', credit: 0.5, caseSensitive: false }
			]
		});
	});
});

describe('the words of a QTI 1.2 item', () => {
	const withStem = (material: string) => read(`<presentation><material>${material}</material></presentation>`);

	it('takes plain text as it stands', async () => {
		const { question } = await withStem('<mattext texttype="text/plain">a &lt; b &amp; c</mattext>');
		expect(question.stem).toBe('a &lt; b &amp; c');
	});
	it('takes HTML with its repairs', async () => {
		const { question } = await withStem('<mattext texttype="text/html">&lt;p&gt;Sea &lt;b&gt;fog</mattext>');
		expect(question.stem).toBe('Sea <b>fog</b>');
	});
	it('sees HTML that nobody declared', async () => {
		const { question } = await withStem('<mattext>A &lt;strong&gt;gale&lt;/strong&gt;</mattext>');
		expect(question.stem).toBe('A <strong>gale</strong>');
	});
	it('takes XHTML and formulas', async () => {
		const { question } = await withStem(
			'<mattext texttype="text/xhtml"><p xmlns="http://www.w3.org/1999/xhtml">GM is <math xmlns="http://www.w3.org/1998/Math/MathML"><mi>h</mi></math></p></mattext>'
		);
		expect(question.stem).toBe('GM is <math xmlns="http://www.w3.org/1998/Math/MathML"><mi>h</mi></math>');
	});
	it('keeps words apart that stand in pieces', async () => {
		const { question } = await withStem('<mattext>the </mattext><matemtext>first</matemtext><mattext> watch</mattext>');
		expect(plainText(question.stem)).toBe('the first watch');
	});
	it('never lets a script through, and says that there was one', async () => {
		const { question } = await withStem(
			'<mattext texttype="text/html">&lt;script&gt;stop()&lt;/script&gt;&lt;img src="x.png" onerror="stop()"&gt;Fog&lt;a href="java&#9;script:stop()"&gt;!&lt;/a&gt;</mattext>'
		);
		expect(question.stem).not.toMatch(/script|onerror/);
		expect(question.removed).toEqual(expect.arrayContaining(['script', 'onerror handler']));
	});
	it('places feedback by what shows it', async () => {
		const show = (condition: string, score: string, link: string, more = '') =>
			`<respcondition ${more}><conditionvar>${condition}</conditionvar>${score}<displayfeedback feedbacktype="Response" linkrefid="${link}"/></respcondition>`;
		const told = (ident: string, text: string) =>
			`<itemfeedback ident="${ident}"><material><mattext>${text}</mattext></material></itemfeedback>`;
		const set = (value: number) => `<setvar varname="SCORE" action="Set">${value}</setvar>`;
		const { question } = await read(
			`<presentation>${stem}${choices('Single', 'A', 'B', 'C')}</presentation>${rules(
				1,
				show('<other/>', '', 'all', 'continue="Yes"') +
					show(is('B'), '', 'b', 'continue="Yes"') +
					show(is('A'), set(1), 'yes') +
					show('<other/>', set(0), 'no')
			)}${told('all', 'See page 4.')}${told('b', 'Not B.')}${told('yes', 'Well done.')}${told('no', 'Look again.')}${told('loose', 'Shown by nothing.')}`
		);
		expect(question.feedback).toEqual({ general: 'See page 4.', correct: 'Well done.', incorrect: 'Look again.' });
		expect('options' in question && question.options[1]!.feedback).toBe('Not B.');
		expect(question.metadata).toEqual([{ name: 'feedback loose', value: 'Shown by nothing.' }]);
	});
});
