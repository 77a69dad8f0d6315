import { fold, plainText } from '../../markup/text';
import { isChoice, type Question } from '../../kinds';
import type { Markup } from '../../model/question';
import type { Report } from '../../reports/report';
import { escapeText } from '../../xml/serialise';
import { assemble } from '../drafts/assemble';
import { blankRun } from '../drafts/draft';
import { kindOfWord, truthOf } from '../drafts/words';
import { note, type Block, type FoundOption } from './block';
import { lineOf, type Line } from './lines';
import { cut, placeOfLabel } from './marks';
import { covers, keysOf, saysNoAnswer, sayTheSame, withoutReason } from './keys';
import { bareOptions, statementLines } from './options';
import { numberWithUnit } from './units';

const keyForms = ['letter', 'text', 'truth', 'answer'] as const;
const asksForOrder =
	/\b(?:order|sequence|arrange|rank|sort|chronological(?:ly)?|first to last|step(?:s)? in)\b|\bput\b.*\bin\b.*\border\b/i;

/** An answer without the ticks and arrows that decorate it. */
const withoutTicks = (value: string) =>
	value.replace(/^(?:[✅✔✓☑👉➡→»]\uFE0F?\s*)+(?=\S)/u, '').replace(/\s*(?:[✅✔✓☑]\uFE0F?)+$/u, '');

/** What is said where the keys of a question name different things. */
function disagreeing(values: string[], question: Question): Pick<Report, 'rule' | 'severity' | 'message'> {
	const quoted = values.map((value) => `“${value}”`).join(' and ');
	const what = isChoice(question) ? 'mark the right one' : 'write the one that is right';
	return {
		rule: 'contradictory-key',
		severity: 'broken',
		message: `Two keys disagree: ${quoted}. Neither was taken; ${what}.`
	};
}

/** What is said where the key was told from what stands out. */
const fromStress = {
	rule: 'guessed-key',
	severity: 'untidy',
	message:
		'The key was told from what stands out among the options (bold, marked or coloured, or not struck through). Look at it once.'
} as const;

/** Settles what the lines of a question are: options, pairs, statements. `given` and `listed` are its keys. */
function settleShape(block: Block, given: string[], listed: string | null): void {
	const bare = bareOptions(block, [...given, ...(listed === null ? [] : [listed])]);
	if (bare.length) {
		block.options = bare;
		note(
			block,
			'options-without-letters',
			'Its options have no letters; the lines under the stem were read as options, since the key speaks of them.',
			'doubtful'
		);
	}
	pairsIntoStem(block, given[0] ?? listed ?? '');
	inOrderOfLetters(block);
	asLabelledPairs(block, given.length > 0 || listed !== null);
	asListedPairs(block, given.length > 0 || listed !== null);
	asMatching(block, given[0] ?? listed ?? '');
	const [only] = block.options;
	if (block.options.length === 1 && only!.style === 'plain' && !only!.right && !given.length && listed === null) {
		// "true" by itself under a statement is its answer
		const truth = truthOf(only!.plain);
		if (truth === null) block.stem.push({ line: lineOf(only!.plain, only!.line), gap: true });
		block.draft.truth = truth;
		block.options = [];
	}
}

