import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { isChoice, type Question } from '../../kinds';
import { readMarkedText } from './grammar';
import { linesOf } from './lines';

const read = (text: string) => readMarkedText(linesOf(text), 'a.txt', 'text');
const one = (text: string): Question => {
	const { questions } = read(text);
	expect(questions.map((found) => plainText(found.question.stem))).toHaveLength(1);
	return questions[0]!.question;
};
const stem = (question: Question) => plainText(question.stem);
const texts = (question: Question) =>
	isChoice(question) ? question.options.map((option) => plainText(option.text)) : [];
const right = (question: Question) =>
	isChoice(question)
		? question.options.filter((option) => option.credit > 0).map((option) => plainText(option.text))
		: [];
const rules = (text: string) => read(text).questions.flatMap((found) => found.reports.map((report) => report.rule));

describe('the beginning of a question', () => {
	it.each([
		'1. Which knot holds?',
		'1) Which knot holds?',
		'Q1. Which knot holds?',
		'Q1: Which knot holds?',
		'Question 1: Which knot holds?',
		'Question 1\nWhich knot holds?',
		'1 - Which knot holds?',
		'1 – Which knot holds?',
		'**1.** Which knot holds?',
		'**1. Which knot holds?**',
		'**Question 1:** Which knot holds?',
		'1.\tWhich knot holds?',
		'1.      Which knot holds?',
		'### Question 1: Which knot holds?',
		'#1. Which knot holds?'
	])('is seen in “%s”', (lead) => {
		const question = one(`${lead}\na) Bowline\nb) Reef knot\nAnswer: A`);
		expect(stem(question)).toBe('Which knot holds?');
		expect(right(question)).toEqual(['Bowline']);
	});
	it('is not a number within a stem that runs on', () => {
		const question = one(
			'1. The vessel sailed on\n12. May and came back. When did she sail?\na) In May\nb) In June\nAnswer: A'
		);
		expect(stem(question)).toContain('12. May and came back');
	});
	it('is not a decimal', () => {
		expect(stem(one('1. How deep is it?\n3.5 metres of water are charted.\nAnswer: 3.5'))).toContain('3.5 metres');
	});
	it('may skip, repeat and begin again, and says so', () => {
		const { questions, reports } = read('1. A?\nAnswer: x\n\n3. B?\nAnswer: y\n\n3. C?\nAnswer: z\n\n1. D?\nAnswer: w');
		expect(questions.map((found) => stem(found.question))).toEqual(['A?', 'B?', 'C?', 'D?']);
		expect(reports.filter((report) => report.rule === 'odd-number')).toHaveLength(2);
	});
	it('may be missing where options follow', () => {
		const { questions } = read(
			'1. First?\na) x\nb) y\nAnswer: A\n\nWhich light is red?\na) port\nb) starboard\nAnswer: A'
		);
		expect(questions.map((found) => stem(found.question))).toEqual(['First?', 'Which light is red?']);
		expect(questions[1]!.reports.map((report) => report.rule)).toContain('no-number');
	});
});

