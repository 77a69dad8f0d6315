import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { isChoice, type Question } from '../../kinds';
import { readAll, type Files } from '../../test-support/packages';
import { paragraph, run, wordDocument, wordSpace } from '../../test-support/word-parts';

const text = run;
const read = async (body: string, more: Files = {}) => readAll(await wordDocument(body, more));
const options = (question: Question) =>
	isChoice(question) ? question.options.map((option) => plainText(option.text)) : [];
const right = (question: Question) =>
	isChoice(question)
		? question.options.filter((option) => option.credit > 0).map((option) => plainText(option.text))
		: [];

describe('a Word document', () => {
	it('gives numbers and letters from its lists, and keys from bold type', async () => {
		const { questions } = await read(
			paragraph(text('Which knot holds?'), [1, 0]) +
				paragraph(text('Reef knot'), [1, 1]) +
				paragraph(text('Bowline', '<w:b/>'), [1, 1]) +
				paragraph(text('Which one '), [1, 0]).replace('</w:p>', `${text('slips', '<w:b/>')}${text('?')}</w:p>`) +
				paragraph(text('Reef knot', '<w:highlight w:val="yellow"/>'), [1, 1]) +
				paragraph(text('Bowline'), [1, 1])
		);
		expect(questions.map(options)).toEqual([
			['Reef knot', 'Bowline'],
			['Reef knot', 'Bowline']
		]);
		expect(questions.map(right)).toEqual([['Bowline'], ['Reef knot']]);
		expect(questions[1]!.stem).toBe('Which one <b>slips</b>?');
	});
	it('reads questions that have no numbers, with letters from its lists', async () => {
		const { questions } = await read(
			paragraph(text('Knots for beginners')) +
				paragraph(text('Which knot holds?', '<w:b/>')) +
				paragraph(text('Granny'), [1, 1]) +
				paragraph(text('Bowline', '<w:u w:val="single"/>'), [1, 1]) +
				paragraph(text('')) +
				paragraph(text('Which one slips?', '<w:b/>')) +
				paragraph(text('Granny', '<w:u w:val="single"/>'), [1, 1]) +
				paragraph(text('Bowline'), [1, 1])
		);
		expect(questions.map(({ stem }) => plainText(stem))).toEqual(['Which knot holds?', 'Which one slips?']);
		expect(questions.map(options)).toEqual([
			['Granny', 'Bowline'],
			['Granny', 'Bowline']
		]);
		expect(questions.map(right)).toEqual([['Bowline'], ['Granny']]);
	});
	it('keeps every letter behind a tab, and takes lines of a part for no option', async () => {
		const { questions } = await read(
			['Name:\t\tDate:', '1.\tWhich knot <holds> best?', 'a)\tBowline\tc)\tHitch', 'b)\tReef knot\td)\tBend']
				.map((line) => paragraph(text(line)))
				.join('') +
				paragraph(text('PART B – True or false', '<w:b/>')) +
				`<w:tbl>${[
					['Statement', 'True', 'False'],
					['Knots slip.', 'x', '']
				]
					.map((cells) => `<w:tr>${cells.map((one) => `<w:tc>${paragraph(text(one))}</w:tc>`).join('')}</w:tr>`)
					.join('')}</w:tbl>`
		);
		expect(questions.map((question) => [plainText(question.stem), ...options(question)])).toEqual([
			['Which knot <holds> best?', 'Bowline', 'Reef knot', 'Hitch', 'Bend'],
			['Knots slip.', 'True', 'False']
		]);
		expect(questions[0]!.title).toBe('');
		expect(right(questions[1]!)).toEqual(['True']);
	});
	it('takes options of a list of their own, and a typed key', async () => {
		const { questions } = await read(
			paragraph(text('Which knot holds?'), [1, 0]) +
				paragraph(text('Reef knot'), [2, 0]) +
				paragraph(text('Bowline'), [2, 0]) +
				paragraph(text('Answer: B'))
		);
		expect(questions.map(right)).toEqual([['Bowline']]);
	});
	it('takes numbers and letters that were typed, and lines broken within a paragraph', async () => {
		const { questions } = await read(
			paragraph(
				`${text('1. Which knot holds?')}<w:r><w:br/></w:r>${text('a) Reef knot')}<w:r><w:br/></w:r>${text('*b) Bowline')}`
			)
		);
		expect(questions.map(right)).toEqual([['Bowline']]);
	});
	it('takes bullets as options', async () => {
		const { questions } = await read(
			paragraph(text('1. Which knot holds?')) +
				paragraph(text('Reef knot'), [3, 0]) +
				paragraph(text('Bowline', '<w:u w:val="single"/>'), [3, 0])
		);
		expect(questions.map(right)).toEqual([['Bowline']]);
	});
	it('takes headings as categories, and the title for the quiz', async () => {
		const { questions } = await read(
			paragraph(text('Knot test'), undefined, 'T') +
				paragraph(text('Loops'), undefined, 'H1') +
				paragraph(text('Fixed'), undefined, 'H2') +
				paragraph(text('Name one.'), [1, 0]) +
				paragraph(text('Answer: bowline')) +
				paragraph(text('Bends'), undefined, 'H1') +
				paragraph(text('Name another.'), [1, 0]) +
				paragraph(text('Answer: sheet bend'))
		);
		expect(questions.map((question) => question.category)).toEqual([['Loops', 'Fixed'], ['Bends']]);
	});
	it('reads tracked changes as accepted, and says so, and what is hidden not at all', async () => {
		const found = await read(
			paragraph(
				`${text('1. Which ')}<w:del><w:r><w:delText>rope</w:delText></w:r></w:del><w:ins>${text('knot')}</w:ins>${text('?')}${text(' secret', '<w:vanish/>')}`
			) + paragraph(text('Answer: bowline'))
		);
		expect(found.questions[0]!.stem).toBe('Which knot?');
		expect([...found.about.values()].flat().map((report) => report.rule)).toContain('tracked-changes');
	});
	it('puts pictures where they stand, and says which are missing', async () => {
		const picture = (id: string) => `<w:r><w:drawing><a:blip r:embed="${id}"/></w:drawing></w:r>`;
		const found = await read(
			paragraph(`${text('1. Which flag? ')}${picture('r1')}${picture('r2')}`) + paragraph(text('Answer: H')),
			{
				'word/_rels/document.xml.rels':
					'<Relationships><Relationship Id="r1" Target="media/flag.png"/><Relationship Id="r2" Target="media/gone.png"/></Relationships>',
				'word/media/flag.png': new Uint8Array([1])
			}
		);
		expect(found.questions[0]!.attachments.map(({ name, missing }) => [name, missing])).toEqual([
			['word/media/flag.png', false],
			['word/media/gone.png', true]
		]);
	});
	it('takes a table of two columns as pairs, and any other as part of the stem', async () => {
		const cell = (words: string) => `<w:tc>${paragraph(text(words))}</w:tc>`;
		const row = (...cells: string[]) => `<w:tr>${cells.map(cell).join('')}</w:tr>`;
		const { questions } = await read(
			paragraph(text('1. Match them.')) +
				`<w:tbl>${row('ebb', 'out')}${row('flood', 'in')}</w:tbl>` +
				paragraph(text('2. Read the table. How high is it?')) +
				`<w:tbl>${row('time', 'height', 'day')}${row('6', '3.2', '1')}</w:tbl>` +
				paragraph(text('Answer: 3.2'))
		);
		expect(questions[0]).toMatchObject({ kind: 'matching', left: [{ text: 'ebb' }, { text: 'flood' }] });
		expect(questions[1]!.kind).toBe('numeric');
		expect(questions[1]!.stem).toContain('<td>3.2</td>');
	});
	it.each([
		['a sum', '<m:r><m:t>a+12</m:t></m:r>', '<mi>a</mi><mo>+</mo><mn>12</mn>'],
		[
			'a fraction',
			'<m:f><m:fPr/><m:num><m:r><m:t>1</m:t></m:r></m:num><m:den><m:r><m:t>x</m:t></m:r></m:den></m:f>',
			'<mfrac><mrow><mn>1</mn></mrow><mrow><mi>x</mi></mrow></mfrac>'
		],
		[
			'a power under a root',
			'<m:rad><m:deg/><m:e><m:sSup><m:e><m:r><m:t>h</m:t></m:r></m:e><m:sup><m:r><m:t>2</m:t></m:r></m:sup></m:sSup></m:e></m:rad>',
			'<msqrt><mrow><msup><mrow><mi>h</mi></mrow><mrow><mn>2</mn></mrow></msup></mrow></msqrt>'
		],
		[
			'brackets and a function',
			'<m:func><m:fName><m:r><m:t>f</m:t></m:r></m:fName><m:e><m:d><m:dPr><m:begChr m:val="["/></m:dPr><m:e><m:r><m:t>&lt;</m:t></m:r></m:e></m:d></m:e></m:func>',
			'<mrow><mrow><mi>f</mi></mrow><mrow><mrow><mo>[</mo><mrow><mo>&lt;</mo></mrow><mo>)</mo></mrow></mrow></mrow>'
		],
		[
			'a sum over a range',
			'<m:nary><m:naryPr><m:chr m:val="∑"/></m:naryPr><m:sub><m:r><m:t>i</m:t></m:r></m:sub><m:sup><m:r><m:t>n</m:t></m:r></m:sup><m:e><m:r><m:t>k</m:t></m:r></m:e></m:nary>',
			'<mrow><munderover><mo>∑</mo><mrow><mi>i</mi></mrow><mrow><mi>n</mi></mrow></munderover><mrow><mi>k</mi></mrow></mrow>'
		]
	])('reads an equation as MathML: %s', async (_, inner, expected) => {
		const { questions } = await read(
			paragraph(`${text('1. What is ')}<m:oMath>${inner}</m:oMath>${text('? (2 points)')}`) +
				paragraph(text('Answer: c'))
		);
		expect(questions[0]).toMatchObject({
			stem: `What is <math xmlns="http://www.w3.org/1998/Math/MathML">${expected}</math>?`,
			points: 2
		});
	});
	it('puts the words of a footnote in brackets where it is called, and says so', async () => {
		const found = await read(
			paragraph(`${text('1. How deep')}<w:r><w:footnoteReference w:id="2"/></w:r>${text(' is it?')}`) +
				paragraph(text('Answer: 4')),
			{
				'word/footnotes.xml': `<w:footnotes ${wordSpace}><w:footnote w:id="2"><w:p>${text('below chart datum')}</w:p></w:footnote></w:footnotes>`
			}
		);
		expect(found.questions.map((question) => question.stem)).toEqual(['How deep (below chart datum) is it?']);
		expect([...found.about.values()].flat().map((report) => report.rule)).toContain('footnote');
	});
});

