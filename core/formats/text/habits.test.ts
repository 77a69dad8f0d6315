import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import type { Question } from '../../kinds';
import { short } from '../../test-support/short';
import { readMarkedText } from './grammar';
import { linesOf } from './lines';

const read = (text: string) => readMarkedText(linesOf(text), 'a.txt', 'text');
const one = (text: string): Question => {
	const { questions } = read(text);
	expect(questions.map((found) => plainText(found.question.stem))).toHaveLength(1);
	return questions[0]!.question;
};
const rules = (text: string) => read(text).questions.flatMap((found) => found.reports.map((report) => report.rule));
const choice = ['multiple-choice', 'Which knot holds?', 'Bowline', '*Reef knot', 'Clove hitch'];

describe('text as people and language models write it', () => {
	it.each([
		[
			'bold stems with a remark in italics',
			'**1. Which knot holds?** *(Choose well)*\n- Bowline\n- **Reef knot**\n- Clove hitch'
		],
		['ticks and crosses in front', '1. Which knot holds?\n❌ Bowline\n✅ Reef knot\n❌ Clove hitch'],
		['ticks and crosses behind', '1. Which knot holds?\nA) Bowline ❌\nB) Reef knot ✅\nC) Clove hitch ❌'],
		['round boxes', '1. Which knot holds?\n( ) Bowline\n(x) Reef knot\n( ) Clove hitch'],
		['numbers in boxes', '1️⃣ Which knot holds?\nA) Bowline\nB) Reef knot\nC) Clove hitch\n✅ Correct answer: B'],
		['escaped signs', '1\\. Which knot holds?\na\\) Bowline\nb\\) Reef knot\nc\\) Clove hitch\nAnswer: b'],
		[
			'a label in front of the options',
			'1. **Question:** Which knot holds?\nOptions:\nA) Bowline\nB) Reef knot\nC) Clove hitch\nKey: B'
		],
		['options behind the stem in brackets', '1. Which knot holds? (a) Bowline (b) Reef knot* (c) Clove hitch'],
		['options behind the stem', '1) Which knot holds? a) Bowline b) Reef knot c) Clove hitch\nAns: b'],
		[
			'stars in front of lines without letters',
			'1. Multiple choice: Which knot holds?\nBowline\n*Reef knot\nClove hitch'
		],
		['the answer behind the last option', '1. Which knot holds?\na) Bowline\nb) Reef knot\nc) Clove hitch  Answer: b'],
		['no colon', '1. Which knot holds?\na) Bowline\nb) Reef knot\nc) Clove hitch\nAns. B'],
		['a short sentence', '1. Which knot holds?\na) Bowline\nb) Reef knot\nc) Clove hitch\nB is correct.'],
		['a tick and a letter', '1. Which knot holds?\na) Bowline\nb) Reef knot\nc) Clove hitch\n✅ B'],
		['a tick of a telephone', '1. Which knot holds?\n- A: Bowline\n- B: Reef knot ✔️\n- C: Clove hitch'],
		['a sentence', '1. Which knot holds?\na) Bowline\nb) Reef knot\nc) Clove hitch\nThe correct answer is B.'],
		['an arrow', '1. Which knot holds?\na) Bowline\nb) Reef knot\nc) Clove hitch\nAnswer → b'],
		[
			'the letter with its text in brackets',
			'1. Which knot holds?\na) Bowline\nb) Reef knot\nc) Clove hitch\nAnswer: B (Reef knot)'
		],
		[
			'a dash between letter and text',
			'1. Which knot holds?\nA - Bowline\nB - Reef knot\nC - Clove hitch\nAnswer: B - Reef knot'
		],
		['letters without a sign', '1. Which knot holds?\nA   Bowline\nB   Reef knot\nC   Clove hitch\nAnswer: B'],
		['no letters, and a star', '1. Which knot holds?\nBowline\n*Reef knot\nClove hitch'],
		[
			'no letters, and the answer in words',
			'1. Which knot holds?\n\nBowline\n\nReef knot\n\nClove hitch\n\nAnswer: Reef knot'
		],
		[
			'no letters, and a letter in the list of answers',
			'1. Which knot holds?\nBowline\nReef knot\nClove hitch\n\nAnswer key\n1. b'
		],
		['roman numbers', '1. Which knot holds?\nI. Bowline\nII. Reef knot\nIII. Clove hitch\nAnswer: II'],
		['numbers', '1. Which knot holds?\n  1) Bowline\n  2) Reef knot\n  3) Clove hitch\nAnswer: 2'],
		['a line to write on', '____ 1. Which knot holds?\na. Bowline\nb. Reef knot\nc. Clove hitch\nKey: b'],
		['the letter on that line', '__B__ 1. Which knot holds?\na. Bowline\nb. Reef knot\nc. Clove hitch'],
		['a number by itself', '1.\nWhich knot holds?\na. Bowline\nb. Reef knot *\nc. Clove hitch'],
		[
			'kind and points in brackets',
			'Question 1 (Multiple choice, 2 points): Which knot holds?\na. Bowline\nb. Reef knot *\nc. Clove hitch'
		],
		[
			'the kind as a title',
			'Question 1 - Multiple choice\nWhich knot holds?\na. Bowline\nb. Reef knot *\nc. Clove hitch'
		],
		['a count of questions', 'Question 1 of 9: Which knot holds?\na. Bowline\nb. Reef knot *\nc. Clove hitch'],
		[
			'words of right and wrong',
			'1. Which knot holds?\na. Bowline (wrong)\nb. Reef knot (right answer)\nc. Clove hitch (wrong)'
		]
	])('is read with %s', (_, written) => {
		const [kind, stem, ...options] = short(one(written));
		expect([kind, stem!.replace(' (Choose well)', ''), ...options]).toEqual(choice);
	});

	it.each([
		['The ebb goes out.\nAnswer: False. It comes back.', 'It comes back.'],
		['The ebb goes out.\nAnswer: False, since it comes back.', 'since it comes back.'],
		['The ebb goes out.\nAnswer: False (it comes back)', 'it comes back'],
		['The ebb goes out.\nAnswer: False\nBecause it comes back.', 'Because it comes back.']
	])('keeps the reason behind a key as feedback: %j', (written, reason) => {
		const question = one(`1. ${written}`);
		expect(short(question)).toEqual(['true-false', 'The ebb goes out.', 'True', '*False']);
		expect(question.feedback.general).toBe(reason);
		expect(rules(`1. ${written}`)).toContain('reason-as-feedback');
	});
	it('keeps the reason behind a letter as feedback, unless it is the option itself', () => {
		const options = 'a) Bowline\nb) Reef knot';
		expect(one(`1. Which?\n${options}\nAnswer: B, because it lies flat and is easy to untie`).feedback.general).toBe(
			'because it lies flat and is easy to untie'
		);
		expect(one(`1. Which?\n${options}\nAnswer: B) Reef knot`).feedback.general).toBeUndefined();
		expect(one(`1. Which?\n${options}\nAnswer: A and B`).feedback.general).toBeUndefined();
	});
	it.each([
		'T F The ebb goes out.\nAnswer: T',
		'The ebb goes out. T / F\nKey: true',
		'__T__ The ebb goes out.',
		'The ebb goes out.\nTRUE'
	])('sees true or false in %j', (written) => {
		const question = one(`1. ${written}`);
		expect(short(question)).toEqual(['true-false', 'The ebb goes out.', '*True', 'False']);
	});

	it.each([
		['34 knots', '34±0', 'knots'],
		['3.1 to 3.3 m', '3.1–3.3', 'm'],
		['50 %', '50±0', '%'],
		['12°', '12±0', '°']
	])('reads the unit of a number: %s', (answer, accepted, unit) => {
		const question = one(`1. How much?\nAnswer: ${answer}`);
		expect(short(question)).toEqual(['numeric', 'How much?', accepted]);
		expect(question).toMatchObject({ unit });
	});
	it('keeps a number with another word as a text', () => {
		expect(short(one('1. When?\nAnswer: 12 May'))).toEqual(['short-answer', 'When?', '12 May']);
	});
	it('takes a tolerance from its own line, and asks for one where the answer is rough', () => {
		expect(short(one('1. How far?\nAnswer: 6\nTolerance: 0.5'))).toEqual(['numeric', 'How far?', '6±0.5']);
		expect(rules('1. How far?\nAnswer: about 6')).toContain('rough-number');
	});

	it.each([
		'1. Put in order, from weak to strong:\na) gale\nb) breeze\nc) storm\nAnswer: B, A, C',
		'1. Put in order, from weak to strong:\n1. gale\n2. breeze\n3. storm\nAnswer: 2, 1, 3',
		'1. Put in order, from weak to strong:\ni. gale\nii. breeze\niii. storm\nCorrect order: ii, i, iii',
		'1. Put in order, from weak to strong:\nA. gale\nB. breeze\nC. storm\nAnswer: B → A → C',
		'1. Put in order, from weak to strong:\nA. gale\nB. breeze\nC. storm\nAnswer: BAC'
	])('reads an order: %j', (written) => {
		const question = one(written);
		expect(short(question)).toEqual(['ordering', 'Put in order, from weak to strong:', 'breeze', 'gale', 'storm']);
		// it is shown as it stands in the file
		expect(question.kind === 'ordering' && question.presented).toEqual(['I2', 'I1', 'I3']);
	});
	it.each([
		'1. Match each knot.\n| Knot | Use |\n|---|---|\n| bowline | loop |\n| reef knot | joining |',
		'1. Match each knot.\n| Knot | Use |\n| :-- | :-- |\n| 1. bowline | a. joining |\n| 2. reef knot | b. loop |\nAnswer: 1-b, 2-a',
		'1. Match each knot.\n1. bowline\n2. reef knot\na. joining\nb. loop\nAnswer: 1-b, 2-a',
		'1. Match each knot.\n  1) bowline\n  2) reef knot\n  a) joining\n  b) loop\nAnswer: 1 = b; 2 = a',
		'1. [Matching] Match each knot.\n bowline -> loop\n reef knot -> joining'
	])('reads pairs: %j', (written) => {
		expect(short(one(written))).toEqual(['matching', 'Match each knot.', 'bowline=loop', 'reef knot=joining']);
	});
	it('says where it does not know which labels belong together', () => {
		expect(rules('1. Match.\n| A | B |\n|---|---|\n| 1. bowline | a. joining |\n| 2. reef knot | b. loop |')).toContain(
			'guessed-pairs'
		);
	});
	it('keeps a table that is no list of pairs in the stem', () => {
		const question = one('1. What is the range?\n| High | Low |\n|---|---|\n| 4.6 | 1.2 |\nAnswer: 3.4');
		expect(question.stem).toContain('<td>4.6</td>');
		expect(question.kind).toBe('numeric');
	});
	it.each([
		['high, low', ['high', 'low']],
		['high; low', ['high', 'low']],
		['(1) high or raised, (2) low', ['high/raised', 'low']],
		['1020, 990', ['1020', '990']]
	])('reads several blanks with as many answers: %s', (answer, expected) => {
		expect(short(one(`1. From ____ to _____ pressure.\nAnswer: ${answer}`))).toEqual([
			'fill-blanks',
			'From [B1] to [B2] pressure.',
			...expected
		]);
	});
	it('keeps statements in front of lettered options in the stem', () => {
		expect(
			short(one('1. Consider:\nI. Fog is cloud.\nII. Dew is rain.\na) I only\nb) II only\nc) both\nAnswer: a'))
		).toEqual(['multiple-choice', 'Consider: I. Fog is cloud. II. Dew is rain.', '*I only', 'II only', 'both']);
	});
	it('reads cards of a question and an answer', () => {
		const { questions } = read('Q: What is a bight?\nA: a loop / a bend\n\nQ: How many fathoms in a cable?\nA: 100');
		expect(questions.map(({ question }) => short(question))).toEqual([
			['short-answer', 'What is a bight?', 'a loop', 'a bend'],
			['numeric', 'How many fathoms in a cable?', '100±0']
		]);
	});

	it('does not take numbers that begin again for a list within the question', () => {
		const { questions } = read(
			'1. Describe a bowline.\n2. Describe a bend.\n\n1. Describe fog.\n2. Describe dew.\n3. Describe ice.'
		);
		expect(questions.map(({ question }) => plainText(question.stem))).toEqual([
			'Describe a bowline.',
			'Describe a bend.',
			'Describe fog.',
			'Describe dew.',
			'Describe ice.'
		]);
	});
	it('leaves a list without any answer in the order of the file, where the next question comes after it', () => {
		const { questions } = read(
			'7. Name the following:\n1. the bow\n2. the stern\n\n8. What is a keel?\nAnswer: a beam'
		);
		expect(questions.map(({ question }) => plainText(question.stem))).toEqual([
			'Name the following:',
			'What is a keel?'
		]);
	});
});

