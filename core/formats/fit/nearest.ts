import { ExpressionError } from '../../kinds/calculated/expression';
import { workedOut } from '../../kinds/calculated/datasets';
import { replaceBlanks } from '../../markup/markers';
import { conform } from '../../markup/conform';
import { escapeAttribute, serialise } from '../../xml/serialise';
import { parseXml } from '../../xml/parse';
import { placeName } from '../shapes';
import { bestNumber } from '../../kinds/answers';
import { withCommon, type Markup, type QuestionCommon } from '../../model/question';
import type {
	Blank,
	CalculatedQuestion,
	FillBlanksQuestion,
	HotspotQuestion,
	LabelImageQuestion,
	MatchingQuestion,
	Kind,
	OrderingQuestion,
	Question
} from '../../kinds';

/** A way to offer a question as one of another kind, or as several. */
export interface Way {
	from: Kind;
	/** The kind that it becomes. */
	to: Kind;
	/** What becomes of it, for people. */
	how: string;
	change: (question: Question, workedOutCount: number) => Question[];
}

const round = (value: number) => Math.round(value * 1e6) / 1e6;

function commonOf(question: Question, more: Partial<QuestionCommon> = {}): QuestionCommon {
	const { identifier, title, stem, points, category, tags, language, feedback, hints, attachments } = question;
	const { difficulty, stimulus, metadata, removed, source } = question;
	return {
		...{
			identifier,
			title,
			stem,
			points,
			category,
			tags,
			language,
			feedback,
			hints,
			attachments,
			metadata,
			removed,
			source
		},
		...(difficulty === undefined ? {} : { difficulty }),
		...(stimulus === undefined ? {} : { stimulus }),
		...more
	};
}

const isBlock = (markup: Markup) => /^<(p|div|table|ul|ol|h\d|blockquote|pre|dl)\b/.test(markup);
const paragraph = (markup: Markup) => (isBlock(markup) ? markup : `<p>${markup}</p>`);
const below = (stem: Markup, more: Markup) => (stem ? `${paragraph(stem)}${paragraph(more)}` : more);
const picture = ({ picture: { name, alt, width, height } }: HotspotQuestion | LabelImageQuestion): Markup =>
	`<img src="media:${escapeAttribute(name)}" alt="${escapeAttribute(alt)}"${width === null ? '' : ` width="${width}"`}${height === null ? '' : ` height="${height}"`}/>`;
const part = (points: number | null, share: number) => (points === null ? null : round(points * share));

function essay(question: Question, stem: Markup): Question {
	return { ...commonOf(question, { stem }), kind: 'essay' };
}

function splitMatching(given: Question): Question[] {
	const question = given as MatchingQuestion;
	// one that belongs to nothing would be a choice without a key
	const lefts = question.left.filter((side) =>
		question.pairs.some((pair) => pair.left === side.identifier && pair.credit > 0)
	);
	const share = 1 / Math.max(1, lefts.length);
	return lefts.map((left, at) => {
		const right = question.pairs.filter((pair) => pair.left === left.identifier && pair.credit > 0);
		const several = right.length > 1;
		return {
			...commonOf(question, {
				identifier: `${question.identifier}-${at + 1}`,
				title: question.title ? `${question.title} (${at + 1})` : '',
				stem: below(question.stem, left.text),
				points: part(question.points, share)
			}),
			kind: several ? 'multiple-response' : 'multiple-choice',
			options: question.right.map((side) => ({
				identifier: side.identifier,
				text: side.text,
				credit: right.some((pair) => pair.right === side.identifier) ? round(1 / right.length) : 0,
				pinned: false
			})),
			shuffle: question.shuffle,
			combination: several ? 'all' : 'sum',
			bounds: { lower: null, upper: null },
			lostKeys: []
		};
	});
}

/** Labels of a picture as things to be matched with its places, which are numbered. */
export function labelsAsMatching(given: Question): Question[] {
	const question = given as LabelImageQuestion;
	const { pairs, combination, bounds } = question;
	return [
		{
			...commonOf(question, { stem: below(question.stem, picture(question)) }),
			kind: 'matching',
			left: question.labels,
			right: question.targets.map((target, at) => ({
				identifier: target.identifier,
				text: placeName(target, at),
				uses: target.uses
			})),
			pairs,
			combination,
			bounds,
			shuffle: null
		}
	];
}

const wordsOf = (blank: Blank, question: FillBlanksQuestion): { identifier: string; text: Markup; credit: number }[] =>
	blank.form === 'list'
		? blank.entries
		: blank.form === 'word'
			? question.bank.map(({ identifier, text }) => ({
					identifier,
					text,
					credit: blank.words.find((one) => one.word === identifier)?.credit ?? 0
				}))
			: [];

/** A stem with words in the place of its blanks; those that stand as blocks are gone. */
function withoutBlanks(stem: Markup, words: (identifier: string) => string): Markup {
	const text = replaceBlanks(stem, (identifier, block) => (block ? '' : words(identifier)));
	return serialise(conform(parseXml(`<x>${text}</x>`).root?.children ?? [])).trim();
}

