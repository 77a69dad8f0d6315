import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { runsOf } from '../../test-support/runs';
import { short } from '../../test-support/short';
import { anyHabits, anyMeant, shortOf, typed } from '../../test-support/typed-lists';
import { readMarkedText } from './grammar';
import { linesOf } from './lines';

const read = (text: string) => readMarkedText(linesOf(text), 'a.txt', 'text');
const stems = (text: string) => read(text).questions.map(({ question }) => plainText(question.stem));
const shorts = (text: string) => read(text).questions.map(({ question }) => short(question));
const rules = (text: string) => read(text).reports.map(({ rule }) => rule);

describe('a list of questions without numbers', () => {
	it('is read as it was meant, with any mixture of habits', () => {
		const unnumbered = anyHabits.map((habits) => ({
			...habits,
			number: () => '',
			// numbers in front of options are those of questions, where these have none
			label: /^\d/.test(habits.label(0)) ? (at: number) => `${'ABCDE'[at]}. ` : habits.label,
			numbers: 'count' as const,
			apart: true,
			essay: habits.essay || '[essay]'
		}));
		fc.assert(
			fc.property(anyMeant, unnumbered, (meant, habits) => {
				const text = typed(meant, habits);
				expect({ text, read: shorts(text) }).toEqual({ text, read: meant.map(shortOf) });
			}),
			runsOf('UNNUMBERED', 300)
		);
	});
	it('has what stands in front of its first question as title and introduction', () => {
		const found = read('Knots\n\nFor the spring intake.\n\nWhich knot holds?\nA) Bowline\n*B) Reef knot');
		expect([found.title, found.introduction]).toEqual(['Knots', 'For the spring intake.']);
		expect(found.questions.map(({ question }) => short(question))).toEqual([
			['multiple-choice', 'Which knot holds?', 'Bowline', '*Reef knot']
		]);
	});
	it('is parted where no empty line stands between two questions', () => {
		expect(
			stems(
				'Which knot holds?\nA) Bowline\nB) Reef knot, which\njoins two lines\nAnswer: A\nWhich knot slips?\nA) Granny\nB) Bowline\nAnswer: A'
			)
		).toEqual(['Which knot holds?', 'Which knot slips?']);
	});
	it('keeps the words that say how to answer with their question', () => {
		expect(stems('Which knots hold?\n\n(Choose two.)\n\n[x] Bowline\n[x] Reef knot\n[ ] Granny')).toEqual([
			'Which knots hold? (Choose two.)'
		]);
	});
	it('may have its questions as headings, or in bold type', () => {
		const headed = (front: string, behind: string) =>
			`${front}Which knot holds?${behind}\n\n- Bowline ✓\n- Granny\n\n${front}Which slips?${behind}\n\n- Bowline\n- **Granny**\n`;
		for (const text of [headed('## ', ''), headed('**', '**')])
			expect(shorts(text)).toEqual([
				['multiple-choice', 'Which knot holds?', '*Bowline', 'Granny'],
				['multiple-choice', 'Which slips?', 'Bowline', '*Granny']
			]);
	});
	it('has its list of answers by the order of its questions', () => {
		expect(
			shorts('Which holds?\na) Bowline\nb) Granny\n\nWhich slips?\na) Bowline\nb) Granny\n\nAnswer key\n1. a\n2. b')
		).toEqual([
			['multiple-choice', 'Which holds?', '*Bowline', 'Granny'],
			['multiple-choice', 'Which slips?', 'Bowline', '*Granny']
		]);
	});
	it('takes none of a list of answers that is longer or shorter than itself, and says so', () => {
		const found = read(
			'Which holds?\na) Bowline\nb) Granny\n\nWhich slips?\na) Bowline\nb) Granny\n\nAnswer key\n1. a\n2. b\n3. a'
		);
		expect(found.questions.map(({ question }) => short(question))).toEqual([
			['multiple-choice', 'Which holds?', 'Bowline', 'Granny'],
			['multiple-choice', 'Which slips?', 'Bowline', 'Granny']
		]);
		expect(found.reports.filter(({ rule }) => rule === 'key-without-question')[0]!.message).toMatch(
			/nothing tells which belongs to which/
		);
	});
	it('may have numbers in front of its options', () => {
		const text =
			'Which knot holds?\n1. Granny\n2. Bowline\n3. Slip knot\nAnswer: 2\n\nWhich slips?\n1. Bowline\n2. Granny\nAnswer: 2';
		expect(shorts(text)).toEqual([
			['multiple-choice', 'Which knot holds?', 'Granny', '*Bowline', 'Slip knot'],
			['multiple-choice', 'Which slips?', 'Bowline', '*Granny']
		]);
		expect(shorts(text.split('\n\n')[0]!)).toHaveLength(1);
	});
	it('may have letters in front of some options and numbers in front of others', () => {
		expect(
			shorts(
				'Which holds?\nA) Granny\nB) Bowline\nAnswer: B\n\nWhich slips?\n1. Granny\n2. Bowline\n\nA bowline is a loop.\nTrue\nFalse\nAnswer: True'
			)
		).toEqual([
			['multiple-choice', 'Which holds?', 'Granny', '*Bowline'],
			['multiple-choice', 'Which slips?', 'Granny', 'Bowline'],
			['true-false', 'A bowline is a loop.', '*True', 'False']
		]);
	});
	it('is said to be one, once', () => {
		expect(
			rules('Which holds?\n*a) Bowline\nb) Granny\n\nWhich slips?\na) Bowline\n*b) Granny').filter(
				(rule) => rule === 'no-number'
			)
		).toHaveLength(1);
	});
});

describe('a text that is no list of questions', () => {
	it.each([
		['a letter with a list in it', 'Dear all,\n\nplease bring:\n\n- a life vest\n- gloves\n\nYours, Tam'],
		[
			'rules under letters that nobody asks about',
			'On board the following holds.\n\na) Wear a vest.\nb) Keep one hand free.\n\nIn the harbour this holds.\n\na) Walk.\nb) Look.'
		],
		['nothing but words', 'Which knot holds? Nobody knows.']
	])('gives no question: %s', (_, text) => {
		expect(read(text).questions).toEqual([]);
		expect(rules(text)).not.toContain('no-number');
	});
	it.each([
		[
			'questions under a title that asks',
			'What do you know of knots?\n1. Describe a bowline.\n2. Describe a hitch.',
			2
		],
		[
			'questions with their answers',
			'Ready?\n1. Name a knot.\nAnswer: bowline\n2. Name a hitch.\nAnswer: clove hitch',
			2
		],
		['questions that ask', 'Ready?\n1. Which holds?\n2. Which slips?\n\nAnd now?\n1. Which floats?\n2. Which sinks?', 4]
	])('has numbers that are those of questions: %s', (_, text, count) => {
		expect(read(text).questions).toHaveLength(count);
	});
	it('stays as it was where one question has a number', () => {
		expect(
			rules('Read this first:\na) the rules\nb) the chart\n\n1. Which knot holds?\n*a) Bowline\nb) Granny')
		).not.toContain('no-number');
	});
});