const cells = (...rows: string[][]) =>
	`<w:tbl>${rows.map((row) => `<w:tr>${row.map((cell) => `<w:tc>${cell.startsWith('<') ? cell : paragraph(text(cell))}</w:tc>`).join('')}</w:tr>`).join('')}</w:tbl>`;

describe('a table in a Word document', () => {
	it('whose headings name questions and keys is read row by row, under the heading above it', async () => {
		const { questions } = await read(
			paragraph(text('Tides'), undefined, 'H1') +
				cells(
					['No.', 'Question', 'A', 'B', 'C', 'Answer', 'Points'],
					['1', 'What comes after high water?', 'The ebb', 'The flood', 'Slack', 'A', '2'],
					['2', 'When are springs?', 'At half moon', 'At new moon', '', 'B', '1']
				) +
				paragraph(text('What falls?'), [1, 0]) +
				paragraph(text('Answer: the ebb'))
		);
		expect(questions.map((one) => [one.category, one.points, right(one)])).toEqual([
			[['Tides'], 2, ['The ebb']],
			[['Tides'], 1, ['At new moon']],
			[['Tides'], null, []]
		]);
	});
	it('that only lays out questions beside their numbers is read as text', async () => {
		const { questions } = await read(
			cells(
				[
					'1',
					paragraph(text('What does a barometer measure?')) +
						paragraph(text('A. Pressure *')) +
						paragraph(text('B. Wind'))
				],
				['2.', paragraph(text('Fog is a cloud on the ground. (T/F)')) + paragraph(text('Answer: T'))]
			)
		);
		expect(questions.map((one) => [plainText(one.stem), right(one)])).toEqual([
			['What does a barometer measure?', ['Pressure']],
			['Fog is a cloud on the ground.', ['True']]
		]);
	});
});

