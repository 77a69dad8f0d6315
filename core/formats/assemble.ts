import type { ReaderRule } from '../reports/rules';
import { ownValue } from '../model/lookup';
import { plainText, fold } from '../markup/text';
import { withCommon, emptyCommon, type Markup, type QuestionCommon } from '../model/question';
import { kinds, type Kind, type Question } from '../kinds';
import type { AcceptedNumber, AcceptedText, Option } from '../model/pieces';
import type { Report } from '../reports/report';
import { isTrueFalse } from './choices';
import { parseNumber } from '../numbers/numbers';
import { blankMarker } from '../markup/markers';
import { serialise } from '../xml/serialise';

/** How a key names what is right, tried in the order given: by letter, by place from 1 or from 0, by the option's own text, by a word for true or false, or as the answer itself. */
export const keyForms = ['letter', 'index', 'index0', 'text', 'truth', 'answer'] as const;

/** One form of a key. */
export type KeyForm = (typeof keyForms)[number];

/** What is known of a question that came in no standard's shape: as a row of a table, an object, or lines of text. */
export interface Draft {
	title: string;
	stem: Markup;
	/** The file's own word for the kind, or our name for it. */
	kind: string | null;
	options: { text: Markup; credit: number | null; right: boolean | null; feedback?: Markup; pinned?: boolean }[];
	/** The keys as they are written, each by itself; null where the file has no place for one. */
	keys: string[] | null;
	points: string | number | null;
	category: string[];
	tags: string[];
	feedback: { general?: Markup; correct?: Markup; incorrect?: Markup; partly?: Markup };
	hints: Markup[];
	difficulty?: string;
	shuffle: boolean | null;
	accepted: { text: string; credit: number; caseSensitive?: boolean }[];
	numbers: AcceptedNumber[];
	pairs: [Markup, Markup][];
	distractors: Markup[];
	order: Markup[];
	truth: boolean | null;
	/** A person marks it, as the file says. */
	essay: boolean;
	tolerance: number | null;
	language: string | null;
	unit?: string;
	/** What is accepted in each run of underscores of the stem, where each is a blank of its own. */
	blanks?: string[][];
	/** The places in `order` of the things as they are shown, where that is another order. */
	presented?: number[];
	metadata?: { name: string; value: string }[];
}

/** A run of underscores or dots in a stem that stands for a blank. */
export const blankRun = /\[\s*_{2,}\s*\]|_{3,}|\.{6,}|…{2,}|\[(?:blank|gap)\s*\d*\]/gi;

/** A draft with nothing in it yet. */
export function emptyDraft(): Draft {
	return {
		title: '',
		stem: '',
		kind: null,
		options: [],
		keys: null,
		points: null,
		category: [],
		tags: [],
		feedback: {},
		hints: [],
		shuffle: null,
		accepted: [],
		numbers: [],
		pairs: [],
		distractors: [],
		order: [],
		truth: null,
		essay: false,
		tolerance: null,
		language: null
	};
}

const round = (value: number) => Math.round(value * 1e6) / 1e6;

/** Words for kinds as people write them, by the beginning of what is left of them without blanks and dashes. */
const kindWords: [RegExp, Kind][] = [
	[/^(tf|t\/f|truefalse|true\/false|trueorfalse|yesno|yes\/no|boolean|bool)$/, 'true-false'],
	[
		/^(mc|mcq|scq|mchoice|multiplechoice(?:single(?:answer|choice|correct|select)?)?|single|singlechoice|singleanswer|choice|one|sc|radio|bestanswer|select|selectone)$/,
		'multiple-choice'
	],
	[
		/^(mr|mrq|ma|multi|multiple|many|multipleresponse|multipleresponses|msq|maq|mmcq|multipleanswers?|multiplecorrect|multi(?:ple)?select|multiplechoicemultiple(?:answers?|correct|select)?|checkbox(es)?|selectall|severalanswers)$/,
		'multiple-response'
	],
	[
		/^(sa|short|shortanswer|shorttext|word|text|textanswer|fill|fillin|fillin(?:the)?blanks?|fib|identification|openshort|term)$/,
		'short-answer'
	],
	[/^(num|number|numeric|numerical|numericanswer|integer|decimal|value)$/, 'numeric'],
	[/^(match|matching|pairs|pair|matchpairs)$/, 'matching'],
	[/^(order|ordering|sequence|sequencing|rank|ranking|sort)$/, 'ordering'],
	[/^(essay|open|openended|longanswer|long|longtext|freetext|free|discussion|talk|written|paragraph)$/, 'essay'],
	[/^(file|upload|fileupload|attachment|handin)$/, 'file-upload'],
	[/^(info|information|description|instruction|instructions|note|textonly)$/, 'information']
];

