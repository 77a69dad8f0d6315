import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { isChoice, type Question } from '../../kinds';
import { readAll, readBare, type Found } from '../../test-support/packages';
import { short } from '../../test-support/short';
import type { Recipe } from '../recipe/recipe';
import { openContainer } from '../open';
import { memorySource } from '../../container/container';
import { delimiterOf, rowsOfText } from './csv';
import { guessTable } from './guess';

const csv = (text: string, recipe?: Recipe): Promise<Found> =>
	openContainer('a.csv', memorySource(new TextEncoder().encode(text))).then((container) => readAll(container, recipe));
const right = (question: Question) =>
	isChoice(question)
		? question.options.filter((option) => option.credit > 0).map((option) => plainText(option.text))
		: [];
const rulesOf = (found: Found) => [
	...found.reports.map((report) => report.rule),
	...[...found.about.values()].flat().map((report) => report.rule)
];

describe('the rows of a table of text', () => {
	it.each([
		['a,b,c\n1,2,3\n4,5,6', ','],
		['a;b;c\n1,5;2;3\n4,5;5;6', ';'],
		['a\tb\tc\n1\t2\t3', '\t'],
		['a|b|c\n1|2|3', '|']
	])('are parted as %j shows', (text, delimiter) => {
		expect(delimiterOf(text)).toBe(delimiter);
	});
	it('hold quotes that have a backslash in front of them, also in cells without quotes around', async () => {
		const found = await csv(
			'Stem,A,B,Key\nThe mate said \\"let go\\". Who?,\\"head\\" line,"stern, \\"aft\\"",A\nWhich is next?,bow,stern,B\n'
		);
		expect(found.questions.map(({ stem }) => plainText(stem))).toEqual([
			'The mate said "let go". Who?',
			'Which is next?'
		]);
		expect(isChoice(found.questions[0]!) && found.questions[0].options.map(({ text }) => plainText(text))).toEqual([
			'"head" line',
			'stern, "aft"'
		]);
	});
	it('keep a backslash that ends a cell, where quotes are doubled', () => {
		const [row] = rowsOfText('"C:\\","a ""b"" c"\n', ',');
		expect(row!.cells.map(({ text }) => text)).toEqual(['C:\\', 'a "b" c']);
	});
	it('may be told by a line of their own how they are parted', async () => {
		const found = await csv('sep=;\r\n\ufeffStem;A;B;Key\r\nWhich, then?;bow;stern;B\r\n');
		expect(found.questions.map(({ stem }) => stem)).toEqual(['Which, then?']);
		expect(right(found.questions[0]!)).toEqual(['stern']);
	});
	it('hold line ends and doubled quotes within quotes', () => {
		const rows = rowsOfText('Stem,Key\n"How ""deep""\nis it?",3\n', ',');
		expect(rows[1]!.cells[0]!.text).toBe('How "deep"\nis it?');
	});
	it('are all read but the one whose quote never closes', async () => {
		const found = await csv('Stem,A,B,Key\nOne?,x,y,A\n"Two?,x,y,A\nThree?,x,y,B\nFour?,x,y,A\n');
		expect(found.questions.map((question) => question.kind)).toEqual([
			'multiple-choice',
			'unreadable',
			'multiple-choice',
			'multiple-choice'
		]);
		expect(found.questions[1]).toMatchObject({ reason: expect.stringContaining('quot') as string });
	});
});

describe('a table of statements with a column for true and one for false', () => {
	it.each([
		['Statement,True,False', 'x,', ',x', 'x,x'],
		['No,Statement,T,F', '1,0', '0,1', '1,1'],
		['Frage,Richtig,Falsch', 'X,', ',X', 'X,X']
	])('is a question for each statement, %s', async (head, yes, no, both) => {
		const row = (words: string, marks: string) => `${head.startsWith('No') ? '1,' : ''}${words},${marks}`;
		const rows = [
			row('A cleat takes a rope.', yes),
			row('Port is green.', no),
			row('Ebb falls.', ','),
			row('Flood.', both)
		];
		const found = await csv([head, ...rows].join('\n'));
		expect(found.questions.map(({ kind }) => kind)).toEqual(Array(4).fill('true-false'));
		expect(found.questions.map(right)).toEqual([['True'], ['False'], [], []]);
		expect(rulesOf(found).filter((rule) => rule !== 'unused-column')).toEqual(['contradictory-key']);
	});
	it('is no such table where an answer stands in the column', async () => {
		const found = await csv('Frage,Richtig,Falsch\nWas ist links?,Backbord,Steuerbord\nWas ist vorn?,Bug,Heck');
		expect(found.questions).toMatchObject([
			{ kind: 'short-answer', accepted: [{ text: 'Backbord' }] },
			{ kind: 'short-answer', accepted: [{ text: 'Bug' }] }
		]);
	});
	it('is no such table where it has a key', async () => {
		const found = await csv('Question,True,False,Key\nPort is green.,True,False,False\nEbb falls.,True,False,True');
		expect(found.questions.map(right)).toEqual([['False'], ['True']]);
	});
});

