import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoLookIn, demoSignIn } from '../demo/fill';
import { Visitor } from './browser';
import { Day } from './day';

/** The course that is made and put in order here. */
let day: Day;
let visitor: Visitor;
let course = '';
const others: Visitor[] = [];
beforeAll(async () => {
	visitor = await Visitor.open(process.env.APPLICATION!);
	await visitor.signIn(demoSignIn.email, demoSignIn.password);
});
afterAll(async () => {
	for (const one of new Set([visitor, day?.visitor, ...others])) await one?.close();
});

const open = (selector: string) => visitor.find(selector).then((found) => found.click());
/** Chooses from a menu that a button opens. */
async function menu(button: string, choice: string): Promise<void> {
	await open(`button[aria-label="${button}"]`);
	await visitor.driver.sleep(300);
	const item = await visitor.until(async () => {
		for (const found of await visitor.driver.findElements(By.css('[role=menuitem]')))
			if ((await found.isDisplayed()) && (await found.getText()).includes(choice)) return found;
		return null;
	});
	await item!.click();
	await visitor.driver.sleep(300);
}
const inSheet = (selector: string) => `[role=dialog][data-state=open] ${selector}`;
/** Writes into a rich text, which wakes when it is clicked; it is looked for anew where the sheet was drawn again. */
async function write(label: string, text: string, one = visitor): Promise<void> {
	await one.until(async () => {
		const asleep = await one.find(`[role=textbox][aria-label="${label}"]`);
		await one.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', asleep);
		await asleep.click();
		return true;
	});
	await (await one.find(`.tiptap[aria-label="${label}"]`)).sendKeys(text);
	await one.driver.sleep(100);
}
const rows = async () => (await visitor.driver.findElements(By.css('[data-row]'))).length;

describe('a course is made', () => {
	it('with a code of its own, and told where another has it', async () => {
		await visitor.go('/');
		await visitor.press('Make a course');
		await visitor.write('input[name=name]', 'Rope Work');
		await visitor.write('input[name=code]', 'TC-S27');
		await visitor.press('Make it');
		await visitor.reads('“Tides and Charts” has the code TC-S27 already.');
		expect(await (await visitor.find('input[name=name]')).getAttribute('value')).toBe('Rope Work');
		await visitor.write('input[name=code]', 'RW-A27');
		await visitor.press('Make it');
		await visitor.reads('Loads of this course');
		course = /courses\/(\d+)/.exec(await visitor.driver.getCurrentUrl())![1]!;
	});
	it('and two people come to it with two roles, one by a link that is good for once', async () => {
		await visitor.go(`/courses/${course}/settings`);
		await visitor.write('input[name=email]', demoLookIn.email);
		await (await visitor.find('select[name=role]')).sendKeys('look');
		await visitor.press('Let them in');
		await visitor.reads('Tam Reach belongs to this course and may look.');
		await visitor.write('input[name=email]', 'bo@gullhaven.example');
		await visitor.press('Let them in');
		const link = await (await visitor.find('input[aria-label="The link"]')).getAttribute('value');
		expect(link).toMatch(/\/invited\/[\w-]{32}$/);
		const bo = await Visitor.open(process.env.APPLICATION!);
		others.push(bo);
		await bo.go(new URL(link!).pathname);
		await bo.reads('Mira Olden invites you to Rope Work (RW-A27)');
		await bo.write('input[name=name]', 'Bo Marsh');
		await bo.write('input[name=password]', 'short');
		await bo.press('Join');
		await bo.reads('A password has 10 letters at the least.');
		await bo.write('input[name=password]', 'a-long-quay-wall');
		await bo.press('Join');
		await bo.reads('Rope Work');
		await bo.reads('Loads of this course');
		const again = await Visitor.open(process.env.APPLICATION!);
		others.push(again);
		await again.go(new URL(link!).pathname);
		await again.reads('This link leads nowhere');
		await visitor.go(`/courses/${course}/settings`);
		await visitor.reads('Bo Marsh');
	});
});

