import AxeBuilder from '@axe-core/webdriverjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoSignIn } from '../demo/fill';
import { Visitor } from './browser';

let visitor: Visitor;
let course = '';
beforeAll(async () => {
	visitor = await Visitor.open(process.env.APPLICATION!);
	await visitor.signIn(demoSignIn.email, demoSignIn.password);
	await visitor.press('Tides and Charts');
	await visitor.reads('Loads of this course');
	course = /\/courses\/(\d+)/.exec(await visitor.driver.getCurrentUrl())![1]!;
});
afterAll(() => visitor.close());

const pages: [string, string, ((visitor: Visitor) => Promise<void>)?][] = [
	['the courses', '/'],
	['the loads', '/courses/C/loads'],
	[
		'a review',
		'/courses/C/loads',
		async (one) =>
			void (await one.press('Review autumn-charts.zip'), await one.reads('Contents'), await one.driver.sleep(500))
	],
	[
		'a receipt',
		'/courses/C/loads',
		async (one) => void (await one.press('spring-intake.zip'), await one.reads('Receipt'))
	],
	[
		'the rules of a review',
		'/courses/C/loads',
		async (one) =>
			void (await one.press('Review autumn-charts.zip'), await one.reads('Contents'), await one.press('Rules'))
	],
	[
		'what will change',
		'/courses/C/loads',
		async (one) =>
			void (
				await one.press('Review autumn-charts.zip'),
				await one.reads('Contents'),
				await one.press('What will change')
			)
	],
	[
		'a question being edited, with many selected',
		'/courses/C/loads',
		async (one) => {
			await one.press('Review autumn-charts.zip');
			await one.reads('Contents');
			await one.press('Edit');
			await (await one.find('input[aria-label="Select all that are listed"]')).click();
			await one.reads('selected');
		}
	],
	['what is set aside', '/courses/N/loads/aside', async (one) => void (await one.reads('Set aside: '))],
	[
		'a recipe',
		'/courses/P/loads',
		async (one) => void (await one.press('Recipe for knot-list.csv'), await one.reads('Say what is what'))
	],
	['a bank', '/courses/C/banks', async (one) => void (await one.reads('1 of 43'), await one.driver.sleep(300))],
	['the snags', '/courses/N/snags?check=escaped-twice'],
	['the quizzes', '/courses/C/quizzes'],
	[
		'a draw sheet',
		'/courses/C/quizzes',
		async (one) => void (await one.press('Week 6 check'), await one.reads('Draw sheet'))
	],
	[
		'a sitting',
		'/courses/C/quizzes',
		async (one) => void (await one.press('Week 6 check'), await one.press('A sitting'), await one.reads('of 20 points'))
	],
	...(['Pairs and groups', 'Forms', 'Around it'] as const).map((tab): (typeof pages)[number] => [
		`a quiz, ${tab}`,
		'/courses/C/quizzes',
		async (one) => void (await one.press('Week 6 check'), await one.press(tab), await one.driver.sleep(700))
	]),
	[
		'a pool with its questions',
		'/courses/C/quizzes',
		async (one) => {
			await one.press('Week 6 check');
			await one.press('Questions ·');
			await one.reads('bank order');
			await one.driver.sleep(500);
		}
	],
	[
		'a part that lists its questions',
		'/courses/C/banks',
		async (one) => {
			await one.reads('1 of 43');
			await (await one.find('input[aria-label^="Select "]:not([aria-label^="Select all"])')).click();
			await one.press('More to do with what is selected');
			await one.press('Put these in a quiz');
			await one.write('[role=dialog] input[maxlength="255"]', 'Listed');
			await one.press('Make a quiz of 1 question');
			await one.reads('its list');
		}
	],
	[
		'sittings side by side',
		'/courses/C/quizzes',
		async (one) => {
			await one.press('Week 6 check');
			await one.press('A sitting');
			await one.press('Side by side');
			await one.reads('in 10 sittings');
		}
	],
	[
		'a series that is asked for',
		'/courses/C/quizzes',
		async (one) => void (await one.press('Make a series'), await one.reads('Make 3 quizzes'))
	],
	['a dispatch', '/courses/C/dispatch'],
	['text being pasted', '/courses/C/loads/paste'],
	['a dispatch as another format', '/courses/C/dispatch?as=cc13'],
	['the ledger', '/courses/C/ledger'],
	['the bin', '/courses/C/bin'],
	['the people of a course', '/courses/C/settings'],
	[
		'what a course goes by',
		'/courses/C/settings',
		async (one) => void (await one.press('What it goes by'), await one.reads('A check that is off has no snags.'))
	],
	['the people of the installation', '/people'],
	['the account of a person', '/me'],
	['a link that leads nowhere', '/invited/nothing'],
	['a weave', '/courses/C/banks?view=weave', async (one) => void (await one.reads('Holes in this bank'))],
	[
		'a question of a bank being edited',
		'/courses/C/banks',
		async (one) => {
			await one.reads('1 of 43');
			await one.press('Edit');
			await (await one.find('[role=textbox][aria-label=Stem]')).click();
			await one.find('[role=toolbar]');
		}
	],
	[
		'a sheet for many questions, open',
		'/courses/C/banks',
		async (one) => {
			await one.reads('1 of 43');
			await (await one.find('input[aria-label="Select all that are listed"]')).click();
			await one.press('Tags …');
			await one.find('[role=dialog][data-state=open]');
			await one.driver.sleep(300);
		}
	],
	[
		'a calendar, open',
		'/courses/C/quizzes',
		async (one) => {
			await one.press('Make a series …');
			await one.press('The first opens: choose the day');
			await one.find('.calendar');
		}
	],
	[
		'the filters of a bank, open',
		'/courses/C/banks?kind=numeric',
		async (one) => void (await one.press('Filter'), await one.find('#filter-kind'))
	],
	[
		'a sheet for a category, open',
		'/courses/C/banks',
		async (one) => {
			await one.reads('1 of 43');
			await one.press('Category');
			await one.find('[role=dialog][data-state=open]');
			await one.driver.sleep(300);
		}
	],
	[
		'the list of courses, open',
		'/courses/C/banks',
		async (one) => void (await one.press('choose a course'), await one.find('[role=option]'))
	],
	[
		'the menu of the person, open',
		'/courses/C/banks',
		async (one) => void (await one.press('Mira Olden'), await one.find('[role=menuitem]'))
	],
	[
		'the sheet of the keys, open',
		'/courses/C/snags',
		async (one) => void (await one.press('Keys'), await one.find('[role=dialog][data-state=open]'))
	],
	['a page that is not there', '/courses/C/nothing']
];