/** A question made of what was found of it, and what there is to say about it. */
export function finish(
	block: Block,
	category: string[],
	file: string,
	format: string
): { question: Question; reports: Report[] } {
	const { draft } = block;
	if (block.listedReason !== null) draft.feedback.general ??= escapeText(block.listedReason);
	const given = [...new Set(block.answers.map((one) => withoutTicks(fold(one.value))))].filter(
		(value) => !saysNoAnswer(value)
	);
	const listed = block.listed === null || saysNoAnswer(block.listed) ? null : fold(block.listed);
	const open = given.length === 0 && listed === null && (block.answers.length > 0 || block.listed !== null);
	settleShape(block, given, listed);
	block.stem.push(...statementLines(block.statements));
	asNumberedOrder(block);
	draft.stem = stemOf(block);
	draft.category = category;
	draft.points ??= block.each.points;
	const stressed = setOptions(block);
	draft.pairs = block.pairs.map(([left, right]): [Markup, Markup] => [left.markup, right.markup]);
	const labels = block.options.map((option) => option.label);
	const keyed = given.map((value) => withoutReason(value, draft.options, labels));
	const ofList = listed === null ? null : withoutReason(listed, draft.options, labels);
	for (const { reason } of ofList ? [...keyed, ofList] : keyed)
		if (reason && !draft.feedback.general) {
			draft.feedback.general = reason;
			note(block, 'reason-as-feedback', `The words after the key, “${reason}”, were read as feedback.`);
		}
	const values = keyed.map((one) => one.key);
	if (ofList && !values.some((value) => sayTheSame(value, ofList.key))) values.push(ofList.key);
	if (block.each.trueFalse && !draft.options.length && !draft.pairs.length && !open) draft.kind ??= 'true-false';
	const differing = settleKeys(block, values, labels);
	if (open) draft.essay = !draft.options.length && !draft.pairs.length;
	const { question, reports } = assemble(draft, {
		keyForms,
		identifier: '',
		file,
		line: block.from,
		endLine: block.to,
		format
	});
	const place = { file, line: block.from };
	if (differing) reports.push({ ...disagreeing(values, question), place });
	if (stressed) reports.push({ ...fromStress, place });
	for (const one of block.notes) reports.push({ ...one, place });
	return {
		question:
			differing && isChoice(question)
				? { ...question, options: question.options.map((option) => ({ ...option, credit: 0 })) }
				: question,
		reports
	};
}

function stemOf(block: Block): Markup {
	const rich = block.stem.some(({ line }) => /<(img|math|object|table)\b/.test(line.markup));
	const paragraphs: Markup[] = [];
	for (const { line, gap } of block.stem) {
		if ((gap || /^<table/.test(line.markup)) && paragraphs.length) paragraphs.push(line.markup);
		else if (paragraphs.length) paragraphs.push(`${paragraphs.pop()!} ${line.markup}`);
		else paragraphs.push(line.markup);
	}
	if (paragraphs.length < 2) return paragraphs[0] ?? '';
	return paragraphs.map((one) => (one.startsWith('<table') && rich ? one : `<p>${one}</p>`)).join('');
}

/** Puts the options into the draft; true where the key is told from what stands out among them. */
function setOptions({ options, draft }: Block): boolean {
	const marked = options.some((option) => option.right);
	const some = options.filter((option) => option.stressed).length;
	const byStress = !marked && some > 0 && some < options.length;
	const struck = options.filter((option) => option.struck).length;
	const byStrike = !marked && !byStress && struck > 0 && struck === options.length - 1;
	const plain = (option: FoundOption) => {
		const text = option.text.filter(Boolean).join(' ');
		return byStress || option.stressed ? text.replace(/^<(b|u|strong|em|i|mark)>([\s\S]*)<\/\1>$/, '$2') : text;
	};
	draft.options = options.map((option) => ({
		text: plain(option),
		credit: null,
		right: byStress ? option.stressed : byStrike ? !option.struck : option.right,
		...(option.feedback.length ? { feedback: option.feedback.join(' ') } : {})
	}));
	return byStress || byStrike;
}

/** Puts the keys into the draft, with what they say about its kind; true where they disagree, so that none is taken. */
function settleKeys(block: Block, values: string[], labels: string[]): boolean {
	const { draft } = block;
	if (asOrder(block, values, labels) || asBlanks(block, values)) return false;
	const keyLists = values.map((value) => keysOf(value, draft.options, labels));
	const [first, ...others] = keyLists;
	if (first) draft.keys = first;
	else if (draft.options.length || draft.kind)
		draft.keys = draft.options.some((option) => option.right) || !draft.options.length ? null : [];
	if (!draft.options.length) return withoutOptions(block, keyLists);
	const differing = others.some((one) => one.join('\n').toLowerCase() !== first!.join('\n').toLowerCase());
	if (!block.boxed && first && first.length > 1 && draft.kind === null && draft.options.length > 2)
		draft.kind = 'multiple-response';
	if (draft.kind === 'true-false' && truthOf(plainText(draft.options[0]!.text)) === null) draft.kind = null;
	return differing;
}