describe('options', () => {
	it.each([
		'a) Bowline\nb) Reef knot\nc) Clove hitch',
		'A. Bowline\nB. Reef knot\nC. Clove hitch',
		'(a) Bowline\n(b) Reef knot\n(c) Clove hitch',
		'[A] Bowline\n[B] Reef knot\n[C] Clove hitch',
		'i. Bowline\nii. Reef knot\niii. Clove hitch',
		'(i) Bowline\n(ii) Reef knot\n(iii) Clove hitch',
		'1) Bowline\n2) Reef knot\n3) Clove hitch',
		'- Bowline\n- Reef knot\n- Clove hitch',
		'• Bowline\n• Reef knot\n• Clove hitch',
		'- a) Bowline\n- b) Reef knot\n- c) Clove hitch',
		'A) Bowline  B) Reef knot  C) Clove hitch',
		'A. Bowline B. Reef knot C. Clove hitch',
		'a) Bowline\tb) Reef knot\tc) Clove hitch',
		'\n a) Bowline\n\n b) Reef knot\n\n c) Clove hitch\n',
		'a)Bowline\nb)Reef knot\nc)Clove hitch'
	])('are seen in %j', (written) => {
		const question = one(`1. Which knot holds?\n${written}\nAnswer: Reef knot`);
		expect(texts(question)).toEqual(['Bowline', 'Reef knot', 'Clove hitch']);
		expect(right(question)).toEqual(['Reef knot']);
		expect(question.kind).toBe('multiple-choice');
	});
	it('run on over lines', () => {
		const question = one(
			'1. Which knot\nholds best?\na) the bowline,\n   which does not slip\nb) the reef knot\n*c) none'
		);
		expect(stem(question)).toBe('Which knot holds best?');
		expect(texts(question)[0]).toBe('the bowline, which does not slip');
		expect(right(question)).toEqual(['none']);
	});
	it('keep a letter that is typed twice', () => {
		const written = '1. Which?\nA. A. bowline\nB. B. reef knot\nAnswer: A';
		expect(texts(one(written))).toEqual(['A. bowline', 'B. reef knot']);
	});
	it('do not begin in a sentence with an initial', () => {
		expect(texts(one('1. Who made the knot table?\nA. Sailor and her crew made it.\nAnswer: they did'))).not.toContain(
			'B'
		);
	});
});

describe('keys', () => {
	const options = 'a) Bowline\nb) Reef knot\nc) Clove hitch';
	it.each([
		['an asterisk before the letter', '1. Q?\na) Bowline\n*b) Reef knot\nc) Clove hitch'],
		['an asterisk with a blank', '1. Q?\na) Bowline\n* b) Reef knot\nc) Clove hitch'],
		['an asterisk behind', '1. Q?\na) Bowline\nb) Reef knot *\nc) Clove hitch'],
		['a word behind', '1. Q?\na) Bowline\nb) Reef knot (correct)\nc) Clove hitch'],
		['a tick', '1. Q?\na) Bowline\nb) Reef knot ✓\nc) Clove hitch'],
		['bold type', '1. Q?\na) Bowline\n**b) Reef knot**\nc) Clove hitch'],
		['boxes', '1. Q?\n[ ] Bowline\n[x] Reef knot\n[ ] Clove hitch'],
		['boxes with letters', '1. Q?\n- [ ] a) Bowline\n- [*] b) Reef knot\n- [ ] c) Clove hitch'],
		['a letter', `1. Q?\n${options}\nAnswer: B`],
		['a small letter with a sign', `1. Q?\n${options}\nAns: b)`],
		['the key in bold', `1. Q?\n${options}\n**Answer:** B`],
		['the key with its text', `1. Q?\n${options}\n**Correct answer: B) Reef knot**`],
		['the text', `1. Q?\n${options}\nCorrect answer: reef knot`],
		['the word Key', `1. Q?\n${options}\nKey: B`],
		['a list at the end', `1. Q?\n${options}\n\nAnswer key\n1. B`],
		['a list under a heading', `1. Q?\n${options}\n\n## Answers\n1) B`],
		['a list with strokes', `1. Q?\n${options}\n\nANSWERS:\n1 - B`]
	])('are taken from %s', (_, written) => {
		expect(right(one(written))).toEqual(['Reef knot']);
	});
	it.each(['A, C', 'A and C', 'A; C', 'AC', 'a & c', 'A C'])('may be several: %s', (key) => {
		const question = one(`1. Q?\n${options}\nAnswers: ${key}`);
		expect(question).toMatchObject({ kind: 'multiple-response', combination: 'all' });
		expect(right(question)).toEqual(['Bowline', 'Clove hitch']);
	});
	it('that disagree are reported, and neither is taken', () => {
		const written = '1. Q?\na) Bowline\n*b) Reef knot\nc) Clove hitch\nAnswer: C';
		expect(right(one(written))).toEqual([]);
		expect(rules(written)).toContain('contradictory-key');
	});
	it('that name nothing are reported', () => {
		expect(read(`1. Q?\n${options}\nAnswer: F`).questions[0]!.question).toMatchObject({ lostKeys: ['F'] });
	});
	it('in a list run over sections that begin again', () => {
		const { questions } = read(
			'# A\n1. P?\na) x\nb) y\n2. Q?\na) x\nb) y\n# B\n1. R?\na) x\nb) y\n\nAnswer key\n1. A   2. B\n1. B'
		);
		expect(questions.map((found) => right(found.question))).toEqual([['x'], ['y'], ['y']]);
	});
	it('in a list that names no question are reported', () => {
		expect(read('1. Q?\na) x\nb) y\n\nAnswer key\n1. A\n7. B').reports.map((report) => report.rule)).toContain(
			'key-without-question'
		);
	});
});

