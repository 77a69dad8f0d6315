import { describe, expect, it } from 'vitest';
import { memorySource } from '../../container/container';
import { openContainer } from '../open';
import { sketchOf, type Sketch } from './sketch';

const sketch = async (name: string, text: string) =>
	(await sketchOf(await openContainer(name, memorySource(new TextEncoder().encode(text))), null))!;
const fields = (found: Sketch) => (found.form === 'table' ? [] : found.fields);

describe('a file of no standard shape, laid out to be pointed at', () => {
	it('shows the tree of a JSON record, with the parts of its lists and their places from there', async () => {
		const found = await sketch(
			'knots.json',
			JSON.stringify([
				{ question: 'Which knot?', type: 'one', options: [{ text: 'Bowline', share: { value: 1 } }], tags: ['a', 'b'] },
				{ question: 'Which bend?', type: 'many', options: [], pairs: [['sheet', 'cleat']] }
			])
		);
		expect(fields(found).map(({ path, depth, list, inside }) => [path, depth, list, inside?.relative ?? null])).toEqual(
			[
				['question', 0, false, null],
				['type', 0, false, null],
				['options[*]', 0, true, null],
				['options[*].text', 1, false, 'text'],
				['options[*].share', 1, false, 'share'],
				['options[*].share.value', 2, false, 'share.value'],
				['tags[*]', 0, true, null],
				['pairs[*]', 0, true, null],
				['pairs[*][0]', 1, false, '[0]'],
				['pairs[*][1]', 1, false, '[1]']
			]
		);
		expect(fields(found).find((one) => one.name === 'type')!.words).toEqual(['one', 'many']);
	});
	it('shows the tree of an XML record, attributes and what stands several times', async () => {
		const found = await sketch(
			'knots.xml',
			'<set><question type="one"><text>Which knot?</text><option right="yes">Bowline</option><option right="no">Noose</option></question></set>'
		);
		expect(fields(found).map(({ path, list, inside }) => [path, list, inside?.relative ?? null])).toEqual([
			['@type', false, null],
			['text', false, null],
			['option', true, null],
			['option/@right', false, '@right']
		]);
		expect(fields(found).find((one) => one.path === 'option')!.examples).toEqual(['Bowline', 'Noose']);
	});
	it('gives the words of a column only where they are few', async () => {
		const rows = Array.from({ length: 20 }, (_, at) => `Question ${at}?,${at % 2 ? 'MC' : 'TF'},A`).join('\n');
		const found = await sketch('list.csv', `Question,Type,Answer\n${rows}\n`);
		expect(found.form === 'table' && found.tables[0]!.words).toEqual([[], ['Type', 'TF', 'MC'], ['Answer', 'A']]);
	});
});
