import * as fc from 'fast-check';
import { unzipSync, strFromU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { paperQuestion } from '..';
import type { Question } from '../../kinds';
import { plainText } from '../../markup/text';
import { parseXml } from '../../xml/stream';
import { descendants, textOf } from '../../xml/tree';
import { anyQuestion } from '../../test-support/arbitrary';
import { choice, option } from '../../test-support/questions';
import { wordDocument, type WordForms } from './document';
import { mathOf } from './math';
import { paragraphRuns } from './text';

const asked = (question: Question, more: object = {}) => ({
	id: 7,
	number: 1,
	part: 0,
	points: 2,
	title: question.title,
	stimulus: question.stimulus?.content ?? '',
	attachments: question.attachments,
	...paperQuestion(question),
	...more
});
const forms = (questions: readonly Question[], more: Partial<WordForms> = {}): WordForms => ({
	title: 'Watch “4” & more',
	instructions: 'Use a <pencil>.',
	minutes: 30,
	parts: ['All'],
	paper: 'A4',
	what: 'papers',
	forms: [
		{ name: 'A', questions: questions.map((question) => asked(question)) },
		{ name: 'B', questions: questions.map((question) => asked(question)) }
	],
	...more
});
const read = (given: WordForms, bytes = new Map<string, Uint8Array>()) => {
	const files = unzipSync(wordDocument(given, (hash) => bytes.get(hash)));
	const { root, fault } = parseXml(strFromU8(files['word/document.xml']!));
	expect(fault).toBeNull();
	return { files, root: root! };
};
const squeezed = (text: string) => text.replace(/\s+/g, '');

describe('a Word document of forms', () => {
	it('is well-formed and says what is asked and offered, whatever kind it is', () => {
		fc.assert(
			fc.property(anyQuestion, (question) => {
				const { root } = read(forms([question]));
				if (question.kind === 'fill-blanks' || question.stem.includes('<math')) return;
				const words = squeezed(textOf(root));
				expect(words).toContain(squeezed('Watch “4” & more · form B'));
				if ('options' in question)
					for (const { text } of question.options)
						if (!/<(?!\/?(p|b|i|em|strong|sub|sup|u|code|br)\b)/.test(text))
							expect(words).toContain(squeezed(plainText(text)));
			}),
			{ numRuns: 150 }
		);
	});
	it('keeps a question on its page, and begins each form on a new one', () => {
		const question = choice({ stem: 'Which mark?', options: [option('a', 'Red', 1), option('b', 'Green', 0)] });
		const { root } = read(forms([question]));
		expect(descendants(root, 'pageBreakBefore')).toHaveLength(1);
		const stem = descendants(root, 'p').find((each) => textOf(each).includes('Which mark?'))!;
		expect(descendants(stem, 'keepNext')).toHaveLength(1);
		expect(descendants(stem, 'keepLines')).toHaveLength(1);
	});
	it('has its keys in a table, with the number of each question in the bank', () => {
		const question = choice({ title: 'Marks', options: [option('a', 'Red', 0), option('b', 'Green', 1)] });
		const { root } = read(forms([question], { what: 'keys', paper: 'letter' }));
		const lines = descendants(root, 'tr').map((line) => descendants(line, 'tc').map((cell) => textOf(cell)));
		expect(lines[1]).toEqual(['1', 'B', '2', 'Marks #7', '']);
		expect(descendants(root, 'pgSz')[0]!.attributes).toMatchObject({ w: '12240', h: '15840' });
	});
	it('holds its pictures, drawings of lines with a point for older programs, and says where one is missing', () => {
		const attachment = (name: string, mediaType: string, hash: string | null) => ({
			name,
			mediaType,
			hash,
			missing: hash === null,
			bytes: 3,
			width: 2000,
			height: 1000
		});
		const question = choice({
			stem: '<p>Look: <img src="media:a.png" alt="a chart"/><img src="media:b.svg" alt="a flag"/><img src="media:c.png" alt="a buoy"/></p>',
			attachments: [
				attachment('a.png', 'image/png', 'aa'),
				attachment('b.svg', 'image/svg+xml', 'bb'),
				attachment('c.png', 'image/png', null)
			]
		});
		const bytes = new Map([
			['aa', new Uint8Array([1, 2, 3])],
			['bb', new Uint8Array([4])]
		]);
		const { root, files } = read(forms([question], { forms: [{ name: 'A', questions: [asked(question)] }] }), bytes);
		expect(files['word/media/image1.png']).toEqual(new Uint8Array([1, 2, 3]));
		expect(files['word/media/image2.svg']).toEqual(new Uint8Array([4]));
		expect(descendants(root, 'drawing')).toHaveLength(2);
		expect(textOf(root)).toContain('[picture: a buoy]');
		// no wider than the sheet, in its own shape
		const { cx, cy } = descendants(root, 'extent')[0]!.attributes;
		expect(Number(cx)).toBeLessThanOrEqual(560 * 9525);
		expect(Number(cx) / Number(cy)).toBeCloseTo(2, 3);
		const related = parseXml(strFromU8(files['word/_rels/document.xml.rels']!)).root!;
		const known = descendants(related, 'Relationship').map(({ attributes }) => attributes.Id);
		for (const { attributes } of [...descendants(root, 'blip'), ...descendants(root, 'svgBlip')])
			expect(known).toContain(attributes.embed ?? attributes['r:embed']);
	});
	it('has formulas as formulas, and paragraphs as paragraphs', () => {
		const fraction = '<math><mfrac><mi>a</mi><msup><mi>b</mi><mn>2</mn></msup></mfrac></math>';
		expect(mathOf(parseXml(fraction).root!)).toBe(
			'<m:f><m:num><m:r><m:t xml:space="preserve">a</m:t></m:r></m:num><m:den><m:sSup><m:e><m:r><m:t xml:space="preserve">b</m:t></m:r></m:e><m:sup><m:r><m:t xml:space="preserve">2</m:t></m:r></m:sup></m:sSup></m:den></m:f>'
		);
		const runs = paragraphRuns(`<p>First <b>bold</b></p><ul><li>one</li><li>two ${fraction}</li></ul>`, () => '');
		expect(runs).toHaveLength(3);
		expect(runs[0]).toContain('<w:b/>');
		expect(runs[2]).toContain('<m:oMath>');
	});
});