describe('answers that are said twice', () => {
	it('agree where the list repeats the line, or a number lies within its tolerance', () => {
		const { questions } = read(
			'1. Where?\nAnswer: berth / mooring\n2. How deep?\nAnswer: 50 ± 10\n3. How heavy?\nAnswer: 5\n\nAnswers\n1. mooring\n2. 50\n3. 5 t'
		);
		expect(questions.map(({ question }) => short(question).slice(2))).toEqual([
			['berth', 'mooring'],
			['50±10'],
			['5±0']
		]);
		expect(questions.flatMap(({ reports }) => reports.map((report) => report.rule))).toEqual([]);
	});
	it.each([
		['1. Where?\nAnswer: berth\n\nAnswers\n1. anchorage', 'short-answer'],
		['1. How deep?\nAnswer: 4\n\nAnswers\n1. 5', 'numeric']
	])('are reported where they disagree, and neither is taken: %j', (written, kind) => {
		expect(rules(written)).toContain('contradictory-key');
		expect(short(one(written))).toEqual([kind, expect.any(String)]);
	});
	it.each(['(open)', 'answers vary', 'see rubric', '—'])('“%s” in the list is no answer', (said) => {
		expect(one(`1. Describe fog.\n\nAnswer key\n1. ${said}`).kind).toBe('essay');
	});
});

