import { mendTools } from '../formats/mend-tools';
import { describe, expect, it } from 'vitest';
import { isChoice } from '../kinds';
import { choice } from '../test-support/questions';
import { typedNumbering } from './typed-numbering';

const withOptions = (stem: string, ...texts: string[]) => {
	const question = choice({ stem });
	return {
		...question,
		options: texts.map((text, at) => ({ identifier: `O${at}`, text, credit: at ? 0 : 1, pinned: false }))
	};
};

describe('numbering that is typed into the text', () => {
	it.each([
		['12. Which knot holds?', 'Which knot holds?'],
		['Q3) Which knot holds?', 'Which knot holds?'],
		['<p><b>7.</b> Which knot holds?</p>', '<p><b>7.</b> Which knot holds?</p>'],
		['<p>7. Which knot holds?</p>', '<p>Which knot holds?</p>'],
		['3.5 metres is charted.', '3.5 metres is charted.'],
		['16 is a channel. Which?', '16 is a channel. Which?']
	])('is found in a stem, and taken out: %s', (stem, mended) => {
		const question = withOptions(stem, 'Bowline', 'Reef knot');
		expect(typedNumbering.mend!.apply(question, mendTools).stem).toBe(mended);
	});
	it.each([
		[
			['A) Bowline', 'B) Reef knot', 'C) Bend'],
			['Bowline', 'Reef knot', 'Bend']
		],
		[
			['<p>a. Bowline</p>', '<p>b. Reef knot</p>'],
			['<p>Bowline</p>', '<p>Reef knot</p>']
		],
		[
			['1. Bowline', '2. Reef knot'],
			['Bowline', 'Reef knot']
		],
		[
			['A. Sailor', 'Somebody else', 'Nobody'],
			['A. Sailor', 'Somebody else', 'Nobody']
		],
		[
			['B) Bowline', 'A) Reef knot'],
			['B) Bowline', 'A) Reef knot']
		]
	])('is found in options that begin with their own letters: %j', (texts, mended) => {
		const question = withOptions('Which?', ...texts);
		const found = typedNumbering.find(question);
		expect(found).toHaveLength(texts.join() === mended.join() ? 0 : 1);
		const after = typedNumbering.mend!.apply(question, mendTools);
		expect(isChoice(after) && after.options.map((option) => option.text)).toEqual(mended);
		expect(typedNumbering.find(after)).toEqual([]);
	});
});
