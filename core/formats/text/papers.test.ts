import { describe, expect, it } from 'vitest';
import { readBare } from '../../test-support/packages';
import { short } from '../../test-support/short';
import { readMarkedText } from './grammar';
import { linesOf } from './lines';

const read = (text: string) => readMarkedText(linesOf(text), 'a.txt', 'text');
const all = (text: string) => read(text).questions.map((found) => short(found.question));
const points = (text: string) => read(text).questions.map((found) => found.question.points);
const feedback = (text: string) => read(text).questions.map((found) => found.question.feedback.general);
const rules = (text: string) => read(text).questions.flatMap((found) => found.reports.map((report) => report.rule));

const bend = ['multiple-choice', 'Which is a bend?', 'Bowline', '*Sheet bend'];

describe('a paper as a teacher types it', () => {
	it.each([
		[
			'numbers and letters parted by tabs alone',
			'1\tWhich is a bend?\n\tA\tBowline\n\tB\tSheet bend\n2\tWhat is a warp?\n\nANSWERS\n1 B\n2 rope'
		],
		[
			'letters on lines of their own',
			'1. Which is a bend?\n\nA\nBowline\n\nB\nSheet bend\n\nCorrect answer: B\n\n2. What is a warp?\nAnswer: rope'
		],
		[
			'options behind their label',
			'1. Which is a bend?\nOptions: A. Bowline; B. Sheet bend\nAnswer: B\n2. What is a warp?\nAnswer: rope'
		],
		[
			'roman numbers for options',
			'1) Which is a bend?\ni) Bowline\nii) Sheet bend\nAnswer: ii\n2) What is a warp?\nAnswer: rope'
		],
		[
			'fields between the number and the question',
			'### Question 1\n**Type:** Multiple Choice\n**Question:** Which is a bend?\n- A) Bowline\n- B) Sheet bend ✅\n### Question 2\n**Type:** Short answer\n**Question:** What is a warp?\n**Answer:** rope'
		],
		[
			'the kind right behind the number',
			'1. Type: multiple choice\nWhich is a bend?\nA. Bowline\nB. Sheet bend*\n2. Type: short answer\nWhat is a warp?\nAnswer: rope'
		],
		[
			'an answer behind options of a card',
			'Q: Which is a bend?\nA) Bowline\nB) Sheet bend\nA: B\n\nQ: What is a warp?\nA: rope'
		],
		[
			'options that are called so',
			'1. Which is a bend?\nOption A: Bowline\nOption B: Sheet bend\nCorrect option: B\n2. What is a warp?\nAnswer: rope'
		],
		[
			'German words',
			'Frage 1: Which is a bend?\na) Bowline\nb) Sheet bend\nAntwort: b\n\nFrage 2: What is a warp?\nAntwort: rope'
		]
	])('has %s', (_, text) => {
		expect(all(text)).toEqual([bend, ['short-answer', 'What is a warp?', 'rope']]);
	});

	it('says in front of a part what each question in it is worth', () => {
		const text =
			'Each question is worth 3 points.\n\n1. What is a warp?\nAnswer: rope\n\nPart B. True or false (2 points each)\n\n2. A kedge is an anchor.\nAnswer: true\n\n3. A fid is a fish. (5 points)\nAnswer: false\n\nPart C\n\n4. What is a bight?\nAnswer: loop';
		expect(points(text)).toEqual([3, 2, 5, 3]);
		expect(read(text).reports.filter((report) => report.rule === 'points-each')).toHaveLength(2);
	});

	it('may have a list without signs within a question', () => {
		const text = '1. Which of these is the first to come?\n1\tHigh water again\n2\tLow water again\nAnswer: low water';
		expect(all(text)).toHaveLength(1);
	});

	it('has the points in brackets behind each question, but not behind some alone', () => {
		expect(points('1. What is a warp? [2]\n\n2. Name a knot. [1.5]')).toEqual([2, 1.5]);
		expect(all('1. What is a warp? [2]\n\n2. Name a knot.')[0]).toEqual(['essay', 'What is a warp? [2]']);
	});

	it('keeps the words above a part out of the question in front of it', () => {
		const text =
			'Part A\n\n1. A kedge is an anchor.\tT   F\n2. A warp is paint.\tT   F\n\nPart B. Short answer\n\n3. What is a bight?\n\nAnswers\n1 T\n2 F\n3 loop';
		expect(all(text)).toEqual([
			['true-false', 'A kedge is an anchor.', '*True', 'False'],
			['true-false', 'A warp is paint.', 'True', '*False'],
			['short-answer', 'What is a bight?', 'loop']
		]);
	});

	it('says that the statements of a part are true or false, also where no key is given', () => {
		expect(all('Part A: True or false\n\n1. A kedge is an anchor.\n\n2. A fid is a fish.')).toEqual([
			['true-false', 'A kedge is an anchor.', 'True', 'False'],
			['true-false', 'A fid is a fish.', 'True', 'False']
		]);
	});

	it('has a heading between questions, which is not one of them', () => {
		const text =
			'Set A\n\n1. Which is a bend?\nA. Bowline\nB. Sheet bend*\n\nSet B: Charts\n\n1. Which is a bend?\nA. Bowline\nB. Sheet bend*';
		expect(all(text)).toEqual([bend, bend]);
		const kind = '1. What is a bight?\nAnswer: loop\n\nMatching:\n\n2. What is a warp?\nAnswer: rope';
		expect(all(kind)[0]).toEqual(['short-answer', 'What is a bight?', 'loop']);
	});

	it('has a question more at the end, without a number', () => {
		expect(all('1. What is a bight?\nAnswer: loop\n\nBonus question: Explain the bowline.')).toEqual([
			['short-answer', 'What is a bight?', 'loop'],
			['essay', 'Explain the bowline.']
		]);
	});
});