describe('a long text', () => {
	it('is read to its end, beyond the ten-thousandth question', () => {
		const text = Array.from({ length: 10_050 }, (_, at) => `${at + 1}. Which is ${at + 1}?\nAnswer: ${at + 1}\n`).join(
			'\n'
		);
		const { questions, reports } = read(text);
		expect(questions).toHaveLength(10_050);
		expect(reports).toEqual([]);
		expect(short(questions.at(-1)!.question)).toEqual(['numeric', 'Which is 10050?', '10050±0']);
	});
});

describe('what is not known', () => {
	it('is kept beside the question, and reported', () => {
		const written = '1. Where?\nAnswer: berth\nExaminer: M. Quill';
		expect(one(written).metadata).toEqual([{ name: 'examiner', value: 'M. Quill' }]);
		expect(rules(written)).toContain('unknown-field');
	});
	it('does not take a line to fill in for the title', () => {
		expect(one('Name: ________ Date: ____\n\n1. Where?\nAnswer: berth').title).toBe('');
	});
	it('does not take a sentence of a stem for the answer', () => {
		expect(plainText(one('1. How deep is it?\nThe answer is to be given in metres.\nAnswer: 4').stem)).toBe(
			'How deep is it? The answer is to be given in metres.'
		);
	});
});

describe('the kind in front of a stem', () => {
	it('is no part of it, and no answer', () => {
		const question = one('5. Short answer: Name the part that does no work.\n\nAnswer: standing part');
		expect(question.kind).toBe('short-answer');
		expect(plainText(question.stem)).toBe('Name the part that does no work.');
		expect(short(question)).toContain('standing part');
	});
});

