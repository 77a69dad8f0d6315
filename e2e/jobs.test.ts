import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoSignIn } from '../demo/fill';
import { Visitor } from './browser';
import { Day } from './day';
import { Steps } from './steps';

const inSheet = (selector: string) => `[role=dialog][data-state=open] ${selector}`;
const quizzes = ['Ropes week 1', 'Ropes week 2', 'Ropes week 3'];
let day: Day;
let visitor: Visitor;
let steps: Steps;
/** A question of a quiz with four options, of which the first is right. */
const item = (ident: string, stem: string) =>
	`<item ident="${ident}" title="${stem}"><presentation><material><mattext>${stem}</mattext></material><response_lid ident="R" rcardinality="Single"><render_choice>${[
		'Nylon',
		'Polyester',
		'Hemp',
		'Steel'
	]
		.map(
			(words, at) =>
				`<response_label ident="${'ABCD'[at]}"><material><mattext>${words}</mattext></material></response_label>`
		)
		.join(
			''
		)}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar/></outcomes><respcondition><conditionvar><varequal respident="R">A</varequal></conditionvar><setvar action="Set">1</setvar></respcondition></resprocessing></item>`;
const quiz = (title: string, at: number) =>
	`<questestinterop><assessment ident="Q${at}" title="${title}"><section ident="S${at}" title="Part one">${Array.from(
		{ length: 5 },
		(_, number) => item(`q${at}-${number}`, `Which rope serves purpose ${number + 1} of week ${at}?`)
	).join('')}</section></assessment></questestinterop>`;

beforeAll(async () => {
	const maker = await Visitor.open(process.env.APPLICATION!);
	await maker.signIn(demoSignIn.email, demoSignIn.password);
	await maker.press('Make a course');
	await maker.write('input[name=code]', 'SM-S27');
	await maker.write('input[name=name]', 'Seamanship');
	await maker.press('Make it');
	await maker.reads('Loads of this course');
	await maker.close();
	day = await Day.begin('Seamanship');
	({ visitor } = day);
	steps = new Steps(visitor);
	await day.hand(
		'ropes.csv',
		[
			'title,question,a,b,key,category',
			...Array.from(
				{ length: 12 },
				(_, at) => `Splice ${at + 1},What is splice ${at + 1} good for?,Eyes,Ends,A,Splices`
			)
		].join('\n'),
		/ropes\.csv/
	);
	await visitor.press('Review ropes.csv');
	await visitor.reads(/Take in 12/);
	await visitor.press('Take in 12');
	await visitor.reads('Receipt');
	for (const [at, title] of quizzes.entries()) {
		await day.hand(`week-${at + 1}.xml`, quiz(title, at + 1), new RegExp(`week-${at + 1}\\.xml`));
		await visitor.press(`Review week-${at + 1}.xml`);
		await visitor.reads(/Take in 5/);
		await visitor.press('Take in 5');
		await visitor.reads('Receipt');
	}
});
afterAll(() => day?.end());

/** Takes the keys of all questions that the page lists away, as an edit of each would. */
async function takeKeysAway(): Promise<void> {
	const failed = await visitor.driver.executeAsyncScript<string>(`
		const done = arguments[arguments.length - 1];
		(async () => {
			const bank = document.querySelector('select[aria-label="Bank"]').value;
			const base = location.pathname;
			const { rows } = await (await fetch(base + '/rows?from=0&bank=' + bank)).json();
			for (const { id } of rows) {
				const { question, version } = await (await fetch(base + '/questions/' + id)).json();
				for (const option of question.options) option.credit = 0;
				const sent = await fetch(base + '/questions/' + id, {
					method: 'PUT',
					headers: { 'content-type': 'application/json' },
					body: JSON.stringify({ version, question })
				});
				if (!sent.ok) return await sent.text();
			}
			return '';
		})().then(done, (problem) => done(String(problem)));`);
	expect(failed).toBe('');
}

