import type { Line } from './lines';
import { fieldOf } from './marks';

const most = 30;

/**
 * Fields between two rules at the very beginning, as notes have them: how many lines of the text they take, and what of
 * them stands in front of the first question. Nothing where there are none.
 */
export function frontMatter(lines: Line[]): { length: number; before: Line[] } {
	const none = { length: 0, before: [] };
	const from = lines.findIndex((line) => line.text);
	if (lines[from]?.text !== '---') return none;
	const length = lines.slice(from + 1, from + most).findIndex((line) => line.text === '---');
	const fields = lines.slice(from + 1, from + 1 + length).filter((line) => line.text);
	if (length < 0 || fields.some((line) => !/^[\p{L}_-]+\s*:/u.test(line.text))) return none;
	const titles = fields.flatMap((line): Line[] => {
		const field = fieldOf(line);
		return field?.name === 'title' ? [{ ...field.value, heading: 0 }] : [];
	});
	return {
		length: from + length + 2,
		before: [...titles, ...fields.filter((line) => fieldOf(line)?.name !== 'title')]
	};
}