describe('a bank is built by hand', () => {
	it('with a category and a question that says what it lacks while it is written', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.press('Make a bank');
		await (await visitor.find(inSheet('input'))).sendKeys('Knots');
		await open(inSheet('button.preset-filled-brand'));
		await visitor.reads('The bank “Knots” is made.');
		await visitor.press('Category');
		await (await visitor.find(inSheet('input'))).sendKeys('Loops');
		await open(inSheet('button.preset-filled-brand'));
		await visitor.reads('The category “Loops” is made.');
		await visitor.press('Loops');
		await visitor.reads('No question stands here.');
		await open('button[aria-label="Make a question"]');
		await visitor.reads('There is no text and no picture in the stem.');
		await write('Stem', 'Which knot makes a loop that does not slip?');
		for (const [at, words] of ['Bowline', 'Reef knot', 'Sheet bend', 'Clove hitch'].entries())
			await write(`Option ${at + 1}`, words);
		await visitor.reads(/The best answer earns 1 of 1, the worst 0 of 1, a guessed one 0\.25 of 1 on average/);
		await visitor.press('Keep this');
		// the sentence on what answers earn, which stands in the editor, says “1 of 1” too
		await visitor.reads('Not verified yet.');
		await visitor.reads('1 of 1');
		// the framework warns of fields that leave the page with their sheet, which shows nothing wrong
		expect((await visitor.complaints()).filter((words) => !words.includes('derived_inert'))).toEqual([]);
	});
	it('with a question of another kind, whose kind is changed', async () => {
		await open('button[aria-label="Make a question"]');
		await write('Stem', 'How many strands has three-strand rope?');
		await write('Option 1', '3');
		await visitor.press('Keep this');
		await visitor.reads('2 of 2');
		await visitor.press('Edit');
		const kind = await visitor.driver.findElement(By.xpath("//label[starts-with(normalize-space(.), 'Kind')]//select"));
		await kind.sendKeys('Numeric');
		await visitor.reads(/What goes: .*option/);
		await visitor.press('Keep this');
		await visitor.reads('Numeric');
		await visitor.press('History');
		await visitor.reads('Version 1, until');
		await visitor.press('Have it back');
		await visitor.reads('says again what version 1 said');
	});
});

