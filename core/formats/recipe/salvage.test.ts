import { describe, expect, it } from 'vitest';
import { memorySource } from '../../container/container';
import { openContainer } from '../open';
import { readAll } from '../../test-support/packages';
import { salvageJson } from './salvage';

const text = JSON.stringify(
	{
		set: [
			{ ask: 'One?', answer: 'a' },
			{ ask: 'Two?', answer: 'b' },
			{ ask: 'Three?', answer: 'c' }
		]
	},
	null,
	1
);
const read = async (name: string, content: string) => {
	const found = await readAll(await openContainer(name, memorySource(new TextEncoder().encode(content))));
	return { stems: found.questions.map((question) => question.stem), reports: found.reports };
};

describe('a JSON text that is damaged', () => {
	it('gives the whole entries in front of what is wrong, at any cut', () => {
		for (let cut = 0; cut < text.length; cut += 1) {
			const found = salvageJson(text.slice(0, cut)) as { value: { set: { answer: string }[] } } | null;
			const whole = ['"a"', '"b"', '"c"'].filter((one) => text.slice(0, cut).includes(`${one}\n  }`));
			expect(found?.value.set.map((one) => `"${one.answer}"`) ?? []).toEqual(whole);
		}
	});
	it('has the questions before the cut read by a recipe, and says where it was given up', async () => {
		const { stems, reports } = await read('a.json', text.slice(0, text.indexOf('Three')));
		expect(stems).toEqual(['One?', 'Two?']);
		expect(reports).toMatchObject([{ rule: 'not-well-formed', place: { line: 10 } }]);
	});
	it('with one object a line loses only the line that is wrong', async () => {
		const { stems, reports } = await read(
			'a.jsonl',
			'{"ask":"One?","answer":"a"}\n{"ask":"Two?,"answer":"b"}\n{"ask":"Three?","answer":"c"}\n'
		);
		expect(stems).toEqual(['One?', 'Three?']);
		expect(reports).toMatchObject([{ rule: 'not-well-formed', place: { line: 2 } }]);
	});
});
