import fc from 'fast-check';
import Papa from 'papaparse';
import { escapeText } from '../xml/serialise';
import type { Files } from './packages';
import type { Meant } from './typed-lists';

/** How somebody keeps questions in a table; every field is one habit. */
export interface TableHabits {
	delimiter: string;
	lineEnd: string;
	mark: boolean;
	quotes: boolean;
	/** Rows above the headings. */
	above: string[];
	stem: string;
	/** The heading of the kinds, and the word for each; none where they are not kept. */
	kind: { heading: string; words: Record<Meant['kind'], string> } | null;
	/** The headings of the options, or the sign between them in one cell. */
	options: { headings: string[] } | { heading: string; sign: string };
	key: { heading: string; form: 'letter' | 'small letter' | 'index' | 'text'; sign: string };
	category: { headings: readonly string[]; path: string } | null;
	points: string | null;
	feedback: string | null;
	/** The columns are put in this order, by turning them so many times. */
	turned: number;
	emptyRows: boolean;
	idHeading: string | null;
}

const kindWords: Record<Meant['kind'], string>[] = [
	{
		'multiple-choice': 'MC',
		'multiple-response': 'MR',
		'true-false': 'TF',
		'short-answer': 'SA',
		numeric: 'NUM',
		matching: 'Matching',
		essay: 'Essay'
	},
	{
		'multiple-choice': 'multiple choice',
		'multiple-response': 'multiple response',
		'true-false': 'true/false',
		'short-answer': 'short answer',
		numeric: 'numeric',
		matching: 'matching',
		essay: 'essay'
	},
	{
		'multiple-choice': 'Single choice',
		'multiple-response': 'Multiple answers',
		'true-false': 'True or False',
		'short-answer': 'Fill in the blank',
		numeric: 'Number',
		matching: 'Match',
		essay: 'Open'
	},
	{
		'multiple-choice': 'multiple_choice',
		'multiple-response': 'multiple_response',
		'true-false': 'true_false',
		'short-answer': 'short_answer',
		numeric: 'numerical',
		matching: 'matching',
		essay: 'long_answer'
	}
];
const five = [1, 2, 3, 4, 5];
const optionHeadings = [
	'A B C D E'.split(' '),
	'Option A,Option B,Option C,Option D,Option E'.split(','),
	five.map((at) => `Option ${at}`),
	five.map((at) => `Choice ${at}`),
	five.map((at) => `option_${at}`),
	five.map((at) => `Answer ${at}`),
	five.map((at) => `Distractor${at}`)
].slice(0, 6);

/** Any mixture of habits with a table. */
export const anyTableHabits: fc.Arbitrary<TableHabits> = fc.record({
	delimiter: fc.constantFrom(',', ';', '\t'),
	lineEnd: fc.constantFrom('\n', '\r\n'),
	mark: fc.boolean(),
	quotes: fc.boolean(),
	above: fc.constantFrom<string[][]>([], [], ['Harbour revision'], ['Question bank', '']),
	stem: fc.constantFrom(
		'Question',
		'Stem',
		'Question text',
		'question',
		'Prompt',
		'QUESTION',
		'Item text',
		'Question Stem',
		'QuestionText'
	),
	kind: fc.option(
		fc.record({
			heading: fc.constantFrom('Type', 'Kind', 'Question type', 'question_type', 'Item Type'),
			words: fc.constantFrom(...kindWords)
		})
	),
	options: fc.oneof(
		fc.record({ headings: fc.constantFrom(...optionHeadings) }),
		fc.record({
			heading: fc.constantFrom('Options', 'Choices', 'Answer options', 'Alternatives'),
			sign: fc.constantFrom('|', ' | ', '\n', ' / ', '||')
		})
	),
	key: fc.record({
		heading: fc.constantFrom(
			'Key',
			'Answer',
			'Correct answer',
			'Correct',
			'Answer key',
			'correct_answer',
			'Right answer',
			'Solution',
			'Correct Option',
			'CorrectAnswer',
			'correct_answer_letter',
			'Correct Answers'
		),
		form: fc.constantFrom<TableHabits['key']['form'][]>('letter', 'small letter', 'index', 'text'),
		sign: fc.constantFrom(', ', ',', '; ', '|', ';')
	}),
	category: fc.option(
		fc.oneof(
			fc.record({
				headings: fc.constantFrom(['Category'], ['Topic'], ['Chapter'], ['QuestionCategory'], ['Topic name']),
				path: fc.constantFrom(' > ', '/', ' / ', '::')
			}),
			fc.record({
				headings: fc.constantFrom(['Category', 'Subcategory'], ['Topic', 'Subtopic'], ['Topic', 'Sub-topic']),
				path: fc.constant('')
			})
		)
	),
	points: fc.option(
		fc.constantFrom('Points', 'Marks', 'Score', 'points', 'Max score', 'PointValue', 'Points Possible')
	),
	feedback: fc.option(
		fc.constantFrom('Feedback', 'Explanation', 'Rationale', 'General feedback', 'Comment', 'AnswerExplanation')
	),
	turned: fc.nat({ max: 5 }),
	emptyRows: fc.boolean(),
	idHeading: fc.option(fc.constantFrom('ID', 'No.', '#', 'Nr', 'Question ID', 'Question No'))
});