describe('a table that is a form for a question', () => {
	const cell = (words: string) => `<w:tc>${paragraph(text(words))}</w:tc>`;
	const form = (...rows: [string, string][]) =>
		`<w:tbl>${rows.map((cells) => `<w:tr>${cells.map(cell).join('')}</w:tr>`).join('')}</w:tbl>`;
	it('is read by what its first column says', async () => {
		const { questions } = await read(
			form(
				['Question', 'Which side has the green light?'],
				['A', 'Port'],
				['B', 'Starboard'],
				['Answer', 'B'],
				['Points', '2']
			) +
				paragraph('') +
				form(
					['Question 2', 'What is the light at the stern called?'],
					['Answer:', 'sternlight'],
					['Feedback', 'Rule 21.']
				)
		);
		expect(questions.map((question) => [question.kind, plainText(question.stem), question.points])).toEqual([
			['multiple-choice', 'Which side has the green light?', 2],
			['short-answer', 'What is the light at the stern called?', null]
		]);
		expect(right(questions[0]!)).toEqual(['Starboard']);
		expect(questions[1]!.feedback.general).toBe('Rule 21.');
	});
	it('is none where its first column names other things', async () => {
		const { questions } = await read(
			paragraph(text('1. Match the streams.')) + form(['Ebb', 'falls'], ['Flood', 'rises'], ['Slack', 'stands'])
		);
		expect(questions.map((question) => question.kind)).toEqual(['matching']);
	});
});

