import { By, type WebElement } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { smallLoads, sumsPackage } from '../demo/loads';
import type { Visitor } from './browser';
import { Day } from './day';

let day: Day;
let visitor: Visitor;
let course = '';
beforeAll(async () => {
	day = await Day.begin('Buoyage and Lights');
	({ visitor, course } = day);
});
afterAll(() => day.end());

const pieces = async (from: AsyncIterable<Uint8Array>) => {
	const out: Uint8Array[] = [];
	for await (const piece of from) out.push(piece);
	return Buffer.concat(out);
};

const list = '[role=rowgroup][tabindex]';
const scrollTo = (top: number) =>
	visitor.driver.executeScript(`document.querySelector('${list}').scrollTop = arguments[0]`, top);
const scrolledTo = () => visitor.driver.executeScript(`return document.querySelector('${list}').scrollTop`);
/** The lines of the list that are wholly in sight. */
const seenRows = () =>
	visitor.driver.executeScript<WebElement[]>(
		`const { top, bottom } = document.querySelector('${list}').getBoundingClientRect();
		return [...document.querySelectorAll('[data-row]')].filter((line) => {
			const box = line.getBoundingClientRect();
			return box.top >= top && box.bottom <= bottom;
		});`
	);

describe('a thousand questions with troubles', () => {
	it('are dropped, and shown in full', async () => {
		await day.hand('day-sums.zip', await pieces(sumsPackage()));
		await visitor.press('Review day-sums.zip');
		const words = await visitor.reads(/Take in 984 of 1,000 questions/);
		for (const one of ['Bearings', 'Passages', 'Depths', '16 set aside']) expect(words).toContain(one);
	});
	it('are put where they belong by typing', async () => {
		await visitor.press('Depths lands in Depths, change');
		const input = await visitor.find('input[aria-label="Where Depths lands"]');
		await visitor.driver.executeScript('arguments[0].select()', input);
		await input.sendKeys('Sums / Under the keel\uE007');
		await visitor.reads(/4 categories/);
	});
	it('are mended in bulk before they are taken in', async () => {
		await visitor.choose('Snag', /Escaped twice/);
		await (await visitor.find('input[aria-label="Select all that are listed"]')).click();
		await visitor.reads(/\d+ selected/);
		await visitor.press('Mend escaped');
		await visitor.reads(/Mended \d+ questions/);
	});
	it('are put right by hand, one that has no key', async () => {
		await visitor.choose('Snag', /No key/);
		await (await visitor.find('[data-row]')).click();
		await visitor.press('Edit');
		await visitor.press('Option 1 is right');
		await visitor.press('Keep this');
		await visitor.reads(/Take in 985 of 1,000 questions/);
	});
	it('are taken in by rules, with a receipt that adds up, by category and by kind', async () => {
		await visitor.press('Rules');
		await visitor.write('input[placeholder="as they are"]', '2');
		await visitor.press('Close');
		await visitor.choose('Bank', 'into a new bank');
		await visitor.write('input[aria-label="Name of the new bank"]', 'Day sums');
		await visitor.reads(/into Buoyage and Lights › Day sums/);
		await visitor.press('What will change');
		await visitor.reads(/985 questions taken in/);
		await visitor.press('Close');
		await visitor.press('Take in 985');
		expect(await visitor.reads('Receipt')).toContain('1,000 = 985 + 15 + 0');
		await visitor.press('by kind');
		await visitor.reads('Multiple choice');
		await visitor.write('input[name=told]', 'Imported: 980 items');
		await visitor.press('Compare');
		await visitor.reads('5 questions fewer than the 985 here');
	});
	it('stay where one is with them in their bank, also one far down that is changed', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.choose('Bank', /Day sums/);
		await visitor.reads('of 985');
		await scrollTo(15_000);
		await visitor.until(async () => (await seenRows()).length > 3);
		await (await seenRows())[3]!.click();
		const [place] = /\d+ of 985/.exec(await visitor.reads(/4\d\d of 985/))!;
		await visitor.press('Edit');
		await visitor.write('input[aria-label="Points"]', '7');
		// the tools of the stem are there as long as one is in it: what is pressed next is not moved away by their going
		await (await visitor.find('[aria-label="Stem"]')).click();
		await (await visitor.find('.tiptap[aria-label="Stem"]')).sendKeys(' Say it.');
		await visitor.press('Keep this');
		await visitor.reads('7 points');
		await visitor.driver.sleep(500);
		expect(await visitor.reads(place)).toContain('7 points');
		expect(await scrolledTo()).toBe(15_000);
		// what comes to its place is next once it is gone
		await (await visitor.find('.line.chosen input[type=checkbox]')).click();
		await visitor.press('To the bin');
		await visitor.reads(place.replace('985', '984'));
		expect(await scrolledTo()).toBe(15_000);
		await visitor.press('Undo');
		await visitor.reads('of 985');
	});
	it('stay where one is with them among the snags, also one far down that is meant so', async () => {
		await visitor.until(async () => {
			await visitor.go(`/courses/${course}/snags?check=near-duplicate`);
			return !/Checking the questions|held against|in a moment/.test(await visitor.words());
		});
		await scrollTo(18_500);
		await visitor.until(async () => (await seenRows()).length > 3);
		const [, second] = await seenRows();
		await second!.click();
		await visitor.press('Keep both');
		await visitor.reads(/Waived\s*1\b/);
		await visitor.driver.sleep(500);
		expect(await scrolledTo()).toBe(18_500);
		expect(await visitor.driver.findElements(By.css('.line.chosen'))).toHaveLength(1);
	});
	it('are set aside where they are broken, put right there, and taken in later', async () => {
		await visitor.go(`/courses/${course}/loads/aside`);
		await visitor.reads(/Set aside: \d+/);
		await visitor.choose('Load', 'day-sums.zip (15)');
		await visitor.reads(/day-sums/);
		await (await visitor.find('[data-row]')).click();
		await visitor.press('Edit');
		await visitor.press('Option 1 is right');
		await visitor.press('Keep this');
		await visitor.reads('put right');
		await (await visitor.find('[data-row] input[type=checkbox]')).click();
		await visitor.reads('1 question selected, 1 of them put right');
		await visitor.press('Take in 1');
		await visitor.reads('Taken in: 1 question.');
	});
	it('are left out as all that are listed but one, and set aside again', async () => {
		await visitor.choose('Load', 'day-sums.zip (14)');
		await (await visitor.find('input[aria-label="Select all that are listed"]')).click();
		await visitor.reads('14 questions selected, 0 of them put right');
		await (await visitor.find('[data-row] input[type=checkbox]')).click();
		await visitor.reads('13 questions selected');
		await visitor.press('Leave out 13');
		await visitor.reads('Left out: 13 questions.');
		await visitor.press('Undo');
		await visitor.reads('Set aside again: 13 questions.');
		await visitor.choose('Load', 'day-sums.zip (14)');
	});
	it('stay where one is with them, also one far down that is put right', async () => {
		const lines = Array.from(
			{ length: 140 },
			(_, at) => `Shackle ${at + 1},What holds shackle ${at + 1}?,A pin,A knot,`
		);
		await day.hand(
			'shackles.csv',
			['title,question,a,b,key', 'Pins,What holds a pin?,A ring,A knot,A', ...lines].join('\n')
		);
		await visitor.press('Review shackles.csv');
		await visitor.press('Take in 1');
		await visitor.reads('Receipt');
		await visitor.go(`/courses/${course}/loads/aside`);
		await visitor.choose('Load', 'shackles.csv (140)');
		await visitor.reads('What holds shackle 1?');
		await visitor.driver.executeScript("document.querySelector('[role=rowgroup][tabindex]').scrollTop = 1e6");
		await visitor.reads('Shackle 138');
		await (await visitor.driver.findElement(By.xpath('//*[@data-row][contains(., "Shackle 138")]'))).click();
		await visitor.reads('What holds shackle 138?');
		await visitor.press('Edit');
		await visitor.press('Option 1 is right');
		await visitor.press('Keep this');
		expect(await visitor.reads('put right')).toContain('What holds shackle 138?');
		await (await visitor.find('input[aria-label="Select all that are listed"]')).click();
		await visitor.press('Leave out 140');
		await visitor.reads('Left out: 140 questions.');
	});
	it('are known again when the same file comes twice', async () => {
		await day.hand('day-sums-again.zip', await pieces(sumsPackage()));
		await visitor.reads('the same file as');
		await visitor.press('Review day-sums-again.zip');
		await visitor.press('Rules');
		await visitor.choose('Questions that are the same as one', 'skip');
		await visitor.press('Close');
		await visitor.reads(/skipped as already there/);
	});
	it('go back as a whole', async () => {
		await visitor.go(`/courses/${course}/loads`);
		await visitor.reads('Loads of this course');
		await (await visitor.driver.findElement(By.linkText('day-sums.zip'))).click();
		await visitor.press('Undo: take this load back');
		await visitor.reads('removes 986 questions');
		await visitor.press('Take back 986');
		await visitor.reads(/Take in \d+ of 1,000 questions/);
		expect(await visitor.complaints()).toEqual([]);
	});
});