/** Our kind for a word of a file, or null where the word is none that is known. */
export function kindOfWord(word: string): Kind | null {
	const plain = word.toLowerCase().trim();
	if ((kinds as readonly string[]).includes(plain)) return plain as Kind;
	const bare = plain.replace(/questions?$/, '').replace(/[\s_.()-]+/g, '');
	return kindWords.find(([pattern]) => pattern.test(bare))?.[1] ?? null;
}

/**
 * What the words of a file for kinds mean where they explain one another: beside a word for a single choice, “multiple
 * choice” is one of several. Undefined where they do not.
 */
export function kindsTogether(given: string[]): Record<string, string> | undefined {
	const bare = (word: string) => word.toLowerCase().replace(/[^a-z]/g, '');
	if (!given.some((word) => /^single/.test(bare(word)))) return undefined;
	const several = given.filter((word) => /^multiplechoice(?:questions?)?$/.test(bare(word)));
	return several.length ? Object.fromEntries(several.map((word) => [word, 'multiple-response'])) : undefined;
}

const trueWords = /^(t|true|yes|y|right|correct|1|wahr|richtig|vrai|ja|verdadero|cierto|vero|waar|verdadeiro)$/i;
const falseWords = /^(f|false|no|n|wrong|incorrect|0|falsch|faux|nein|falso|onwaar|niet waar)$/i;

/** Whether a text is a usual word for true or for false; null where it is neither. Digits count only where `digits` says so. */
export function truthOf(text: string, digits = false): boolean | null {
	const plain = text.trim().replace(/[.!]$/, '');
	if (/^[01]$/.test(plain) && !digits) return null;
	return trueWords.test(plain) ? true : falseWords.test(plain) ? false : null;
}

/** A number that is accepted, as people write it: "3.2 +/- 0.1", "3.1 to 3.3", "8"; null where it is none. */
export function numberAnswer(text: string): AcceptedNumber | null {
	const plain = fold(text);
	const number = '[-+\\u2212]?(?:\\d+(?:[.,]\\d+)?|[.,]\\d+)(?:[eE][-+]?\\d+)?';
	const around = new RegExp(
		`^(${number})\\s*(?:\\+\\s*/?\\s*-|±|\\+-|plus or minus)\\s*(${number})\\s*(%?)$`,
		'i'
	).exec(plain);
	if (around) {
		const [value, given] = [parseNumber(around[1]!), parseNumber(around[2]!)];
		if (value !== null && given !== null)
			return { value, tolerance: Math.abs(around[3] ? (value * given) / 100 : given), credit: 1 };
	}
	const range = new RegExp(
		`^(?:(?:between|from)\\s+)?(${number})\\s*(?:to|and|\\.\\.\\.?|…|–|—)\\s*(${number})$`,
		'i'
	).exec(plain);
	if (range) {
		const [min, max] = [parseNumber(range[1]!), parseNumber(range[2]!)];
		if (min !== null && max !== null && min <= max)
			return { min, max, includesMin: true, includesMax: true, credit: 1 };
	}
	const value = parseNumber(plain.replace(/^=\s*/, ''));
	return value === null ? null : { value, tolerance: 0, credit: 1 };
}

const letterOf = (at: number) => String.fromCharCode(65 + at);

/** The place of the option that a key names by a form, or null. */
function placeOf(key: string, form: KeyForm, options: Draft['options']): number | null {
	const plain = fold(key).replace(/^[([]\s*|\s*[)\].:]$/g, '');
	if (form === 'letter') {
		const letter = /^(?:option|choice|answer)?\s*([A-Za-z])$/i.exec(plain)?.[1];
		const at = letter ? letter.toUpperCase().charCodeAt(0) - 65 : -1;
		return at >= 0 && at < options.length ? at : null;
	}
	if (form === 'index' || form === 'index0') {
		const at = /^\d+$/.test(plain) ? Number(plain) - (form === 'index' ? 1 : 0) : -1;
		return at >= 0 && at < options.length ? at : null;
	}
	if (form === 'text') {
		const wanted = fold(key).toLowerCase();
		const places = options.flatMap((option, at) => (plainText(option.text).toLowerCase() === wanted ? [at] : []));
		return places.length === 1 || places.length > 1 ? places[0]! : null;
	}
	if (form === 'truth') {
		const truth = truthOf(key, true);
		const found = truth === null ? -1 : options.findIndex((option) => truthOf(plainText(option.text)) === truth);
		return found < 0 ? null : found;
	}
	return null;
}

