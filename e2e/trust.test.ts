import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { zipped } from '../core/test-support/packages';
import { bankXml, item } from '../src/lib/server/test-support/world';
import type { Visitor } from './browser';
import { Day } from './day';

let day: Day;
let visitor: Visitor;
beforeAll(async () => {
	day = await Day.begin('Buoyage and Lights');
	({ visitor } = day);
});
afterAll(() => day.end());

const anchors = (name: string) =>
	zipped({
		[`${name}.xml`]: bankXml({
			Anchors: [
				item(`${name}1`, 'Which anchor holds best in soft mud?', ['Mushroom anchor', 'Grapnel']),
				item(`${name}2`, 'Which anchor folds away?', ['Grapnel', 'Mushroom anchor'])
			]
		})
	});
const address = async () => new URL(await visitor.driver.getCurrentUrl()).pathname;

/** Drops a file on whatever page is open, as from the desktop. */
async function drop(name: string, content: Uint8Array): Promise<void> {
	await visitor.driver.executeScript(
		`const files = new DataTransfer();
		files.items.add(new File([Uint8Array.from(arguments[1])], arguments[0]));
		for (const type of ['dragover', 'drop'])
			document.querySelector('main').dispatchEvent(new DragEvent(type, { dataTransfer: files, bubbles: true, cancelable: true }));`,
		name,
		[...content]
	);
}

/** Answers of the server to what has these words in its address come two seconds late from then on, until the page is left. */
const late = (words: string) =>
	visitor.driver.executeScript(
		`const own = window.fetch;
		const words = arguments[0];
		window.fetch = async (...asked) => {
			if (String(asked[0].url ?? asked[0]).includes(words)) await new Promise((go) => setTimeout(go, 2000));
			return own(...asked);
		};`,
		words
	);

describe('a file', () => {
	it('lands in the course that is open, also where one has just come from another', async () => {
		await visitor.press('choose a course');
		const search = await visitor.find('input[aria-label="Find a course"]');
		await search.sendKeys('Tides and Charts');
		await visitor.reads(/Tides and Charts/);
		await search.sendKeys('\uE007');
		await visitor.until(async () => (await address()) !== `/courses/${day.course}/loads`);
		const other = /\/courses\/(\d+)\/loads$/.exec(await address())![1]!;
		await visitor.settle();
		const path = day.put('anchors-one.zip', anchors('one'));
		await (await visitor.find('input[type=file]:not([webkitdirectory])')).sendKeys(path);
		await visitor.reads(/anchors-one\.zip[\s\S]*to review/);
		expect(await address()).toBe(`/courses/${other}/loads`);
		await visitor.go(`/courses/${day.course}/loads`);
		await visitor.reads('Loads of this course');
		expect(await visitor.words()).not.toContain('anchors-one.zip');
	});
	it('is taken where it is dropped on another page, and is never opened by the browser instead', async () => {
		await visitor.go(`/courses/${day.course}/snags`);
		await visitor.reads('Doubtful');
		// the file has arrived long before the page that is gone to for it
		await late('/loads/__data.json');
		await drop('anchors-two.zip', anchors('two'));
		await visitor.reads(/anchors-two\.zip[\s\S]*to review/);
		expect(await address()).toBe(`/courses/${day.course}/loads`);
	});
});

describe('a review', () => {
	it('takes nothing into a bank that is there unless one says so', async () => {
		await visitor.press('Review anchors-two.zip');
		await visitor.reads(/Take in 2 of 2 questions/);
		const bank = await visitor.find('select[aria-label="Bank"]');
		expect(await visitor.driver.executeScript('return arguments[0].selectedOptions[0].textContent.trim()', bank)).toBe(
			'into a new bank'
		);
		const name = await (await visitor.find('input[aria-label="Name of the new bank"]')).getAttribute('value');
		expect(await bank.getText()).not.toContain(name);
	});
	it('keeps the mark of an answer that was tried and was right', async () => {
		await (await visitor.find('[data-row]')).click();
		await visitor.press('Try it');
		await (await visitor.driver.findElement(By.xpath('//main//label[contains(., "Mushroom anchor")]//input'))).click();
		await visitor.press('Mark it');
		await visitor.reads(/key verified by/);
		await visitor.driver.sleep(1500);
		await visitor.find('main [role=status] .notice.whole', 1000);
		expect(
			await visitor.driver.executeScript("return [...document.querySelectorAll('main input:checked')].length")
		).toBeGreaterThan(0);
	});
	it('takes keys for text where one writes, and gives back what was not kept', async () => {
		await visitor.press('Edit');
		const before = await address();
		await (await visitor.find('[aria-label="Stem"]')).click();
		// the editor wakes where it is clicked
		const stem = await visitor.find('.tiptap[aria-label="Stem"]');
		await stem.sendKeys(' jkgs');
		await visitor.driver.sleep(800);
		expect(await address()).toBe(before);
		expect(await stem.getText()).toContain('jkgs');
		await visitor.go(`/courses/${day.course}/banks`);
		await visitor.go(before);
		await (await visitor.find('[data-row]')).click();
		await visitor.reads('There is text of yours on this question that was not kept');
		await visitor.press('Go on with it');
		expect(await (await visitor.find('[aria-label="Stem"]')).getText()).toContain('jkgs');
		await visitor.press('Keep this');
		await visitor.reads(/jkgs/);
		await visitor.until(async () => !(await visitor.words()).includes('was not kept'));
	});
});

describe('a dispatch', () => {
	it('shows the proof and the file of what is chosen, and of nothing else', async () => {
		await visitor.press('Take in 2');
		await visitor.reads('Receipt');
		await visitor.go(`/courses/${day.course}/dispatch`);
		await visitor.press('Write and prove');
		await visitor.reads(/Read back/);
		await visitor.reads(/Download/);
		const banks = await visitor.driver.executeScript<number>("return document.querySelectorAll('.choice').length");
		expect(banks).toBeGreaterThan(1);
		await visitor.driver.executeScript("document.querySelector('.choice:not(.chosen)').click()");
		await visitor.reads('What was found stands here.');
		expect(await visitor.words()).not.toContain('Download');
		await visitor.driver.navigate().back();
		await visitor.reads(/Download/);
		await visitor.choose('Format', /QTI 1\.2/);
		await visitor.reads('What was found stands here.');
		expect(await visitor.words()).not.toContain('Download');
		expect(await visitor.complaints()).toEqual([]);
	});
});
