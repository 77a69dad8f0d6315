import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoSignIn } from '../demo/fill';
import { Visitor } from './browser';
import { Day } from './day';

/** Twelve things that go wrong, each in ten questions: what is typed in the table, by number. */
const wrong: [check: string, line: (at: number) => string[]][] = [
	['boilerplate', (at) => [`Sail ${at}`, `Which sail has the number ${at}? Select one:`, 'Main', 'Jib', 'A']],
	['no-title', (at) => ['', `Which knot stands on page ${at} of the book?`, 'Bowline', 'Reef knot', 'B']],
	['typed-numbering', (at) => [`Flag ${at}`, `${at}) Which flag flies on mast ${at}?`, 'Blue Peter', 'Ensign', 'A']],
	['option-place', (at) => [`Rope ${at}`, `Which rope lies on deck ${at}?`, 'Sisal', 'None of the above', 'A']],
	['option-letters', (at) => [`Wind ${at}`, `Which wind blows on day ${at}?`, 'Gale', 'Both A and B', 'A']],
	['empty-or-repeated-option', (at) => [`Tide ${at}`, `Which tide comes at hour ${at}?`, 'Spring', 'Spring', 'A']],
	['mojibake', (at) => [`Port ${at}`, `Which port has the letter Ã© in berth ${at}?`, 'Larvik', 'Bergen', 'A']],
	['mixed-quotes', (at) => [`Call ${at}`, `Who says “over” and "out" in call ${at}?`, 'The ship', 'The shore', 'A']],
	[
		'picture-mentioned',
		(at) => [`Buoy ${at}`, `Which buoy is number ${at} in the picture below?`, 'Red', 'Green', 'A']
	],
	['kind-hint', (at) => [`Bell ${at}`, `Mark all that ring in watch ${at}.`, 'The bell', 'The gong', 'A']],
	['escaped-twice', (at) => [`Log ${at}`, `What does &amp;quot;log ${at}&amp;quot; mean?`, 'Speed', 'Depth', 'A']],
	['same-title', (at) => ['Compass', `Where does compass ${at} point?`, 'North', 'South', 'A']]
];

/** What only a person can set right, or say that it is meant so. */
const byPerson = new Set(['picture-mentioned', 'empty-or-repeated-option', 'kind-hint']);

let day: Day;
let visitor: Visitor;
beforeAll(async () => {
	const maker = await Visitor.open(process.env.APPLICATION!);
	await maker.signIn(demoSignIn.email, demoSignIn.password);
	await maker.go('/');
	await maker.press('Make a course');
	await maker.write('input[name=code]', 'DW-S27');
	await maker.write('input[name=name]', 'Deck Work');
	await maker.press('Make it');
	await maker.reads('Loads of this course');
	await maker.close();
	day = await Day.begin('Deck Work');
	visitor = day.visitor;
	const cell = (text: string) => `"${text.replaceAll('"', '""')}"`;
	const table = [
		'title,question,a,b,key,category',
		...wrong.flatMap(([check, line]) =>
			Array.from({ length: 10 }, (_, at) => [...line(at + 1), check].map(cell).join(','))
		)
	];
	await day.hand('deck.csv', table.join('\n'), /deck\.csv/);
	await visitor.press('Review deck.csv');
	const [, all] = /Take in (\d+)/.exec(await visitor.reads(/Take in \d+/))!;
	expect(all).toBe('120');
	await visitor.press('Take in 120');
	await visitor.reads('Receipt');
});
afterAll(() => day?.end());

const body = () => visitor.find('body');
/** How many questions a check speaks of. */
const openSnags = async (check: string) => {
	const address = `/courses/${day.course}/snags/rows?check=${check}&from=0`;
	const script = 'const done = arguments[1]; fetch(arguments[0]).then((answer) => answer.json()).then(done)';
	return (await visitor.driver.executeAsyncScript<{ total: number }>(script, address)).total;
};

describe('120 snags of 12 checks', () => {
	it('are worked off by keyboard alone: mended one and all, or waived with a reason', async () => {
		await visitor.until(async () => {
			await visitor.go(`/courses/${day.course}/snags`);
			return !/Checking the questions|held against|in a moment/.test(await visitor.words());
		});
		let worked = 0;
		for (const [check] of wrong) {
			const before = await openSnags(check);
			expect([check, before]).toEqual([check, 10]);
			await visitor.go(`/courses/${day.course}/snags?check=${check}`);
			if (byPerson.has(check)) {
				await visitor.reads('Waive …');
				await (await body()).sendKeys('w');
				await (
					await visitor.find('input[name=reason]')
				).sendKeys('Printed beside it.', Key.TAB, 'the', Key.TAB, Key.ENTER);
				await visitor.reads('10 snags are waived.');
			} else if (check === 'same-title') {
				// the first of them keeps its title
				await visitor.reads('Mend all 10');
				await (await body()).sendKeys('M');
				await visitor.reads('9 questions mended and checked again');
			} else {
				await visitor.reads('Mend this');
				await (await body()).sendKeys('m');
				await visitor.reads('1 question mended and checked again');
				await (await body()).sendKeys('M');
				await visitor.reads(/\d+ questions mended and checked again, \d+ since you came here/);
			}
			worked += before - (await openSnags(check));
		}
		expect(worked).toBe(120);
		expect(await visitor.complaints()).toEqual([]);
	});
	it('are gone through by category, and a question is set right there', async () => {
		await visitor.go(`/courses/${day.course}/ledger`);
		await (await visitor.find('button[aria-label^="Undo: mended"]')).click();
		await visitor.reads('Taken back');
		await visitor.go(`/courses/${day.course}/snags?by=category`);
		await visitor.press('same-title');
		await visitor.reads(/Compass/);
		await visitor.press('Edit');
		const title = await visitor.driver.findElement(
			By.xpath("//label[starts-with(normalize-space(.), 'Title')]//input")
		);
		await title.sendKeys(' of the bridge');
		await visitor.press('Keep this');
		await visitor.reads(/Compass of the bridge/);
	});
});
