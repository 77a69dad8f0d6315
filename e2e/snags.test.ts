import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoSignIn } from '../demo/fill';
import { Visitor } from './browser';
import { Day } from './day';

let day: Day;
let visitor: Visitor;
const anchor =
	'Which light does a sailing vessel of fifty metres show by night when she lies at anchor near the northern breakwater and the fog signal is on?';
beforeAll(async () => {
	const maker = await Visitor.open(process.env.APPLICATION!);
	await maker.signIn(demoSignIn.email, demoSignIn.password);
	await maker.go('/');
	await maker.press('Make a course');
	await maker.write('input[name=code]', 'MW-S27');
	await maker.write('input[name=name]', 'Marine Weather');
	await maker.press('Make it');
	await maker.reads('Loads of this course');
	await maker.close();
	day = await Day.begin('Marine Weather');
	visitor = day.visitor;
	const table = ['title,question,a,b,key,category'];
	for (let at = 1; at <= 12; at += 1)
		table.push(`Cloud ${at},Which cloud has the number ${at} in the old atlas? Select one:,Cirrus,Stratus,A,Clouds`);
	table.push(
		`North,${anchor},White,Red,A,Lights`,
		`South,${anchor.replace('northern', 'southern')},White,Red,A,Lights`
	);
	table.push('Letters,Which winds are strong?,Gale,Both A and B,A,Winds');
	await day.hand('clouds.csv', table.join('\n'), /clouds\.csv/);
	await visitor.press('Review clouds.csv');
	const [, all] = /Take in (\d+)/.exec(await visitor.reads(/Take in \d+/))!;
	await visitor.press(`Take in ${all}`);
	await visitor.reads('Receipt');
});
afterAll(() => day?.end());

const body = () => visitor.find('body');
const open = (selector: string) => visitor.find(selector).then((found) => found.click());
/** Waits until the checks in the background have gone over the course. */
async function checked(): Promise<void> {
	await visitor.until(async () => {
		await visitor.go(`/courses/${day.course}/snags`);
		const words = await visitor.words();
		return (
			words.includes('Nearly the same as another') && !/Checking the questions|held against|in a moment/.test(words)
		);
	});
}

describe('snags', () => {
	it('are mended and gone through by keys alone', async () => {
		await checked();
		await visitor.go(`/courses/${day.course}/snags?check=boilerplate`);
		await visitor.reads(/Words that belong to no question 12/);
		for (let left = 11; left >= 8; left -= 1) {
			await visitor.reads('Mend this');
			await (await body()).sendKeys('m');
			await visitor.reads(left ? new RegExp(`Words that belong to no question ${left}\\b`) : /mended/);
		}
		// what was told before is gone with the page
		await visitor.go(`/courses/${day.course}/snags?check=boilerplate`);
		await visitor.press('Mend all 8');
		await visitor.reads('8 questions mended and checked again');
		await visitor.press('Undo');
		await visitor.reads(/Words that belong to no question\s+8/);
	});
	it('are waived with a reason, listed, and open again once that is taken back', async () => {
		await visitor.go(`/courses/${day.course}/snags?check=option-letters`);
		await visitor.reads('“Both A and B” speaks of other options');
		await (await body()).sendKeys('w');
		await (await visitor.find('input[name=reason]')).sendKeys('The letters are printed with it.', Key.ENTER);
		await visitor.reads('One snag is waived.');
		await visitor.go(`/courses/${day.course}/snags?waived=1`);
		const words = await visitor.reads('The letters are printed with it.');
		expect(words).toContain('Option that names letters');
		await visitor.press('Take back');
		await visitor.reads('The waiver is taken back');
		await visitor.go(`/courses/${day.course}/snags?check=option-letters`);
		await visitor.reads('“Both A and B” speaks of other options');
	});
	it('of two that are nearly the same are shown side by side, and both are kept', async () => {
		await visitor.go(`/courses/${day.course}/snags?check=near-duplicate`);
		await visitor.reads('This one');
		const lit = await visitor.driver.executeScript<string[]>(
			"return [...document.querySelectorAll('.pair mark')].map((one) => one.textContent)"
		);
		expect(lit).toEqual(['northern', 'southern']);
		await (await visitor.find('input[aria-label="Why both are meant"]')).sendKeys('Two breakwaters.');
		await visitor.press('Keep both');
		await visitor.reads('Both are kept.');
		expect(await visitor.words()).not.toContain('Nearly the same as another');
	});
	it('of a check that is off in the course are gone', async () => {
		await visitor.go(`/courses/${day.course}/settings`);
		await visitor.press('What it goes by');
		const grave = await visitor.find('select[aria-label="How grave: Option that names letters"]');
		await grave.sendKeys('off');
		await visitor.press('Keep the settings');
		await visitor.driver.sleep(800);
		await visitor.go(`/courses/${day.course}/snags`);
		expect(await visitor.words()).not.toContain('Option that names letters');
	});
	it('stand in a report, question by question, that can be taken as a table', async () => {
		await visitor.go(`/courses/${day.course}/snags/report`);
		await open('select[aria-label="Bank"]');
		await visitor.choose('Bank', /clouds/i);
		const words = await visitor.reads('Question by question');
		expect(words).toContain('What each category has and lacks');
		await visitor.reads('Cloud 12');
		const table = await visitor.driver.findElement(By.xpath("//a[contains(., 'As a table')]")).getAttribute('href');
		const text = await visitor.driver.executeAsyncScript<string>(
			'const done = arguments[1]; fetch(arguments[0]).then((answer) => answer.text()).then(done)',
			table
		);
		expect(text).toContain('Words that belong to no question');
		expect(await visitor.complaints()).toEqual([]);
	});
});
