import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoLookIn, demoSignIn } from '../demo/fill';
import { zipped } from '../core/test-support/packages';
import { Visitor } from './browser';
import { Day } from './day';

const address = process.env.APPLICATION!;
const samples = new URL('../core/test-support/samples/', import.meta.url).pathname;
let day: Day;
let visitor: Visitor;
beforeAll(async () => {
	day = await Day.begin('Tides and Charts', address);
	({ visitor } = day);
});
afterAll(() => day.end());
const hand = (name: string, content: Uint8Array) => day.hand(name, content, name);
const back = async () => {
	await visitor.press('Loads');
	await visitor.reads('Loads of this course');
};

describe('a damaged package', () => {
	it('whose zip was cut short is refused in plain words, and can be thrown away', async () => {
		await hand('cut-short.zip', readFileSync(join(samples, 'tides-and-charts.zip')).subarray(0, 3000));
		await visitor.reads(/cut-short\.zip[\s\S]*The zip file is damaged/);
		await visitor.press('Throw cut-short.zip away');
		await visitor.until(async () => !(await visitor.words()).includes('cut-short.zip'));
	});
	it('is read as far as it can be, and says which question, where, and what to do', async () => {
		await hand('radio-damaged.zip', readFileSync(join(samples, 'radio-damaged.zip')));
		await visitor.reads(/radio-damaged\.zip[\s\S]*to review/);
		await visitor.press('Review radio-damaged.zip');
		await visitor.reads('13 questions');
		await visitor.press('things to know');
		const words = await visitor.reads('was refused');
		for (const one of ['items/d11.xml', 'items/d12.xml', 'items/d16.xml']) expect(words).toContain(one);
		// the item that is not well-formed counts, and is read once its markup is put right
		await visitor.write('input[aria-label="Find a question"]', 'Broken file');
		await (await visitor.find('[data-row]')).click();
		await visitor.reads(/Its markup is not well-formed, in line 17/);
		await visitor.press('Put the markup right and read it');
		await visitor.reads(/Mended 1 question/);
		await visitor.reads('Ship & shore: who calls first?');
		await visitor.write('input[aria-label="Find a question"]', 'Active content');
		await (await visitor.find('[data-row]')).click();
		await visitor.reads('A longer range');
		expect(await visitor.driver.executeScript('return document.title')).toContain('Review');
		expect(
			await visitor.driver.executeScript(
				"return document.querySelectorAll('.column.paper script, .column.paper [onclick], .column.paper [onerror]').length"
			)
		).toBe(0);
	});
	it('without questions says what it does hold', async () => {
		await back();
		await hand('pictures.zip', zipped({ 'a.png': 'x', 'b.png': 'y' }));
		await visitor.reads('No questions were found in it. It holds 2 files: 2 png.');
	});
	it('that is no text says so in the list, and its page offers nothing that cannot be done', async () => {
		await hand(
			'gannet.dat',
			Uint8Array.from({ length: 3000 }, (_, at) => (at * 7919) % 256)
		);
		await visitor.reads('“gannet.dat” is no text in any encoding');
		await visitor.press('gannet.dat');
		const words = await visitor.reads('Nothing can be taken in from this file');
		expect(words).toContain('save it as text there');
		expect(
			await visitor.driver.executeScript(
				"return document.querySelectorAll('.column [type=search], .column table, .column [role=table]').length"
			)
		).toBe(0);
		await back();
	});
	it('that is empty is refused before it is sent', async () => {
		await hand('empty.zip', new Uint8Array());
		await visitor.reads('It is empty.');
	});
	it('leaves no complaint in the browser', async () => {
		expect(await visitor.complaints()).toEqual([]);
	});
});

describe('who may do what', () => {
	it('lets nobody in who is not signed in', async () => {
		const answer = await fetch(`${address}/courses/1/loads`, { redirect: 'manual' });
		expect(answer.status).toBe(303);
		expect(answer.headers.get('location')).toContain('/signin?to=');
		expect(
			(
				await fetch(`${address}/courses/1/loads/upload?id=1&offset=0`, {
					method: 'PUT',
					body: 'x',
					headers: { 'content-type': 'application/octet-stream' }
				})
			).status
		).toBe(401);
	});
	it('refuses a wrong password in plain words', async () => {
		const other = await Visitor.open(address);
		try {
			await other.go('/signin');
			await (await other.find('input[name=email]')).sendKeys(demoSignIn.email);
			await (await other.find('input[name=password]')).sendKeys('wrong');
			await other.press('Sign in');
			await other.reads('do not belong together');
		} finally {
			await other.close();
		}
	});
	it('shows everything to one who may look, and offers nothing to change', async () => {
		const other = await Visitor.open(address);
		try {
			await other.signIn(demoLookIn.email, demoLookIn.password);
			await other.press('Tides and Charts');
			const words = await other.reads('Loads of this course');
			expect(words).not.toContain('Choose files');
			const held = await other.driver.executeScript(
				`const files = new DataTransfer();
				files.items.add(new File(['1. Which knot?'], 'knots.txt'));
				const drop = new DragEvent('drop', { dataTransfer: files, bubbles: true, cancelable: true });
				return !document.querySelector('main').dispatchEvent(drop);`
			);
			expect(held, 'the browser does not open the file instead').toBe(true);
			await other.reads('You may only look at Tides and Charts, so nothing was taken in.');
			const course = /\/courses\/(\d+)/.exec(await other.driver.getCurrentUrl())![1]!;
			const cookie = await other.driver.manage().getCookie('barrow_session');
			expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
			const sent = await fetch(`${address}/courses/${course}/loads/upload?id=1&offset=0`, {
				method: 'PUT',
				body: 'x',
				headers: { cookie: `barrow_session=${cookie.value}`, origin: address }
			});
			expect(sent.status).toBe(403);
			const foreign = await fetch(`${address}/courses/${course}/quizzes/1`, {
				method: 'PUT',
				body: '{}',
				headers: { cookie: `barrow_session=${cookie.value}`, origin: 'https://elsewhere.example' }
			});
			expect(foreign.status).toBe(403);
		} finally {
			await other.close();
		}
	});
	it('answers with a strict content security policy', async () => {
		const answer = await fetch(`${address}/signin`);
		const policy = answer.headers.get('content-security-policy') ?? '';
		expect(policy).toContain("default-src 'self'");
		expect(policy).toContain("object-src 'none'");
		expect(policy).not.toMatch(/script-src[^;]*unsafe-inline/);
		expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
	});
});
