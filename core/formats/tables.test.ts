import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { writtenFormats } from '.';
import { readBare } from '../test-support/packages';
import { short } from '../test-support/short';
import { parseRecipe } from './recipe/recipe';
import { formatTables } from './tables';

const plain = (text: string) => text.replace(/[-\s|]+/g, ' ');
const document = readFileSync(new URL('../../docs/formats.md', import.meta.url), 'utf8');
/** The examples in the documentation that hold a text, by the language of their fence. */
const example = (language: string, holding: string) =>
	[...document.matchAll(/^```(\w*)\n([\s\S]*?)^```$/gm)].find(
		([, named, text]) => named === language && text!.includes(holding)
	)![2]!;

it('docs/formats.md says what the program does', () => {
	expect(plain(document)).toContain(plain(formatTables(writtenFormats)).trim());
});

describe('the examples in docs/formats.md', () => {
	it('of the JSON form are read', async () => {
		const question = example('json', '"kind": "multiple-choice"');
		const found = await readBare('a.json', `{"format":"yarn-barrow-questions","version":1,"questions":[${question}]}`);
		expect(found.questions.map(short)).toEqual([
			['multiple-choice', 'Which cloud comes first as a warm front draws near?', '*Cirrus']
		]);
	});
	it('of the XML form are read', async () => {
		const found = await readBare('a.xml', example('xml', '<questions'));
		expect(found.questions.map(short)).toEqual([
			['multiple-choice', 'Which cloud comes first as a warm front draws near?', '*Cirrus']
		]);
	});
	it('of marked text are read', async () => {
		const found = await readBare('a.txt', example('', 'Category: Knots'));
		expect(found.questions.map((question) => [question.kind, question.category])).toEqual([
			['multiple-choice', ['Knots', 'Loops']],
			['matching', ['Knots', 'Loops']],
			['numeric', ['Knots', 'Loops']]
		]);
	});
	it('of recipes are recipes', () => {
		expect(parseRecipe(JSON.parse(example('json', '"record"')))).toMatchObject({ optionIdentifier: 'id' });
	});
});