describe('columns', () => {
	it.each([
		'Question,Option A,Option B,Answer',
		'Stem,A,B,Key',
		'Prompt,Choice 1,Choice 2,Correct answer',
		'question text,Answer 1,Answer 2,Correct',
		'Item,Alternative A,Alternative B,Right answer',
		'Question,Option 1,Option 2,Correct Answer Letter',
		'Question,A,B,Correct Answer(s)',
		'Q,Option 1,Option 2,Letter of the correct answer',
		'QuestionText,OptionA,OptionB,CorrectAnswer',
		'question_text,option_1,option_2,correct_option_letter'
	])('are known by headings such as %s', async (head) => {
		const { questions } = await csv(`${head}\nWhich holds?,Bowline,Reef,A\nWhich slips?,Bowline,Reef,B\n`);
		expect(questions.map(right)).toEqual([['Bowline'], ['Reef']]);
	});
	it('are guessed without any headings', async () => {
		const { questions } = await csv(
			'Which knot holds best of all?,Bowline,Reef,A\nWhich knot slips the most?,Bowline,Reef,B\n'
		);
		expect(questions.map(right)).toEqual([['Bowline'], ['Reef']]);
	});
	it.each([
		['letters', 'Which knot holds best of all?,Bowline,Reef,A\nWhich knot slips the most?,Bowline,Reef,B\n'],
		['numbers', 'Which knot holds?,Bowline,Reef,Granny,1\nWhich knot slips?,Bowline,Reef,Granny,2\n'],
		[
			'the option itself',
			'Which knot holds?,Bowline,Reef,Granny,Bowline\nWhich knot slips?,Bowline,Reef,Granny,Reef\n'
		],
		[
			'letters under words of another language',
			'Spørgsmål,Første,Anden,Facit\nHvilket knob holder?,Bowline,Reef,A\nHvilket knob glider?,Bowline,Reef,B\n'
		],
		[
			'headings in German',
			'Frage,A,B,Lösung,Punkte\nWelcher Knoten hält?,Bowline,Reef,A,1\nWelcher rutscht?,Bowline,Reef,B,1\n'
		]
	])('are guessed from %s', async (_, text) => {
		const { questions } = await csv(text);
		expect(questions.map(right)).toEqual([['Bowline'], ['Reef']]);
	});
	it('may hold the right answer and the wrong ones', async () => {
		const { questions } = await csv(
			'Question,Correct answer,Wrong answer 1,Wrong answer 2\nWhich holds?,Bowline,Reef,Granny\nWhich is flat?,Reef,Bowline,\n'
		);
		expect(questions.map(right)).toEqual([['Bowline'], ['Reef']]);
		expect(questions.map((one) => isChoice(one) && one.options.length)).toEqual([3, 2]);
	});
	it.each([
		['50', '-50', '50'],
		['50%', '-50%', '50%'],
		['0.5', '-0.5', '0.5']
	])('may hold the credit of each option: %s', async (...credits) => {
		const { questions, reports } = await csv(
			`Question,A,Credit A,B,Credit B,C,Credit C,Feedback C\nWhich are hitches?,Clove,${credits[0]},Bowline,${credits[1]},Rolling,${credits[2]},Under a load\n`
		);
		expect(questions[0]).toMatchObject({
			kind: 'multiple-response',
			options: [{ credit: 0.5 }, { credit: -0.5 }, { credit: 0.5 }]
		});
		expect(reports).toEqual([]);
	});
	it('may hold the feedback of each option, identifiers and a category within a category', async () => {
		const { questions, reports } = await csv(
			'ID,Question,A,A feedback,B,B feedback,Key,Category,Subcategory\nK-7,Which holds?,Bowline,Yes.,Reef,It slips.,A,Knots,Loops\n'
		);
		expect(questions[0]).toMatchObject({
			identifier: 'K-7',
			category: ['Knots', 'Loops'],
			options: [{ feedback: 'Yes.' }, { feedback: 'It slips.' }]
		});
		expect(reports).toEqual([]);
	});
	it('of which none is a question are not taken for questions', async () => {
		const found = await csv('Question ID,Answer text,Is correct\n1,Bowline,yes\n1,Reef,no\n');
		expect(found.questions).toEqual([]);
		expect(rulesOf(found)).toContain('not-questions');
	});
	it('begin below a title', async () => {
		const { questions } = await csv('Harbour test,,,\n,,,\nStem,A,B,Key\nWhich?,x,y,B\n');
		expect(questions.map(right)).toEqual([['y']]);
	});
	it.each([
		['index', 'Stem,A,B,C,Key\nP?,x,y,z,2\nQ?,x,y,z,3\nR?,x,y,z,1', [['y'], ['z'], ['x']]],
		['index0', 'Stem,A,B,C,Key\nP?,x,y,z,0\nQ?,x,y,z,2\nR?,x,y,z,1', [['x'], ['z'], ['y']]],
		['letter', 'Stem,A,B,C,Key\nP?,x,y,z,b\nQ?,x,y,z,C', [['y'], ['z']]],
		['text', 'Stem,A,B,C,Key\nP?,6,7,8,8\nQ?,1,2,3,2', [['8'], ['2']]]
	])('hold keys by %s', async (form, text, wanted) => {
		const rows = rowsOfText(text, ',');
		expect(guessTable(rows)!.keyForms![0]).toBe(form);
		expect((await csv(text)).questions.map(right)).toEqual(wanted);
	});
	it('hold options in one cell', async () => {
		const { questions } = await csv('Stem;Options;Key\nWhich?;x|y|z;"x;z"\n');
		expect(questions[0]).toMatchObject({ kind: 'multiple-response' });
		expect(right(questions[0]!)).toEqual(['x', 'z']);
	});
	it('say what kind a question is, in the words of people', async () => {
		const text =
			'Stem,Kind,A,B,Key\nP?,TF,,,T\nQ?,num,,,3 +/- 1\nR?,short answer,,,ebb / flood\nS?,essay,,,\nT?,matching,a = b,c = d,\nU?,ordering,one,two,\n';
		expect((await csv(text)).questions.map((question) => question.kind)).toEqual([
			'true-false',
			'numeric',
			'short-answer',
			'essay',
			'matching',
			'ordering'
		]);
	});
	it('hold pairs and orders in the cell of the answer, and say where they cannot be told', async () => {
		const found = await csv(
			'Stem,Kind,Answer\nP?,matching,red = port; green = starboard\nS?,matching,12:00 = noon; 00:00 = midnight\nQ?,ordering,dinghy > yacht > ship\nR?,ordering,whatever\n'
		);
		const [pairs, clock, order] = found.questions;
		expect(clock).toMatchObject({ left: [{ text: '12:00' }, { text: '00:00' }] });
		expect(pairs).toMatchObject({
			left: [{ text: 'red' }, { text: 'green' }],
			right: [{ text: 'port' }, { text: 'starboard' }]
		});
		expect(order).toMatchObject({ items: [{ text: 'dinghy' }, { text: 'yacht' }, { text: 'ship' }] });
		expect(found.questions[3]!.kind).toBe('short-answer');
		expect(rulesOf(found)).toContain('guessed-kind');
	});
	it.each(['Antwort', 'Réponse', 'Respuesta', 'Risposta', 'Antwoord'])(
		'of options are known by “%s A”',
		async (word) => {
			const { questions } = await csv(`Frage;${word} A;${word} B;Richtig\nP?;x;y;B\nQ?;x;y;A\n`);
			expect(questions.map(right)).toEqual([['y'], ['x']]);
		}
	);
	it('that a recipe names and the table has not are reported', async () => {
		const found = await csv('Stem,A,B,Key\nP?,x,y,A\n', {
			headerRow: 1,
			columns: { stem: 'Stem', options: ['A', 'B'], key: 'Schlüssel' }
		});
		expect(rulesOf(found)).toContain('missing-column');
	});
	it('that nobody knows the meaning of are said to be left out', async () => {
		const { reports } = await csv('Stem,A,B,Key,Boat\nP?,x,y,A,Tern\n');
		expect(reports.find((report) => report.rule === 'unused-column')!.message).toContain('“Boat”');
	});
	it('mean what the recipe says, whatever they are called', async () => {
		const { questions } = await csv('F1,F2,F3,F4\nWhich?,x,y,2\n', {
			headerRow: 1,
			columns: { stem: 'F1', options: ['F2', 'F3'], key: 'F4' },
			keyForms: ['index']
		});
		expect(questions.map(right)).toEqual([['y']]);
	});
});

