import { number, object, type InferType } from 'yup';
import { replaceBlanks } from '../markup/markers';
import { plainText } from '../markup/text';
import { bounds as most } from '../model/bounds';
import { ownValue } from '../model/lookup';
import { type Fields, credit, list, maybeTruth, oneOfForms, text, truth } from '../model/fields';
import { acceptedNumber, acceptedText, combination, side, type Side } from '../model/pieces';
import type { QuestionCommon } from '../model/question';
import {
	acceptedNumberText,
	bestNumber,
	bestOf,
	bounded,
	creditOfNumber,
	creditOfText,
	rounded,
	wrongNumber
} from './answers';
import type { KindOf, Marked, Response } from './kind';
import { figures } from './numeric';
import { creditPart, numbersInWords, percent, saidBy, sideParts, textsInWords, worth, yesOrNo } from './part';
import { settledNumbers, settledTexts } from './settle';

const listEntry = object({ identifier: text(), text: text(), credit: credit() }).defined();

/** One entry of a list in a blank; `credit` is a share of the blank. */
export type ListEntry = InferType<typeof listEntry>;

/**
 * One blank; `share` is its share of the points of the question. It is filled with a text, a number, an entry of its own
 * list, a word of the shared bank, or at length for a person to mark. In the stem it is `<span class="blank" id="…"/>`, or
 * a `div` where it stands as a block.
 */
const blank = oneOfForms(
	{ identifier: text(), share: number().min(0).max(1).defined() },
	{
		text: { accepted: list(acceptedText) },
		number: { accepted: list(acceptedNumber), whole: truth() },
		list: { entries: list(listEntry), several: truth(), shuffle: maybeTruth() },
		word: { words: list(object({ word: text(), credit: credit() }).defined()) },
		open: {}
	}
);

/** One blank: its share of the points, and how it is filled. */
export type Blank = InferType<typeof blank>;

const fields = {
	blanks: list(blank),
	/** The words that blanks of the form "word" are filled with, shared by all of them. */
	bank: list(side),
	combination: combination(),
	/** May the words of the bank be shuffled. */
	shuffle: maybeTruth()
};

/** A question with blanks in its stem, or with several answers. */
export type FillBlanksQuestion = { kind: 'fill-blanks' } & QuestionCommon & Fields<typeof fields>;

/** What a blank earns of its own share for what stands in it; null where a person has to mark it. */
export function blankCredit(blank: Blank, answer: string[]): number | null {
	const [first = ''] = answer;
	if (blank.form === 'open') return null;
	if (!answer.some((written) => written.trim())) return 0;
	if (blank.form === 'text') return creditOfText(blank.accepted, first) ?? 0;
	if (blank.form === 'number') return creditOfNumber(blank.accepted, first, blank.whole) ?? 0;
	if (blank.form === 'word') return blank.words.find((known) => known.word === first)?.credit ?? 0;
	const chosen = blank.entries.filter(({ identifier }) =>
		blank.several ? answer.includes(identifier) : identifier === first
	);
	return bounded(
		chosen.reduce((sum, entry) => sum + entry.credit, 0),
		{ lower: null, upper: null }
	);
}

/** Marks blanks: each for its share, or all of them or nothing. */
function mark(question: FillBlanksQuestion, response: Response): Marked {
	const earned = question.blanks.map((blank) => ({
		blank,
		credit: blankCredit(blank, ownValue(response.blanks, blank.identifier) ?? [])
	}));
	const right = earned.filter(({ credit }) => (credit ?? 0) >= 1 - 1e-6).length;
	const machine = earned.filter(({ credit }) => credit !== null).length;
	const reason = `${right} of ${machine} right.`;
	if (machine < earned.length) return { credit: null, reason: `${reason} A person has to mark the rest.` };
	if (question.combination === 'all') return { credit: right === earned.length && right ? 1 : 0, reason };
	const sum = earned.reduce((total, { blank, credit }) => total + blank.share * credit!, 0);
	return { credit: bounded(Math.abs(sum - 1) < 2e-6 ? 1 : sum, { lower: -1, upper: 1 }), reason };
}