describe('options that are laid out in a table', () => {
	const cell = (words: string) => `<w:tc>${paragraph(text(words))}</w:tc>`;
	const table = (...rows: string[][]) =>
		`<w:tbl>${rows.map((cells) => `<w:tr>${cells.map(cell).join('')}</w:tr>`).join('')}</w:tbl>`;
	it.each([
		[
			'in rows',
			[
				['A. Port', 'B. Starboard'],
				['C. Stern', 'D. Bow']
			]
		],
		[
			'in columns',
			[
				['A. Port', 'C. Stern'],
				['B. Starboard', 'D. Bow']
			]
		],
		['side by side', [['A. Port', 'B. Starboard', 'C. Stern', 'D. Bow']]]
	])('are options, %s', async (_, rows) => {
		const { questions } = await read(
			paragraph(text('1. Which side has the green light?')) + table(...rows) + paragraph(text('Answer: B'))
		);
		expect(questions.map(options)).toEqual([['Port', 'Starboard', 'Stern', 'Bow']]);
		expect(questions.map(right)).toEqual([['Starboard']]);
	});
});

describe('styles of a Word document', () => {
	it('hand on their lists, headings and bold type to styles that are based on them', async () => {
		const { questions } = await read(
			paragraph(text('Rope work'), undefined, 'Mine') +
				paragraph(text('Which knot holds?'), undefined, 'Q') +
				paragraph(text('Bowline', '<w:rStyle w:val="S"/>'), undefined, 'O') +
				paragraph(text('Reef knot'), undefined, 'O'),
			{
				'word/styles.xml': `<w:styles ${wordSpace}><w:style w:styleId="H1"><w:name w:val="heading 1"/></w:style><w:style w:styleId="Mine"><w:name w:val="Topic"/><w:basedOn w:val="H1"/></w:style><w:style w:styleId="Q"><w:name w:val="Ask"/><w:pPr><w:numPr><w:numId w:val="1"/></w:numPr></w:pPr></w:style><w:style w:styleId="O"><w:name w:val="Offer"/><w:basedOn w:val="Q"/><w:pPr><w:numPr><w:ilvl w:val="1"/></w:numPr></w:pPr></w:style><w:style w:styleId="S"><w:name w:val="Strong"/><w:rPr><w:b/></w:rPr></w:style></w:styles>`
			}
		);
		expect(questions.map((one) => [one.category, options(one), right(one)])).toEqual([
			[['Rope work'], ['Bowline', 'Reef knot'], ['Bowline']]
		]);
	});
});

