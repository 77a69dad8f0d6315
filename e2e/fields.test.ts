import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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

const type = (...keys: string[]) => visitor.type(...keys);
const focused = async (attribute: string) => (await visitor.driver.switchTo().activeElement()).getAttribute(attribute);

describe('a form', () => {
	it('says beside each field what is wrong with it, and sends nothing before all is well', async () => {
		await visitor.go('/');
		await visitor.driver.executeScript(
			'window.sent = 0; const fetched = window.fetch; window.fetch = (...given) => (window.sent++, fetched(...given))'
		);
		await visitor.press('Make a course');
		await visitor.press('Make it');
		await visitor.reads('Give the course a name.');
		await visitor.reads('Give the course a code, such as TC-S27.');
		expect(await focused('name')).toBe('name');
		await type('Splices', Key.TAB);
		const described = await visitor.find('input[name=name]');
		expect(await described.getAttribute('aria-invalid')).toBeNull();
		expect(await (await visitor.find('input[name=code]')).getAttribute('aria-invalid')).toBe('true');
		await visitor.write('input[name=code]', 'X'.repeat(41));
		await visitor.reads('A code has 40 letters at the most.');
		expect(await visitor.driver.executeScript('return window.sent')).toBe(0);
	});
	it('is held against the same rules while one fills it in', async () => {
		await visitor.go('/me');
		await visitor.write('input[name=password]', 'short');
		await visitor.reads('A password has 10 letters at the least.');
		await visitor.write('input[name=password]', 'long-enough-now');
		await visitor.write('input[name=again]', 'long-enough-but-other');
		await visitor.reads('The two are not the same.');
		const words = await visitor.words();
		expect(words).not.toContain('A password has 10 letters');
	});
});

describe('a form whose page is slow', () => {
	const network = (latency: number) =>
		visitor.driver.sendDevToolsCommand('Network.emulateNetworkConditions', {
			offline: false,
			latency,
			downloadThroughput: -1,
			uploadThroughput: -1
		});
	it('keeps what is written before the page has come alive', async () => {
		await visitor.driver.sendDevToolsCommand('Network.enable', {});
		await visitor.driver.sendDevToolsCommand('Network.setCacheDisabled', { cacheDisabled: true });
		await network(700);
		try {
			await visitor.driver.get(`${process.env.APPLICATION!}/me`);
			const name = await visitor.find('input[name=name]');
			await name.clear();
			await name.sendKeys('Mira of the quay');
			const isAlive = () =>
				visitor.driver.executeScript<boolean>(
					"return document.querySelector('input[name=name]').closest('form').noValidate"
				);
			expect(await isAlive()).toBe(false);
			await visitor.until(isAlive);
			await visitor.driver.sleep(300);
			expect(await name.getAttribute('value')).toBe('Mira of the quay');
		} finally {
			await network(0);
		}
	});
});

describe('a form', () => {
	it('is sent where the fault is in what it has no field for, so that the answer says what is wrong', async () => {
		await visitor.go('/');
		await visitor.press('Make a course');
		await visitor.write('input[name=name]', 'Splices');
		await visitor.driver.executeScript("document.querySelector('input[name=code]').closest('.field').remove()");
		await visitor.press('Make it');
		await visitor.reads('Give the course a code, such as TC-S27.');
	});
});

describe('numbers', () => {
	it('may have a comma, and what is none is said and changes nothing', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.reads('1 of 43');
		await (await visitor.driver.findElement(By.xpath('//*[@data-row][contains(., "A lunar day")]'))).click();
		await visitor.reads('4 of 43');
		await visitor.press('Edit');
		const points = await visitor.find('input[aria-label=Points]');
		await points.clear();
		await points.sendKeys('2,5');
		const credit = await visitor.find('input[aria-label="Credit of number 1"]');
		await credit.clear();
		await credit.sendKeys('fifty', Key.TAB);
		await visitor.reads('“fifty” is no number.');
		await visitor.press('Source');
		await visitor.press('Edit');
		expect(await (await visitor.find('input[aria-label=Points]')).getAttribute('value')).toBe('2.5');
		await visitor.press('Leave it as it was');
	});
});