/** The tolerance that a stem gives at its end, "(± 0.1)", for an answer that says nothing of one. */
function toleranceOfStem(block: Block): void {
	const found = /[([]\s*(?:±|\+\s*\/?\s*-)\s*(\d+(?:[.,]\d+)?)\s*[^\d()[\]]{0,12}[)\]]\s*$/.exec(
		plainText(block.draft.stem)
	);
	const [only] = block.draft.numbers;
	if (!found || block.draft.numbers.length > 1 || !only || !('value' in only) || only.tolerance) return;
	if (block.draft.tolerance !== null || found[0].includes('%')) return;
	block.draft.numbers = [{ ...only, tolerance: Number(found[1]!.replace(',', '.')) }];
	note(
		block,
		'guessed-tolerance',
		`The stem says “${found[0].trim()}”, which was read as the tolerance of its answer.`
	);
}

/** The keys of a question without options: one that accepts more than the other is taken with it, others disagree. */
function withoutOptions(block: Block, keyLists: string[][]): boolean {
	const { draft } = block;
	const [first = [], ...others] = keyLists;
	const within = (a: string[], b: string[]) => a.every((one) => b.some((other) => sayTheSame(one, other)));
	const differing = others.some((other) => !within(first, other) && !within(other, first));
	if (keyLists.length)
		draft.keys = differing
			? []
			: keyLists
					.flat()
					.filter(
						(one, at, all) =>
							!all.some((other, place) => place !== at && covers(other, one) && (place < at || !covers(one, other)))
					);
	const numbers = (draft.keys ?? []).map(numberWithUnit);
	const kind = draft.kind === null ? null : kindOfWord(draft.kind);
	if (numbers.length && numbers.every((one) => one !== null) && (kind === null || kind === 'numeric')) {
		draft.numbers = numbers.map((one) => one.number);
		toleranceOfStem(block);
		const unit = numbers.find((one) => one.unit)?.unit;
		if (unit) draft.unit = unit;
		for (const key of draft.keys!) {
			const [aside] = /\([^()\d±]+\)$/.exec(key) ?? [];
			if (aside) note(block, 'left-out-text', `The words behind its answer, “${aside}”, were left out of it.`);
		}
		const rough = draft.keys!.find((key) => /^(?:approx|about|ca\b|ca\.|circa|~|≈)/i.test(key));
		if (rough)
			note(
				block,
				'rough-number',
				`The answer reads “${rough}”, which does not say how far off one may be. It was read as exactly that; set a tolerance.`,
				'doubtful'
			);
		draft.keys = [];
	}
	if (differing && draft.kind === null)
		draft.kind = keyLists.flat().every((one) => numberWithUnit(one) !== null) ? 'numeric' : 'short-answer';
	return differing;
}

const placeInFront = /^(?:\[\s*_*\s*(\d{1,2})\s*_*\s*\]|_+\s*(\d{1,2})\s*_+)\s*(?=\S)/;

/** Lines under a stem that asks for an order, each with its place in a box in front: "[2] Stop the boat". */
function asNumberedOrder(block: Block): void {
	const { draft } = block;
	const found = block.stem.map(({ line }) => placeInFront.exec(line.text));
	const first = found.findIndex((one) => one !== null);
	const places = found.slice(first).map((one) => Number(one?.[1] ?? one?.[2] ?? 0) - 1);
	if (first < 1 || places.length < 2 || new Set(places).size < places.length) return;
	if (places.some((place) => place < 0 || place >= places.length) || draft.kind !== null) return;
	if (!asksForOrder.test(plainText(block.stem[0]!.line.markup)) || block.options.length) return;
	const items = block.stem.splice(first).map(({ line }, at) => cut(line, found[first + at]![0].length).markup);
	draft.kind = 'ordering';
	draft.order = places.map((_, place) => items[places.indexOf(place)]!);
	draft.presented = places;
}

/** Things to be put in order: the kind says so, or the stem asks for it and the answer names each of them once. */
function asOrder({ draft }: Block, values: string[], labels: string[]): boolean {
	if (draft.options.length < 2) return false;
	const said = draft.kind !== null && kindOfWord(draft.kind) === 'ordering';
	const asked = said || (draft.kind === null && asksForOrder.test(plainText(draft.stem)));
	if (!asked || draft.options.some((option) => option.right)) return false;
	const parts = (value: string) =>
		/^[A-Za-z]{3,}$/.test(value) && value.length === labels.length
			? [...value]
			: value.split(/\s*(?:,|;|→|->|>|-|–|\s)\s*/).filter(Boolean);
	const places = parts(values[0] ?? '').map((part) =>
		labels.map((label) => label.toLowerCase()).indexOf(part.replace(/[().]/g, '').toLowerCase())
	);
	const named =
		places.length === labels.length && places.every((at) => at >= 0) && new Set(places).size === places.length;
	if (!said && !named) return false;
	const texts = draft.options.map((option) => option.text);
	draft.kind = 'ordering';
	draft.order = named ? places.map((at) => texts[at]!) : texts;
	if (named) draft.presented = texts.map((_, at) => places.indexOf(at));
	draft.options = [];
	return true;
}

