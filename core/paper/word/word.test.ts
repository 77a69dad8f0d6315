import * as fc from 'fast-check';
import { unzipSync, strFromU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { paperQuestion } from '..';
import type { Question } from '../../kinds';
import { plainText } from '../../markup/text';
import { parseXml } from '../../xml/parse';
import { childrenOf, descendants, textOf } from '../../xml/tree';
import { anyQuestion } from '../../test-support/arbitrary';
import { choice, essay, option } from '../../test-support/questions';
import { emptyCommon } from '../../model/question';
import { wordDocument, type WordForms } from './document';
import { mathOf } from './math';
import type { DrawnPicture } from './pictures';
import { richText } from './text';

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
const read = (given: WordForms, bytes = new Map<string, Uint8Array>(), drawn = new Map<string, DrawnPicture>()) => {
	const files = unzipSync(
		wordDocument(
			given,
			(hash) => bytes.get(hash),
			(hash) => drawn.get(hash)
		)
	);
	const { root, fault } = parseXml(strFromU8(files['word/document.xml']!));
	expect(fault).toBeNull();
	return { files, root: root! };
};
/** A rich text as the body of a document, with a high picture wherever it names one. */
const documentOf = (markup: string) =>
	parseXml(
		`<d xmlns:w="w" xmlns:m="m">${richText(markup, () => ({ run: '<w:r><w:t>PICTURE</w:t></w:r>', isHigh: true }))}</d>`
	).root!;
const paragraphsOf = (markup: string) => descendants(documentOf(markup), 'p');
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
	it('holds its pictures, drawings of lines as points too for programs that show no other, and says where one is missing', () => {
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
		const drawn = new Map([['bb', { png: new Uint8Array([5]), width: 20, height: 10 }]]);
		const { root, files } = read(forms([question]), bytes, drawn);
		expect(files['word/media/aa.png']).toEqual(new Uint8Array([1, 2, 3]));
		expect(files['word/media/bb.svg']).toEqual(new Uint8Array([4]));
		expect(files['word/media/bb.png']).toEqual(new Uint8Array([5]));
		// two forms show the same files
		expect(Object.keys(files).filter((name) => name.startsWith('word/media/'))).toHaveLength(3);
		expect(descendants(root, 'drawing')).toHaveLength(4);
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
		const paragraphs = paragraphsOf(`<p>First <b>bold</b></p><ul><li>one</li><li>two ${fraction}</li></ul>`);
		expect(paragraphs).toHaveLength(3);
		expect(descendants(paragraphs[0]!, 'b')).toHaveLength(1);
		expect(descendants(paragraphs[2]!, 'oMath')).toHaveLength(1);
	});
	it('has tables as tables, and a high picture below the words that it comes with', () => {
		const table = documentOf(
			'<p>Read:</p><table><tr><th>Hour</th><th>Height</th></tr><tr><td colspan="2">none</td></tr></table><p>How high?</p>'
		);
		const lines = descendants(table, 'tr').map((line) => descendants(line, 'tc').map((cell) => textOf(cell)));
		expect(lines).toEqual([['Hour', 'Height'], ['none']]);
		expect(descendants(table, 'gridSpan')[0]!.attributes).toMatchObject({ val: '2' });
		const words = paragraphsOf('<p>Look: <img src="media:a.png" alt="a"/> well.</p>').map((found) => textOf(found));
		expect(words).toEqual(['Look: ', 'PICTURE', ' well.']);
	});
	it('has a line for each that is to be written, also where many follow one another', () => {
		const { root } = read(forms([essay()]));
		const ruled = descendants(root, 'p').filter((part) => descendants(part, 'tabs').length);
		expect(ruled).toHaveLength(2);
		for (const lines of ruled) {
			expect(descendants(lines, 'r').flatMap((run) => childrenOf(run).map(({ name }) => name))).toEqual(
				Array.from({ length: 23 }, (_, at) => (at % 2 ? 'br' : 'tab'))
			);
			// a paragraph stays whole by itself, where several may be torn although each is to stay with the next
			expect(descendants(lines, 'keepLines')).toHaveLength(1);
		}
	});
	it('has the number of each place on its picture, and its outline', () => {
		const place = (identifier: string, coordinates: number[]) => ({
			identifier,
			shape: 'rect' as const,
			coordinates,
			credit: 1
		});
		const question: Question = {
			...emptyCommon('GH-1', 'Moles'),
			stem: 'Which is the mole?',
			kind: 'hotspot',
			picture: { name: 'a.png', width: 80, height: 40, alt: 'The harbour' },
			shapes: [place('a', [10, 10, 30, 30]), place('b', [50, 10, 70, 30])],
			mode: 'areas',
			picks: 1,
			outside: 0,
			combination: 'sum',
			bounds: { lower: null, upper: null },
			attachments: [{ name: 'a.png', mediaType: 'image/png', hash: 'aa', missing: false, width: 80, height: 40 }]
		};
		const { root } = read(forms([question]), new Map([['aa', new Uint8Array([1])]]));
		const group = descendants(root, 'wgp')[0]!;
		expect(descendants(group, 'txbxContent').map((found) => textOf(found))).toEqual(['1', '2']);
		expect(descendants(group, 'custGeom')).toHaveLength(2);
		// a small picture is made larger, so that the numbers leave it to be seen
		expect(Number(descendants(root, 'extent')[0]!.attributes.cx)).toBe(320 * 9525);
		// a program that knows no groups shows the picture alone
		expect(descendants(descendants(root, 'Fallback')[0]!, 'pic')).toHaveLength(1);
	});
	it('says nothing of points where nobody says what a question is worth', () => {
		const unsaid = { ...asked(choice()), points: null };
		const { root } = read(forms([], { forms: [{ name: 'A', questions: [unsaid] }] }));
		expect(textOf(root)).toContain('Points ________');
		expect(textOf(root)).not.toMatch(/of \d|point\)|points\)/);
	});
});
