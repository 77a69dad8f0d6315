// Makes the pictures in docs/screenshots of a running application with the demo data in it:
// node --import tsx scripts/screenshots.ts [ADDRESS] [FOLDER] [light|dark] [NAME …]
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { demoSignIn } from '../demo/fill';
import { Visitor } from '../e2e/browser';

const [address = 'http://127.0.0.1:4180', folder = 'docs/screenshots', mode = 'light', ...only] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const example =
	'# Knots\n1. Which knot makes a loop that does not slip?\n*a) Bowline\nb) Reef knot\nc) Sheet bend\nPoints: 2\n\n2. Match each knot to its use.\nbowline = a loop\nreef knot = two ropes of one size\n\n3. How many metres are there in a nautical mile?\nAnswer: 1852\n';
const knots = (text: string, sort: string, mix: string, answers: [string, number][]) => ({
	wording: text,
	sort,
	mix,
	worth: 2,
	replies: answers.map(([says, share]) => ({ says, share }))
});
const records = {
	made: 'spring',
	chapters: [
		{
			label: 'Loops',
			entries: [
				knots('Which knot makes a loop that does not slip?', 'one of several', 'J', [
					['Bowline', 100],
					['Reef knot', 0],
					['Noose', 0]
				]),
				knots('Which of these are loops?', 'several of several', 'J', [
					['Bowline', 50],
					['Figure of eight on the bight', 50],
					['Sheet bend', -50]
				])
			]
		},
		{
			label: 'Bends',
			entries: [
				knots('Which knot joins two ropes of different thickness?', 'one of several', 'N', [
					['Sheet bend', 100],
					['Reef knot', 0]
				])
			]
		}
	]
};
const visitor = await Visitor.open(address);
const shoot = async (name: string, path: string | null, act: () => Promise<void> = async () => undefined) => {
	if (only.length && !only.includes(name)) return;
	if (path !== null) await visitor.go(path);
	await act();
	await visitor.driver.sleep(400);
	writeFileSync(join(folder, `${name}.png`), await visitor.picture());
};
try {
	await visitor.go('/signin');
	await visitor.mode(mode as 'light' | 'dark');
	await shoot('sign-in', '/signin');
	await visitor.signIn(demoSignIn.email, demoSignIn.password);
	await shoot('courses', '/');
	await visitor.press('Tides and Charts');
	await visitor.settle();
	const course = /\/courses\/(\d+)/.exec(await visitor.driver.getCurrentUrl())![1]!;
	await shoot('loads', `/courses/${course}/loads`);
	await shoot('review', `/courses/${course}/loads`, async () => {
		await visitor.press('autumn-charts.zip');
		await visitor.reads('Contents');
	});
	await shoot('rules', `/courses/${course}/loads`, async () => {
		await visitor.press('chart-sums.zip');
		await visitor.reads('Contents');
		await visitor.choose('Snag', /No key/);
		await (await visitor.find('[data-row]')).click();
		await visitor.press('Edit');
		await visitor.press('Rules');
	});
	await shoot('aside', `/courses/${Number(course) + 1}/loads/aside`, async () => {
		await visitor.reads('Set aside: ');
	});
	await shoot('paste', `/courses/${course}/loads/paste`, async () => {
		await (await visitor.find('textarea')).sendKeys(example);
		await visitor.reads('3 questions found');
	});
	await shoot('recipe', `/courses/${course}/loads`, async () => {
		if (!(await visitor.words()).includes('knots.json')) {
			const path = join(mkdtempSync(join(tmpdir(), 'barrow-pictures-')), 'knots.json');
			writeFileSync(path, JSON.stringify(records));
			await (await visitor.driver.findElement(By.css('input[type=file]:not([webkitdirectory])'))).sendKeys(path);
		}
		await visitor.press('Recipe for knots.json');
		await visitor.reads('Say what is what');
		await visitor.write('input.mono', 'chapters[*].entries[*]');
		for (const [field, meaning] of [
			['wording', 'stem'],
			['sort', 'kind'],
			['mix', 'shuffle'],
			['worth', 'points'],
			['replies[*]', 'options'],
			['replies[*].says', 'its text'],
			['replies[*].share', 'its credit']
		])
			await visitor.choose(`What “${field}” means`, meaning!);
		await visitor.reads('A full credit is written as');
		await visitor.reads('3 questions');
	});
	await shoot('receipt', `/courses/${course}/loads`, async () => {
		await visitor.press('spring-intake.zip');
		await visitor.reads('Receipt');
	});
	await shoot('bank', `/courses/${course}/banks`, async () => {
		await (await visitor.find('[data-row]:nth-child(8)')).click();
	});
	await shoot('weave', `/courses/${course}/banks?view=weave`, async () => {
		await (await visitor.find('[data-cell="1 1"]')).click();
	});
	await shoot('edit', `/courses/${course}/banks`, async () => {
		await visitor.reads('1 of 43');
		await (await visitor.find('[data-row]:nth-of-type(2)')).click();
		await visitor.press('Edit');
		await (await visitor.find('[role=textbox][aria-label=Stem]')).click();
		await visitor.find('[role=toolbar]');
	});
	await shoot('course', `/courses/${course}/settings`, async () => {
		await visitor.press('What it goes by');
		await visitor.reads('A check that is off has no snags.');
	});
	await shoot('snags', `/courses/${Number(course) + 1}/snags?check=escaped-twice`);
	await shoot('draw-sheet', `/courses/${course}/quizzes`, async () => {
		await visitor.press('Week 6 check');
		await visitor.reads('Draw sheet');
	});
	await shoot('sitting', `/courses/${course}/quizzes`, async () => {
		await visitor.press('Week 6 check');
		await visitor.press('A sitting');
		await visitor.reads('Warm-up');
	});
	await shoot('dispatch', `/courses/${course}/dispatch`, async () => {
		await visitor.press('Write and prove');
		await visitor.reads('Read back');
	});
	await shoot('ledger', `/courses/${course}/ledger`);
	for (const complaint of await visitor.complaints()) console.error(complaint.slice(0, 300));
} finally {
	await visitor.close();
}
