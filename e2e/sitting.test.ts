import { By, Key, type WebElement } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Question } from '../core/kinds';
import { emptyCommon } from '../core/model/question';
import { demoSignIn } from '../demo/fill';
import { Visitor } from './browser';
import { Day } from './day';

const option = (identifier: string, text: string, credit: number) => ({ identifier, text, credit, pinned: false });
const side = (identifier: string, text: string) => ({ identifier, text, uses: 1 });
const one = { lower: 0, upper: 1 };
const chosen = { combination: 'sum' as const, bounds: one, lostKeys: [], shuffle: true };
const picture = { name: 'harbour.svg', width: 200, height: 100, alt: 'The harbour from above' };
const places = [
	{ identifier: 'N', shape: 'rect' as const, coordinates: [10, 10, 90, 90] },
	{ identifier: 'S', shape: 'rect' as const, coordinates: [110, 10, 190, 90] }
];
const common = (title: string, stem: string) => ({ ...emptyCommon(`GH-${title}`, title), stem, points: 2 });

/** How a student answers a question that lies before them. */
type Answer = (question: WebElement, isRight: boolean) => Promise<void>;

async function tick(question: WebElement, words: string): Promise<void> {
	const label = await question.findElement(By.xpath(`.//label[contains(normalize-space(.), "${words}")]`));
	await (await label.findElement(By.css('input'))).click();
}
async function type(question: WebElement, name: string, text: string): Promise<void> {
	const field = await question.findElement(By.css(`[aria-label="${name}"]`));
	await field.sendKeys(Key.chord(Key.CONTROL, 'a'), text);
}
async function choose(question: WebElement, name: string, words: string): Promise<void> {
	const field = await question.findElement(By.css(`select[aria-label="${name}"]`));
	await (await field.findElement(By.xpath(`.//option[normalize-space(.) = "${words}"]`))).click();
}
const typed =
	(right: string, wrong: string): Answer =>
	(question, isRight) =>
		type(question, 'Your answer', isRight ? right : wrong);
const ticked =
	(right: string[], wrong: string[]): Answer =>
	async (question, isRight) => {
		for (const words of isRight ? right : wrong) await tick(question, words);
	};
const paired =
	(right: [string, string][]): Answer =>
	async (question, isRight) => {
		const [[, first], [, second]] = right as [[string, string], [string, string]];
		for (const [at, [left]] of right.entries())
			await choose(question, `What belongs to ${left}`, isRight === (at === 0) ? first : second);
	};

