import { plainText } from '../markup/text';
import { isChoice, type Question } from '../kinds';
import type { OneCheck } from './check';
import { quoted } from './saying';

const number = /(?<![\p{L}\d.,])\d+(?:[.,]\d+)+(?![\p{L}]*\d)(?![.,]\d)/gu;

/** By which sign a number has its decimals; null where it has none, or where the sign may part thousands. */
function markOf(written: string): ',' | '.' | null {
	const signs = written.match(/[.,]/g)!;
	const last = signs.at(-1) as ',' | '.';
	if (new Set(signs).size > 1) return written.lastIndexOf(last) === written.indexOf(last) ? last : null;
	if (signs.length > 1) return null;
	const [before, after] = written.split(last) as [string, string];
	// 1,000 may be a thousand; 0,250 is none
	return after.length === 3 && before.length <= 3 && !/^0/.test(before) ? null : last;
}

const textsOf = (question: Question): string[] => {
	if (isChoice(question)) return question.options.map(({ text }) => plainText(text));
	if (question.kind === 'short-answer')
		return question.accepted.filter(({ match }) => match !== 'pattern').map(({ text }) => text);
	if (question.kind !== 'fill-blanks') return [];
	return question.blanks.flatMap((blank) => {
		if (blank.form === 'text') return blank.accepted.filter(({ match }) => match !== 'pattern').map(({ text }) => text);
		return blank.form === 'list' ? blank.entries.map(({ text }) => plainText(text)) : [];
	});
};

/** The numbers with each sign; a number that is there with both is accepted in two spellings, and left out. */
function marked(question: Question): { commas: string[]; points: string[] } {
	const found = textsOf(question).flatMap((text) => text.match(number) ?? []);
	const by = (mark: ',' | '.') => [...new Set(found.filter((written) => markOf(written) === mark))];
	const [commas, points] = [by(','), by('.')];
	if (isChoice(question)) return { commas, points };
	return {
		commas: commas.filter((written) => !points.includes(written.replace(',', '.'))),
		points: points.filter((written) => !commas.includes(written.replace('.', ',')))
	};
}

/** Decimals behind a comma in one place and behind a point in another. */
export const numberMarks: OneCheck = {
	id: 'number-marks',
	version: 1,
	scope: 'one',
	title: 'Decimal comma and decimal point mixed',
	short: 'decimal marks',
	severity: 'doubtful',
	why: 'Where both signs stand for decimals, a reader takes one of them for thousands; and an answer that is typed with the other sign is marked wrong.',
	find(question) {
		const { commas, points } = marked(question);
		return commas.length && points.length
			? [
					{
						message: `${quoted(commas)} ${commas.length > 1 ? 'have' : 'has'} a comma and ${quoted(points)} a point before the decimals. Write all with one sign.`,
						words: [...commas, ...points]
					}
				]
			: [];
	}
};
