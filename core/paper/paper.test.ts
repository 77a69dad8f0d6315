import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { kindOf, type Question } from '../kinds';
import type { Response } from '../kinds/kind';
import { anyQuestion } from '../test-support/arbitrary';
import { choice, essay, numeric, option } from '../test-support/questions';
import { markTyped, paperQuestion } from '.';
import { formQuestions } from './form';
import { correlation, itemFigures, type MarkedPaper } from './items';
import { letterAt, placesIn } from './letters';
import { markPapers } from './marking';

/** A response as a person would type it from the paper; null where it cannot be typed. */
function typedOf(question: Question, response: Response, order: readonly number[]): string | null {
	if ('options' in question) {
		const places = (response.options ?? []).map((identifier) =>
			order.findIndex((at) => question.options[at]!.identifier === identifier)
		);
		return places.map(letterAt).join(', ');
	}
	if (question.kind === 'matching') return pairs(response, question.left, question.right, (pair) => pair);
	if (question.kind === 'label-image')
		return pairs(response, question.targets, question.labels, ([label, target]) => [target, label]);
	if (question.kind === 'numeric' || question.kind === 'short-answer') return response.text ?? null;
	return null;
}
function pairs(
	response: Response,
	numbered: readonly { identifier: string }[],
	lettered: readonly { identifier: string }[],
	of: (pair: [string, string]) => [string, string]
): string {
	const placeOf = (list: readonly { identifier: string }[], key: string) =>
		list.findIndex(({ identifier }) => identifier === key);
	return (response.pairs ?? [])
		.map(of)
		.map(([one, other]) => `${placeOf(numbered, one) + 1}${letterAt(placeOf(lettered, other))}`)
		.join(' ');
}

describe('letters', () => {
	it('go on beyond Z, and are read however they are written', () => {
		expect([0, 25, 26, 27, 52].map(letterAt)).toEqual(['A', 'Z', 'AA', 'AB', 'BA']);
		for (const text of ['AC', 'a, c', 'A C', 'a;C', 'A and'])
			expect(placesIn(text, 3), text).toEqual(text === 'A and' ? null : [0, 2]);
		expect(placesIn('AA', 30)).toEqual([26]);
		expect(placesIn('D', 3)).toBeNull();
		expect(placesIn('1', 3)).toBeNull();
		expect(placesIn('', 3)).toEqual([]);
	});
});

describe('a question on paper', () => {
	it('is marked as it is on a screen, whatever order its options have, for right and wrong answers', () => {
		fc.assert(
			fc.property(anyQuestion, fc.infiniteStream(fc.nat()), (question, chance) => {
				const order = 'options' in question ? question.options.map((_, at) => at) : [];
				for (let at = order.length - 1; at > 0; at -= 1) {
					const other = chance.next().value! % (at + 1);
					[order[at], order[other]] = [order[other]!, order[at]!];
				}
				const kind = kindOf(question);
				for (const response of [kind.right(question), kind.wrong(question)]) {
					const typed = response && typedOf(question, response, order);
					// a share in percent is what a person gave
					if (!typed?.trim() || /%\s*$/.test(typed)) continue;
					expect(markTyped(question, typed, order)).toMatchObject({ credit: kind.mark(question, response!).credit });
				}
			}),
			{ numRuns: 400 }
		);
	});
	it('has something to write on or to choose from, of every kind that asks for something', () => {
		fc.assert(
			fc.property(anyQuestion, (question) => {
				const { blocks, key } = paperQuestion(question);
				if (question.kind === 'information' || question.kind === 'fill-blanks') return;
				expect(blocks.length).toBeGreaterThan(0);
				expect(typeof key).toBe('string');
			})
		);
	});
	it('says of what cannot be read why, and takes a share that a person gives', () => {
		const asked = choice();
		expect(markTyped(asked, 'Z')).toMatchObject({ wrong: expect.stringContaining('letters from A to') });
		expect(markTyped(asked, 'AB')).toMatchObject({ wrong: expect.stringContaining('several') });
		expect(markTyped(essay(), 'A')).toMatchObject({ wrong: expect.stringContaining('80 %') });
		expect(markTyped(essay(), '80 %')).toEqual({ credit: 0.8, response: null });
		expect(markTyped(essay(), '37,5%')).toEqual({ credit: 0.375, response: null });
		expect(markTyped(essay(), '180 %')).toHaveProperty('wrong');
		expect(markTyped(asked, ' ')).toEqual({ credit: 0, response: null });
	});
});

describe('papers', () => {
	const key = choice({
		points: 2,
		options: [option('a', 'Port', 1), option('b', 'Starboard', 0), option('c', 'Astern', 0)]
	});
	const sum = numeric([{ value: 6, tolerance: 0, credit: 1 }], { points: 1 });
	const questions = new Map<number, Question>([
		[11, key],
		[12, sum],
		[13, essay({ points: 3 })]
	]);
	const rules = { parts: [{ title: 'All', pointsEach: null, shuffleOptions: true }], fixedOptions: [] };
	const form = (seed: string, ids: number[]) => formQuestions({ seed, parts: [ids], order: [0] }, rules, questions);
	const forms = new Map([
		['A', form('one', [11, 12, 13])],
		['B', form('two', [13, 12, 11])]
	]);
	const right = (name: string) => {
		const asked = forms.get(name)!.find(({ id }) => id === 11)!;
		return paperQuestion(asked.question, asked.order).key;
	};
	it('are marked by their forms, with what a person still has to mark, and what cannot be read', () => {
		const marking = markPapers(
			[
				{ student: 'Ines', form: 'A', answers: [right('A'), '6', '50 %'] },
				{ student: 'Bo', form: 'b', answers: ['', '7', right('B')] },
				{ student: 'Jon', form: 'C', answers: ['A'] },
				{ student: 'Lu', form: 'A', answers: ['A', '6', 'fine', 'more'] },
				{ student: 'Kim', form: 'A', answers: [right('A'), 'six', ''] }
			],
			forms
		);
		expect(marking.papers.map(({ student, points, outOf }) => [student, points, outOf])).toEqual([
			['Ines', 4.5, 6],
			['Bo', 2, 6],
			['Kim', 2, 6]
		]);
		expect(marking.faults.map(({ line, number }) => [line, number])).toEqual([
			[3, null],
			[4, null]
		]);
		expect(marking.items.find(({ question }) => question === 12)).toMatchObject({ papers: 3, ease: 1 / 3 });
		expect(marking.items.find(({ question }) => question === 11)!.options).toEqual(new Map([['a', 3]]));
	});
	it('tell how easy a question is and how well it tells the strong from the weak', () => {
		const paper = (credit: number, rest: number): MarkedPaper => ({
			student: 's',
			form: 'A',
			credits: new Map([[1, credit]]),
			points: credit + rest,
			outOf: 11,
			options: new Map()
		});
		const [item] = itemFigures([paper(1, 10), paper(1, 8), paper(0, 3), paper(0, 1)], () => 1);
		expect(item).toMatchObject({ ease: 0.5, papers: 4 });
		expect(item!.discrimination).toBeCloseTo(7 / Math.sqrt(53), 6);
		expect(
			correlation([
				[1, 1],
				[1, 2],
				[1, 3]
			])
		).toBeNull();
		expect(
			correlation([
				[1, 3],
				[2, 2],
				[3, 1]
			])
		).toBeCloseTo(-1);
	});
});
