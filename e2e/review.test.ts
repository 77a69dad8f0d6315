import { randomBytes } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, type WebElement, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { zipped, type Files } from '../core/test-support/packages';
import { bankXml, item } from '../src/lib/server/test-support/world';
import type { Visitor } from './browser';
import { Day } from './day';
import { Line } from './line';

let line: Line;
let day: Day;
let visitor: Visitor;
let course = '';
beforeAll(async () => {
	line = await Line.to(process.env.APPLICATION!);
	day = await Day.begin('Buoyage and Lights', line.address);
	({ visitor, course } = day);
});
afterAll(async () => {
	await day.end();
	await line.close();
});

async function hand(name: string, files: Files): Promise<void> {
	await day.hand(name, zipped(files));
	await visitor.press(`Review ${name}`);
	await visitor.reads('Contents');
}
const row = async (at: number): Promise<WebElement> => {
	await visitor.find('[data-row]');
	return (await visitor.driver.findElements(By.css('[data-row]')))[at]!;
};
const ropes = {
	'ropes.xml': bankXml({
		Knots: [
			item('k1', 'Which knot holds a loop that does not slip?', ['Bowline', 'Slip knot']),
			item('k2', 'Which knot stops a line in a block?', ['Figure of eight', 'Reef knot'], null)
		],
		Hitches: [
			item('h1', 'Which hitch makes a line fast to a rail?', ['Clove hitch', 'Bowline']),
			item('h2', 'Which hitch grips along a rope?', ['Rolling hitch', 'Half hitch'], null)
		]
	})
};

describe('the editor', () => {
	it('shows the question that was chosen, and keeps what is written for that one alone', async () => {
		await hand('ropes.zip', ropes);
		await (await row(0)).click();
		await visitor.press('Edit');
		await (await row(2)).click();
		await visitor.reads(/fast to a rail/);
		await visitor.until(
			async () =>
				visitor.driver.executeScript(
					`return document.querySelector('[aria-label="Stem"]')?.textContent.includes('fast to a rail')`
				),
			'the editor never showed the question that was chosen last'
		);
		// the editor wakes where it is clicked
		await (await visitor.find('[aria-label="Stem"]')).click();
		const stem = await visitor.find('.tiptap[aria-label="Stem"]');
		await stem.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Which hitch is made on a rail?');
		await visitor.press('Keep this');
		await visitor.reads('Which hitch is made on a rail?');
		await (await row(0)).click();
		await visitor.reads('Which knot holds a loop that does not slip?');
	});
});

describe('where categories land', () => {
	it('is changed by dragging one onto another', async () => {
		const [from, to] = await Promise.all(
			['Hitches', 'Knots'].map((name) => visitor.find(`[data-part="item"]:has(input[aria-label="Take in ${name}"])`))
		);
		await visitor.drag(from!, to!, -60);
		await visitor.find('button[aria-label="Hitches lands in Knots, change"]');
		await visitor.reads(/1 category, a new one/);
		await visitor.press('Let Hitches land by itself');
		await visitor.reads(/2 categories, all new/);
	});
});