describe('rows', () => {
	it('that are too short, or name what is not there, are read and reported', async () => {
		const found = await csv('Stem,A,B,Key,Points\nP?,x,y,F,1\nQ?,x,y\nR?,x,y,A,many\n');
		expect(found.questions).toHaveLength(3);
		expect(rulesOf(found)).toEqual(expect.arrayContaining(['too-few-columns', 'bad-points']));
	});
	it('keep what looks like a formula as text', async () => {
		const { questions } = await csv(`Stem,A,B,Key\nWhich?,=KM-KG,"'=1+1",A\n`);
		expect(isChoice(questions[0]!) && questions[0].options.map((option) => option.text)).toEqual(['=KM-KG', '=1+1']);
	});
});

describe('a table that holds no questions', () => {
	it('says so, and says what it begins with', async () => {
		const { questions, reports } = await csv('Boat,Berth,Length\nTern,4,9\nGull,5,11\n');
		expect(questions).toEqual([]);
		expect(reports[0]!.message).toContain('Boat, Berth, Length');
	});
});

describe('a text file', () => {
	it('that is a table is read as one', async () => {
		const { questions } = await readBare('list.txt', 'Stem\tA\tB\tKey\nWhich?\tx\ty\tB\nAnd?\tx\ty\tA\n');
		expect(questions.map(right)).toEqual([['y'], ['x']]);
	});
});

