import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { By } from 'selenium-webdriver';
import { demoSignIn, troubles } from '../demo/fill';
import { Visitor } from './browser';

const address = process.env.APPLICATION!;
let visitor: Visitor;
let folder = '';
let course = '';
beforeAll(async () => {
	folder = mkdtempSync(join(tmpdir(), 'barrow-story-'));
	visitor = await Visitor.open(address);
	await visitor.signIn(demoSignIn.email, demoSignIn.password);
});
afterAll(async () => {
	await visitor.close();
	rmSync(folder, { recursive: true, force: true });
});

/** Hands a file from disk to the tray, as choosing it does. */
async function hand(path: string): Promise<void> {
	await (await visitor.find('input[type=file]')).sendKeys(path);
}
async function pieces(from: AsyncIterable<Uint8Array>): Promise<Buffer> {
	const out: Uint8Array[] = [];
	for await (const piece of from) out.push(piece);
	return Buffer.concat(out);
}
async function until(test: () => boolean | Promise<boolean>): Promise<void> {
	await visitor.until(async () => test());
}

describe('the whole way of a package', () => {
	it('begins with the courses of the school', async () => {
		const words = await visitor.reads('You may');
		for (const name of ['Tides and Charts', 'Buoyage and Lights', 'Radio Procedure']) expect(words).toContain(name);
		await visitor.press('Radio Procedure');
		await visitor.reads('Loads of this course');
		course = /\/courses\/(\d+)/.exec(await visitor.driver.getCurrentUrl())![1]!;
		for (const station of ['Loads', 'Banks', 'Snags', 'Quizzes', 'Dispatch'])
			expect(await visitor.words()).toContain(station);
	});
	it('reads a dropped package in the background', async () => {
		const path = join(folder, 'autumn-charts.zip');
		writeFileSync(path, await pieces(troubles()));
		await hand(path);
		await visitor.reads(/autumn-charts\.zip[\s\S]*to review/);
	});
	it('shows it in full before anything is taken in', async () => {
		await visitor.press('Review autumn-charts.zip');
		const words = await visitor.reads('Contents');
		for (const one of [
			'Chartwork',
			'Symbols',
			'Tidal streams',
			'Old stock 2019',
			'Datum of depths',
			'no key',
			'picture missing',
			'lost key',
			'several keys',
			'escaped',
			'empty stem',
			'script removed',
			'options',
			'credit short'
		])
			expect(words).toContain(one);
		// what the file itself is about: it is cut off in its last question
		await visitor.press('things to know');
		await visitor.reads('the file ends in the middle');
	});
	it('shows a question with its key, its source with the lines lit, and its snags', async () => {
		await visitor.write('input[aria-label="Find a question"]', 'A tidal diamond');
		await (await visitor.find('[data-row]')).click();
		await visitor.reads('How many rates does the table');
		await visitor.write('input[aria-label="Find a question"]', 'Compass rose');
		await (await visitor.find('[data-row]')).click();
		await visitor.press('Source');
		await visitor.reads('script&gt;window.stop()');
		expect(await visitor.driver.findElements(By.css('.source .lit'))).not.toHaveLength(0);
		await visitor.driver.findElement(By.xpath("//*[@role='tab'][starts-with(normalize-space(.), 'Snags')]")).click();
		await visitor.reads('Taken out of its text: script, onclick handler');
	});
	it('says in one sentence what will happen, and refuses what the rule forbids', async () => {
		await visitor.press('Rules');
		await visitor.choose('Questions in error', 'nothing unless all are good');
		await visitor.reads(/questions are broken, and the rule is to take nothing/);
		await visitor.choose('Questions in error', 'good ones in, rest set aside');
		await visitor.press('Close');
		await (await visitor.find('input[aria-label="Take in Old stock 2019"]')).click();
		await visitor.write('input[aria-label="Name of the new bank"]', 'Autumn charts');
		await visitor.reads(
			/Take in 14 of 23 questions into Radio Procedure › Autumn charts: 3 categories, all new\. 7 set aside, 2 left out\./
		);
	});
	it('takes it in, and gives a receipt that adds up', async () => {
		await visitor.press('Take in 14');
		const words = await visitor.reads('Receipt');
		expect(words).toContain('23 = 14 + 7 + 2');
		await visitor.press('7 set aside');
		expect(await visitor.reads('7 questions set aside')).toContain('No option is marked as right');
	});
	it('undoes it, and takes it in again', async () => {
		await visitor.press('Undo: take this load back');
		await visitor.reads('removes 14 questions from the bank');
		await visitor.press('Take back 14');
		await visitor.reads('Contents');
		await visitor.go(`/courses/${course}/banks`);
		await visitor.reads('This course has no bank yet');
		await visitor.go(`/courses/${course}/loads`);
		await visitor.press('autumn-charts.zip');
		// what was decided the first time is still there
		await visitor.reads('Take in 14 of 23');
		await (await visitor.find('input[aria-label="Take in Old stock 2019"]')).click();
		await visitor.press('Take in 16');
		await visitor.reads('23 = 16 + 7 + 0');
	});
	it('looks through the bank by category and by words, and tries a question', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.reads('Whole bank');
		await visitor.press('Tidal streams');
		await visitor.reads(/Tidal streams\s*8/);
		await visitor.press('Whole bank');
		await visitor.write('input[aria-label="Find words"]', 'slack water');
		await visitor.reads(/Autumn charts\s*2/);
		await visitor.write('input[aria-label="Find words"]', 'fair stream');
		await visitor.reads('With the stream');
		await until(async () => (await visitor.words()).includes('6.4 to 6.6'));
		await visitor.press('Try it');
		await visitor.write('input[aria-label="Your answer"]', '6.5');
		await visitor.press('Mark it');
		await visitor.reads('1 of 1 point');
		await visitor.press('A wrong answer');
		await visitor.reads('0 of 1 point');
	});
	it('walks through a list with the keys', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.reads('1 of 16');
		const body = await visitor.find('body');
		await body.sendKeys('jj');
		await visitor.reads('3 of 16');
		await body.sendKeys('k');
		await visitor.reads('2 of 16');
		await body.sendKeys('?');
		await visitor.reads('to Loads, Banks, Snags, Quizzes, Dispatch');
		await (await visitor.driver.switchTo().activeElement()).sendKeys('\uE00C');
		await (await visitor.find('body')).sendKeys('gs');
		await until(async () => (await visitor.driver.getCurrentUrl()).includes('/snags'));
	});
	it('mends a snag after showing it before and after, and all of a check at once', async () => {
		await visitor.go(`/courses/${course}/snags?check=escaped-twice`);
		await visitor.reads('Before');
		const words = await visitor.reads('After');
		expect(words).toContain('&quot;Wk&quot;');
		expect(words).toContain('"Wk"');
		await visitor.press('Mend this');
		await visitor.reads('1 question mended and checked again');
		await visitor.go(`/courses/${course}/snags?check=active-content`);
		await visitor.press('Mend all 1');
		await visitor.reads('1 question mended');
		expect(await visitor.words()).not.toContain('Script or handler removed');
	});
	it('makes a quiz that draws from categories, and says why a sheet cannot be filled', async () => {
		await visitor.go(`/courses/${course}/quizzes`);
		await visitor.write('input[name=title]', 'Chart symbols');
		await visitor.press('Make a quiz');
		await visitor.reads('Draw sheet');
		await (await visitor.driver.findElement(By.xpath('//label[contains(., "Chartwork")]/input'))).click();
		await visitor.reads('Questions · 6');
		await visitor.write('input[aria-label="How many part 1 draws"]', '10');
		await visitor.reads(/Part 1 wants 10 from .*Chartwork.*, which has 6: draw 4 less, or add 4 questions/);
		await visitor.write('input[aria-label="How many part 1 draws"]', '4');
		await visitor.write('input[aria-label="Points for each question of part 1"]', '2.5');
		await visitor.reads('Can be filled in every draw');
		await visitor.reads(/saved \d\d:\d\d/);
		expect(await visitor.words()).toMatch(/10/);
	});
	it('shows a sitting, the same for the same seed, and marks it', async () => {
		await visitor.press('A sitting');
		await visitor.reads('0 of 10 points');
		const stems = () =>
			visitor.driver.executeScript<string[]>(
				"return [...document.querySelectorAll('article .stem')].map((one) => one.textContent.trim())"
			);
		const first = await stems();
		expect(first).toHaveLength(4);
		await visitor.press('Redraw');
		await until(async () => (await stems()).join() !== first.join());
		const seed = await visitor.find('main label input.input');
		await visitor.driver.executeScript('arguments[0].select()', seed);
		await seed.sendKeys('harbour-1\t');
		await until(async () => (await stems()).join() === first.join());
		for (const article of await visitor.driver.findElements(By.css('article'))) {
			await (await article.findElement(By.css('input[type=radio]'))).click();
			await (await article.findElement(By.css('button'))).click();
		}
		await visitor.reads('4 of 4 marked');
	});
	it('dispatches the bank with its loss table and its proof', async () => {
		await visitor.go(`/courses/${course}/dispatch`);
		await visitor.reads('What becomes of the questions');
		await visitor.press('Write and prove');
		const words = await visitor.reads('Read back: nothing differs.');
		expect(words).toMatch(/Identical\s+16/);
		expect(words).toMatch(/Changed otherwise\s+0/);
		await visitor.press('Download');
		const file = join(visitor.downloads, 'autumn-charts-16.zip');
		await until(() => existsSync(file));
		expect(readFileSync(file).subarray(0, 2).toString()).toBe('PK');
	});
	it('takes that file into another course, where nothing differs', async () => {
		const file = join(visitor.downloads, 'autumn-charts-16.zip');
		await visitor.go('/');
		await visitor.press('Buoyage and Lights');
		await visitor.reads('Loads of this course');
		await hand(file);
		await visitor.reads(/autumn-charts-16\.zip[\s\S]*to review/);
		await visitor.press('Review autumn-charts-16.zip');
		await visitor.choose('Bank', 'into a new bank');
		await visitor.write('input[aria-label="Name of the new bank"]', 'From Radio Procedure');
		// some of them are in that course already, and would be skipped
		await visitor.reads(/skipped as already there/);
		await visitor.press('Rules');
		await visitor.choose('Questions that are the same as one', 'take in beside it');
		await visitor.press('Close');
		await visitor.press('Take in 16');
		await visitor.reads('16 = 16 + 0 + 0');
		await visitor.press('Open the bank');
		await visitor.reads('From Radio Procedure');
		// sent out again, it is the same file: the same questions give the same bytes
		const first = /sha256 ([0-9a-f]{64})/;
		await visitor.go(`/courses/${course}/dispatch`);
		const before = first.exec(await visitor.reads(first))![1];
		expect(before).toHaveLength(64);
	});
	it('has never made the browser complain', async () => {
		expect(await visitor.complaints()).toEqual([]);
	});
});