const letter = (at: number) => String.fromCharCode(65 + at);

/** The rows of a table with some questions, the headings and what stands above them among them. */
export function keptRows(meant: Meant[], habits: TableHabits): string[][] {
	const columns: { heading: string; cell: (one: Meant, at: number) => string }[] = [];
	const options = (one: Meant) => ('options' in one ? one.options : []);
	const { kind, key, category } = habits;
	columns.push({ heading: habits.stem, cell: (one) => one.stem });
	if (kind) columns.push({ heading: kind.heading, cell: (one) => kind.words[one.kind] });
	if ('headings' in habits.options)
		habits.options.headings.forEach((heading, place) =>
			columns.push({ heading, cell: (one) => options(one)[place]?.text ?? '' })
		);
	else {
		const { heading, sign } = habits.options;
		columns.push({
			heading,
			cell: (one) =>
				options(one)
					.map((option) => option.text)
					.join(sign)
		});
	}
	const named = (place: number, text: string) =>
		key.form === 'letter'
			? letter(place)
			: key.form === 'small letter'
				? letter(place).toLowerCase()
				: key.form === 'index'
					? String(place + 1)
					: text;
	columns.push({
		heading: key.heading,
		cell: (one) => {
			if ('options' in one)
				return one.options.flatMap(({ text, right }, place) => (right ? [named(place, text)] : [])).join(key.sign);
			if ('right' in one) return one.right ? 'True' : 'False';
			if ('answers' in one) return one.answers.join(' / ');
			return 'pairs' in one ? one.pairs.map((pair) => pair.join(' = ')).join('; ') : '';
		}
	});
	if (category)
		category.headings.forEach((heading, place) =>
			columns.push({
				heading,
				cell: () =>
					category.headings.length > 1 ? ['Seamanship', 'Harbour'][place]! : `Seamanship${category.path}Harbour`
			})
		);
	if (habits.points) columns.push({ heading: habits.points, cell: () => '2' });
	if (habits.feedback) columns.push({ heading: habits.feedback, cell: () => 'See the handbook of the school.' });
	const turned = [
		...columns.slice(habits.turned % columns.length),
		...columns.slice(0, habits.turned % columns.length)
	];
	if (habits.idHeading) turned.unshift({ heading: habits.idHeading, cell: (_, at) => String(at + 1) });
	return [
		...habits.above.map((text) => [text]),
		turned.map((column) => column.heading),
		...meant.flatMap((one, at) => [
			turned.map((column) => column.cell(one, at)),
			...(habits.emptyRows && at % 2 ? [turned.map(() => '')] : [])
		])
	];
}

/** The table with some questions as a file of text. */
export function kept(meant: Meant[], habits: TableHabits): string {
	const { delimiter, lineEnd, quotes, mark } = habits;
	const text = Papa.unparse(keptRows(meant, habits), { delimiter, newline: lineEnd, quotes });
	return `${mark ? '\ufeff' : ''}${text}${lineEnd}`;
}

