import type { Construct } from './construct';

/** A tick with nothing behind it but the letter of an option above: which one is right. */
export const tickedLetter: Construct = (state, line) => {
	const { block } = state;
	const letter = /^[✅✔✓☑]\uFE0F?\s*\(?([A-Za-z])\)?\.?$/u.exec(line.text)?.[1];
	if (!block || !letter || !block.options.some(({ label }) => label.toLowerCase() === letter.toLowerCase()))
		return false;
	block.answers.push({ value: letter, line: line.number });
	block.last = 'field';
	block.to = line.number;
	return true;
};
