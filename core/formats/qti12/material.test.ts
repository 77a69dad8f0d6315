import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { opened, readAll, readBare } from '../../test-support/packages';
import { escapeAttribute, escapeText } from '../../xml/serialise';

const ask = async (material: string, response = '') => {
	const found = await readBare(
		'a.xml',
		`<questestinterop><item ident="a" title="A"><presentation><material>${material}</material>${response}</presentation></item></questestinterop>`
	);
	return { question: found.questions[0]!, reports: found.about.get('A')! };
};
const dot = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

describe('material of the rarer kinds (QTI 1.2 ASI binding, 3.4)', () => {
	it('is a picture that stands in the file itself', async () => {
		const { question } = await ask(
			`<mattext>See</mattext><matimage imagtype="image/png" embedded="base64">${dot}</matimage>`
		);
		expect(question.stem).toContain(`<img src="data:image/png;base64,${dot}"`);
	});
	it('is a file for another program, which is attached', async () => {
		const { question } = await ask('<matapplication uri="chart.pdf" apptype="application/pdf" label="Chart 12"/>');
		expect(question.attachments).toMatchObject([{ name: 'chart.pdf', missing: true }]);
		expect(plainText(question.stem)).toBe('Chart 12');
	});
	it.each(['matapplet', 'mat_extension'])(
		'is %s, of which the words are kept and the rest is said to be out',
		async (name) => {
			const { question, reports } = await ask(`<mattext>See</mattext><${name}><odd>the tide table</odd></${name}>`);
			expect(plainText(question.stem)).toBe('See the tide table');
			expect(question.removed).toEqual([name]);
			expect(reports).toEqual([]);
		}
	);
});

describe('what stands among the options of a QTI 1.2 item', () => {
	const choice = (attributes: string, inner = '') =>
		`<response_lid ident="R" rcardinality="Multiple"><render_choice ${attributes}>${inner}${['Clove', 'Rolling', 'Bowline'].map((text, at) => `<flow_label><response_label ident="${at}"><material><mattext>${text}</mattext></material></response_label></flow_label>`).join('')}</render_choice></response_lid>`;
	it('and is none of them is part of the stem', async () => {
		const { question } = await ask(
			'<mattext>Hitches.</mattext>',
			choice('', '<flow_mat><material><mattext>Which are they?</mattext></material></flow_mat>')
		);
		expect(plainText(question.stem)).toBe('Hitches. Which are they?');
		expect('options' in question && question.options.map((option) => option.text)).toEqual([
			'Clove',
			'Rolling',
			'Bowline'
		]);
	});
	it.each([
		['maxnumber="2"', ['at most 2 of the 3 options']],
		['maxnumber="3"', []],
		['minnumber="2" maxnumber="3"', ['at least 2 options']]
	])('as a limit is named: %s', async (attributes, words) => {
		const { reports } = await ask('<mattext>Which?</mattext>', choice(attributes));
		const said = reports.filter((report) => report.rule === 'beside-question').map((report) => report.message);
		expect(said).toHaveLength(words.length);
		words.forEach((one, at) => expect(said[at]).toContain(one));
	});
});

describe('an address in a cartridge that begins at the folder of its files', () => {
	const picture = 'web_resources/charts/low water.png';
	it.each([
		['$IMS-CC-FILEBASE$../web_resources/charts/low%20water.png'],
		['$IMS-CC-FILEBASE$/web_resources/charts/low%20water.png'],
		['$IMS-CC-FILEBASE$/charts/low%20water.png'],
		['%24IMS-CC-FILEBASE%24/charts/low%20water.png'],
		['$IMS-CC-FILEBASE$\\charts\\low water.png']
	])('is the file that is meant: %s', async (address) => {
		const text = escapeText(`<p>See <img src="${escapeAttribute(address)}" alt="chart"/></p>`);
		const found = await readAll(
			await opened({
				'q/qti.xml': `<questestinterop><item ident="a" title="A"><presentation><material><mattext texttype="text/html">${text}</mattext></material></presentation></item></questestinterop>`,
				[picture]: 'a picture'
			})
		);
		expect(found.questions[0]!.attachments).toMatchObject([{ name: picture, missing: false }]);
		expect(found.questions[0]!.stem).toContain(`src="media:${picture}"`);
	});
	it('is missed where two files could be meant', async () => {
		const text = escapeText('<img src="$IMS-CC-FILEBASE$/low.png" alt=""/>');
		const found = await readAll(
			await opened({
				'q/qti.xml': `<questestinterop><item ident="a" title="A"><presentation><material><mattext texttype="text/html">${text}</mattext></material></presentation></item></questestinterop>`,
				'one/low.png': '1',
				'two/low.png': '2'
			})
		);
		expect(found.questions[0]!.attachments).toMatchObject([{ missing: true }]);
	});
});