describe('a Word list', () => {
	it('goes from the tray to the bank', async () => {
		await day.hand('radio-list.docx', smallLoads['radio-procedure.docx']!());
		await visitor.press('Review radio-list.docx');
		await visitor.reads(/Take in \d+ of \d+ questions/);
		await visitor.choose('Bank', 'into a new bank');
		await visitor.write('input[aria-label="Name of the new bank"]', 'Radio list');
		await visitor.reads(/› Radio list/);
		await visitor.press('Take in ');
		await visitor.reads('Receipt');
		await visitor.press('Open the bank');
		await visitor.reads('Radio list');
	});
});

describe('two people on one load', () => {
	it('see each other’s decisions, and the second to press is told', async () => {
		await day.hand('two-people.txt', smallLoads['buoyage-draft.txt']!());
		await visitor.press('Review two-people.txt');
		await visitor.choose('Bank', 'into a new bank');
		await visitor.write('input[aria-label="Name of the new bank"]', 'First');
		await visitor.reads(/› First/);
		const second = await Day.begin('Buoyage and Lights');
		const other = second.visitor;
		try {
			await other.go(await visitor.driver.getCurrentUrl().then((url) => new URL(url).pathname));
			await other.reads(/› First/);
			await other.write('input[aria-label="Name of the new bank"]', 'Second');
			await visitor.reads(/› Second/);
			await other.press('Take in ');
			await other.reads('Receipt');
			await visitor.reads('Somebody has taken this load in.');
		} finally {
			await second.end();
		}
	});
});