describe('a key that names its column', () => {
	it('is the option that stands there', async () => {
		const found = await csv(
			'Question,Option 1,Option 2,Correct Option\nWhat is a fathom?,6 metres,6 feet,Option 2\nWhat is a cable?,A tenth of a mile,A mile,1\n'
		);
		expect(found.questions.map(right)).toEqual([['6 feet'], ['A tenth of a mile']]);
	});
});

describe('a column that only counts the rows', () => {
	it('is not missed when it is left out', async () => {
		const found = await csv('No,Question,A,B,Key\n1,One?,x,y,A\n2,Two?,x,y,B\n');
		expect(rulesOf(found)).not.toContain('unused-column');
		expect(rulesOf(await csv('Deck,Question,A,B,Key\naft,One?,x,y,A\nbow,Two?,x,y,B\n'))).toContain('unused-column');
	});
});

describe('a table with a row for each option', () => {
	const options = (question: Question) =>
		isChoice(question) ? question.options.map((option) => plainText(option.text)) : [];
	it.each([
		[
			'the question in each row',
			'id,question,option,is_correct\n1,Which joins?,Bowline,0\n1,Which joins?,Sheet bend,1\n2,Which sinks?,Nylon,1\n2,Which sinks?,Cork,0\n'
		],
		[
			'the question in the first row only',
			'question,answer,correct\nWhich joins?,Bowline,\n,Sheet bend,x\nWhich sinks?,Nylon,x\n,Cork,\n'
		]
	])('is read, %s', async (_, text) => {
		const found = await csv(text);
		expect(found.questions.map(options)).toEqual([
			['Bowline', 'Sheet bend'],
			['Nylon', 'Cork']
		]);
		expect(found.questions.map(right)).toEqual([['Sheet bend'], ['Nylon']]);
		expect(rulesOf(found)).toEqual([]);
	});
	it('has the feedback of each option beside it', async () => {
		const { questions } = await csv(
			'question,option,right,feedback\nWhich joins?,Bowline,no,A loop.\nWhich joins?,Sheet bend,yes,A bend.\n'
		);
		expect(questions[0]).toMatchObject({ options: [{ feedback: 'A loop.' }, { feedback: 'A bend.' }] });
	});
	it('is read by a recipe that says so, with other headings', async () => {
		const { questions } = await csv('ask;say;ok\nWhich joins?;Bowline;n\nWhich joins?;Sheet bend;y\n', {
			delimiter: ';',
			columns: { stem: 'ask', options: 'say', optionRight: 'ok' }
		});
		expect(questions.map(right)).toEqual([['Sheet bend']]);
	});
});