describe('pairs parted by different signs', () => {
	it('are all pairs, once the first ones have shown it', () => {
		expect(short(one('1. Match the following:\nbowline = loop\nsheet bend -> joining\nclove hitch : spar'))).toEqual(
			expect.arrayContaining(['bowline=loop', 'sheet bend=joining', 'clove hitch=spar'])
		);
	});
});

describe('questions as people number and key them', () => {
	it.each([
		['Q.4 Which mark is yellow?\nA. Special\nB. Lateral\nKey: A', ['*Special', 'Lateral']],
		['1. Wie heißt der Knoten?\nA) Palstek\nB) Schotstek\nAntwort: A', ['*Palstek', 'Schotstek']],
		['1. Quel nœud ?\na) Chaise\nb) Plat\nRéponse : b', ['Chaise', '*Plat']],
		['1. Choose the correct answer. Who lets go?\nA) The mate\nB) The cook\nAns: A', ['*The mate', 'The cook']],
		['1. On which frequency?\nAnswer: 156.8 MHz (tolerance 0.05)', ['156.8±0.05']]
	])('are read: %s', (text, expected) => {
		expect(short(one(text))).toEqual(expect.arrayContaining(expected));
	});
	it('have a line to write on, which is no answer', () => {
		expect(one('1. Explain the ebb.\nAnswer: ____________').kind).toBe('essay');
	});
	it('have a list of answers on one line at the end', () => {
		const { questions } = read('1. Which?\nA. a\nB. b\n2. Which one?\nA. c\nB. d\n\nAnswer key: 1. B 2. A');
		expect(questions.map(({ question }) => short(question).filter((text) => text.startsWith('*')))).toEqual([
			['*b'],
			['*c']
		]);
	});
});

