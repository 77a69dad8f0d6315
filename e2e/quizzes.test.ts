import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoSignIn } from '../demo/fill';
import { Visitor } from './browser';
import { Day } from './day';
import { Steps } from './steps';

const chapters: [name: string, questions: number][] = [
	['Rules', 44],
	['Lights', 12],
	['Sounds', 12],
	['Shapes', 8],
	['Flags', 8],
	['Buoys', 8],
	['Radio', 8],
	['Anchoring', 8]
];

let day: Day;
let visitor: Visitor;
let steps: Steps;
beforeAll(async () => {
	const maker = await Visitor.open(process.env.APPLICATION!);
	await maker.signIn(demoSignIn.email, demoSignIn.password);
	await maker.go('/');
	await maker.press('Make a course');
	await maker.write('input[name=code]', 'WK-S27');
	await maker.write('input[name=name]', 'Watchkeeping');
	await maker.press('Make it');
	await maker.reads('Loads of this course');
	await maker.close();
	day = await Day.begin('Watchkeeping');
	visitor = day.visitor;
	steps = new Steps(visitor);
	const table = [
		'title,question,a,b,c,key,category,points',
		...chapters.flatMap(([chapter, questions]) =>
			Array.from(
				{ length: questions },
				(_, at) =>
					`${chapter} ${at + 1},What does paragraph ${at + 1} of the chapter on ${chapter.toLowerCase()} ask for?,Answer ${at},Reply ${at},Silence ${at},A,${chapter},1`
			)
		)
	];
	await day.hand('watch.csv', table.join('\n'), /watch\.csv/);
	await visitor.press('Review watch.csv');
	await visitor.reads(/Take in 108/);
	await visitor.press('Take in 108');
	await visitor.reads('Receipt');
});
afterAll(() => day?.end());

async function toggle(label: string): Promise<void> {
	steps.count += 1;
	await (
		await visitor.driver.findElement(By.xpath(`//label[contains(@class, "toggle")][contains(., "${label}")]`))
	).click();
}
async function begin(title: string): Promise<void> {
	steps.begin();
	await visitor.go(`/courses/${day.course}/quizzes`);
	await steps.write('input[name=title]', title);
	await steps.press('Make a quiz');
	await visitor.reads('Draw sheet');
}
const saved = () => visitor.reads(/saved \d\d:\d\d/);
const draw = (part: number, count: string) => steps.write(`input[aria-label="How many part ${part} draws"]`, count);
const points = (part: number, each: string) =>
	steps.write(`input[aria-label="Points for each question of part ${part}"]`, each);

describe('the four stories of a draw sheet', () => {
	it('draws ten of 44 at random, with the points told', async () => {
		await begin('Ten of the rules');
		await steps.tick('Rules');
		await visitor.reads('Questions · 44');
		await draw(1, '10');
		const words = await visitor.reads(/is seen by 23 % of the students/);
		expect(words).toContain('10, the same for all');
		expect(words).toContain('Can be filled in every draw.');
		// 44 over 10
		expect(words).toContain('2.4 × 10 to the power of 9 different ones');
		await saved();
		expect(steps.count).toBeLessThanOrEqual(12);
	});
	it('draws five of ten at two points, all options shuffled in one step', async () => {
		await begin('Five of each');
		await steps.tick('Flags');
		await draw(1, '5');
		await points(1, '2,5');
		await steps.press('+ part');
		await steps.tick('Buoys');
		await points(2, 'two');
		await visitor.reads('“two” is no number.');
		await points(2, '2');
		await toggle('shuffle the options of all parts');
		const words = await visitor.reads(/options in order[\s\S]*options in order/);
		expect(words).toContain('22.5, the same for all');
		await saved();
		expect(steps.count).toBeLessThanOrEqual(15);
	});
	it('balances two chapters five and five, and adds five of a third', async () => {
		await begin('Balanced');
		await steps.tick('Lights');
		await steps.tick('Sounds');
		await draw(1, '10');
		await steps.choose('Balance what is drawn over', 'categories');
		await visitor.reads(/Lights\s+12\s+5\s+out\s+Sounds\s+12\s+5/);
		await steps.press('+ part');
		await steps.tick('Shapes');
		await visitor.reads(/15/);
		await saved();
		expect(steps.count).toBeLessThanOrEqual(12);
	});
	it('makes a series of eight, dated weekly, by one sheet', async () => {
		steps.begin();
		await visitor.go(`/courses/${day.course}/quizzes`);
		await steps.press('Make a series …');
		await visitor.reads('Make 8 quizzes');
		await steps.write('input[aria-label="How many each quiz draws"]', '5');
		await steps.write('input[aria-label="The first opens: the day"]', '2.3.2027');
		await visitor.reads('the next each');
		await steps.press('Make 8 quizzes');
		const words = await visitor.reads('Week 8: Anchoring');
		expect(words).toMatch(/Week 8: Anchoring\s+draft\s+1\s+5\s+20 Apr 2027, 08:00\s+27 Apr 2027, 08:00/);
		expect(words).toMatch(/Week 1: Rules\s+draft\s+1\s+5\s+2 Mar 2027, 08:00/);
		expect(steps.count).toBeLessThanOrEqual(9);
	});
});

