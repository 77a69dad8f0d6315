import { describe, expect, it } from 'vitest';
import { memorySource, singleFile } from '../../container/container';
import { readMarkedText } from './grammar';
import { linesOf } from './lines';
import { partsOf } from './parts';
import { readInParts } from './read';

const sizes = { lines: 60, window: 40, ahead: 12 };
const context = {
	file: 'harbour.txt',
	format: 'text',
	container: singleFile('harbour.txt', memorySource(new Uint8Array()))
};
const parted = (text: string) => [...readInParts(text, context as never, sizes)];
const questionsOf = (text: string) => parted(text).flatMap((part) => part.questions);
const whole = (text: string) => readMarkedText(linesOf(text), context.file, context.format);
const many = (count: number, make: (number: number) => string) =>
	Array.from({ length: count }, (_, at) => make(at + 1)).join('\n');

const berths = (number: number) =>
	`${number % 40 === 1 ? `# Quay ${Math.ceil(number / 40)}\n\n` : ''}${number}. How many metres of line does berth ${number} take?\na) ${number}\n*b) ${number + 1}\nc) ${number + 2}\nFeedback: Berth ${number} takes ${number + 1} m.\n`;

describe('a long text, which is read in parts', () => {
	it('gives the questions that it gives as a whole: the same number, category, key and place', () => {
		const text = `Harbour lines\n\n${many(300, berths)}`;
		expect([...partsOf(text, sizes)].length).toBeGreaterThan(5);
		expect(questionsOf(text)).toEqual(whole(text).questions);
		expect(questionsOf(text)).toHaveLength(300);
	});

	it('keeps a category and the points of a section from one part to the next', () => {
		const text = `Category: Ropes / Bends\n\nPart A (2 points each)\n\n${many(200, (number) => `${number}. Name bend ${number}.\nAnswer: bend ${number}\n`)}`;
		const found = questionsOf(text);
		expect(found).toEqual(whole(text).questions);
		expect(found.at(-1)!.question).toMatchObject({ category: ['Ropes', 'Bends'], points: 2 });
	});

	it('gives each question what the list of answers at the very end says of it', () => {
		const questions = many(
			200,
			(number) => `${number}. Which mark stands at ${number}?\na) red\nb) green\nc) yellow\n`
		);
		const list = many(200, (number) => `${number}. ${'ABC'[number % 3]}`);
		const text = `${questions}\nAnswer key\n${list}\n201. B\n`;
		expect(questionsOf(text)).toEqual(whole(text).questions);
		const reports = parted(text).flatMap((part) => part.reports.map((report) => report.rule));
		expect(reports.filter((rule) => rule === 'key-without-question')).toHaveLength(1);
	});

	it('keeps a list within a question together, also where a part could end in it', () => {
		const text = many(
			90,
			(number) =>
				`${number}. Put the steps of mooring number ${number} in order:\n\n1. Ready the lines\n2. Come alongside\n3. Make fast\n\nAnswer: 1, 2, 3\n`
		);
		expect(questionsOf(text)).toEqual(whole(text).questions);
	});

	it('reads on where numbers have no sign', () => {
		const text = many(150, (number) => `${number}   Which light does buoy ${number} show at night?\nAnswer: white\n`);
		expect(questionsOf(text)).toEqual(whole(text).questions);
		expect(questionsOf(text)).toHaveLength(150);
	});

	it('says once that nothing tells how the points of a section are shared', () => {
		const text = `Part A. Essay (100 points)\n\n${many(150, (number) => `${number}. Describe mooring ${number}.\n\n`)}`;
		const told = parted(text).flatMap((part) => part.reports.filter((report) => report.rule === 'points-of-section'));
		expect(told).toHaveLength(1);
		expect(questionsOf(text).every(({ question }) => question.points === null)).toBe(true);
	});

	it('of nothing but line ends takes no time that grows faster than it', () => {
		const text = `${'\n'.repeat(400_000)}1. Which knot?\na) reef\n*b) bowline\n`;
		expect(questionsOf(text)).toHaveLength(1);
	});
});