describe('other kinds', () => {
	it.each([
		'1. The ebb goes out.\nTrue\nFalse\nAnswer: True',
		'1. The ebb goes out.\nT/F\nAnswer: T',
		'1. The ebb goes out. (T/F)\nAnswer: True',
		'1. (T/F) The ebb goes out.\nAnswer: true',
		'1. The ebb goes out.\nTrue / False\nKey: True',
		'1. The ebb goes out.\na) True\nb) False\nAnswer: A',
		'1. The ebb goes out.\nAnswer: True',
		'1. The ebb goes out.\n*True\nFalse'.replace('*True', 'True *')
	])('true or false: %j', (written) => {
		const question = one(written);
		expect(question.kind).toBe('true-false');
		expect(stem(question)).toBe('The ebb goes out.');
		expect(right(question)).toEqual(['True']);
	});
	it.each([
		['3.2 +/- 0.1', { value: 3.2, tolerance: 0.1 }],
		['3.2 ± 0.1', { value: 3.2, tolerance: 0.1 }],
		['3.2 +- 0.1', { value: 3.2, tolerance: 0.1 }],
		['3.1 to 3.3', { min: 3.1, max: 3.3 }],
		['between 3.1 and 3.3', { min: 3.1, max: 3.3 }],
		['-4', { value: -4, tolerance: 0 }],
		['1852', { value: 1852, tolerance: 0 }]
	])('a number: %s', (answer, accepted) => {
		expect(one(`1. How deep?\nAnswer: ${answer}`)).toMatchObject({ kind: 'numeric', accepted: [accepted] });
	});
	it.each(['mooring / berth', 'mooring; berth', 'mooring | berth'])('words: %s', (answer) => {
		expect(one(`1. Where does she lie?\nAnswer: ${answer}`)).toMatchObject({
			kind: 'short-answer',
			accepted: [{ text: 'mooring' }, { text: 'berth' }]
		});
	});
	it.each([
		'bowline = loop\nreef knot = joining',
		'bowline -> loop\nreef knot -> joining',
		'bowline → loop\nreef knot → joining'
	])('pairs: %j', (lines) => {
		const question = one(`1. Match each knot to its use.\n${lines}\nPoints: 2`);
		expect(question).toMatchObject({ kind: 'matching', points: 2 });
		expect(question.kind === 'matching' && question.pairs).toHaveLength(2);
	});
	it.each(['[essay]', 'Essay', '(essay)', 'Essay:', ''])('an essay: “%s”', (line) => {
		expect(one(`1. Describe how you moor.\n${line}`)).toMatchObject({ kind: 'essay' });
	});
	it('an order, where the kind is said', () => {
		const question = one('1. From weak to strong:\nType: ordering\na) breeze\nb) gale\nc) storm');
		expect(question.kind === 'ordering' && question.items.map((item) => item.text)).toEqual([
			'breeze',
			'gale',
			'storm'
		]);
	});
});