describe('a sheet that is edited', () => {
	it('is undone and done again, and brought back as it was', async () => {
		await visitor.go(`/courses/${day.course}/quizzes`);
		await visitor.press('Balanced');
		await visitor.reads('What students get');
		await visitor.press('Take part 2 out');
		await visitor.reads(/10, the same for all/);
		await visitor.press('Undo');
		await visitor.reads(/15, the same for all/);
		await visitor.press('Redo');
		await visitor.reads(/10, the same for all/);
		await visitor.press('Undo');
		await visitor.reads(/15, the same for all/);
		// a title is typed, and taken back, in one go
		const title = await visitor.find('input[aria-label="Title of part 2"]');
		await title.sendKeys(' of lights');
		await visitor.press('Undo');
		expect(await (await visitor.find('input[aria-label="Title of part 2"]')).getAttribute('value')).toBe('Part 2');
		await saved();
	});
	it('has its parts dragged into another order, which is undone at a click', async () => {
		const titles = () =>
			visitor.driver.executeScript<string[]>(
				'return [...document.querySelectorAll(\'input[aria-label^="Title of part"]\')].map(({ value }) => value)'
			);
		const before = await titles();
		expect(before).toHaveLength(2);
		const [first, second] = await visitor.driver.findElements(By.css('td.grip'));
		await visitor.drag(second!, first!);
		await visitor.until(async () => (await titles()).join() === before.toReversed().join());
		await visitor.press('Undo');
		await visitor.until(async () => (await titles()).join() === before.join());
		await saved();
	});
	it('says which parts cannot hold together, and what would mend it', async () => {
		await visitor.press('+ part');
		await steps.tick('Lights');
		await draw(3, '9');
		await visitor.reads(/Part 1 wants exactly 5 of .*; Part 3 draws 9 of 12\. .*draw 7 in Part 3/);
		await visitor.reads('2 parts cannot be filled');
		await draw(3, '7');
		await visitor.reads('Can be filled in every draw.');
	});
	it('leaves a question out by a click, and shows the chance of each', async () => {
		for (const segment of await visitor.driver.findElements(By.css('.segment')))
			if ((await segment.getText()).startsWith('Questions')) await segment.click();
		await visitor.reads(/Lights 1\s+\d+ %/);
		await visitor.press('Leave out Lights 1');
		await visitor.reads('1 question left out by hand');
		await visitor.reads('Questions · 11');
		await visitor.press('Put back Lights 1');
		await visitor.reads('Questions · 12');
		await visitor.reads('Can be filled in every draw.');
		await saved();
	});
	it('is shown to another who has it open, who undoes what is not theirs at no price', async () => {
		const other = await Visitor.open(process.env.APPLICATION!);
		try {
			await other.signIn(demoSignIn.email, demoSignIn.password);
			const address = new URL(await visitor.driver.getCurrentUrl()).pathname;
			await other.go(address);
			await other.reads('Can be filled in every draw.');
			await visitor.press('Take part 3 out');
			await visitor.reads(/15, the same for all/);
			await saved();
			await other.reads('has changed this quiz; theirs is shown now.');
			await other.reads(/15, the same for all/);
		} finally {
			await other.close();
		}
	});
	it('is folded, and held beside what it would be without its quotas, and beside another quiz', async () => {
		await visitor.go(`/courses/${day.course}/quizzes`);
		await visitor.press('Balanced');
		await visitor.reads('Draw sheet');
		const open = () => visitor.driver.findElements(By.css('button.fold[aria-expanded=true]'));
		expect(await open()).toHaveLength(1);
		await (await open())[0]!.click();
		await visitor.until(async () => !(await open()).length);
		await visitor.press('beside another');
		const beside = async (name: string) => {
			const option = By.xpath(`//label[contains(., "Beside")]//option[normalize-space(.) = "${name}"]`);
			await (await visitor.located(option, `nothing beside it is called “${name}”`)).click();
		};
		await beside('it without its quotas');
		await visitor.reads(/What students get\s+this sheet\s+without its quotas/);
		expect(await visitor.reads('Both counted exactly.')).toMatch(/Sittings\s+[\d.,× a-z]+\s+[\d.,× a-z]+/);
		const other = await visitor.driver.findElement(By.css('optgroup option'));
		const title = await other.getText();
		await other.click();
		await visitor.reads(new RegExp(`What students get\\s+this sheet\\s+${title}`));
		await visitor.press('this sheet alone');
		await visitor.reads('Another attempt');
	});
	it('keeps pairs apart and groups together, as the figures show at once', async () => {
		await visitor.press('Pairs and groups');
		const find = async (label: string, words: string, title: string) => {
			const field = await visitor.driver.findElement(
				By.xpath(`//label[contains(., "${label}")]//input[@type="search"]`)
			);
			await field.sendKeys(words);
			const found = await visitor.until(
				async () =>
					(
						await visitor.driver.findElements(
							By.xpath(`//ul[@aria-label="Questions found"]//button[contains(., "${title}")]`)
						)
					)[0]
			);
			await found!.click();
		};
		await find('Or by hand: one question', 'lights 3', 'Lights 3');
		await find('never with', 'lights 4', 'Lights 4');
		await visitor.reads(/Lights 3\s+Lights 4\s+allow/);
		await saved();
		await visitor.press('Draw sheet');
		await visitor.reads('Can be filled in every draw.');
	});
});