/** One question for each blank, in which the others read as a line. */
function splitBlanks(given: Question): Question[] {
	const question = given as FillBlanksQuestion;
	return question.blanks.map((blank, at): Question => {
		const stem = withoutBlanks(question.stem, (identifier) => (identifier === blank.identifier ? '_____' : '…'));
		const single = question.blanks.length === 1;
		const common = commonOf(question, {
			stem,
			identifier: single ? question.identifier : `${question.identifier}-${at + 1}`,
			title: single || !question.title ? question.title : `${question.title} (${at + 1})`,
			points: part(question.points, question.combination === 'all' ? 1 / question.blanks.length : blank.share)
		});
		if (blank.form === 'text') return withCommon(common, { kind: 'short-answer', accepted: blank.accepted });
		if (blank.form === 'number')
			return withCommon(common, { kind: 'numeric', accepted: blank.accepted, whole: blank.whole });
		if (blank.form === 'open') return withCommon(common, { kind: 'essay' });
		const several = blank.form === 'list' && blank.several;
		return withCommon(common, {
			kind: several ? 'multiple-response' : 'multiple-choice',
			options: wordsOf(blank, question).map((one) => ({ ...one, pinned: false })),
			shuffle: blank.form === 'list' ? blank.shuffle : question.shuffle,
			combination: 'sum',
			bounds: { lower: null, upper: null },
			lostKeys: []
		});
	});
}

function orderAsMatching(given: Question): Question[] {
	const question = given as OrderingQuestion;
	const texts = new Map(question.items.map((item) => [item.identifier, item.text]));
	const share = round(1 / Math.max(1, question.items.length));
	return [
		{
			...commonOf(question),
			kind: 'matching',
			left: question.presented.map((identifier) => ({ identifier, text: texts.get(identifier) ?? '', uses: 1 })),
			right: question.items.map((_, at) => ({ identifier: `P${at + 1}`, text: String(at + 1), uses: 1 })),
			pairs: question.items.map((item, at) => ({ left: item.identifier, right: `P${at + 1}`, credit: share })),
			combination: question.rule === 'all' ? 'all' : 'sum',
			bounds: { lower: null, upper: null },
			shuffle: false
		}
	];
}

function orderAsEssay(given: Question): Question[] {
	const question = given as OrderingQuestion;
	const texts = new Map(question.items.map((item) => [item.identifier, item.text]));
	const list = question.presented.map((identifier) => `<li>${texts.get(identifier) ?? ''}</li>`).join('');
	return [essay(question, below(question.stem, `<ul>${list}</ul>`))];
}

function numberAsText(given: Question): Question[] {
	if (given.kind !== 'numeric') return [given];
	const { accepted, whole, slider: _1, unit: _2, ...rest } = given;
	const texts = accepted.flatMap((number) => {
		const text = bestNumber([{ ...number, credit: 1 }], whole);
		return text === null || number.credit <= 0 ? [] : [{ text, credit: number.credit, caseSensitive: false }];
	});
	return [{ ...rest, kind: 'short-answer', accepted: texts }];
}

function calculatedAsNumbers(given: Question, count: number): Question[] {
	const question = given as CalculatedQuestion;
	try {
		return Array.from({ length: Math.max(1, count) }, (_, at) => {
			const made = workedOut(question, `${question.identifier} ${at + 1}`);
			return count > 1
				? { ...made, identifier: `${made.identifier}-${at + 1}`, title: made.title ? `${made.title} (${at + 1})` : '' }
				: made;
		});
	} catch (error) {
		if (!(error instanceof ExpressionError)) throw error;
		return [essay(question, question.stem)];
	}
}

/** The ways round for kinds that a format does not know, nearest first. A new one is an entry here. */
export const ways: Way[] = [
	{
		from: 'calculated',
		to: 'numeric',
		how: 'it is worked out with numbers of its own and becomes numeric',
		change: calculatedAsNumbers
	},
	{
		from: 'label-image',
		to: 'matching',
		how: 'its labels are matched with the places of the picture, which are numbered',
		change: labelsAsMatching
	},
	{
		from: 'ordering',
		to: 'matching',
		how: 'each thing is matched with its place in the order',
		change: orderAsMatching
	},
	{
		from: 'matching',
		to: 'multiple-choice',
		how: 'it becomes one question for each on the left that belongs to something, with those on the right as options',
		change: splitMatching
	},
	{
		from: 'fill-blanks',
		to: 'short-answer',
		how: 'it becomes one question for each blank',
		change: splitBlanks
	},
	{
		from: 'numeric',
		to: 'short-answer',
		how: 'its number is held against the answer as a text, without tolerance',
		change: numberAsText
	},
	{
		from: 'ordering',
		to: 'essay',
		how: 'it is put in order in writing, and a person marks it',
		change: orderAsEssay
	},
	{
		from: 'hotspot',
		to: 'essay',
		how: 'the place in the picture is described in writing, and a person marks it',
		change: (question) => [essay(question, below(question.stem, picture(question as HotspotQuestion)))]
	},
	{
		from: 'file-upload',
		to: 'essay',
		how: 'it is answered in writing instead of with a file',
		change: (question) => [essay(question, question.stem)]
	},
	{
		from: 'true-false',
		to: 'multiple-choice',
		how: 'it becomes a multiple choice of its two options',
		change: (question) => [{ ...question, kind: 'multiple-choice' } as Question]
	},
	{
		from: 'information',
		to: 'essay',
		how: 'it becomes an essay that needs no answer',
		change: (question) => [{ ...commonOf(question), kind: 'essay' }]
	}
];