describe('the rules', () => {
	it('can want a decision on each broken question', async () => {
		await visitor.press('Rules');
		await visitor.choose('Questions in error', 'decide on each');
		await visitor.press('Close');
		await visitor.reads('2 broken questions wait for a decision');
		await (await row(1)).click();
		await visitor.reads('Which knot stops a line in a block?');
		await visitor.press('Set aside');
		await visitor.reads('1 broken question waits for a decision');
		await (await row(3)).click();
		await visitor.reads('Which hitch grips along a rope?');
		await visitor.press('Leave out');
		await visitor.reads(/Take in 2 of 4 questions[\s\S]*1 set aside, 1 left out/);
	});
	it('can be saved by name, and taken for the next load', async () => {
		await visitor.press('Rules');
		await visitor.write('input[placeholder="name"]', 'School rules');
		await visitor.press('Save');
		await visitor.reads('Kept as “School rules”');
		await visitor.press('Close');
		await hand('halves.zip', {
			'halves.xml': bankXml({
				Knots: [half('half', 50), half('third', 33.3), item('n', 'Which holds?', ['Bowline', 'Bend'], null)]
			})
		});
		await visitor.press('Rules');
		await visitor.choose('Questions in error', 'good ones in, rest set aside');
		await (
			await visitor.driver.findElement(By.xpath('//label[contains(., "Saved rules")]//option[. = "School rules"]'))
		).click();
		await visitor.reads('1 broken question waits for a decision');
	});
	it('say what becomes of credit that the course does not allow', async () => {
		await visitor.choose('Questions in error', 'good ones in, rest set aside');
		await visitor.reads(/Take in 2 of 3 questions/);
		await visitor.write('input[placeholder="any"]', '100; 50; 0');
		const other = await visitor.driver.findElement(
			By.xpath('//label[contains(., "Other credit")]//option[@value="aside"]')
		);
		await other.click();
		await visitor.reads(/Take in 1 of 3 questions/);
		await (
			await visitor.driver.findElement(By.xpath('//label[contains(., "Other credit")]//option[@value="nearest"]'))
		).click();
		// the course may remember other rules by which it took something in before
		await visitor.reads(/By rule: [^.]*credit moved to the nearest that is allowed: 1 question/);
		await visitor.reads(/Take in 2 of 3 questions/);
		await visitor.write('input[placeholder="any"]', '');
		await visitor.press('Close');
	});
});

/** A question of several answers, of which each earns a part. */
const half = (ident: string, percent: number) =>
	item(ident, `Which are ${ident} of the hitches?`, ['Clove', 'Rolling'], null)
		.replace('rcardinality="Single"', 'rcardinality="Multiple"')
		.replace(
			'</item>',
			`<resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" minvalue="0" maxvalue="100"/></outcomes>${[
				'A',
				'B'
			]
				.map(
					(option, at) =>
						`<respcondition continue="Yes"><conditionvar><varequal respident="R">${option}</varequal></conditionvar><setvar varname="SCORE" action="Add">${at ? 100 - percent : percent}</setvar></respcondition>`
				)
				.join('')}</resprocessing></item>`
		);

describe('a quiz in a package', () => {
	it('has its own questions put into a bank of the user’s choice', async () => {
		await hand('quiz.zip', {
			'bank.xml': bankXml({ Knots: [item('a', 'Which knot is a loop for a rescue?', ['Bowline', 'Granny'])] }),
			'quiz.xml': `<questestinterop><assessment ident="Q" title="Spring ropes"><section ident="P" title="Part one">${item('b', 'Which rope floats by itself?', ['Polypropylene', 'Nylon'])}</section></assessment></questestinterop>`
		});
		await visitor.choose('Bank for the questions that stand only in a quiz', 'into a new bank');
		await visitor.reads(/and 1 of them into Spring ropes/);
		await visitor.choose('Bank', 'into a new bank');
		await visitor.write('input[aria-label="Name of the new bank"]', 'Rescue knots');
		await visitor.press('Take in 2');
		await visitor.reads('Receipt');
		await visitor.go(`/courses/${course}/banks`);
		const words = await visitor.reads('Spring ropes');
		expect(words).toContain('Rescue knots');
	});
});

describe('a picture that did not come along', () => {
	it('is handed in in the editor, and the question is whole', async () => {
		await hand('flag.zip', {
			'flag.xml': bankXml({
				Flags: [
					item(
						'f',
						'Which knot is drawn?',
						['Bowline', 'Bend'],
						'A',
						'<matimage uri="drawn.svg" imagtype="image/svg+xml"/>'
					)
				]
			})
		});
		await visitor.reads('will be set aside');
		await (await row(0)).click();
		await visitor.press('Edit');
		const picture = day.put(
			'drawn-again.svg',
			'<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><path d="M0 0h40"/></svg>'
		);
		await (await visitor.find('label.missing input[type=file]')).sendKeys(picture);
		await visitor.reads('“drawn.svg” is there now, in 1 question');
		await visitor.reads(/Take in 1 of 1 question/);
	});
});