describe('sittings and forms', () => {
	it('lie side by side for a list of students, the same for each of them whenever they are drawn', async () => {
		await visitor.press('A sitting');
		for (const segment of await visitor.driver.findElements(By.css('.segment')))
			if ((await segment.getText()).startsWith('Side')) {
				await segment.click();
				break;
			}
		await visitor.reads('in 10 sittings');
		const students = await visitor.find('textarea');
		await students.sendKeys('4711\n4712\n4713');
		await visitor.press('Draw 3 sittings');
		await visitor.reads('in 3 sittings');
		const listed = () => visitor.driver.executeScript<string>("return document.querySelector('a[download]').href");
		const first = await listed();
		await visitor.press('Draw 3 sittings');
		await visitor.reads('in 3 sittings');
		expect(await listed()).toBe(first);
		expect(decodeURIComponent(first)).toContain('"4712"');
	});
	it('make forms for thirty with their keys, and mark what was written on them', async () => {
		await visitor.press('Forms');
		await visitor.write('input[aria-label="How many forms"]', '3');
		await visitor.press('Make 3 forms');
		await visitor.reads(/any two share \d/);
		await visitor.press('keys');
		const words = await visitor.reads('form C: the key');
		const keys = new Map<string, string[]>();
		for (const [, form, body] of words.matchAll(/form ([A-C]): the key([\s\S]*?)in all/g))
			keys.set(
				form!,
				[...body!.matchAll(/^\d+\s+([A-C])\s+1\s/gm)].map(([, key]) => key!)
			);
		expect([...keys.values()].map((list) => list.length)).toEqual([15, 15, 15]);
		const papers = Array.from({ length: 30 }, (_, at) => {
			const form = 'ABC'[at % 3]!;
			// the first ten get all of it, the others the first five
			const answers = keys.get(form)!.map((key, place) => (at < 10 || place < 5 ? key : key === 'A' ? 'B' : 'A'));
			return [`student ${at + 1}`, form, ...answers].join(',');
		});
		await visitor.press('Back to the quiz');
		await visitor.press('Forms');
		await visitor.press('mark answers');
		const area = await visitor.find('textarea[aria-label^=Answers]');
		await visitor.driver.executeScript(
			"arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', { bubbles: true }))",
			area,
			papers.join('\n')
		);
		await visitor.press('Mark them');
		const told = await visitor.reads('30 papers');
		expect(told.match(/student \d+\s+[ABC]\s+15 of 15/g)).toHaveLength(10);
		expect(told.match(/student \d+\s+[ABC]\s+5 of 15/g)).toHaveLength(20);
		await visitor.press('Write their difficulty into the bank');
		await visitor.reads(/questions have the difficulty that the papers showed/);
	});
	it('go to another system as quizzes that are fixed', async () => {
		await visitor.press('as fixed quizzes');
		await visitor.reads(/3 forms\s+fixed/);
		await visitor.press('Write and prove');
		await visitor.reads(/Proof of .*3 forms/);
		await visitor.reads(/Read back: (nothing differs|all is as the table said)/);
		await visitor.driver.navigate().back();
		await visitor.driver.navigate().back();
		await visitor.reads('Draw sheet');
		await visitor.press('Forms');
	});
	it('have the paper in front of one, with a place for the name and lines to write on', async () => {
		await visitor.press('papers');
		const words = await visitor.reads('Print 3 forms');
		expect(words).toMatch(/Name\s+Date\s+Points\s+of 15/);
		expect((await visitor.complaints()).filter((line) => !line.includes('favicon'))).toEqual([]);
	});
});

