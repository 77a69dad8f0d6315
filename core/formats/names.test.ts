import { describe, expect, it } from 'vitest';
import { checkQuestion } from '../checks/one';
import { canonicalForm } from '../compare/canonical';
import { emptyCommon } from '../model/question';
import type { Question } from '../kinds';
import { parseQuestion } from '../kinds/schema';
import { readBare, opened, readAll } from '../test-support/packages';
import { back, written } from '../test-support/written';
import { exampleQuestions } from './examples';
import { writtenFormats } from '.';

/** Names that every object of JavaScript has, and some that trip up what is written into. */
const names = [
	'constructor',
	'__proto__',
	'toString',
	'hasOwnProperty',
	'valueOf',
	'prototype',
	'__defineGetter__',
	'length'
];

/** An example question with a name wherever a name can stand. */
function called(question: Question, name: string): Question {
	const text = JSON.stringify({
		...question,
		identifier: name,
		title: name,
		category: [name, 'constructor'],
		tags: [name],
		metadata: [{ name, value: name }]
	});
	const identifiers = new Set([...text.matchAll(/"identifier":"([^"]*)"/g)].map((found) => found[1]!));
	let at = 0;
	let named = text;
	// the first of the identifiers within it has the name as well: an option, a blank, a place
	for (const one of identifiers) if (one !== name && at++ === 0) named = named.replaceAll(`"${one}"`, `"${name}"`);
	return parseQuestion(JSON.parse(named));
}

describe('a name that every object has', () => {
	it.each(names.flatMap((name) => writtenFormats.map((format) => [name, format.name, format] as const)))(
		'is a name like any other: %s, in %s',
		async (name, _, format) => {
			const questions = exampleQuestions.map((question) => called(question, name));
			const kept = questions.filter((question) => format.loss(question).outcome !== 'lost');
			const { found } = await back(await written(format, kept), `package${format.ending}`);
			expect(found.questions.length).toBeGreaterThanOrEqual(kept.length);
			for (const question of found.questions) {
				expect(() => canonicalForm(question)).not.toThrow();
				const failed = checkQuestion(question).filter(({ message }) => message.includes('could not be carried out'));
				expect(failed).toEqual([]);
			}
		}
	);
	it.each(names)('is kept as the category, the title and the tag of a question of our own: %s', async (name) => {
		const question = called(exampleQuestions[0]!, name);
		const { questions } = await readBare('own.json', JSON.stringify({ questions: [question] }));
		expect(questions[0]).toMatchObject({ title: name, category: [name, 'constructor'], tags: [name] });
	});
	it.each(names)('loses nothing as an element or an attribute of a stem: %s', async (name) => {
		const item = (ident: string, stem: string) =>
			`<item ident="${ident}" title="${ident}"><presentation><material><mattext texttype="text/xhtml">${stem}</mattext></material><response_str ident="r"><render_fib/></response_str></presentation></item>`;
		const { questions } = await readAll(
			await opened({
				'a.xml': `<questestinterop>${item('one', `<p ${name}="x">Which <${name} a="b">bend</${name}>?</p>`)}${item('two', 'And which hitch?')}</questestinterop>`,
				'b.xml': `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="b" title="b" adaptive="false" timeDependent="false"><itemBody><${name} ${name}="1">Which knot?</${name}></itemBody></assessmentItem>`
			})
		);
		expect(questions.map(({ title }) => title).sort()).toEqual(['b', 'one', 'two']);
		expect(questions.find(({ title }) => title === 'one')!.stem).toContain('bend');
	});
	it.each(names)('is a column, a key or a value of a file of any shape: %s', async (name) => {
		const table = await readBare(
			'a.csv',
			`question,answer,category,${name}\nWhich bend?,${name},${name},x\nWhich hitch?,clove,Hitches,y\n`
		);
		expect(table.questions).toHaveLength(2);
		const json = await readBare(
			'a.json',
			JSON.stringify([
				JSON.parse(`{"question":"Which bend?","answer":"${name}","type":"${name}","${name}":{"a":1}}`),
				{ question: 'Which hitch?', answer: 'clove' }
			])
		);
		expect(json.questions).toHaveLength(2);
		const xml = await readBare(
			'a.xml',
			`<quiz><q><text>Which bend?</text><answer>${name}</answer><kind>${name}</kind><${name}>x</${name}></q><q><text>Which hitch?</text><answer>clove</answer></q></quiz>`
		);
		expect(xml.questions).toHaveLength(2);
		// in marked text that is emphasis
		if (name.startsWith('__')) return;
		const text = await readBare(
			'a.txt',
			`Category: ${name} / constructor\n\n1. Which bend?\nAnswer: ${name}\n${name}: x\n\n2. Which hitch?\nAnswer: clove\n`
		);
		expect(text.questions).toHaveLength(2);
		expect(text.questions[0]!.category).toEqual([name, 'constructor']);
	});
	it.each([...names.map((name) => `${name}(1)`), ...names])(
		'is no function and no number of a formula: %s',
		(expression) => {
			const sums = {
				...emptyCommon('speed', 'Speed'),
				kind: 'calculated' as const,
				title: 'Speed',
				stem: 'How fast?',
				variables: [
					{ name: 'd', values: { form: 'range' as const, min: 1, max: 9, step: 1 }, whole: true, decimals: null }
				],
				constraints: [],
				tolerance: 0,
				decimals: 1
			};
			const found = checkQuestion({ ...sums, expression } as unknown as Question);
			expect(found.map(({ message }) => message).join(' ')).not.toContain('could not be carried out');
			expect(found.some(({ severity }) => severity === 'broken')).toBe(true);
		}
	);
});