/** What depends on light and dark; all else was looked for in the light. */
const ofColour = ['color-contrast', 'link-in-text-block'];

/** What axe finds on the page, and nothing of what it looked at in vain; no page has frames, for which it would open a window of its own. */
const axe = (one: Visitor) => new AxeBuilder(one.driver).options({ resultTypes: ['violations'] }).setLegacyMode();

describe('a page', () => {
	it.each(pages)(
		'%s is accessible in the light and the dark, fits its window, and makes no complaint',
		async (_, path, act) => {
			await visitor.go(
				path
					.replace('/C/', `/${course}/`)
					.replace('/N/', `/${Number(course) + 1}/`)
					.replace('/P/', `/${Number(course) + 2}/`)
			);
			await visitor.mode('light');
			await act?.(visitor);
			await visitor.still();
			const light = await axe(visitor).analyze();
			await visitor.mode('dark');
			await visitor.still();
			const dark = await axe(visitor).withRules(ofColour).analyze();
			expect(
				[...light.violations, ...dark.violations].map(
					(one) =>
						`${one.id}: ${one.nodes
							.map((node) => node.html)
							.slice(0, 3)
							.join(' | ')}`
				)
			).toEqual([]);
			const wide = await visitor.driver.executeScript(
				'return document.documentElement.scrollWidth - document.documentElement.clientWidth'
			);
			expect(wide).toBe(0);
			const complaints = (await visitor.complaints()).filter((one) => !one.includes('404'));
			expect(complaints).toEqual([]);
		}
	);
});

describe('the sign-in page', () => {
	it.each(['light', 'dark'] as const)('has no accessibility findings in the %s', async (mode) => {
		const stranger = await Visitor.open(process.env.APPLICATION!);
		try {
			await stranger.go('/signin');
			await stranger.mode(mode);
			await stranger.still();
			const found = await axe(stranger).analyze();
			expect(found.violations.map((one) => one.id)).toEqual([]);
			expect(await stranger.complaints()).toEqual([]);
		} finally {
			await stranger.close();
		}
	});
});