describe('numbered answers within one question', () => {
	it.each([
		[
			'1. One?\n*a) x\nb) y\n\n2. Match them.\n1. ebb\n2. flood\na) rises\nb) falls\nAnswers: 1-b, 2-a',
			'matching',
			['ebb=falls', 'flood=rises']
		],
		[
			'1. One?\n*a) x\nb) y\n\n2. The ____ falls and the ____ rises.\nAnswers: 1. ebb; 2. flood',
			'fill-blanks',
			['ebb', 'flood']
		]
	])('are no list of answers to all: %s', (text, kind, answers) => {
		const { questions } = read(text);
		expect(questions.map(({ question }) => question.kind)).toEqual(['multiple-choice', kind]);
		expect(short(questions[1]!.question)).toEqual(expect.arrayContaining(answers));
	});
});

describe('a table with a question in each row', () => {
	it('is read where it stands among other questions', () => {
		const { questions } = read(
			'1. First?\nA. a\nB. b\nAnswer: A\n\n| # | Question | A | B | Correct |\n|---|---|---|---|---|\n| 1 | Which flag is Alpha? | Diver | Pilot | A |\n\n3. Last?\nA. x\nB. y\nAnswer: B'
		);
		expect(questions.map(({ question }) => plainText(question.stem))).toEqual([
			'First?',
			'Which flag is Alpha?',
			'Last?'
		]);
	});
});

describe('fields between two rules at the beginning', () => {
	it('are those of the text, not of its first question', () => {
		const found = read('---\ntitle: Rope quiz\nauthor: the mate\n---\n\n1. Which?\n- [x] a\n- [ ] b');
		expect(found.title).toBe('Rope quiz');
		expect(found.questions.map(({ question }) => question.title)).toEqual(['']);
		expect(found.reports.map(({ message }) => message).join()).toContain('author: the mate');
	});
});

describe('answers that say the same in other words', () => {
	it('are no contradiction between the answer line and the list at the end', () => {
		const text = '1. (T/F) Neap tides have the largest range.\nAnswer: False\n\nAnswer key\n1. F\n';
		expect(short(one(text))).toEqual(['true-false', 'Neap tides have the largest range.', 'True', '*False']);
		expect(rules(text)).not.toContain('contradictory-key');
	});
	it('are one where they differ', () => {
		const text = '1. (T/F) Neap tides have the largest range.\nAnswer: False\n\nAnswer key\n1. T\n';
		expect(rules(text)).toContain('contradictory-key');
	});
});

describe('lines under a stem', () => {
	it('are true and false, with the star before or after the one that is right', () => {
		const right = ['true-false', 'Mayday is used for urgency.', 'True', '*False'];
		expect(short(one('1. T/F Mayday is used for urgency.\n   True\n   *False'))).toEqual(right);
		expect(short(one('1. T/F Mayday is used for urgency.\n   True\n   False *'))).toEqual(right);
	});
	it('are not lost where they begin as true or false and go on', () => {
		expect(plainText(one('1. Say more about this.\nTrue\nnorth differs from magnetic north.').stem)).toContain(
			'True north differs'
		);
	});
	it('with a letter and a dash are pairs where the stem asks to match them, and options where it does not', () => {
		expect(short(one('1. Match each letter:\na - Alfa\nb - Bravo'))).toEqual([
			'matching',
			'Match each letter:',
			'a=Alfa',
			'b=Bravo'
		]);
		expect(short(one('1. Which letter is last?\na - Alfa\nb - Bravo\nAnswer: b'))[0]).toBe('multiple-choice');
	});
	it('of a sentence that speaks of appendices A, B and C stay in the stem', () => {
		expect(one('1. Say which set is digital (see appendix A. B. C. for notes).').kind).toBe('essay');
	});
	it('that decorate an answer are no part of it', () => {
		expect(short(one('1. (True/False) The glass falls as a low draws near.\n**Answer:** ✅ True'))).toEqual([
			'true-false',
			'The glass falls as a low draws near.',
			'*True',
			'False'
		]);
		expect(short(one('1. Name a wind.\nAnswer: ➡️ Mistral'))).toEqual(['short-answer', 'Name a wind.', 'Mistral']);
	});
	it('that name something which has no place here are kept beside the question', () => {
		const question = one('1. Which wind veers?\nA. North (correct)\nB. South\nTopic: Weather\nBloom’s level: Remember');
		expect(question.category).toEqual(['Weather']);
		expect(question.metadata).toEqual([{ name: 'bloom’s level', value: 'Remember' }]);
	});
});