describe('reasons in the list of answers', () => {
	it('are feedback', () => {
		const text =
			'1. Which is a bend?\nA. Bowline\nB. Sheet bend\n\nAnswer key\n1. B) It joins two ropes of unlike size.';
		expect(all(text)).toEqual([bend]);
		expect(feedback(text)).toEqual(['It joins two ropes of unlike size.']);
		expect(rules(text)).toContain('reason-as-feedback');
	});
});

describe('a model answer', () => {
	it('is for a person to mark by, unless it is a word', () => {
		const [whole, word] = read(
			'1. What is reserve buoyancy?\nSample answer: The watertight volume above the waterline.\n\n2. What is a warp?\nModel answer: rope'
		).questions;
		expect(whole!.question).toMatchObject({
			kind: 'essay',
			metadata: [{ name: 'model answer', value: 'The watertight volume above the waterline.' }]
		});
		expect(short(word!.question)).toEqual(['short-answer', 'What is a warp?', 'rope']);
	});
});

describe('answers in other forms', () => {
	it.each([
		[
			'one in brackets',
			'1. What is the end called?\nAnswer: bitter (or working)',
			['short-answer', 'What is the end called?', 'bitter', 'working']
		],
		[
			'a tolerance in the stem',
			'1. What is 12 miles in km? (± 0.1)\nAnswer: 22.2',
			['numeric', 'What is 12 miles in km? (± 0.1)', '22.2±0.1']
		],
		[
			'places in boxes',
			'1. Put these in order:\n[2] Name\n[3] Position\n[1] Mayday',
			['ordering', 'Put these in order:', 'Mayday', 'Name', 'Position']
		],
		[
			'pairs with a label each',
			'1. Match the shapes:\na. Ball – i. Aground\nb. Cone – ii. At anchor\nAnswer: a-ii, b-i',
			['matching', 'Match the shapes:', 'Ball=At anchor', 'Cone=Aground']
		],
		[
			'blanks in words',
			'1. The [blank] holds the [blank].\nAnswer: fluke; seabed',
			['fill-blanks', 'The [B1] holds the [B2].', 'fluke', 'seabed']
		]
	])('are read: %s', (_, text, expected) => {
		expect(all(text)).toEqual([expected]);
	});

	it('stand below a table that begins behind the number', () => {
		const [found] = read(
			'1. | Splice | Use |\n|---|---|\n| Short | joining |\n\nWhich joins?\nA. Eye\nB. Short*'
		).questions;
		expect(found!.question.stem).toContain('<table');
		expect(short(found!.question).slice(2)).toEqual(['Eye', '*Short']);
	});
});