describe('a quiz in the list', () => {
	it('is copied, thrown away and put back', async () => {
		await visitor.go(`/courses/${day.course}/quizzes`);
		await visitor.press('What to do with Balanced');
		await steps.item('Copy it');
		await visitor.reads('What students get');
		await visitor.go(`/courses/${day.course}/quizzes`);
		await visitor.reads('Balanced again');
		await visitor.press('What to do with Balanced again');
		await steps.item('Throw it away');
		await visitor.reads('is thrown away');
		await visitor.press('Undo');
		await visitor.reads('“Balanced again” is back.');
		await visitor.reads(/Balanced again\s+draft/);
	});
	it('is made of a filter that is saved, and draws from what fits it', async () => {
		await visitor.go(`/courses/${day.course}/banks?kind=multiple-choice`);
		await visitor.press('Filter');
		await visitor.write('input[aria-label="A name for this filter"]', 'Choices');
		await visitor.press('Save for the course');
		await visitor.press('make a quiz');
		await visitor.reads('also what comes later');
		expect(await visitor.reads('What students get')).toContain('only some of them');
		await visitor.reads('Questions · 108');
	});
	it('is made of a category in its bank, with one choice', async () => {
		await visitor.go(`/courses/${day.course}/banks`);
		await (
			await visitor.driver.findElement(
				By.xpath('//*[@data-part="branch-control" or @data-part="item"][contains(., "Radio")]')
			)
		).click();
		await visitor.reads(/1 of 8|8 questions/);
		await visitor.until(async () => {
			for (const button of await visitor.driver.findElements(
				By.xpath('//button[contains(., "Radio") or contains(., "Category")]')
			))
				if (await button.isDisplayed()) {
					await button.click();
					return true;
				}
			return false;
		});
		await steps.item('Make a quiz that draws from it');
		await visitor.reads('Questions · 8');
	});
});