/** The places that keys name; what names none is left over. */
function resolve(
	keys: string[],
	forms: readonly KeyForm[],
	options: Draft['options']
): { places: number[]; lost: string[] } {
	const places: number[] = [];
	const lost: string[] = [];
	for (const key of keys) {
		let found: number | null = null;
		for (const form of forms) if (found === null) found = placeOf(key, form, options);
		// "AC" for A and C, "b) the text" for b
		if (found === null && forms.includes('letter')) {
			const several = /^[A-Z]{2,6}$/.test(key.trim())
				? [...key.trim()].map((one) => placeOf(one, 'letter', options))
				: [];
			if (several.length && several.every((one) => one !== null)) {
				places.push(...several);
				continue;
			}
			const lettered = /^\(?([A-Za-z])[).:]\s+(.*)$/.exec(key.trim());
			if (lettered) found = placeOf(lettered[1]!, 'letter', options);
		}
		if (found === null) lost.push(key);
		else places.push(found);
	}
	return { places: [...new Set(places)].sort((a, b) => a - b), lost };
}

/** A key text split where it names several; a text that is itself an option, or a number with its tolerance, stays whole. */
export function splitKeys(
	text: string,
	separators: string[],
	options: Draft['options'],
	forms: readonly KeyForm[]
): string[] {
	const whole = fold(text);
	if (!whole) return [];
	if (options.length ? resolve([whole], forms, options).places.length : numberAnswer(whole)) return [whole];
	let parts = [whole];
	for (const separator of separators) parts = parts.flatMap((part) => part.split(separator));
	return parts.map((part) => part.trim()).filter(Boolean);
}

const fewestWordsOfReason = 5;
const wordsIn = (text: string) => text.split(/\s+/).length;

/**
 * What a second answer of a question says beside the first: the same, another key, or the reason, where it is a sentence
 * that names no option.
 */
export function secondKey(
	one: string[],
	other: string[],
	options: Draft['options'],
	forms: readonly KeyForm[]
): 'same' | 'other' | 'reason' {
	const [first, second] = [fold(one.join('; ')), fold(other.join('; '))];
	if (options.length) {
		const [named, found] = [resolve(one, forms, options), resolve(other, forms, options)];
		if (!found.lost.length && named.places.join() === found.places.join()) return 'same';
		return !found.places.length && wordsIn(second) > 2 ? 'reason' : 'other';
	}
	if (first.toLowerCase() === second.toLowerCase()) return 'same';
	return wordsIn(second) >= fewestWordsOfReason && wordsIn(first) < fewestWordsOfReason ? 'reason' : 'other';
}

/** How drafts become questions. */
export interface Assembling {
	keyForms: readonly KeyForm[];
	/** The file's words for kinds, by the word. */
	kindNames?: Record<string, string>;
	identifier: string;
	file: string;
	line: number;
	endLine: number;
	format: string;
}

/** A question made of a draft, with what had to be guessed or could not be used. */
export function assemble(draft: Draft, how: Assembling): { question: Question; reports: Report[] } {
	const reports: Report[] = [];
	const place = { file: how.file, line: how.line };
	const report = (rule: ReaderRule, severity: Report['severity'], message: string, words?: string[]) =>
		reports.push({ rule, severity, message, place, ...(words ? { words } : {}) });
	const common: QuestionCommon = {
		...emptyCommon(how.identifier, fold(draft.title)),
		stem: draft.stem,
		category: draft.category,
		tags: draft.tags,
		language: draft.language,
		feedback: draft.feedback,
		hints: draft.hints,
		metadata: draft.metadata ?? [],
		...(draft.difficulty ? { difficulty: draft.difficulty } : {}),
		source: {
			format: how.format,
			file: how.file,
			line: how.line,
			endLine: how.endLine,
			identifier: how.identifier
		}
	};
	if (draft.points !== null && draft.points !== '') {
		const points =
			typeof draft.points === 'number'
				? draft.points
				: parseNumber(draft.points.replace(/\s*(points?|marks?|pts?\.?)$/i, ''));
		if (points === null || points < 0)
			report(
				'bad-points',
				'doubtful',
				`The points read “${draft.points}”, which is no number. The question was left without points; set them.`
			);
		else common.points = points;
	}
	const word = draft.kind === null ? '' : fold(draft.kind);
	const named = ownValue(how.kindNames, word);
	const kind = word ? kindOfWord(named ?? word) : null;
	if (word && !kind)
		report(
			'unknown-kind',
			'doubtful',
			`The kind reads “${word}”, which is not known here. It was told from what the question has.`
		);
	const shape = { ...draft, options: [...draft.options] };
	const question = build(shape, kind, common, how, report);
	return { question, reports };
}

