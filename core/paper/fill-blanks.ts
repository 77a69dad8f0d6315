import type { FillBlanksQuestion } from '../kinds';
import type { Blank } from '../kinds/fill-blanks';
import { numbersInWords, textsInWords } from '../kinds/part';
import { replaceBlanks } from '../markup/markers';
import { plainText } from '../markup/text';
import { letterAt, placesIn } from './letters';
import type { PaperBlock, PaperKind } from './paper-kind';

const gap = '_____________';

function keyOf({ bank }: FillBlanksQuestion, blank: Blank): string {
	if (blank.form === 'text') return textsInWords(blank.accepted);
	if (blank.form === 'number') return numbersInWords(blank.accepted);
	if (blank.form === 'open') return 'marked by a person';
	if (blank.form === 'word')
		return blank.words
			.filter(({ credit }) => credit > 0)
			.map(({ word }) => letterAt(bank.findIndex(({ identifier }) => identifier === word)))
			.join(' or ');
	return blank.entries
		.flatMap(({ credit }, at) => (credit > 0 ? [letterAt(at)] : []))
		.join(blank.several ? ', ' : ' or ');
}

/** What one blank holds, as it is typed; null where that cannot be read. */
function filled({ bank }: FillBlanksQuestion, blank: Blank, typed: string): string[] | null {
	if (blank.form === 'text' || blank.form === 'number' || blank.form === 'open') return [typed.trim()];
	const things = blank.form === 'word' ? bank : blank.entries;
	if (!typed.trim()) return [];
	const places = placesIn(typed, things.length);
	return places && places.map((place) => things[place]!.identifier);
}

/** Blanks on paper: numbered in the stem, with the lists and words that they are filled from below it. */
export const fillBlanksOnPaper: PaperKind<FillBlanksQuestion> = {
	stem: ({ stem, blanks }) =>
		replaceBlanks(stem, (identifier) => {
			const place = blanks.findIndex((blank) => blank.identifier === identifier);
			return `<b>(${place + 1})</b> ${gap}`;
		}),
	blocks: (question) => [
		...question.blanks.flatMap((blank, at): PaperBlock[] => {
			const isInStem = question.stem.includes(`id="${blank.identifier}"`);
			if (blank.form === 'list')
				return [
					{
						sort: 'words',
						title: `(${at + 1}) ${blank.several ? 'one or more' : 'one'} of`,
						words: blank.entries.map(({ text }) => text)
					}
				];
			if (blank.form === 'open') return [{ sort: 'lines', count: 4, before: `(${at + 1})`, after: '' }];
			return isInStem ? [] : [{ sort: 'lines', count: 1, before: `(${at + 1})`, after: '' }];
		}),
		...(question.bank.length
			? [{ sort: 'words' as const, title: 'Words to fill in', words: question.bank.map(({ text }) => text) }]
			: [])
	],
	key: (question) => question.blanks.map((blank, at) => `(${at + 1}) ${keyOf(question, blank)}`).join('; '),
	typing: 'what stands in each blank, parted by ; with a letter where there is a list',
	read: (question, _, typed) => {
		const texts = typed.split(';');
		if (texts.length > question.blanks.length)
			return { wrong: `“${plainText(typed)}” fills ${texts.length} blanks, and there are ${question.blanks.length}.` };
		const blanks: Record<string, string[]> = Object.create(null) as Record<string, string[]>;
		for (const [at, blank] of question.blanks.entries()) {
			const words = filled(question, blank, texts[at] ?? '');
			if (!words)
				return { wrong: `“${(texts[at] ?? '').trim()}” for blank ${at + 1} names nothing in its list: write letters.` };
			blanks[blank.identifier] = words;
		}
		return { response: { blanks } };
	}
};