describe('answers that stand apart', () => {
	const asked = '1. Which is a bend?\nA. Bowline\nB. Sheet bend\n\n2. What is a warp?\n\n';
	it.each([
		['a table', '## Answer key\n| Question | Answer | Why |\n|---|---|---|\n| 1 | B | It joins. |\n| 2 | rope | |'],
		['a table without a heading above it', '| No. | Answer |\n|---|---|\n| 1 | B |\n| 2 | rope |']
	])('in %s at the end are those of the questions', (_, answers) => {
		expect(all(asked + answers)).toEqual([bend, ['short-answer', 'What is a warp?', 'rope']]);
	});
	it('with reasons in a table give them as feedback', () => {
		expect(feedback(`${asked}| Q | Answer | Reason |\n|---|---|---|\n| 1 | B | It joins. |\n| 2 | rope | |`)).toEqual([
			'It joins.',
			undefined
		]);
	});
	it('in folds of a page are answers, and other folds are text', () => {
		const folded =
			'1. Which is a bend?\nA. Bowline\nB. Sheet bend\n\n<details>\n<summary>Show answer</summary>\n\nB. Sheet bend\n</details>\n\n2. What is a warp?\n<details><summary>Answer</summary>rope</details>';
		expect(all(folded)).toEqual([bend, ['short-answer', 'What is a warp?', 'rope']]);
	});
});

describe('two columns to be matched', () => {
	const columns = 'Matching\n\n___ 1.  Ebb      A.  rises\n___ 2.  Flood    B.  falls\n                C.  stands\n';
	it('are one question, whose pairs the list at the end tells', () => {
		const { questions } = read(`${columns}\nKEY\n1. B\n2. A`);
		expect(questions.map((found) => short(found.question))).toEqual([
			['matching', 'Match.', 'Ebb=falls', 'Flood=rises']
		]);
		expect(questions[0]!.question).toMatchObject({ right: [{ text: 'falls' }, { text: 'rises' }, { text: 'stands' }] });
	});
	it('are paired by row and reported as doubtful where nothing tells', () => {
		const { questions } = read(columns);
		expect(short(questions[0]!.question).slice(2)).toEqual(['Ebb=rises', 'Flood=falls']);
		expect(questions[0]!.reports).toMatchObject([{ rule: 'joined-columns', severity: 'doubtful' }]);
	});
});

describe('answers on lines of their own', () => {
	it.each([
		[
			'below a line that ends with a colon',
			'1. Which is a bend?\nA. Bowline\nB. Sheet bend\n\n**Answer:**\nB) Sheet bend'
		],
		['below a line without one', '1. Which is a bend?\nA. Bowline\nB. Sheet bend\nCorrect answer\nB'],
		['in brackets', '1. Which is a bend?\n(a) Bowline\n(b) Sheet bend\n[Ans: (b)]'],
		['within a fence of code', '```\n1. Which is a bend?\nA. Bowline\nB. Sheet bend\nAnswer: B\n```']
	])('are those of the question: %s', (_, text) => {
		expect(all(`${text}\n\n2. Explain the bowline.`)).toEqual([bend, ['essay', 'Explain the bowline.']]);
	});
	it('are one for each blank where they are counted', () => {
		expect(all('1. The ____ runs in, the ____ runs out.\n**Answer:**\n1. flood\n2. ebb\n\n2. Explain it.')).toEqual([
			['fill-blanks', 'The [B1] runs in, the [B2] runs out.', 'flood', 'ebb'],
			['essay', 'Explain it.']
		]);
	});
	it('are left empty where the next question comes at once', () => {
		expect(all('1. Explain the ebb.\nAnswer:\n\n2. Explain the flood.\nAnswer:\n')).toEqual([
			['essay', 'Explain the ebb.'],
			['essay', 'Explain the flood.']
		]);
	});
	it('may be a number with the range that is accepted', () => {
		expect(all('1. How fast is she?\nAnswer: 6 knots (accept 5.9–6.1)')).toEqual([
			['numeric', 'How fast is she?', '5.9–6.1']
		]);
	});
});

describe('a number with what people write around it', () => {
	it.each([
		['2.9 m ± 0.2', '2.9±0.2'],
		['5 knots +/- 2 knots', '5±2'],
		['3 (three)', '3±0'],
		['12 m (twelve metres)', '12±0']
	])('is %s', (answer, wanted) => {
		expect(all(`1. How much?\nAnswer: ${answer}`)).toEqual([['numeric', 'How much?', wanted]]);
	});
	it('is told apart from words in brackets, which are reported', () => {
		expect(rules('1. When?\nAnswer: 1912 (April)')).toEqual(['left-out-text']);
	});
});