/** How a spreadsheet stores a table; every field is one habit. */
export interface SheetHabits {
	strings: 'shared' | 'inline' | 'formula';
	/** Numbers and truths are stored as such, and not as text. */
	typed: boolean;
	/** Every text in so many runs of rich text. */
	runs: number;
	/** Empty rows and columns in front of the table. */
	down: number;
	right: number;
	/** Cells say where they stand; the standard lets them leave it out where none is left out. */
	placed: boolean;
	prefix: string;
	otherSheet: boolean;
}

/** Any mixture of habits of storing a table. */
export const anySheetHabits: fc.Arbitrary<SheetHabits> = fc.record({
	strings: fc.constantFrom<SheetHabits['strings'][]>('shared', 'inline', 'formula'),
	typed: fc.boolean(),
	runs: fc.constantFrom(1, 1, 2, 3),
	down: fc.constantFrom(0, 0, 2),
	right: fc.constantFrom(0, 0, 1),
	placed: fc.boolean(),
	prefix: fc.constantFrom('', '', 'x:'),
	otherSheet: fc.boolean()
});

const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

/** The files of a workbook (ECMA-376 part 1, 18) with a table in it. */
export function workbook(rows: string[][], habits: SheetHabits): Files {
	const { prefix, runs } = habits;
	const shared: string[] = [];
	const tag = (name: string, inner: string, attributes = '') =>
		`<${prefix}${name}${attributes}>${inner}</${prefix}${name}>`;
	const rich = (text: string) => {
		const plain = (one: string) => tag('t', escapeText(one), ' xml:space="preserve"');
		if (runs < 2 || text.length < runs) return plain(text);
		const size = Math.ceil(text.length / runs);
		return Array.from({ length: runs }, (_, at) => tag('r', plain(text.slice(at * size, (at + 1) * size)))).join('');
	};
	const cell = (text: string, place: string) => {
		const at = habits.placed || habits.right || habits.down ? ` r="${place}"` : '';
		if (text === '') return habits.placed || habits.right || habits.down ? '' : `<${prefix}c/>`;
		if (habits.typed && /^\d+(\.\d+)?$/.test(text)) return tag('c', tag('v', text), at);
		if (habits.typed && /^(True|False)$/.test(text))
			return tag('c', tag('v', text === 'True' ? '1' : '0'), `${at} t="b"`);
		if (habits.strings === 'inline') return tag('c', tag('is', rich(text)), `${at} t="inlineStr"`);
		if (habits.strings === 'formula')
			return tag('c', `${tag('f', 'A1')}${tag('v', escapeText(text))}`, `${at} t="str"`);
		shared.push(tag('si', rich(text)));
		return tag('c', tag('v', String(shared.length - 1)), `${at} t="s"`);
	};
	const column = (at: number) => String.fromCharCode(65 + at);
	const sheet = rows.map((cells, at) => {
		const number = at + 1 + habits.down;
		return tag(
			'row',
			cells.map((text, place) => cell(text, `${column(place + habits.right)}${number}`)).join(''),
			` r="${number}"`
		);
	});
	const open = ` xmlns${prefix ? ':x' : ''}="${main}" xmlns:r="${office}"`;
	const sheets = [`<${prefix}sheet name="Bank" sheetId="1" r:id="rId1"/>`];
	if (habits.otherSheet) sheets.unshift(`<${prefix}sheet name="About" sheetId="2" r:id="rId2"/>`);
	const target = (id: number, name: string) =>
		`<Relationship Id="rId${id}" Type="${office}/worksheet" Target="worksheets/${name}.xml"/>`;
	return {
		'[Content_Types].xml': '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>',
		'xl/workbook.xml': tag('workbook', tag('sheets', sheets.join('')), open),
		'xl/_rels/workbook.xml.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${target(1, 'sheet1')}${target(2, 'sheet2')}</Relationships>`,
		'xl/worksheets/sheet1.xml': tag('worksheet', tag('sheetData', sheet.join('')), open),
		'xl/worksheets/sheet2.xml': `<worksheet xmlns="${main}"><sheetData><row r="1"><c r="A1" t="inlineStr"><is><t>Made by the harbour school.</t></is></c></row></sheetData></worksheet>`,
		'xl/sharedStrings.xml': tag('sst', shared.join(''), open)
	};
}
