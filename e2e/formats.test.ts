import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Visitor } from './browser';
import { Day } from './day';

let day: Day;
let visitor: Visitor;
let course = '';
beforeAll(async () => {
	day = await Day.begin('Radio Procedure');
	({ visitor, course } = day);
});
afterAll(() => day.end());
const drop = (name: string, content: string) => day.hand(name, content, name);

describe('text that is typed', () => {
	it('shows its questions beside it as it is typed, and goes on to the review', async () => {
		await visitor.go(`/courses/${course}/loads`);
		await visitor.press('Type or paste text');
		await visitor.reads('0 questions found');
		const area = await visitor.find('textarea');
		await area.sendKeys('# Calls\n1. Which word opens a distress call?\n*a) Mayday\nb) Roger\n\n');
		await visitor.reads('1 question found');
		await area.sendKeys('2. Which channel is it made on?\na) 16\nb) 70\nAnswer: C\n');
		await visitor.reads('2 questions found');
		await visitor.reads('The key reads “C”, and that is not one option');
		await visitor.press('Review 2 questions');
		const words = await visitor.reads('Contents');
		expect(words).toContain('Calls');
		expect(words).toContain('Which word opens a distress call?');
	});
});

describe('a table whose headings say nothing', () => {
	it('is read by pointing at its columns, and the recipe is there the next time', async () => {
		await drop(
			'odd-list.csv',
			'Eins,Zwei,Drei,Vier\nWhich word ends a call?,Out,Over,Out\nWhich word asks for a reply?,Out,Over,Over\n'
		);
		await visitor.press('Recipe for odd-list.csv');
		await visitor.reads('Say what is what');
		await visitor.choose('Headings in row', '1');
		await visitor.choose('What “Eins” means', 'stem');
		await visitor.choose('What “Zwei” means', 'an option');
		await visitor.choose('What “Drei” means', 'an option');
		await visitor.choose('What “Vier” means', 'answer key');
		await visitor.reads(/2 questions(?!.*broken)/);
		await visitor.write('input[name=name]', 'Odd lists');
		await visitor.press('Read by this recipe');
		await visitor.reads('Loads of this course');
		await visitor.press('Review odd-list.csv');
		await visitor.reads('Which word ends a call?');
		await drop('another.csv', 'Eins,Zwei,Drei,Vier\nWhich word is it?,Out,Over,Over\n');
		await visitor.press('Recipe for another.csv');
		await visitor.reads('Odd lists');
	});
});

describe('a dispatch', () => {
	it('as another format says what it changes, and proves it', async () => {
		await visitor.go('/');
		await visitor.press('Tides and Charts');
		await visitor.reads('Loads of this course');
		const other = /\/courses\/(\d+)/.exec(await visitor.driver.getCurrentUrl())![1]!;
		await visitor.go(`/courses/${other}/dispatch?as=text`);
		await visitor.reads('What becomes of the questions as Marked text');
		await visitor.press('Write and prove');
		await visitor.reads(/Read back: all is as the table said|Read back: nothing differs/);
		expect(await visitor.complaints()).toEqual([]);
	});
});