describe('a lost connection', () => {
	it('is said, loses no decision, and the next try is kept', async () => {
		line.cut();
		await (await visitor.find('input[aria-label="Select all that are listed"]')).click();
		await visitor.press('Leave out');
		await visitor.reads('The server does not answer');
		line.mend();
		await visitor.press('Leave out');
		await visitor.reads('everything is left out');
		await visitor.press('Include');
		await visitor.reads(/Take in 1 of 1 question/);
	});
	it('pauses an upload, which goes on by itself', async () => {
		const path = day.put('long.zip', zipped({ ...ropes, 'chart.bin': randomBytes(40 * 2 ** 20) }));
		await visitor.go(`/courses/${course}/loads`);
		line.speed = 8 * 2 ** 20;
		await (await visitor.find('input[type=file]:not([webkitdirectory])')).sendKeys(path);
		await visitor.reads(/long\.zip/);
		await visitor.driver.sleep(1200);
		line.cut();
		await visitor.reads(/connection/);
		line.mend();
		line.speed = 0;
		await visitor.reads(/long\.zip[\s\S]{1,40}42 MB\s+4\s[\s\S]{1,20}to review/, 60_000);
	});
});

describe('a folder', () => {
	it('becomes one load, with its folders as categories to choose', async () => {
		const inside = join(day.folder, 'locker');
		for (const [name, question] of [
			['knots', item('x', 'Which knot ends a splice?', ['Crown', 'Reef knot'])],
			['hitches', item('y', 'Which hitch holds a fender?', ['Clove hitch', 'Bend'])]
		] as const) {
			mkdirSync(join(inside, name), { recursive: true });
			writeFileSync(join(inside, name, 'bank.xml'), bankXml({ Old: [question] }));
		}
		await visitor.go(`/courses/${course}/loads`);
		await (await visitor.find('input[webkitdirectory]')).sendKeys(inside);
		await visitor.reads(/locker\.zip[\s\S]*to review/);
		await visitor.press('Review locker.zip');
		await visitor.reads('Categories from');
		await (
			await visitor.driver.findElement(By.xpath('//label[contains(., "Categories from")]//option[@value="folders"]'))
		).click();
		const words = await visitor.reads('hitches');
		expect(words).toContain('knots');
	});
});

describe('text that is pasted on the page of the loads', () => {
	it('opens beside the questions that are found in it', async () => {
		await visitor.go(`/courses/${course}/loads`);
		await visitor.reads('Loads of this course');
		await visitor.driver.executeScript(
			`const data = new DataTransfer();
			data.setData('text/plain', arguments[0]);
			document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));`,
			'1. Which line leads forward?\nA. Head line *\nB. Stern line\n\n2. Name the line that leads aft.\nAnswer: stern line'
		);
		const words = await visitor.reads('2 questions found');
		expect(words).toContain('Which line leads forward?');
	});
});

describe('a receipt', () => {
	const packages = (names: string[]) => ({
		'lines.xml': bankXml({ Lines: names.map((name) => item(name, `Which of these is the ${name}?`, [name, 'Fender'])) })
	});
	it('is held against what another system gives back, and names what it lost', async () => {
		await hand('lines.zip', packages(['head line', 'stern line', 'breast line']));
		await visitor.choose('Bank', 'into a new bank');
		await visitor.write('input[aria-label="Name of the new bank"]', 'Mooring lines');
		await visitor.press('Take in 3');
		await visitor.reads('Receipt');
		const receipt = await visitor.driver.getCurrentUrl();
		await hand('lines-back.zip', packages(['head line', 'breast line']));
		await visitor.driver.get(receipt);
		await visitor.reads('What the other system made of it');
		await (
			await visitor.driver.findElement(By.xpath('//label[contains(., "its own export")]//option[. = "lines-back.zip"]'))
		).click();
		const words = await visitor.reads('2 the same, 0 changed, 1 lost there, 0 only there');
		expect(words).toContain('stern line');
	});
	it('stays in the ledger as it was', async () => {
		await visitor.go(`/courses/${course}/ledger`);
		await visitor.reads('lines.zip');
		await (await visitor.find('details summary')).click();
		expect(await visitor.reads('3 = 3 taken in')).toContain('Lines: 3 = 3 taken in + 0 set aside + 0 left out');
	});
});
