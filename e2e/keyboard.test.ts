import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { demoSignIn } from '../demo/fill';
import { Visitor } from './browser';

let visitor: Visitor;
let course = '';
beforeAll(async () => {
	visitor = await Visitor.open(process.env.APPLICATION!);
	await visitor.signIn(demoSignIn.email, demoSignIn.password);
	course = await visitor.openCourse('Tides and Charts');
});
afterAll(() => visitor.close());
beforeEach(async () => {
	await visitor.go(`/courses/${course}/banks`);
	await visitor.reads('1 of 43');
	await visitor.driver.sleep(300);
});

const type = (...keys: string[]) => visitor.type(...keys);
const focused = async () => (await visitor.driver.switchTo().activeElement()).getText();
const focus = async (selector: string) =>
	visitor.driver.executeScript('arguments[0].focus()', await visitor.find(selector));

describe('by keyboard alone one can', () => {
	it('go from tab to tab with the arrow keys', async () => {
		await focus('[role=tab][aria-selected=true]');
		await type(Key.ARROW_RIGHT);
		expect(await focused()).toBe('Try it');
		expect(await (await visitor.find('[role=tab][aria-selected=true]')).getText()).toBe('Try it');
		await type(Key.END);
		expect(await focused()).toBe('About');
		await visitor.reads('Used in');
		await type(Key.HOME);
		expect(await focused()).toBe('Question');
	});
	it('go through the tree, shut a category and open it again, and choose one', async () => {
		const shown = async () => (await visitor.driver.findElements(By.css('[role=treeitem]'))).length;
		await focus('[role=treeitem][aria-selected=true], [role=tree] [tabindex="0"]');
		const before = await shown();
		await type(Key.ARROW_DOWN);
		expect(await focused()).toContain('Tidal theory');
		await type(Key.ARROW_LEFT);
		expect(await shown()).toBeLessThan(before);
		await type(Key.ARROW_RIGHT);
		expect(await shown()).toBe(before);
		await type('c');
		expect(await focused()).toContain('Chartwork');
		await type(Key.ENTER);
		await visitor.reads(/Chartwork\s+16/);
		expect(await visitor.driver.getCurrentUrl()).toContain('category=');
	});
	it('go through the questions, and back to the first', async () => {
		await type('j', 'j', 'j');
		await visitor.reads('4 of 43');
		await type('k');
		await visitor.reads('3 of 43');
		await focus('[role=rowgroup]');
		await type(Key.END);
		await visitor.reads('43 of 43');
		await type(Key.HOME);
		await visitor.reads('1 of 43');
	});
	it('open the sheet of the keys and close it, and find the focus where it was', async () => {
		await focus('[aria-label="Keys"]');
		await type(Key.ENTER);
		await visitor.reads('to Loads, Banks, Snags, Quizzes, Dispatch');
		await type(Key.ESCAPE);
		await visitor.until(
			async () => (await visitor.driver.findElements(By.css('[role=dialog][data-state=open]'))).length === 0
		);
		expect(await visitor.driver.executeScript('return document.activeElement.getAttribute("aria-label")')).toBe('Keys');
	});
	it('open a sheet and write at once into its first field', async () => {
		const written = async (text: string) => {
			await visitor.find('[role=dialog][data-state=open]');
			await visitor.until(
				async () => !!(await visitor.driver.executeScript('return document.activeElement.matches("input, textarea")')),
				'no field has the focus'
			);
			await type(text);
			return visitor.driver.executeScript('return document.activeElement.value');
		};
		await focus('input[aria-label="Select all that are listed"]');
		await type(Key.SPACE);
		await visitor.reads('43 selected');
		for (const [opens, text] of [
			['Points …', '2,5'],
			['Tags …', 'spring'],
			['Move …', '']
		] as const) {
			await visitor.press(opens);
			if (text) expect(await written(text), opens).toBe(text);
			else
				await visitor.until(
					async () => (await visitor.driver.switchTo().activeElement().getTagName()) === 'select',
					'the choice of a bank has not the focus'
				);
			await type(Key.ESCAPE);
			await visitor.driver.sleep(400);
		}
		await visitor.press('Category');
		expect(await written('Sounds')).toBe('Sounds');
		await type(Key.ESCAPE);
	});
	it('find another course and go there', async () => {
		await focus('.course-button');
		await type(Key.ENTER);
		await visitor.find('input[aria-label="Find a course"]');
		await type('buoy', Key.ARROW_DOWN, Key.ENTER);
		await visitor.until(
			async () => !(await visitor.driver.getCurrentUrl()).includes(`/courses/${course}/`),
			'it stayed in the course'
		);
		await visitor.reads('Buoyage and Lights');
	});
	it('leave by the menu of the person', async () => {
		await focus('.me');
		await type(Key.ENTER);
		await visitor.find('[role=menuitem]');
		await type(Key.ARROW_DOWN);
		expect(await visitor.words()).toContain('Sign out');
		await type(Key.ESCAPE);
		await visitor.reads('1 of 43');
	});
});
