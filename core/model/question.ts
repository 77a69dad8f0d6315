/** Rich text: well-formed XHTML without a root element, cleaned by core/markup; pictures read `src="media:NAME"`. */
export type Markup = string;

/** The kinds of question that the model holds. */
export const kinds = [
	'true-false',
	'multiple-choice',
	'multiple-response',
	'short-answer',
	'numeric',
	'fill-blanks',
	'matching',
	'ordering',
	'essay',
	'file-upload',
	'hotspot',
	'label-image',
	'calculated',
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

/** A text or a picture that several questions refer to. */
export interface Stimulus {
	identifier: string;
	title: string;
	content: Markup;
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
	/** How hard it is said to be, in the words of the source. */
	difficulty?: string;
	/** What several questions share, and a student reads before the stem. */
	stimulus?: Stimulus;
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
	bounds: Bounds;
	/** Keys of the source that name no option, or more than one. */
	lostKeys: string[];
}

/** One text that is accepted, with its share of the points. */
export interface AcceptedText {
	text: string;
	credit: number;
	caseSensitive: boolean;
	/** How the text is held against the answer, where it is not the whole of it: contained in it, or a regular expression. */
	match?: 'contains' | 'pattern';
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
	/** What the number counts, for people: "m", "knots". */
	unit?: string;
	/** The number is chosen on a scale instead of typed. */
	slider?: { lower: number; upper: number; step: number | null };
}

/** The least and the greatest credit of a sum, null for no bound. */
export interface Bounds {
	lower: number | null;
	upper: number | null;
}

/** One entry of a list in a blank; `credit` is a share of the blank. */
export interface ListEntry {
	identifier: string;
	text: Markup;
	credit: number;
}

/** How a blank is filled: with a text, a number, an entry of its own list, a word of the shared bank, or at length for a person to mark. */
export type BlankAnswer =
	| { form: 'text'; accepted: AcceptedText[] }
	| { form: 'number'; accepted: AcceptedNumber[]; whole: boolean }
	| { form: 'list'; entries: ListEntry[]; several: boolean; shuffle: boolean | null }
	| { form: 'word'; words: { word: string; credit: number }[] }
	| { form: 'open' };

/** One blank; `share` is its share of the points of the question. In the stem it is `<span class="blank" id="…"/>`, or a `div` where it stands as a block. */
export type Blank = { identifier: string; share: number } & BlankAnswer;

/** A thing that can be put somewhere, and how often; null is as often as one likes. */
export interface Side {
	identifier: string;
	text: Markup;
	uses: number | null;
}

/** A question with blanks in its stem, or with several answers. */
export interface FillBlanksQuestion extends QuestionCommon {
	kind: 'fill-blanks';
	blanks: Blank[];
	/** The words that blanks of the form "word" are filled with, shared by all of them. */
	bank: Side[];
	combination: Combination;
	/** May the words of the bank be shuffled. */
	shuffle: boolean | null;
}

/** What belongs together, by identifiers, with its share of the points. */
export interface Pair {
	left: string;
	right: string;
	credit: number;
}

/** A question answered by putting things on the left together with those on the right. */
export interface MatchingQuestion extends QuestionCommon {
	kind: 'matching';
	left: Side[];
	right: Side[];
	pairs: Pair[];
	combination: Combination;
	bounds: Bounds;
	shuffle: boolean | null;
}

/** A question answered by putting things in order. */
export interface OrderingQuestion extends QuestionCommon {
	kind: 'ordering';
	/** In the right order. */
	items: { identifier: string; text: Markup }[];
	/** The identifiers in the order in which they are shown where nothing is shuffled. */
	presented: string[];
	/** All in place or nothing; or each one in its own place for itself. */
	rule: 'all' | 'position';
	shuffle: boolean | null;
}

/** A picture that is pointed at: an attachment's name, and its size in pixels where it is known. */
export interface Picture {
	name: string;
	width: number | null;
	height: number | null;
	alt: string;
}

/** An area of a picture, in its pixels: rect left, top, right, bottom; circle x, y, radius; ellipse x, y, two radii; poly x, y, x, y, …; default is all of it. */
export interface Shape {
	identifier: string;
	shape: 'rect' | 'circle' | 'ellipse' | 'poly' | 'default';
	coordinates: number[];
}

/** A question answered by pointing at a picture. */
export interface HotspotQuestion extends QuestionCommon {
	kind: 'hotspot';
	picture: Picture;
	shapes: (Shape & { credit: number })[];
	/** Areas that can be seen and chosen, or any point. */
	mode: 'areas' | 'points';
	/** How many may be chosen; 0 is as many as one likes. */
	picks: number;
	/** The credit of a point outside of every shape. */
	outside: number;
	combination: Combination;
	bounds: Bounds;
}

/** A question answered by laying labels on a picture. */
export interface LabelImageQuestion extends QuestionCommon {
	kind: 'label-image';
	picture: Picture;
	labels: Side[];
	targets: (Shape & { uses: number | null })[];
	/** `left` is a label, `right` a target. */
	pairs: Pair[];
	combination: Combination;
	bounds: Bounds;
}

/** A number of a calculated question, and where its values come from. Expressions are in the notation of mathjs. */
export interface Variable {
	name: string;
	whole: boolean;
	/** How many decimals are shown; null for as many as there are. */
	decimals: number | null;
	values:
		| { form: 'range'; min: number; max: number; step: number | null }
		| { form: 'set'; values: number[] }
		| { form: 'expression'; expression: string };
}

/** A question whose numbers are new for each student. In rich text a variable is `<var class="variable">NAME</var>`. */
export interface CalculatedQuestion extends QuestionCommon {
	kind: 'calculated';
	variables: Variable[];
	/** What must hold of the values that are drawn, in the notation of mathjs. */
	constraints: string[];
	/** The answer, in the notation of mathjs. */
	expression: string;
	/** How far off an answer may be: in its own unit, or as a share of the right value. */
	tolerance: { mode: 'absolute' | 'relative'; value: number };
	whole: boolean;
	unit?: string;
}

/** A question answered with a file that a person marks. */
export interface FileUploadQuestion extends QuestionCommon {
	kind: 'file-upload';
	/** The media type that is asked for, where the source names one. */
	accepts: string | null;
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
	/** The line of the file at which its markup stops being well-formed, where that is why. */
	faultLine?: number;
}

/** A question of any kind. */
export type Question =
	| ChoiceQuestion
	| ShortAnswerQuestion
	| NumericQuestion
	| FillBlanksQuestion
	| MatchingQuestion
	| OrderingQuestion
	| EssayQuestion
	| FileUploadQuestion
	| HotspotQuestion
	| LabelImageQuestion
	| CalculatedQuestion
	| InformationQuestion
	| UnreadableQuestion;

const names: Record<Kind, string> = {
	'true-false': 'True or false',
	'multiple-choice': 'Multiple choice',
	'multiple-response': 'Multiple response',
	'short-answer': 'Short answer',
	numeric: 'Numeric',
	'fill-blanks': 'Fill in blanks',
	matching: 'Matching',
	ordering: 'Ordering',
	essay: 'Essay',
	'file-upload': 'File upload',
	hotspot: 'Hotspot',
	'label-image': 'Label image',
	calculated: 'Calculated',
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
 * A question out of what all have in common and what is its own. It is copied by Object.assign, which the engine does
 * many times as fast as spreading one object and adding to it; readers make every question this way.
 */
export function withCommon<Own extends { kind: Question['kind'] }>(
	common: QuestionCommon,
	own: Own
): QuestionCommon & Own {
	return Object.assign({}, common, own);
}

/**
 * The same question with each of its rich texts put through a function, in the order in which a student meets them.
 * The parts that hold no rich text are shared with the question that was given.
 */
export function mapMarkup<Q extends Question>(question: Q, change: (markup: Markup, field: string) => Markup): Q {
	const copy: Question = { ...question };
	if (copy.stimulus)
		copy.stimulus = { ...copy.stimulus, content: change(copy.stimulus.content, 'what several questions share') };
	copy.stem = change(question.stem, 'stem');
	const texts = <T extends { text: Markup }>(list: T[], name: string) =>
		list.map((one, at) => ({ ...one, text: change(one.text, `${name} ${at + 1}`) }));
	if (isChoice(copy))
		copy.options = copy.options.map((option, at) => ({
			...option,
			text: change(option.text, `option ${at + 1}`),
			...(option.feedback === undefined ? {} : { feedback: change(option.feedback, `feedback of option ${at + 1}`) })
		}));
	else if (copy.kind === 'fill-blanks') {
		copy.blanks = copy.blanks.map((blank, at) =>
			blank.form === 'list' ? { ...blank, entries: texts(blank.entries, `blank ${at + 1}, entry`) } : blank
		);
		copy.bank = texts(copy.bank, 'word');
	} else if (copy.kind === 'matching') {
		copy.left = texts(copy.left, 'left');
		copy.right = texts(copy.right, 'right');
	} else if (copy.kind === 'ordering') copy.items = texts(copy.items, 'item');
	else if (copy.kind === 'label-image') copy.labels = texts(copy.labels, 'label');
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