type Say = (rule: ReaderRule, severity: Report['severity'], message: string, words?: string[]) => void;

function build(draft: Draft, kind: Kind | null, common: QuestionCommon, how: Assembling, report: Say): Question {
	const { keys } = draft;
	if (kind === 'information') return withCommon(common, { kind: 'information' });
	if (kind === 'file-upload') return withCommon(common, { kind: 'file-upload', accepts: null });
	if (draft.essay || kind === 'essay') {
		if (keys?.length) common.metadata.push({ name: 'model answer', value: keys.join('; ') });
		return withCommon(common, { kind: 'essay' });
	}
	if (draft.blanks?.length) return blanks(draft, draft.blanks, common);
	if (draft.pairs.length && (kind === 'matching' || kind === null)) return matching(draft, common);
	if (draft.order.length > 1 && (kind === 'ordering' || kind === null)) {
		const items = draft.order.map((text, at) => ({ identifier: `I${at + 1}`, text }));
		return withCommon(common, {
			kind: 'ordering',
			items,
			presented: draft.presented?.map((at) => items[at]!.identifier) ?? items.map((item) => item.identifier),
			rule: 'all',
			shuffle: draft.shuffle ?? true
		});
	}
	const truth =
		draft.truth ?? (keys?.length === 1 && !draft.options.length ? truthOf(keys[0]!, kind === 'true-false') : null);
	if (!draft.options.length && (kind === 'true-false' || (kind === null && truth !== null && !draft.accepted.length))) {
		return withCommon(common, {
			kind: 'true-false',
			options: [true, false].map((value) => ({
				identifier: value ? 'T' : 'F',
				text: value ? 'True' : 'False',
				credit: truth === value ? 1 : 0,
				pinned: false
			})),
			shuffle: draft.shuffle,
			combination: 'sum',
			bounds: { lower: null, upper: null },
			lostKeys: truth === null ? (keys ?? []) : []
		});
	}
	const written = writtenAnswers(draft, kind);
	if (draft.options.length && !written.length) return choice(draft, kind, common, how, report);
	const numbers = [...draft.numbers];
	const answers = [...(keys ?? []), ...written];
	if (!draft.accepted.length && !numbers.length && (kind === 'numeric' || kind === null)) {
		const found = answers.map(numberAnswer);
		if (found.length && found.every((one) => one !== null)) numbers.push(...found);
		else if (kind === 'numeric' && found.length)
			report(
				'lost-key',
				'broken',
				`The key reads “${answers.join(', ')}”, which is no number. Write the number that is right.`
			);
	}
	if (numbers.length || kind === 'numeric') {
		const tolerance = draft.tolerance;
		return withCommon(common, {
			kind: 'numeric',
			whole: false,
			...(draft.unit ? { unit: draft.unit } : {}),
			accepted: numbers.map((one) => ('value' in one && tolerance !== null ? { ...one, tolerance } : one))
		});
	}
	const accepted: AcceptedText[] = [
		...draft.accepted.map((one) => ({ text: one.text, credit: one.credit, caseSensitive: one.caseSensitive ?? false })),
		...answers.map((text) => ({ text, credit: 1, caseSensitive: false }))
	];
	if (kind === 'matching' || kind === 'ordering')
		report(
			'guessed-kind',
			'doubtful',
			`The file calls it ${kind}, and ${kind === 'matching' ? 'no pairs' : 'no things to put in order'} could be told in it. It was read as ${accepted.length ? 'a short answer' : 'an essay'}; look at it, or say with a recipe where they stand.`
		);
	if (accepted.length || kind === 'short-answer')
		return withCommon(common, { kind: 'short-answer', accepted: accepted.filter((one) => one.credit !== 0) });
	if (kind === null && keys === null) return withCommon(common, { kind: 'essay' });
	if (kind === null)
		report('guessed-kind', 'doubtful', 'There are no options and no answer, so it was read as an essay.');
	if (kind === 'multiple-choice' || kind === 'multiple-response' || kind === 'true-false')
		return choice(draft, kind, common, how, report);
	return withCommon(common, { kind: 'essay' });
}