describe('what lies beside the text of a Word document', () => {
	it('is named, since it was left out', async () => {
		const { reports } = await read(
			paragraph(text('Which knot holds?'), [1, 0]) +
				'<w:p><w:r><w:pict><w:txbxContent><w:p><w:r><w:t>Ask the mate</w:t></w:r></w:p></w:txbxContent></w:pict></w:r></w:p>',
			{
				'word/comments.xml': `<w:comments ${wordSpace}><w:comment w:id="0"><w:p><w:r><w:t>Too easy</w:t></w:r></w:p></w:comment></w:comments>`
			}
		);
		const said = reports.map(({ rule, message }) => `${rule} ${message}`).join('\n');
		expect(said).toMatch(/text-box .*“Ask the mate”/);
		expect(said).toMatch(/comment .*“Too easy”/);
	});
});

describe('what stands out in a Word document', () => {
	it('may be the paragraph as a whole, or an option without its letter and full stop', async () => {
		const shade = '<w:shd w:val="clear" w:fill="FFFF00"/>';
		const { questions } = await read(
			paragraph(text('1. Which side has the green light?')) +
				paragraph(text('A. Port')) +
				paragraph(text('B. Starboard')).replace('<w:pPr>', `<w:pPr>${shade}`) +
				paragraph(text('2. Which side has the red light?')) +
				paragraph(text('A. ') + text('Port', '<w:u w:val="single"/>') + text('.')) +
				paragraph(text('B. Starboard.'))
		);
		expect(questions.map(right)).toEqual([['Starboard'], ['Port.']]);
	});
	it('is a line to write on where only blanks are underlined', async () => {
		const { questions } = await read(
			paragraph(text('1. The ') + text('        ', '<w:u w:val="single"/>') + text(' is the height of the tide.')) +
				paragraph(text('Answer: range'))
		);
		expect(plainText(questions[0]!.stem)).toBe('The _____ is the height of the tide.');
	});
});

describe('the signs of symbol fonts', () => {
	const sign = (font: string, char: string) => `<w:r><w:sym w:font="${font}" w:char="${char}"/></w:r>`;
	it('are those that the reader sees, and one that is not known is reported', async () => {
		const { questions, about } = await read(
			paragraph(text('1. What is ') + sign('Symbol', 'F044') + text(' \uf0b1 1', '<w:rFonts w:ascii="Symbol"/>')) +
				paragraph(text('2. And ') + sign('Webdings', 'F041') + text('?'))
		);
		expect(questions.map((question) => plainText(question.stem))).toEqual(['What is Δ ± 1', 'And □?']);
		expect([...about.values()].map((found) => found.map((report) => report.rule).includes('unknown-sign'))).toContain(
			true
		);
	});
	it('are boxes that are ticked or not', async () => {
		const { questions } = await read(
			paragraph(text('1. Which knot holds?')) +
				paragraph(sign('Wingdings', 'F0A8') + text(' Reef knot')) +
				paragraph(sign('Wingdings', 'F0FE') + text(' Bowline'))
		);
		expect(questions.map(right)).toEqual([['Bowline']]);
	});
	it('keep what was moved below or above its line', async () => {
		const { questions } = await read(
			paragraph(text('1. What is H') + text('2', '<w:position w:val="-2"/><w:sz w:val="18"/>') + text('O?'))
		);
		expect(questions[0]!.stem).toContain('H<sub>2</sub>O');
	});
});