const asked: { question: Question; answer: Answer }[] = [
	{
		question: {
			...common('Buoy', 'Is a lateral buoy to port red in region A?'),
			kind: 'true-false',
			options: [option('T', 'True', 1), option('F', 'False', 0)],
			...chosen,
			shuffle: false
		},
		answer: ticked(['True'], ['False'])
	},
	{
		question: {
			...common('Loop', 'Which knot makes a loop that does not slip?'),
			kind: 'multiple-choice',
			options: [option('A', 'Bowline', 1), option('B', 'Reef knot', 0), option('C', 'Sheet bend', 0)],
			...chosen
		},
		answer: ticked(['Bowline'], ['Reef knot'])
	},
	{
		question: {
			...common('Hitches', 'Which of these are hitches?'),
			kind: 'multiple-response',
			options: [option('A', 'Clove', 0.5), option('B', 'Rolling', 0.5), option('C', 'Granny', -1)],
			...chosen
		},
		answer: ticked(['Clove', 'Rolling'], ['Granny'])
	},
	{
		question: {
			...common('Isobar', 'What is a line of equal pressure called?'),
			kind: 'short-answer',
			accepted: [{ text: 'isobar', credit: 1, caseSensitive: false }]
		},
		answer: typed('Isobar', 'isotherm')
	},
	{
		question: {
			...common('Channel', 'Which VHF channel is kept for distress by voice?'),
			kind: 'numeric',
			whole: true,
			accepted: [{ value: 16, tolerance: 0, credit: 1 }]
		},
		answer: typed('16', '12')
	},
	{
		question: {
			...common('Lights', '<p>A vessel under sail shows <span class="blank" id="B1"/> to port.</p>'),
			kind: 'fill-blanks',
			blanks: [
				{
					identifier: 'B1',
					share: 1,
					form: 'list',
					entries: [
						{ identifier: 'r', text: 'red', credit: 1 },
						{ identifier: 'g', text: 'green', credit: 0 }
					],
					several: false,
					shuffle: null
				}
			],
			bank: [],
			combination: 'sum',
			shuffle: null
		},
		answer: (question, isRight) => choose(question, 'Blank 1', isRight ? 'red' : 'green')
	},
	{
		question: {
			...common('Ends', 'What is each end of a boat called?'),
			kind: 'matching',
			left: [side('L1', 'The front'), side('L2', 'The back')],
			right: [side('R1', 'bow'), side('R2', 'stern')],
			pairs: [
				{ left: 'L1', right: 'R1', credit: 0.5 },
				{ left: 'L2', right: 'R2', credit: 0.5 }
			],
			combination: 'sum',
			bounds: one,
			shuffle: true
		},
		answer: paired([
			['The front', 'bow'],
			['The back', 'stern']
		])
	},
	{
		question: {
			...common('Depths', 'Put these from shallow to deep.'),
			kind: 'ordering',
			items: ['ford', 'harbour', 'ocean'].map((text) => ({ identifier: text, text })),
			presented: ['ocean', 'ford', 'harbour'],
			rule: 'all',
			shuffle: true
		},
		answer: async (question, isRight) => {
			const wanted = isRight ? ['ford', 'harbour', 'ocean'] : ['ocean', 'ford', 'harbour'];
			for (const [to, text] of wanted.entries()) {
				const up = By.css(`button[aria-label="Move “${text}” up"]`);
				const shown = async () =>
					Promise.all((await question.findElements(By.css('ol.order > li'))).map((item) => item.getText()));
				for (let at = (await shown()).findIndex((words) => words.includes(text)); at > to; at -= 1)
					await (await question.findElement(up)).click();
			}
		}
	},
	{
		question: {
			...common('Quay', 'Point at the north quay.'),
			kind: 'hotspot',
			picture,
			shapes: [
				{ ...places[0]!, credit: 1 },
				{ ...places[1]!, credit: 0 }
			],
			mode: 'areas',
			picks: 1,
			outside: 0,
			combination: 'sum',
			bounds: one
		},
		answer: (question, isRight) => tick(question, isRight ? 'area 1' : 'area 2')
	},
	{
		question: {
			...common('Quays', 'Name both quays.'),
			kind: 'label-image',
			picture,
			labels: [side('n', 'north'), side('s', 'south')],
			targets: places.map((place) => ({ ...place, uses: 1 })),
			pairs: [
				{ left: 'n', right: 'N', credit: 0.5 },
				{ left: 's', right: 'S', credit: 0.5 }
			],
			combination: 'sum',
			bounds: one
		},
		answer: paired([
			['north', 'Place 1'],
			['south', 'Place 2']
		])
	},
	{
		question: {
			...common('Under way', 'How far does she go in <var class="variable">h</var> hours at 5 knots?'),
			kind: 'calculated',
			variables: [{ name: 'h', whole: true, values: { form: 'set', values: [2, 3, 4] }, decimals: 0 }],
			constraints: [],
			expression: 'h * 5',
			tolerance: { mode: 'absolute', value: 0 },
			whole: false,
			unit: 'miles'
		},
		answer: async (question, isRight) => {
			const [, hours] = /in (\d) hours/.exec(await question.getText())!;
			await type(question, 'Your answer', String(Number(hours) * 5 + (isRight ? 0 : 1)));
		}
	},
	{
		question: { ...common('Reefing', 'Describe how you reef a mainsail.'), kind: 'essay' },
		answer: async (question, isRight) => {
			await type(question, 'Your answer', isRight ? 'Ease the halyard, and take the cringle down.' : 'No idea.');
			await (
				await question.findElement(By.css('input[aria-label^="Points by hand"]'))
			).sendKeys(isRight ? '2' : '0', Key.TAB);
		}
	},
	{
		question: { ...common('Plot', 'Hand your chart in.'), kind: 'file-upload', accepts: null },
		answer: async (question, isRight) => {
			await (await question.findElement(By.css('input[type=file]'))).sendKeys(day.put('chart.txt', 'Course 045'));
			await (
				await question.findElement(By.css('input[aria-label^="Points by hand"]'))
			).sendKeys(isRight ? '2' : '0', Key.TAB);
		}
	}
];
const text: Question = { ...common('Watch', 'Read the orders of the watch first.'), kind: 'information', points: null };