/** What is accepted, where a file lists right answers alone as the options of a question to be answered in writing. */
function writtenAnswers({ options, keys }: Draft, kind: Kind | null): string[] {
	if ((kind !== 'short-answer' && kind !== 'numeric') || keys?.length) return [];
	const right = options.every((option) => option.right === true && (option.credit ?? 1) === 1);
	return right ? options.map((option) => plainText(option.text)) : [];
}

function blanks(draft: Draft, accepted: string[][], common: QuestionCommon): Question {
	const share = round(1 / accepted.length);
	let at = 0;
	return withCommon(common, {
		kind: 'fill-blanks',
		stem: common.stem.replace(blankRun, () => serialise([blankMarker(`B${(at += 1)}`)])),
		blanks: accepted.map((texts, place) => {
			const numbers = texts.map(numberAnswer);
			const identifier = `B${place + 1}`;
			return numbers.every((one) => one !== null)
				? { identifier, share, form: 'number', whole: false, accepted: numbers }
				: {
						identifier,
						share,
						form: 'text',
						accepted: texts.map((text) => ({ text, credit: 1, caseSensitive: false }))
					};
		}),
		bank: [],
		combination: 'sum',
		shuffle: null
	});
}

function matching(draft: Draft, common: QuestionCommon): Question {
	const rights: string[] = [];
	for (const text of [...draft.pairs.map((pair) => pair[1]), ...draft.distractors])
		if (!rights.includes(text)) rights.push(text);
	const share = round(1 / draft.pairs.length);
	return withCommon(common, {
		kind: 'matching',
		left: draft.pairs.map(([text], at) => ({ identifier: `L${at + 1}`, text, uses: 1 })),
		right: rights.map((text, at) => ({ identifier: `R${at + 1}`, text, uses: null })),
		pairs: draft.pairs.map(([, right], at) => ({
			left: `L${at + 1}`,
			right: `R${rights.indexOf(right) + 1}`,
			credit: share
		})),
		combination: 'sum',
		bounds: { lower: null, upper: null },
		shuffle: draft.shuffle
	});
}

function choice(draft: Draft, kind: Kind | null, common: QuestionCommon, how: Assembling, report: Say): Question {
	const { options, keys } = draft;
	const given = options.some((option) => option.credit !== null && option.credit !== 0);
	const marked = options.flatMap((option, at) => (option.right ? [at] : []));
	const { places, lost } = resolve(keys ?? [], how.keyForms, options);
	let right = marked.length ? marked : places;
	let contradiction = false;
	if (marked.length && places.length && marked.join() !== places.join()) {
		contradiction = true;
		right = [];
		const names = (list: number[]) =>
			list.map((at) => `“${plainText(options[at]!.text)}” (${letterOf(at)})`).join(', ');
		report(
			'contradictory-key',
			'broken',
			`Two keys disagree: the mark at the option says ${names(marked)}, the answer line says ${names(places)}. Neither was taken; mark the right one.`
		);
	}
	const several =
		kind === 'multiple-response' ||
		(kind === null &&
			(right.length > 1 ||
				(options.filter((option) => (option.credit ?? 0) > 0 && (option.credit ?? 0) < 1).length > 1 &&
					!options.some((option) => (option.credit ?? 0) >= 1))));
	if (right.length > 1 && !several && kind !== null)
		report(
			'several-keys',
			'doubtful',
			`The file calls it ${kind === 'true-false' ? 'true or false' : 'a multiple choice'}, and ${right.length} options are marked as right.`
		);
	const share = several ? round(1 / Math.max(1, right.length)) : 1;
	const built: Option[] = options.map((option, at) => ({
		identifier: letterOf(at) < '[' ? letterOf(at) : `O${at + 1}`,
		text: option.text,
		credit: given && !contradiction ? Math.max(-1, Math.min(1, option.credit ?? 0)) : right.includes(at) ? share : 0,
		...(option.feedback ? { feedback: option.feedback } : {}),
		pinned: option.pinned ?? false
	}));
	return withCommon(common, {
		kind: several
			? 'multiple-response'
			: isTrueFalse(options.map((option) => plainText(option.text)))
				? 'true-false'
				: 'multiple-choice',
		options: built,
		shuffle: draft.shuffle,
		combination: several && !given ? 'all' : 'sum',
		bounds: { lower: null, upper: null },
		lostKeys: lost
	});
}
