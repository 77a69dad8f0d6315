/** Rich text: well-formed XHTML without a root element, cleaned by core/markup; pictures read `src="media:NAME"`. */
export type Markup = string;

/** The kinds of question that the model holds. */
export const kinds = [
	'true-false',
	'multiple-choice',
	'multiple-response',
	'short-answer',
	'numeric',
	'essay',
	'information',
	'unreadable'
] as const;

/** One kind of question. */
export type Kind = (typeof kinds)[number];

/** What a student is told after answering; each part is there or not. */
export interface Feedback {
	general?: Markup;
	correct?: Markup;
	incorrect?: Markup;
	partly?: Markup;
}

/** A file that a question uses. `name` is its path in the package; `hash` its SHA-256 in hex once it is stored. */
export interface Attachment {
	name: string;
	mediaType: string;
	hash: string | null;
	missing: boolean;
}

/** Where a question came from: the file in the package and the lines of it, counted from 1. */
export interface Source {
	format: string;
	file: string;
	line: number;
	endLine: number;
	identifier: string;
}

/** A value that the source carried and the model has no place for. */
export interface Metadata {
	name: string;
	value: string;
}

/** What every kind of question has. `points` is null where the source is silent. */
export interface QuestionCommon {
	identifier: string;
	title: string;
	stem: Markup;
	points: number | null;
	category: string[];
	tags: string[];
	language: string | null;
	feedback: Feedback;
	hints: Markup[];
	attachments: Attachment[];
	metadata: Metadata[];
	/** Active content that cleaning took out, named for people: "script", "onerror handler". */
	removed: string[];
	source: Source | null;
}

/** One option. `credit` is a share of the points from -1 to 1; a pinned option keeps its place when options are shuffled. */
export interface Option {
	identifier: string;
	text: Markup;
	credit: number;
	feedback?: Markup;
	pinned: boolean;
}

/** How the credit of several ticked options becomes a mark: each for itself, or all of them or nothing. */
export type Combination = 'sum' | 'all';

/** A question whose answer is one or several of its options. */
export interface ChoiceQuestion extends QuestionCommon {
	kind: 'true-false' | 'multiple-choice' | 'multiple-response';
	options: Option[];
	/** May the options be shuffled; null where the source is silent. */
	shuffle: boolean | null;
	combination: Combination;
	/** The least and the greatest credit of the whole, null for no bound. */
	bounds: { lower: number | null; upper: number | null };
	/** Keys of the source that name no option, or more than one. */
	lostKeys: string[];
}

/** One text that is accepted, with its share of the points. */
export interface AcceptedText {
	text: string;
	credit: number;
	caseSensitive: boolean;
}

/** A question answered with a word or a phrase. */
export interface ShortAnswerQuestion extends QuestionCommon {
	kind: 'short-answer';
	accepted: AcceptedText[];
}

/** A number that is accepted: a value with an absolute tolerance, or a range; null is an end that is open to infinity. */
export type AcceptedNumber =
	| { value: number; tolerance: number; credit: number }
	| { min: number | null; max: number | null; includesMin: boolean; includesMax: boolean; credit: number };

/** A question answered with a number. */
export interface NumericQuestion extends QuestionCommon {
	kind: 'numeric';
	accepted: AcceptedNumber[];
	/** Only whole numbers may be entered. */
	whole: boolean;
}

/** A question that a person marks. */
export interface EssayQuestion extends QuestionCommon {
	kind: 'essay';
}

/** Text or a picture without a response. */
export interface InformationQuestion extends QuestionCommon {
	kind: 'information';
}

/** A question that was recognised but cannot be held: it keeps its source as it came. */
export interface UnreadableQuestion extends QuestionCommon {
	kind: 'unreadable';
	/** Why it could not be read, for people. */
	reason: string;
	/** The source as it came. */
	fragment: string;
}

/** A question of any kind. */
export type Question =
	ChoiceQuestion | ShortAnswerQuestion | NumericQuestion | EssayQuestion | InformationQuestion | UnreadableQuestion;

const names: Record<Kind, string> = {
	'true-false': 'True or false',
	'multiple-choice': 'Multiple choice',
	'multiple-response': 'Multiple response',
	'short-answer': 'Short answer',
	numeric: 'Numeric',
	essay: 'Essay',
	information: 'Information',
	unreadable: 'Unreadable'
};

/** The name of a kind for people. */
export function kindName(kind: Kind): string {
	return names[kind];
}

/** Whether the answer is one or several of the options. */
export function isChoice(question: Question): question is ChoiceQuestion {
	return 'options' in question;
}

/** The common part of a question with nothing in it yet. */
export function emptyCommon(identifier: string, title: string): QuestionCommon {
	return {
		identifier,
		title,
		stem: '',
		points: null,
		category: [],
		tags: [],
		language: null,
		feedback: {},
		hints: [],
		attachments: [],
		metadata: [],
		removed: [],
		source: null
	};
}

/**
 * The same question with each of its rich texts put through a function, in the order in which a student meets them.
 * The parts that hold no rich text are shared with the question that was given.
 */
export function mapMarkup<Q extends Question>(question: Q, change: (markup: Markup, field: string) => Markup): Q {
	const copy: Question = { ...question, stem: change(question.stem, 'stem') };
	if (isChoice(copy))
		copy.options = copy.options.map((option, at) => ({
			...option,
			text: change(option.text, `option ${at + 1}`),
			...(option.feedback === undefined ? {} : { feedback: change(option.feedback, `feedback of option ${at + 1}`) })
		}));
	copy.feedback = { ...copy.feedback };
	for (const part of ['general', 'correct', 'incorrect', 'partly'] as const)
		if (copy.feedback[part] !== undefined) copy.feedback[part] = change(copy.feedback[part], `${part} feedback`);
	copy.hints = copy.hints.map((hint, at) => change(hint, `hint ${at + 1}`));
	return copy as Q;
}

/** Every rich text of a question with the name of its field for people. */
export function markupOf(question: Question): { field: string; markup: Markup }[] {
	const found: { field: string; markup: Markup }[] = [];
	mapMarkup(question, (markup, field) => {
		found.push({ field, markup });
		return markup;
	});
	return found;
}