describe('tags', () => {
	it('are typed one after the other, taken out by key, and offered as they were written before', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.reads('1 of 43');
		await (await visitor.find('input[aria-label="Select all that are listed"]')).click();
		await visitor.press('Tags …');
		await visitor.find('[role=dialog][data-state=open]');
		await visitor.driver.sleep(300);
		await type('splice', Key.ENTER, 'whipping,', 'se', 'izing', Key.ENTER);
		const shown = async () =>
			Promise.all(
				(await visitor.driver.findElements(By.css('[role=dialog] .tag'))).map(async (tag) =>
					(await tag.getText()).trim()
				)
			);
		expect(await shown()).toEqual(['splice', 'whipping', 'seizing']);
		await type(Key.BACK_SPACE, Key.BACK_SPACE);
		expect(await shown()).toEqual(['splice', 'whipping']);
		await visitor.press('Take splice out');
		expect(await shown()).toEqual(['whipping']);
		await visitor.reads(/Change 4\d questions/);
		await visitor.press('Leave it');
	});
});

describe('a day', () => {
	it('is chosen from the calendar by keyboard alone, and a wrong one is said and not taken', async () => {
		await visitor.go(`/courses/${course}/quizzes`);
		await visitor.press('Make a series …');
		const day = '[role=dialog] input[aria-label="The first opens: the day"]';
		await visitor.write(day, '30.2.2027');
		await visitor.reads('“30.2.2027” is no day');
		await visitor.write(day, '26.2.2027');
		expect(await (await visitor.find(day)).getAttribute('value')).toBe('2027-02-26');
		await visitor.driver.executeScript(
			'arguments[0].focus()',
			await visitor.find('button[aria-label="The first opens: choose the day"]')
		);
		await type(Key.ENTER);
		await visitor.reads('February 2027');
		await type(Key.ARROW_DOWN);
		await visitor.reads('March 2027');
		await type(Key.ENTER);
		expect(await (await visitor.find(day)).getAttribute('value')).toBe('2027-03-05');
		expect(
			await (await visitor.find('[role=dialog] input[aria-label="The first opens: the time"]')).getAttribute('value')
		).toBe('08:00');
		await visitor.write(day, ' ');
		await visitor.driver.sleep(200);
		expect(await visitor.words()).not.toContain('the next each');
	});
});

describe('a formula', () => {
	it('is written in TeX or in MathML, told what is wrong with it, and changed as it is written', async () => {
		await visitor.go(`/courses/${course}/banks`);
		await visitor.reads('1 of 43');
		await visitor.press('Edit');
		await (await visitor.find('[role=textbox][aria-label=Stem]')).click();
		await visitor.find('[role=toolbar]');
		await visitor.press('Formula');
		await visitor.press('MathML');
		const box = await visitor.find('textarea[aria-label="Formula in MathML"]');
		await box.sendKeys('<math><mfrac><mi>h</mi></math>');
		await visitor.reads('That is not well-formed');
		await box.clear();
		await box.sendKeys('<math><mfrac><mi>h</mi><script>1</script></mfrac></math>');
		await visitor.reads('<script> is no element that is kept.');
		await box.clear();
		await box.sendKeys('<math><mfrac><mi>h</mi><mn>12</mn></mfrac></math>');
		await visitor.find('.formula-box [aria-label="As it is shown"] mfrac');
		await (await visitor.find('.formula-box .preset-filled-brand')).click();
		const put = await visitor.find('.tiptap .formula mfrac');
		expect(await put.getText()).toMatch(/h\s*12/);
		await visitor.press('Formula');
		await (await visitor.find('input[aria-label="Formula in TeX"]')).sendKeys('\\sqrt{x}', Key.ENTER);
		const root = await visitor.find('.tiptap .formula msqrt');
		await visitor.driver.actions().move({ origin: root }).click().perform();
		await visitor.press('Formula');
		const tex = await visitor.find('input[aria-label="Formula in TeX"]');
		expect(await tex.getAttribute('value')).toBe('\\sqrt{x}');
		await tex.sendKeys('^2');
		await (await visitor.find('.formula-box .preset-filled-brand')).click();
		await visitor.find('.tiptap .formula msup');
		expect(await visitor.driver.findElements(By.css('.tiptap .formula'))).toHaveLength(2);
		await visitor.press('Leave it as it was');
	});
});