describe('what stands around', () => {
	it('gives points, tags, titles, hints and feedback their places', () => {
		expect(
			one(
				'1. Which?\nTitle: Holding\nPoints: 2\nTags: knots, rope\nDifficulty: hard\na) Bowline\n   Feedback: Yes.\nb) Reef\n   Feedback: It slips.\nAnswer: A\nHint: Think of a loop.\nFeedback: See page 3.\nCorrect feedback: Well done.'
			)
		).toMatchObject({
			title: 'Holding',
			points: 2,
			tags: ['knots', 'rope'],
			difficulty: 'hard',
			hints: ['Think of a loop.'],
			feedback: { general: 'See page 3.', correct: 'Well done.' },
			options: [{ feedback: 'Yes.' }, { feedback: 'It slips.' }]
		});
	});
	it('takes headings as categories, by their level', () => {
		const { questions } = read(
			'# Tides\n1. A?\nAnswer: x\n## Springs\n2. B?\nAnswer: x\n## Neaps\n3. C?\nAnswer: x\n# Knots\n4. D?\nAnswer: x'
		);
		expect(questions.map((found) => found.question.category)).toEqual([
			['Tides'],
			['Tides', 'Springs'],
			['Tides', 'Neaps'],
			['Knots']
		]);
	});
	it('takes a category line for what follows, and one within a question for that alone', () => {
		const { questions } = read(
			'Category: Tides / Springs\n\n1. A?\nAnswer: x\n\n2. B?\nCategory: Knots\nAnswer: x\n\n3. C?\nAnswer: x'
		);
		expect(questions.map((found) => found.question.category)).toEqual([
			['Tides', 'Springs'],
			['Knots'],
			['Tides', 'Springs']
		]);
	});
	it('reads points in brackets', () => {
		const question = one('1. Which? (2 points)\na) x\nb) y\nAnswer: A');
		expect(question.points).toBe(2);
		expect(stem(question)).toBe('Which?');
	});
	it('reports points that are no number', () => {
		expect(rules('1. Which?\nPoints: two\na) x\nb) y\nAnswer: A')).toContain('bad-points');
	});
	it('reports what it leaves out, and leaves it out of every question', () => {
		const { questions, reports } = read(
			'Sure! Here is your quiz:\n\n1. Which?\na) x\nb) y\nAnswer: A\n\n---\n\nLet me know if you want more!'
		);
		expect(questions).toHaveLength(1);
		expect(texts(questions[0]!.question)).toEqual(['x', 'y']);
		const said = reports.map((report) => report.message).join(' ');
		expect(said).toContain('Sure! Here is your quiz:');
		expect(said).toContain('Let me know if you want more!');
	});
	it('keeps lines of blanks as they are', () => {
		expect(stem(one('1. The stream is _____ and then ____.\nAnswer: ebb'))).toBe('The stream is _____ and then ____.');
	});
	it('keeps emphasis within a stem', () => {
		expect(one('1. Which is **not** a knot?\na) x\nb) y\nAnswer: A').stem).toBe('Which is <b>not</b> a knot?');
	});
	it('never takes what is typed for markup', () => {
		expect(one('1. Is 3 < 5 & 7 > 2?\na) <b>yes</b>\nb) no\nAnswer: A')).toMatchObject({
			stem: 'Is 3 &lt; 5 &amp; 7 &gt; 2?',
			options: [{ text: '&lt;b&gt;yes&lt;/b&gt;' }, { text: 'no' }]
		});
	});
	it('says which lines each question comes from', () => {
		const { questions } = read('\n\n1. A?\na) x\nb) y\nAnswer: A\n\n2. B?\nAnswer: z');
		expect(questions.map(({ from, to }) => [from, to])).toEqual([
			[3, 6],
			[8, 9]
		]);
	});
	it('takes a title and a paragraph in front for the quiz', () => {
		expect(read('Rope test\nAnswer all of them.\n\n1. A?\nAnswer: x')).toMatchObject({
			title: 'Rope test',
			introduction: 'Answer all of them.'
		});
	});
});