describe('a job takes no more steps than it needs:', () => {
	it('all points of a bank, in one step on what is selected', async () => {
		await visitor.go(`/courses/${day.course}/banks`);
		await visitor.choose('Bank', /^ropes/);
		await visitor.reads('1 of 12');
		await steps.tick('Select all that are listed');
		steps.begin();
		await steps.press('Points …');
		await steps.write(inSheet('input'), '2');
		await visitor.reads('Change 12 questions');
		await steps.press('Change 12 questions');
		await visitor.reads('12 questions: 2 points each.');
		expect(steps.count).toBeLessThanOrEqual(3);
	});
	it('ten keys, a key of the keyboard for each and one to go on', async () => {
		await visitor.go(`/courses/${day.course}/banks`);
		await visitor.choose('Bank', /^ropes/);
		await visitor.reads('1 of 12');
		await takeKeysAway();
		await visitor.driver.navigate().refresh();
		await visitor.reads('1 of 12');
		await visitor.press('Set keys');
		steps.begin();
		for (let at = 0; at < 10; at += 1) {
			await visitor.reads(`What is splice ${at + 1} good for?`);
			await steps.key('b');
			await visitor.find('button.option.key');
			expect(await (await visitor.find('button.option.key')).getText()).toContain('Ends');
			await steps.key(Key.ENTER);
		}
		expect(steps.count).toBeLessThanOrEqual(20);
		await visitor.type(Key.ESCAPE);
		await visitor.go(`/courses/${day.course}/banks?snag=no-key`);
		await visitor.choose('Bank', /^ropes/);
		await visitor.reads('1 of 2');
	});
	it('the questions of three quizzes, gathered into one bank in 6', async () => {
		await visitor.go(`/courses/${day.course}/quizzes`);
		await visitor.reads(quizzes[2]!);
		steps.begin();
		for (const title of quizzes) await steps.tick(`Select ${title}`);
		await steps.press('Gather the questions of 3 quizzes');
		await steps.write(inSheet('input[maxlength="190"]'), 'Ropes of the spring');
		await steps.press('Gather 15 questions');
		await visitor.reads('15 questions stand in');
		expect(steps.count).toBeLessThanOrEqual(6);
		await visitor.go(`/courses/${day.course}/banks`);
		await visitor.choose('Bank', /^Ropes of the spring/);
		await visitor.reads('1 of 15');
	});
	it('five questions that only a quiz has, into a category that all share in 9', async () => {
		await visitor.go(`/courses/${day.course}/quizzes`);
		await visitor.reads(quizzes[0]!);
		steps.begin();
		await steps.tick(`Select ${quizzes[0]}`);
		await steps.press('Gather the questions of 1 quiz');
		await visitor.reads('They name 5 questions');
		await steps.write(inSheet('input[maxlength="255"]'), 'Splices');
		await steps.chooseInSheet('Into the bank', 'ropes');
		await steps.press('Gather 5 questions');
		await visitor.reads('5 questions stand in');
		expect(steps.count).toBeLessThanOrEqual(9);
		await visitor.go(`/courses/${day.course}/banks`);
		await visitor.choose('Bank', /^ropes/);
		await visitor.reads('1 of 17');
		await visitor.press('Splices');
		await visitor.reads('1 of 17');
	});
	it('a category with all under it, from one course to another in 7', async () => {
		await visitor.go(`/courses/${day.course}/banks`);
		await visitor.choose('Bank', /^ropes/);
		await visitor.reads('1 of 17');
		steps.begin();
		await steps.press('Splices');
		await steps.menu('What to do with the category', 'Move or copy to another bank');
		await steps.chooseInSheet('Bank', 'Marks of region A');
		await visitor.reads('17 questions in 1 category');
		await steps.press('Move 17 questions');
		await visitor.reads('17 of 17 questions moved to');
		expect(steps.count).toBeLessThanOrEqual(7);
		await visitor.press('Undo');
		await visitor.reads('1 of 17');
		expect(await visitor.complaints()).toEqual([]);
	});
});

describe('work that takes longer', () => {
	it('is shown in the sheet that asked for it, and is stopped there by mouse and by key', async () => {
		await visitor.go(`/courses/${day.course}/banks`);
		await visitor.choose('Bank', /^ropes/);
		await visitor.reads('1 of 17');
		await steps.tick('Select all that are listed');
		await visitor.press('Points …');
		await visitor.write(inSheet('input'), '5');
		await visitor.reads('Change 17 questions');
		// the server answers as it does where there is much to do, and does not come to an end
		await visitor.driver.executeScript(`
			const real = window.fetch;
			window.fetch = (address, options) =>
				String(address).includes('/bulk') && !String(address).includes('preview')
					? Promise.resolve(new Response(new ReadableStream({
							start(controller) {
								controller.enqueue(new TextEncoder().encode('{"done":5,"total":17}\\n'));
								options.signal.addEventListener('abort', () => controller.error(options.signal.reason));
							}
						}), { headers: { 'content-type': 'application/x-ndjson' } }))
					: real(address, options);`);
		for (const how of ['mouse', 'key']) {
			await visitor.press('Change 17 questions');
			await visitor.reads('5 of 17');
			const stop = await visitor.driver.findElement(
				By.xpath('//*[@role="dialog"]//button[normalize-space(.) = "Stop"]')
			);
			if (how === 'mouse') await stop.click();
			else await stop.sendKeys(Key.ENTER);
			await visitor.reads('It was stopped. Nothing was changed.');
			expect(await visitor.words()).not.toContain('5 of 17');
		}
		expect(await visitor.complaints()).toEqual([]);
	});
});

describe('a very long word', () => {
	it('stays in its column, in a title, a stem and the name of a category', async () => {
		const tooWide = () =>
			visitor.driver.executeScript<string[]>(
				"return [...document.querySelectorAll('section.column')].filter((column) => column.scrollWidth > column.clientWidth + 1).map((column) => column.getAttribute('aria-label'))"
			);
		const long = 'Donaudampfschifffahrtsgesellschaftskapitänsmützenabzeichen'.repeat(2);
		await day.hand(
			'long.csv',
			`title,question,a,b,key,category\n${long},What is a ${long}?,Eyes,Ends,A,${long}`,
			/long\.csv/
		);
		await visitor.press('Review long.csv');
		await visitor.reads(`What is a ${long}?`);
		expect(await tooWide()).toEqual([]);
		await visitor.press('Take in 1');
		await visitor.reads('Receipt');
		await visitor.go(`/courses/${day.course}/banks`);
		await visitor.choose('Bank', /^long/);
		await visitor.reads(`What is a ${long}?`);
		expect(await tooWide()).toEqual([]);
	});
});