/** "1-b, 2-a": which label on the left belongs to which on the right; null where a text is no such list. */
function mappingOf(value: string): [string, string][] | null {
	const parts = value.split(/\s*[,;]\s*|\s{2,}|\s+(?=\(?\w{1,2}\)?\s*[-–—=:→])|\s+(?=[A-Z]\d{1,2}\b)/).filter(Boolean);
	const pairs = parts.flatMap((part): [string, string][] => {
		const found = /^\(?(\w{1,2}|[ivx]{3,4})[.)]?\s*(?:[-–—=:→]+>?|\bto\b)?\s*\(?(\w{1,2}|[ivx]{3,4})[.)]?$/i.exec(part);
		return found ? [[found[1]!.toLowerCase(), found[2]!.toLowerCase()]] : [];
	});
	if (parts.length < 2 || pairs.length < parts.length) return null;
	// the labels of the two sides have to be told apart: numbers and letters, or letters that no label of the other side has
	const others = new Set(pairs.map((pair) => pair[1]));
	const apart = pairs.every(([one, other]) =>
		/\d/.test(one) || /\d/.test(other) ? /^\d/.test(one) !== /^\d/.test(other) : !others.has(one)
	);
	return apart ? pairs : null;
}

/** What looked like pairs is a part of the stem where options follow it, or an answer that pairs nothing: figures to read off. */
function pairsIntoStem(block: Block, value: string): void {
	if (!block.pairs.length || block.draft.kind !== null) return;
	const answered = value !== '' && mappingOf(value) === null && !pairWithin.test(value);
	if (block.options.length < 2 && !answered) return;
	if (asksToMatch.test(plainText(block.stem.map(({ line }) => line.markup).join(' ')))) return;
	block.stem.push(...block.pairSources.map((line) => ({ line, gap: true })));
	block.pairs = [];
}

/** Puts options that stand in two columns, "a. … c. …" above "b. … d. …", in the order of their letters. */
function inOrderOfLetters(block: Block): void {
	const { options } = block;
	const places = options.map((option) => (/^[A-Za-z]$/.test(option.label) ? placeOfLabel(option.label, false) : null));
	const lines = new Set(options.map((option) => option.line));
	if (places.includes(null) || lines.size === options.length || new Set(places).size < places.length) return;
	if (places.some((place) => place! >= options.length) || places.every((place, at) => place === at)) return;
	block.options = options.map((_, at) => options[places.indexOf(at)]!);
	block.notes = block.notes.filter((one) => one.rule !== 'odd-letter');
}

const asksToMatch = /\b(?:match|pair|connect|link)\b/i;

/** Letters with a dash and a word, under a stem that asks to match them: "a - Alfa". Without a key they are pairs, not options. */
function asLabelledPairs(block: Block, keyed: boolean): void {
	const { options } = block;
	if (keyed || options.length < 2 || !options.every((one) => /^[-–—]$/.test(one.style) && !one.right)) return;
	if (!asksToMatch.test(plainText(block.stem.map(({ line }) => line.markup).join(' ')))) return;
	block.pairs = options.map((option) => [
		lineOf(option.label, option.line),
		{ ...lineOf(option.plain, option.line), markup: option.text.join(' ') }
	]);
	block.options = [];
}

const pairWithin = /^(.+?)\s*(?:={1,2}>?|->|→|⇒)\s*(.+)$/;

/** Things to match in a list, each with what belongs to it: "• Bowline = fixed loop", "a) Bowline → fixed loop". */
function asListedPairs(block: Block, keyed: boolean): void {
	const { options } = block;
	if (keyed || options.length < 2 || options.some((one) => one.right || !pairWithin.test(one.plain))) return;
	if (!asksToMatch.test(plainText(block.stem.map(({ line }) => line.markup).join(' ')))) return;
	block.pairs = options.map((option) => {
		const line = { ...lineOf(option.plain, option.line), markup: option.text.join(' ') };
		const [, left, right] = pairWithin.exec(option.plain) as unknown as [string, string, string];
		return [cut(line, 0, left.length), cut(line, line.text.lastIndexOf(right))];
	});
	block.options = [];
}