describe('300 questions are put in order', () => {
	it('all that match at once, told in numbers before, and undone at a click', async () => {
		day = await Day.begin('Rope Work');
		const table = ['title,question,a,b,key,category'];
		for (let at = 1; at <= 300; at += 1)
			table.push(
				`Rope ${at},What is the use of rope ${at}?,Mooring,Towing,${at % 30 ? 'A' : ''},${(at % 3) + 1}. Ropes`
			);
		await day.hand('ropes.csv', table.join('\n'), /ropes\.csv/);
		visitor = (others.push(visitor), day.visitor);
		await visitor.press('Review ropes.csv');
		const [, all] = /Take in (\d+)/.exec(await visitor.reads(/Take in \d+/))!;
		await visitor.press(`Take in ${all}`);
		await visitor.reads('Receipt');
		await visitor.go(`/courses/${course}/banks`);
		await visitor.choose('Bank', /ropes/i);
		await visitor.reads('1 of ');
		const total = /1 of (\d+)/.exec(await visitor.words())![1]!;
		await open('input[aria-label="Select all that are listed"]');
		await visitor.reads(`${total} selected`);
		await visitor.press('Points …');
		await (await visitor.find(inSheet('input'))).sendKeys('2');
		await visitor.reads(`Change ${total} questions`);
		await open(inSheet('button.preset-filled-brand'));
		await visitor.reads(`${total} questions: 2 points each.`);
		await visitor.press('Undo');
		await visitor.reads('Taken back: set the points of 2 points each.');
		await visitor.press('Do it again');
		await visitor.reads('Taken back: took back');
		const points = await visitor.driver.executeScript<string[]>(
			"return [...document.querySelectorAll('[data-row] .text-right')].map((cell) => cell.textContent.trim())"
		);
		expect(new Set(points)).toEqual(new Set(['2']));
	});
	it('categories are sorted, numbered, merged and renamed', async () => {
		await menu('What to do with the bank', 'Number the top level');
		await visitor.reads('categories numbered');
		await visitor.reads('1 Ropes');
		await visitor.press('2 Ropes');
		await visitor.reads(/2 Ropes\s*\d+/);
		await menu('What to do with the category', 'Rename, give a code');
		await visitor.write(inSheet('input'), 'Synthetic ropes');
		await open(inSheet('button.preset-filled-brand'));
		await visitor.reads('The category is called “Synthetic ropes”.');
		await menu('What to do with the category', 'Merge into another');
		await (await visitor.find(inSheet('select'))).sendKeys('1 Ropes');
		await open(inSheet('button.preset-filled-brand'));
		await visitor.reads(/“Synthetic ropes” is part of “1 Ropes” now, with \d+ questions/);
		// what was told before goes first
		await visitor.until(
			async () => (await visitor.driver.findElements(By.css('[data-part=action-trigger]'))).length === 1
		);
		await visitor.press('Undo');
		await visitor.reads('Synthetic ropes');
	});
	it('keys are set one after the other by letters', async () => {
		await visitor.press('Whole bank');
		await open('button[aria-label="Set keys"]');
		await visitor.driver.sleep(800);
		if (!(await visitor.words()).includes('Which is the key?'))
			return void (await visitor.reads('Every question here has a key'));
		const body = await visitor.find('body');
		for (let at = 0; at < 3; at += 1) {
			await body.sendKeys('a');
			await visitor.reads('key');
			await visitor.driver.sleep(700);
			await body.sendKeys(Key.ENTER);
			await visitor.driver.sleep(500);
		}
		await body.sendKeys(Key.ESCAPE);
		await visitor.driver.sleep(500);
		expect(await rows()).toBeGreaterThan(0);
	});
	it('by filters and columns that are chosen, and saved by name', async () => {
		await visitor.go(`${new URL(await visitor.driver.getCurrentUrl()).pathname}?points=2&sort=title&down=1`);
		await visitor.choose('Bank', /ropes/i);
		await visitor.reads('Points: 2');
		await open('button[aria-label="Columns"]');
		await visitor.press('Columns').catch(() => undefined);
		await visitor.go(`/courses/${course}/banks?key=unverified`);
		await visitor.reads('Key: not verified');
		await open('button[aria-label="Filter"]');
		await visitor.write('input[aria-label="A name for this filter"]', 'To verify');
		await visitor.press('Save for the course');
		await visitor.reads('by Mira Olden');
	});
	it('whoever finds the right answer has verified the key', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.choose('Bank', /Knots/);
		await visitor.reads('Not verified yet.');
		await visitor.press('Try it');
		await visitor.press('A right answer');
		await visitor.reads('1 of 1 point');
		const answer = async () => {
			for (const radio of (await visitor.driver.findElements(By.css('main label.option input[type=radio]')))
				.slice(0, 2)
				.reverse())
				await radio.click();
			await visitor.press('Mark it');
			await visitor.reads('1 of 1 point');
		};
		// whoever was shown it has not found it
		await answer();
		expect(await visitor.words()).toContain('Not verified yet.');
		await visitor.go(`/courses/${course}/banks`);
		await visitor.choose('Bank', /Knots/);
		await visitor.reads('Not verified yet.');
		await visitor.press('Try it');
		await answer();
		await visitor.reads('Key verified by Mira Olden');
		await visitor.press('Undo');
		await visitor.reads('Not verified yet.');
	});
	it('what is chosen is dispatched by itself', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.choose('Bank', /ropes/i);
		await visitor.reads('1 of ');
		for (const box of (await visitor.driver.findElements(By.css('[data-row] input[type=checkbox]'))).slice(0, 3))
			await box.click();
		await visitor.reads('3 selected');
		await menu('More to do with what is selected', 'Dispatch these');
		await visitor.reads('3 questions of');
		await visitor.press('Write and prove');
		await visitor.reads(/Identical\s+3/i);
	});
	it('what goes to the bin is there, and is put back', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.choose('Bank', /Knots/);
		await visitor.reads('of 2');
		await open('[data-row] input[type=checkbox]');
		await visitor.press('To the bin');
		await visitor.reads('1 question in the bin.');
		await visitor.go(`/courses/${course}/bin`);
		await visitor.reads('Knots › Loops');
		await open('input[aria-label="Select all that are listed"]');
		await visitor.press('Put 1 question back');
		await visitor.reads('1 question is back.');
		await visitor.reads('Nothing is in the bin.');
	});
	it('the ledger tells each, with the way back', async () => {
		await visitor.go(`/courses/${course}/ledger`);
		const words = await visitor.reads('put in the bin');
		expect(words).toContain('set the points of');
		expect(words).toContain('taken back');
		expect((await visitor.driver.findElements(By.css('button[aria-label^="Undo: "]'))).length).toBeGreaterThan(3);
		expect(await visitor.complaints()).toEqual([]);
	});
});