describe('the right options of a row', () => {
	it.each([
		[
			'flags beside each',
			'question,option a,option a correct,option b,option b correct\nWhich joins?,Bowline,FALSE,Sheet bend,TRUE\n'
		],
		['a star at one', 'question,option a,option b\nWhich joins?,Bowline,*Sheet bend\n'],
		['a star at a line of one cell', 'question,answers\nWhich joins?,"Bowline\nSheet bend*"\n'],
		[
			'a list as programs print it',
			'question,choices,answer\nWhich joins?,"[""Bowline"", ""Sheet bend""]",Sheet bend\n'
		],
		[
			'the same with other quotes and names',
			"question,choices,answer\nWhich joins?,\"{'A': 'Bowline', 'B': 'Sheet bend'}\",['B']\n"
		],
		[
			'a key with wrong ones beside it',
			'Question,Ans,Distractor 1,Distractor 2\nWhich joins?,Sheet bend,Bowline,Fid\n'
		],
		['letters within one cell', 'question,options,answer\nWhich joins?,A) Bowline B) Sheet bend,B\n']
	])('are told by %s', async (_, text) => {
		const { questions } = await csv(text);
		expect(questions[0]!.kind).toBe('multiple-choice');
		expect(questions.map(right)).toEqual([['Sheet bend']]);
	});
	it('stand before a column without a heading, and none of them is called too many', async () => {
		const found = await csv('Question,,A,B,Key\nWhich joins?,,Bowline,Sheet bend,B\n');
		expect(found.questions.map(right)).toEqual([['Sheet bend']]);
		expect(rulesOf(found)).toEqual([]);
	});
});

describe('a number in the column of answers', () => {
	it('is not taken apart by what parts several keys', async () => {
		const recipe: Recipe = { columns: { stem: 'Stem', key: 'Key' }, keySeparators: ['+', ' / ', ','] };
		const { questions } = await csv('Stem,Key\nHow far?,3 +/- 0.5\nHow deep?,"2,5"\nName it.,warp / hawser\n', recipe);
		expect(questions.map(short)).toEqual([
			['numeric', 'How far?', '3±0.5'],
			['numeric', 'How deep?', '2.5±0'],
			['short-answer', 'Name it.', 'warp', 'hawser']
		]);
	});
});

describe('two columns of answers', () => {
	const head = 'Question,Type,Answer,Correct option,Option 1,Option 2';
	it('fill each other: one has the letter of a choice, the other the words of what is written', async () => {
		const found = await csv(
			`${head}\nWhich floats?,,,2,Lead,Cork\nWhich sinks?,,Lead,1,Lead,Cork\nName the post.,short,bollard,,,\n`
		);
		expect(found.questions.map(right)).toEqual([['Cork'], ['Lead'], []]);
		expect(found.questions[2]).toMatchObject({ kind: 'short-answer', accepted: [{ text: 'bollard' }] });
		expect(rulesOf(found)).toEqual([]);
	});
	it('may be the key and the reason for it', async () => {
		const found = await csv(
			'Question,A,B,Answer,Solution\nWhich sinks?,Lead,Cork,A,It is denser than water.\nWhich floats?,Lead,Cork,B,\n'
		);
		expect(found.questions.map(right)).toEqual([['Lead'], ['Cork']]);
		expect(found.questions[0]!.feedback).toEqual({ general: 'It is denser than water.' });
		expect(rulesOf(found)).toEqual([]);
	});
	it('that disagree are reported, and neither is taken', async () => {
		const found = await csv(`${head}\nWhich sinks?,,Cork,1,Lead,Cork\nName the rope.,short,hawser,warp,,\n`);
		expect(found.questions.map(right)).toEqual([[], []]);
		expect(rulesOf(found).filter((rule) => rule === 'contradictory-key')).toHaveLength(2);
	});
	it('count places from 0 where one of them is 0, also in a list', async () => {
		const { questions } = await csv(
			'stem,choices,answer_index\nWhich light?,"[""Fixed"",""Flashing""]",1\nWhich shape?,"[""Can"",""Cone""]",0\nWhich two?,"[""Red"",""Green"",""Blue""]","[0, 2]"\n'
		);
		expect(questions.map(right)).toEqual([['Flashing'], ['Can'], ['Red', 'Blue']]);
	});
});

describe('a table of two columns', () => {
	it.each(['Q,A', 'Question,Answer', 'Term,Definition'])('is headed by %s, which is no question', async (head) => {
		const { questions } = await csv(`${head}\nWhich channel is for distress?,16\nWhat is VHF?,very high frequency\n`);
		expect(questions.map((question) => plainText(question.stem))).toEqual([
			'Which channel is for distress?',
			'What is VHF?'
		]);
	});
});