/** Both things of a line, the second with a label of its own: "Ball – i. At anchor". */
const labelWithin = /^(.+?)\s*(?:[-–—:|]|\s{2,})\s*\(?([ivx]{1,4}|\d{1,2}|[A-Za-z])[.)]\s+(.+)$/i;
const labelled = /^\(?([A-Za-z]|\d{1,2})[.)]\s+/;

/** Two labelled lists, or a table of two labelled columns, whose pairs the answer tells by their labels. */
function asMatching(block: Block, value: string): void {
	const mapping = mappingOf(value);
	const side = (text: string, markup: Markup, label: string, line: number): [string, Line] => [
		label.toLowerCase(),
		{ ...lineOf(text, line), markup }
	];
	let left: [string, Line][] = [];
	let right: [string, Line][] = [];
	if (block.statements.length && block.options.length && mapping) {
		left = block.statements.map((one) => side(one.plain, one.text.join(' '), one.label, one.line));
		right = block.options.map((one) => side(one.plain, one.text.join(' '), one.label, one.line));
		// the answer says first what is on the left
		if (!mapping.every(([first]) => left.some(([label]) => label === first))) [left, right] = [right, left];
	} else if (mapping && block.options.length > 1 && block.options.every((one) => labelWithin.test(one.plain))) {
		for (const option of block.options) {
			const [, before, label, after] = labelWithin.exec(option.plain)!;
			left.push(side(before!, escapeText(before!), option.label, option.line));
			right.push(side(after!, escapeText(after!), label!, option.line));
		}
	} else if (block.pairs.length && block.pairs.flat().every((line) => labelled.test(line.text))) {
		const split = (line: Line): [string, Line] => {
			const found = labelled.exec(line.text)!;
			return [found[1]!.toLowerCase(), cut(line, found[0].length)];
		};
		left = block.pairs.map((pair) => split(pair[0]));
		right = block.pairs.map((pair) => split(pair[1]));
		if (!mapping)
			note(
				block,
				'guessed-pairs',
				'Both columns have labels, and no answer says which belong together. Those in one row were paired; look at them.',
				'doubtful'
			);
	}
	if (!left.length) return;
	const pairs = mapping
		? mapping.flatMap(([one, other]): [Line, Line][] => {
				const [from, to] = [left.find(([label]) => label === one), right.find(([label]) => label === other)];
				return from && to ? [[from[1], to[1]]] : [];
			})
		: left.map(([, line], at): [Line, Line] => [line, right[at]![1]]);
	if (mapping && pairs.length < mapping.length) return;
	const used = new Set(pairs.map((pair) => pair[1]));
	block.draft.distractors = right
		.map(([, line]) => line)
		.filter((line) => !used.has(line))
		.map((line) => line.markup);
	block.pairs = pairs;
	block.statements = [];
	block.options = [];
	if (mapping) {
		block.answers = [];
		block.listed = null;
	}
}

/** Several blanks in the stem with as many answers, each for its own. */
function asBlanks(block: Block, values: string[]): boolean {
	const { draft } = block;
	const count = plainText(draft.stem).match(blankRun)?.length ?? 0;
	if (count < 2 || values.length !== 1 || draft.options.length || draft.pairs.length) return false;
	if (draft.kind !== null && kindOfWord(draft.kind) !== 'short-answer') return false;
	const parts = [/\s*;\s*/, /\s*,\s*(?:and\s+)?/, /\s+\/\s+/, /\s*(?:,|\band\b)\s*/]
		.map((separator) => values[0]!.split(separator).filter(Boolean))
		.find((found) => found.length === count);
	if (!parts) return false;
	draft.blanks = parts.map((part) => part.replace(/^\(?(?:\d{1,2}|[a-z])[.)]\s*/i, '').split(/\s*\/\s*|\s+or\s+/));
	note(
		block,
		'guessed-blanks',
		`It has ${count} blanks and as many answers, so each answer was read as that of one blank.`
	);
	return true;
}