let day: Day;
let visitor: Visitor;
beforeAll(async () => {
	const maker = await Visitor.open(process.env.APPLICATION!);
	await maker.signIn(demoSignIn.email, demoSignIn.password);
	await maker.go('/');
	await maker.press('Make a course');
	await maker.write('input[name=code]', 'EK-S27');
	await maker.write('input[name=name]', 'Every kind');
	await maker.press('Make it');
	await maker.reads('Loads of this course');
	await maker.close();
	day = await Day.begin('Every kind');
	visitor = day.visitor;
	const questions = [text, ...asked.map(({ question }) => question)];
	const part = { title: 'All of them', questions: questions.map((_, at) => at + 1), draw: null, pointsEach: null };
	const quiz = { identifier: 'Z', title: 'One of each', parts: [{ ...part, shuffle: false }] };
	await day.hand(
		'kinds.json',
		JSON.stringify({ format: 'yarn-barrow-questions', version: 1, title: 'Kinds', questions, quizzes: [quiz] }),
		/kinds\.json/
	);
	await visitor.press('Review kinds.json');
	await visitor.reads(/Take in 14/);
	await visitor.press('Take in 14');
	await visitor.reads('Receipt');
	await visitor.go(`/courses/${day.course}/quizzes`);
	await visitor.press('One of each');
	await visitor.reads('Draw sheet');
	await visitor.press('A sitting');
	await visitor.reads('of 26 points');
});
afterAll(() => day?.end());

async function answerAll(isRight: boolean): Promise<void> {
	for (const { question, answer } of asked) {
		const stem = question.kind === 'fill-blanks' ? 'A vessel under sail' : question.stem.split('<')[0]!.trim();
		const place = await visitor.driver.findElement(By.xpath(`//article[contains(normalize-space(.), "${stem}")]`));
		await visitor.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', place);
		await answer(place, isRight);
		for (const mark of await place.findElements(By.xpath('.//button[normalize-space(.) = "Mark it"]')))
			await mark.click();
	}
}

describe('a sitting with a question of every kind', () => {
	it('earns all points where each is answered right, by a person where only a person can tell', async () => {
		await answerAll(true);
		expect(await visitor.reads(/26 of 26 points/)).toContain('13 of 13 marked');
	});
	it('earns nothing where each is answered wrong, and says why', async () => {
		await visitor.press('Redraw');
		await visitor.reads(/0 of 26 points/);
		await answerAll(false);
		const words = await visitor.reads(/13 of 13 marked/);
		expect(words).toContain('0 of 26 points');
		expect(words).toContain('That is not the key.');
	});
	it('keeps the answers where it is gone through question by question, there and back', async () => {
		await visitor.press('question by question');
		await visitor.reads('1 of 14');
		await visitor.press('The next one');
		await visitor.reads('2 of 14');
		const shown = await visitor.driver.findElement(By.xpath('//article[not(@hidden)]'));
		expect(await shown.findElements(By.css('input:checked'))).toHaveLength(1);
		await visitor.press('The one before');
		await visitor.reads('Read the orders of the watch first.');
	});
	it('has controls that are named, and shows nothing that complains', async () => {
		await visitor.press('as a whole');
		expect(await visitor.complaints()).toEqual([]);
	});
});
