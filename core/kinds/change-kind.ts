import { plainText } from '../markup/text';
import { blankMarker } from '../markup/markers';
import { escapeText, serialise } from '../xml/serialise';
import { blankQuestion, type MadeKind } from './blank';
import { isChoice, kindName, kindOf, type ChoiceQuestion, type Question } from './index';

/** A question as another kind, and what of it goes, in words for people. */
export interface ChangedKind {
	question: Question;
	goes: string[];
}

type Change = (question: Question) => { own: object; goes: string[] } | null;

const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const oneLine = (markup: string) => plainText(markup).replace(/\s+/g, ' ').trim();
const keysOf = (question: ChoiceQuestion) => question.options.filter(({ credit }) => credit > 0);
const numberIn = (text: string) =>
	/^\s*[-+−]?\d+(?:[.,]\d+)?\s*$/.test(text) ? Number(text.replace('−', '-').replace(',', '.')) : null;

/** What each kind keeps of others; null where it keeps nothing of its own and begins anew. */
const changes: Partial<Record<MadeKind, Change>> = {
	'true-false': (question) => {
		if (!isChoice(question)) return null;
		const options = question.options.slice(0, 2);
		const key = options.findIndex(({ credit }) => credit > 0);
		return {
			own: {
				...choiceOf(question),
				options: options.map((option, at) => ({ ...option, credit: at === key ? 1 : 0 })),
				shuffle: false
			},
			goes: question.options.slice(2).map(({ text }) => `option “${oneLine(text)}”`)
		};
	},
	'multiple-choice': (question) => toChoice(question, false),
	'multiple-response': (question) => toChoice(question, true),
	'short-answer': (question) => {
		const accepted = textsOf(question);
		return accepted && { own: { accepted }, goes: isChoice(question) ? wrongOf(question) : goneFromNumbers(question) };
	},
	numeric: (question) => {
		const texts = question.kind === 'short-answer' || isChoice(question) ? textsOf(question) : null;
		if (!texts) return null;
		const numbers = texts.flatMap(({ text, credit }) => {
			const value = numberIn(text);
			return value === null ? [] : [{ value, tolerance: 0, credit }];
		});
		if (!numbers.length) return null;
		const lost = texts.filter(({ text }) => numberIn(text) === null).map(({ text }) => `answer “${text}”`);
		return {
			own: { accepted: numbers, whole: numbers.every(({ value }) => Number.isInteger(value)) },
			goes: [...lost, ...(isChoice(question) ? wrongOf(question) : [])]
		};
	},
	'fill-blanks': (question) => {
		const accepted = textsOf(question);
		if (!accepted) return null;
		const marker = serialise([blankMarker('B1')]);
		return {
			own: {
				stem: `${question.stem}<p>${marker}</p>`,
				blanks: [{ identifier: 'B1', share: 1, form: 'text', accepted }],
				bank: [],
				combination: 'sum',
				shuffle: null
			},
			goes: isChoice(question) ? wrongOf(question) : []
		};
	}
};

function choiceOf({ options, shuffle, combination, bounds }: ChoiceQuestion): object {
	return { options, shuffle, combination, bounds, lostKeys: [] };
}

function wrongOf(question: ChoiceQuestion): string[] {
	return question.options.filter(({ credit }) => credit <= 0).map(({ text }) => `option “${oneLine(text)}”`);
}

function goneFromNumbers(question: Question): string[] {
	if (question.kind !== 'numeric') return [];
	return question.accepted.some((accepted) => !('value' in accepted) || accepted.tolerance !== 0)
		? ['tolerances and ranges']
		: [];
}

/** What a question accepts, as texts; null where it accepts nothing that can be written. */
function textsOf(question: Question): { text: string; credit: number; caseSensitive: boolean }[] | null {
	if (question.kind === 'short-answer') return question.accepted;
	if (isChoice(question) && keysOf(question).length)
		return keysOf(question).map(({ text, credit }) => ({ text: oneLine(text), credit, caseSensitive: false }));
	if (question.kind === 'numeric') {
		const values = question.accepted.flatMap((accepted) =>
			'value' in accepted ? [{ text: String(accepted.value), credit: accepted.credit, caseSensitive: false }] : []
		);
		return values.length ? values : null;
	}
	const blank = question.kind === 'fill-blanks' && question.blanks.length === 1 ? question.blanks[0] : undefined;
	return blank?.form === 'text' ? blank.accepted : null;
}

function toChoice(question: Question, several: boolean): { own: object; goes: string[] } | null {
	if (isChoice(question)) {
		const [key, ...others] = keysOf(question);
		if (several || !others.length)
			return { own: { ...choiceOf(question), shuffle: question.shuffle ?? true }, goes: [] };
		return {
			own: {
				...choiceOf(question),
				options: question.options.map((option) => ({ ...option, credit: option === key ? 1 : 0 })),
				bounds: { lower: null, upper: null },
				combination: 'sum'
			},
			goes: others.map(({ text }) => `“${oneLine(text)}” as a key`)
		};
	}
	const texts = textsOf(question);
	if (!texts) return null;
	const options = texts.map(({ text, credit }, at) => ({
		identifier: letters[at] ?? `O${at}`,
		text: escapeText(text),
		credit: several ? credit / texts.length : at === 0 ? 1 : 0,
		pinned: false
	}));
	return {
		own: { options, shuffle: true, combination: 'sum', bounds: { lower: 0, upper: 1 }, lostKeys: [] },
		goes: []
	};
}

/** A question as another kind: what both have is kept, and what goes is named. The question that was given is not changed. */
export function changeKind(question: Question, to: MadeKind): ChangedKind {
	if (question.kind === to) return { question, goes: [] };
	const blank = blankQuestion(to, question.points, question.language ?? '');
	const { identifier, title, stem, category, tags, language, feedback, hints, attachments, metadata, removed, source } =
		question;
	const common = {
		identifier,
		title,
		stem,
		category,
		tags,
		language,
		feedback,
		hints,
		attachments,
		metadata,
		removed,
		source
	};
	const more = {
		...(question.difficulty === undefined ? {} : { difficulty: question.difficulty }),
		...(question.stimulus === undefined ? {} : { stimulus: question.stimulus })
	};
	const kept = changes[to]?.(question);
	if (kept) return { question: { ...blank, ...common, ...more, ...kept.own }, goes: kept.goes };
	const goes = kindOf(question)
		.parts(question)
		.filter(({ text }) => text.trim())
		.map(({ name }) => name);
	const begins = to === 'fill-blanks' ? { stem: `${stem}${blank.stem}` } : {};
	return {
		question: { ...blank, ...common, ...more, ...begins },
		goes: goes.length
			? [`all that makes it ${kindName(question.kind).toLowerCase()}: ${[...new Set(goes)].join(', ')}`]
			: []
	};
}