describe('two people on one question', () => {
	it('are both shown what the other wrote, and nothing is lost', async () => {
		const [bo] = others;
		const path = `/courses/${course}/banks`;
		await visitor.go(path);
		await visitor.choose('Bank', /Knots/);
		await visitor.reads('1 of 2');
		const address = new URL(await visitor.driver.getCurrentUrl());
		await bo!.go(address.pathname + address.search);
		await bo!.reads('1 of 2');
		for (const one of [visitor, bo!]) await one.press('Edit');
		await write('Stem', ' Mira asks.');
		await write('Stem', ' Bo asks.', bo);
		await visitor.press('Keep this');
		await visitor.reads('is kept.');
		await bo!.press('Keep this');
		await bo!.reads(/Mira Olden has changed this question meanwhile/);
		await bo!.press('Keep mine on top of theirs');
		await bo!.reads('is kept.');
		await bo!.press('History');
		await bo!.reads(/Mira asks/);
	});
	it('while one who may only look is offered nothing that changes', async () => {
		const tam = await Visitor.open(process.env.APPLICATION!);
		others.push(tam);
		await tam.signIn(demoLookIn.email, demoLookIn.password);
		await tam.go(`/courses/${course}/banks`);
		const words = await tam.reads('1 of ');
		expect(words).not.toMatch(/Edit|The key is right|To the bin/);
		expect(await tam.driver.findElements(By.css('[aria-label="Make a question"], [aria-label="Set keys"]'))).toEqual(
			[]
		);
		await tam.go(`/courses/${course}/settings`);
		await tam.reads('Those who manage the course change it.');
	});
});

describe('a bank', () => {
	it('is copied in one step, a category becomes a bank of its own, and both are taken back', async () => {
		await visitor.go(`/courses/${course}/banks`);
		// at once, for the list is drawn anew meanwhile
		const banks = async () =>
			visitor.driver.executeScript<string[]>(
				`return [...document.querySelectorAll('select[aria-label="Bank"] option')].map((bank) => bank.textContent.trim())`
			);
		const before = await banks();
		await visitor.choose('Bank', /Knots/);
		await menu('What to do with the bank', 'Copy …');
		await visitor.write(inSheet('input'), 'Knots for the autumn');
		await open(inSheet('button.preset-filled-brand'));
		await visitor.reads('is copied as “Knots for the autumn”');
		await visitor.reads('Banks of');
		expect((await banks()).some((name) => name.startsWith('Knots for the autumn'))).toBe(true);
		await visitor.press('Undo');
		await visitor.until(async () => (await banks()).join() === before.join());
		expect(await visitor.complaints()).toEqual([]);
	});
});

describe('a course', () => {
	it('is copied under a code that no other has, and the copy is opened', async () => {
		await visitor.go(`/courses/${course}/settings`);
		await (await visitor.driver.findElement(By.xpath('//button[@role="tab" and normalize-space()="Copy"]'))).click();
		await visitor.reads('All banks with their');
		await visitor.write('form[method=POST] input[name=code]', 'RW-A27');
		await visitor.press('Copy Rope Work');
		await visitor.reads('“Rope Work” has the code RW-A27 already.');
		await visitor.write('form[method=POST] input[name=code]', 'RW-S28');
		await visitor.press('Copy Rope Work');
		await visitor.reads(/Copied: \d+ banks?, \d+ questions?, \d+ quiz/);
		await (await visitor.driver.findElement(By.linkText('Open Rope Work'))).click();
		await visitor.reads('RW-S28');
		expect(await visitor.complaints()).toEqual([]);
	});
});