describe('two columns of a page', () => {
	it('hold options above one another, in the order of their letters', () => {
		const text =
			'1. Which are ropes?\n   a. Warp             c. Hawser\n   b. Fid              d. Marlinspike\nAnswer: a, c';
		expect(all(text)).toEqual([['multiple-response', 'Which are ropes?', '*Warp', 'Fid', '*Hawser', 'Marlinspike']]);
		expect(rules(text)).not.toContain('odd-letter');
	});
	it('hold things to match, whatever the case of their letters', () => {
		expect(
			all(
				'___ 1. Whipping         a. joins two ropes\n___ 2. Sheet bend       b. stops an end from fraying\n\nKEY\n1. b   2. a'
			)
		).toEqual([['matching', 'Match.', 'Whipping=stops an end from fraying', 'Sheet bend=joins two ropes']]);
	});
});

describe('the points that a section says in brackets', () => {
	const paper = (more: string) =>
		`Each question is worth 2 points.\n\n## Part A\n\n1. What is a warp?\nAnswer: rope\n\n## Part B (10 points)\n\n2. Explain the bowline.\n${more}`;
	it('are those of its only question', () => {
		expect(points(paper(''))).toEqual([2, 10]);
	});
	it('are shared by several in a way that nothing tells, which is reported', () => {
		const text = paper('\n3. Explain the ebb.\n');
		expect(points(text)).toEqual([2, null, null]);
		const { reports } = read(text);
		expect(reports.map((report) => report.rule)).toContain('points-of-section');
	});
});

describe('a table of statements', () => {
	it('is a question for each, marked by what is ticked or listed', () => {
		const text =
			'1. Name a warp.\nAnswer: rope\n\n**Part B. True or false**\n\n| | Statement | T | F |\n|---|---|---|---|\n| 2 | Nylon stretches. | x | |\n| 3 | Hemp floats for ever. | | |\n\nANSWERS\n3 F\n';
		expect(all(text)).toEqual([
			['short-answer', 'Name a warp.', 'rope'],
			['true-false', 'Nylon stretches.', '*True', 'False'],
			['true-false', 'Hemp floats for ever.', 'True', '*False']
		]);
	});
});

describe('a short bold line between two questions', () => {
	it('is no part of the one above, and is reported', () => {
		const text = '1. Explain the ebb.\n\n**Ropes and knots**\n\n2. What is a warp?\nAnswer: rope';
		expect(all(text)).toEqual([
			['essay', 'Explain the ebb.'],
			['short-answer', 'What is a warp?', 'rope']
		]);
		expect(
			read(text)
				.reports.map((report) => report.message)
				.join()
		).toContain('“Ropes and knots”');
	});
});

describe('how hard a question is', () => {
	it.each(['**1. What is a warp?** *(Easy)*', '1. (Easy) What is a warp?', '1. What is a warp? [easy]'])(
		'is no part of its stem: %s',
		(line) => {
			const [found] = read(`${line}\nAnswer: rope`).questions;
			expect(short(found!.question)).toEqual(['short-answer', 'What is a warp?', 'rope']);
			expect(found!.question.difficulty).toBe('easy');
		}
	);
});

describe('data in a fence of code, within the words of a language model', () => {
	it.each([
		[
			'JSON',
			'Sure:\n\n```json\n[{"question": "Which is a bend?", "options": ["Bowline", "Sheet bend"], "answer": "Sheet bend"}]\n```\n\nMore?'
		],
		['a table', 'Sure:\n\n```csv\nQuestion,A,B,Answer\nWhich is a bend?,Bowline,Sheet bend,B\n```\n\nMore?']
	])('is read as what it is, and the words are reported: %s', async (_, text) => {
		const { questions, reports } = await readBare('a.txt', text);
		expect(questions.map(short)).toEqual([bend]);
		expect(reports).toMatchObject([{ rule: 'left-out-text' }]);
		expect(reports[0]!.message).toContain('“Sure: More?”');
		expect(questions[0]!.source!.line).toBeGreaterThan(3);
	});
});