function rightAnswer(blank: Blank): string[] {
	if (blank.form === 'text')
		return [bestOf(blank.accepted.filter((entry) => entry.match !== 'pattern'))?.text ?? ''].filter(Boolean);
	if (blank.form === 'number') return [bestNumber(blank.accepted, blank.whole) ?? ''].filter(Boolean);
	if (blank.form === 'word') return [bestOf(blank.words)?.word ?? ''].filter(Boolean);
	if (blank.form === 'open') return [];
	if (blank.several) return blank.entries.filter((entry) => entry.credit > 0).map((entry) => entry.identifier);
	return [bestOf(blank.entries)?.identifier ?? ''].filter(Boolean);
}

function wrongAnswer(blank: Blank): string[] {
	if (blank.form === 'text') return ['anything else'];
	if (blank.form === 'number') return [wrongNumber(blank.accepted) ?? 'x'];
	if (blank.form === 'list') {
		const worst = [...blank.entries].sort((a, b) => a.credit - b.credit)[0];
		return worst && worst.credit < 1 ? [worst.identifier] : [];
	}
	return [];
}

const answers = (question: FillBlanksQuestion, answer: (blank: Blank) => string[]): Response => ({
	blanks: Object.fromEntries(question.blanks.map((blank) => [blank.identifier, answer(blank)]))
});

/** A response of blanks that earns the most. */
export const rightBlanks = (question: FillBlanksQuestion): Response => answers(question, rightAnswer);

function settledBlank(blank: Blank, { bank, combination }: FillBlanksQuestion): Record<string, unknown> {
	const { form } = blank;
	const rest = { form, share: combination === 'all' ? null : Math.round(blank.share * 1e5) / 1e5 };
	if (blank.form === 'text') return { ...rest, accepted: settledTexts(blank.accepted) };
	if (blank.form === 'number') return { ...rest, whole: blank.whole, accepted: settledNumbers(blank.accepted) };
	if (blank.form === 'list') {
		const entries = blank.entries.map(({ text, credit }) => ({ text, credit }));
		return { ...rest, entries, several: blank.several, shuffle: blank.shuffle };
	}
	if (blank.form === 'open') return rest;
	const place = new Map(bank.map((word, at) => [word.identifier, at]));
	const words = blank.words.map(({ word, credit }) => [place.get(word) ?? -1, credit] as const);
	return { ...rest, words: words.filter(([, credit]) => credit !== 0).sort(([a], [b]) => a - b) };
}

function blankInWords(blank: Blank, bank: Side[]): string {
	const share = ` (${percent(blank.share)} of the points)`;
	if (blank.form === 'text') return textsInWords(blank.accepted) + share;
	if (blank.form === 'number') return `${numbersInWords(blank.accepted)}${blank.whole ? ', whole' : ''}${share}`;
	if (blank.form === 'list')
		return `${blank.entries.map((entry) => `${plainText(entry.text)} (${percent(entry.credit)})`).join('; ')}${blank.several ? ', several may be chosen' : ''}${blank.shuffle ? ', shuffled' : ''}${share}`;
	if (blank.form === 'word')
		return blank.words.map(({ word, credit }) => saidBy(bank, word) + worth(credit)).join('; ') + share;
	return `at length${share}`;
}

function plainBlank(blank: Blank, word: Map<string, string>): Record<string, unknown> {
	if (blank.form === 'text') return { accepted: blank.accepted.map((entry) => entry.text) };
	if (blank.form === 'number') return { accepted: blank.accepted.map(acceptedNumberText) };
	if (blank.form === 'word')
		return {
			accepted: blank.words.filter((known) => known.credit > 0).map((known) => word.get(known.word)),
			options: [...word.values()]
		};
	if (blank.form === 'open') return {};
	return {
		accepted: blank.entries.filter((entry) => entry.credit > 0).map((entry) => plainText(entry.text)),
		options: blank.entries.map((entry) => plainText(entry.text))
	};
}

/** Why some blank earns nothing, for people; null where each does, or is a person's to mark. */
function keyless(question: FillBlanksQuestion): string | null {
	const right = rightBlanks(question).blanks!;
	const open = question.blanks.filter((blank) => {
		if (blank.form === 'open' || right[blank.identifier]?.length) return false;
		// a regular expression has no example, and yet accepts something
		return !(blank.form === 'text' && blank.accepted.some((entry) => entry.match === 'pattern' && entry.credit > 0));
	});
	if (!open.length) return null;
	const which = open.map((blank) => blank.identifier).join(', ');
	return `${open.length === 1 ? 'One blank has' : `${open.length} blanks have`} no right answer (${which}). Say what is accepted there.`;
}

const best = (question: FillBlanksQuestion) => Math.max(0, mark(question, rightBlanks(question)).credit ?? 0);

/** A question with blanks in its stem, or with several answers. */
export const fillBlanks: KindOf<FillBlanksQuestion> = {
	name: 'Fill in blanks',
	fields,
	marks: 'program',
	rich: (question, change) => ({
		...question,
		blanks: question.blanks.map((blank, at) =>
			blank.form === 'list'
				? {
						...blank,
						entries: blank.entries.map((entry, place) => ({
							...entry,
							text: change(entry.text, `blank ${at + 1}, entry ${place + 1}`)
						}))
					}
				: blank
		),
		bank: question.bank.map((word, at) => ({ ...word, text: change(word.text, `word ${at + 1}`) }))
	}),
	wording: ({ blanks, bank }) => [
		...bank.map((word) => word.text),
		...blanks.flatMap((blank) => {
			if (blank.form === 'text') return blank.accepted.map((entry) => entry.text);
			if (blank.form === 'number') return figures(blank.accepted);
			return blank.form === 'list' ? blank.entries.map((entry) => entry.text) : [];
		})
	],
	content(question) {
		const order = question.blanks.map((blank) => blank.identifier);
		return {
			// a blank that stands as a block and one alone in a paragraph are the same to everybody
			stem: replaceBlanks(question.stem, (identifier, block) => {
				const mark = `{${order.indexOf(identifier)}}`;
				return block ? `<p>${mark}</p>` : mark;
			}),
			blanks: question.blanks.map((blank) => settledBlank(blank, question)),
			bank: question.bank.map(({ text, uses }) => ({ text, uses })),
			combination: question.combination,
			shuffle: question.bank.length ? question.shuffle : null
		};
	},
	parts: (question) => [
		...question.blanks.map((blank, at) => ({ name: `blank ${at + 1}`, text: blankInWords(blank, question.bank) })),
		...sideParts('word', question.bank),
		creditPart(question),
		{ name: 'words are shuffled', text: yesOrNo(question.shuffle) }
	],
	plain({ blanks, bank }) {
		const word = new Map(bank.map(({ identifier, text }) => [identifier, plainText(text)]));
		return { blanks: Object.fromEntries(blanks.map((blank) => [blank.identifier, plainBlank(blank, word)])) };
	},
	counts: ({ blanks, bank }) => [
		[blanks.length, most.blanks, 'blanks'],
		[bank.length, most.options, 'words'],
		[
			Math.max(0, ...blanks.map((blank) => (blank.form === 'list' ? blank.entries.length : 0))),
			most.options,
			'entries in a list'
		]
	],
	mark,
	right: rightBlanks,
	wrong: (question) => answers(question, wrongAnswer),
	best: (question) => rounded(best(question)),
	keyless,
	// its blanks have shares of the whole, which are another thing than credit
	scaled: (question) => question,
	dealt: (question, { shuffled, shuffleOptions }) => ({
		...question,
		bank: question.shuffle === false ? question.bank : shuffled(question.bank),
		blanks: question.blanks.map((blank) =>
			blank.form === 'list' && shuffleOptions && blank.shuffle !== false
				? { ...blank, entries: shuffled(blank.entries) }
				: blank
		)
	}),
	hasKey: (question) => best(question) > 0
};
