import { replaceBlanks } from '../../../markup/markers';
import { plainText } from '../../../markup/text';
import type { Blank, FillBlanksQuestion } from '../../../kinds';
import { bestNumber } from '../../../kinds/answers';
import { escapeAttribute, escapeText } from '../../../xml/serialise';
import {
	addScore,
	byCredit,
	correct,
	declare,
	float,
	identifiersFor,
	number,
	safeIdentifier,
	setScore,
	shuffleText,
	type Parts,
	type Writing
} from './parts';
import { numberTest, textTest } from './tests';

/** The names of the responses of blanks, by the blank's identifier. */
function responseNames(blanks: Blank[]): string[] {
	const seen = new Set([
		'SCORE',
		'MAXSCORE',
		'FEEDBACK',
		'FEEDBACK_GENERAL',
		'completionStatus',
		'numAttempts',
		'duration'
	]);
	return blanks.map((blank, at) => {
		let name = safeIdentifier(blank.identifier, `B${at + 1}`);
		while (seen.has(name)) name = `${name}_${at + 1}`;
		seen.add(name);
		return name;
	});
}

const isPlain = (blank: Extract<Blank, { form: 'text' }>) => blank.accepted.every((one) => !one.match);

type ListBlank = Extract<Blank, { form: 'list' }>;
/** The names of the entries of each list: an item names no two choices alike, though they stand in different lists. */
type EntryNames = ReadonlyMap<Blank, string[]>;

function entryNames(blanks: readonly Blank[]): EntryNames {
	const lists = blanks.filter((blank): blank is ListBlank => blank.form === 'list');
	const names = identifiersFor(
		lists.flatMap((blank) => blank.entries),
		'E'
	);
	return new Map(lists.map((blank) => [blank, names.splice(0, blank.entries.length)]));
}

function declarationOf(blank: Exclude<Blank, { form: 'word' }>, name: string, choices: EntryNames): string {
	if (blank.form === 'open') return declare('single', 'string', '', name);
	if (blank.form === 'text') {
		const entries = isPlain(blank)
			? blank.accepted
					.map(
						(one) =>
							`<mapEntry mapKey="${escapeAttribute(one.text)}" mappedValue="${number(one.credit)}" caseSensitive="${one.caseSensitive}"/>`
					)
					.join('')
			: '';
		const [best] = byCredit(blank.accepted.filter((one) => one.credit > 0 && one.match !== 'pattern'));
		return declare(
			'single',
			'string',
			`${correct(best ? [best.text] : [])}${entries ? `<mapping defaultValue="0">${entries}</mapping>` : ''}`,
			name
		);
	}
	if (blank.form === 'number') {
		const best = bestNumber(blank.accepted, blank.whole);
		return declare('single', blank.whole ? 'integer' : 'float', correct(best === null ? [] : [best]), name);
	}
	const identifiers = choices.get(blank)!;
	const right = blank.entries.flatMap((one, at) =>
		one.credit > 0 ? [{ credit: one.credit, name: identifiers[at]! }] : []
	);
	const keys = (blank.several ? right : byCredit(right).slice(0, 1)).map((one) => one.name);
	const entries = blank.entries
		.map((one, at) => `<mapEntry mapKey="${identifiers[at]}" mappedValue="${number(one.credit)}"/>`)
		.join('');
	return declare(
		blank.several ? 'multiple' : 'single',
		'identifier',
		`${correct(keys)}${entries ? `<mapping defaultValue="0">${entries}</mapping>` : ''}`,
		name
	);
}

function interactionOf(
	blank: Exclude<Blank, { form: 'word' }>,
	name: string,
	block: boolean,
	names: EntryNames,
	{ flow }: Writing
): string {
	if (blank.form === 'open') return `<extendedTextInteraction responseIdentifier="${name}"/>`;
	if (blank.form !== 'list') {
		const entry = `<textEntryInteraction responseIdentifier="${name}" class="blank"/>`;
		return block ? `<p>${entry}</p>` : entry;
	}
	const identifiers = names.get(blank)!;
	if (block || blank.several) {
		const choices = blank.entries
			.map((one, at) => `<simpleChoice identifier="${identifiers[at]}">${flow(one.text)}</simpleChoice>`)
			.join('');
		return `<choiceInteraction responseIdentifier="${name}"${shuffleText(blank.shuffle)} maxChoices="${blank.several ? 0 : 1}">${choices || '<simpleChoice identifier="NONE"/>'}</choiceInteraction>`;
	}
	const choices = blank.entries
		.map((one, at) => `<inlineChoice identifier="${identifiers[at]}">${escapeText(plainText(one.text))}</inlineChoice>`)
		.join('');
	return `<inlineChoiceInteraction responseIdentifier="${name}"${shuffleText(blank.shuffle)}>${choices || '<inlineChoice identifier="NONE"/>'}</inlineChoiceInteraction>`;
}

/** The rule by which one blank adds its share to the score. */
function ruleOf(blank: Exclude<Blank, { form: 'word' }>, name: string, scale: number): string {
	const worth = blank.share * scale;
	if (blank.form === 'open') return '';
	if (blank.form === 'list' || (blank.form === 'text' && isPlain(blank))) {
		const some = blank.form === 'list' ? blank.entries.length : blank.accepted.length;
		return some ? addScore(`<product><mapResponse identifier="${name}"/>${float(worth)}</product>`) : '';
	}
	const branches = byCredit<{ credit: number }>(blank.accepted).map((accepted, at) => {
		const test = blank.form === 'number' ? numberTest(accepted as never, name) : textTest(accepted as never, name);
		const tag = at ? 'responseElseIf' : 'responseIf';
		return `<${tag}>${test}${addScore(float(accepted.credit * worth))}</${tag}>`;
	});
	return branches.length ? `<responseCondition>${branches.join('')}</responseCondition>` : '';
}

/** The test of a blank that is right, where all of them have to be. */
function rightTest(blank: Exclude<Blank, { form: 'word' }>, name: string): string {
	if (blank.form === 'list' || (blank.form === 'text' && isPlain(blank)))
		return `<gte><mapResponse identifier="${name}"/>${float(0.9999)}</gte>`;
	if (blank.form === 'open') return '';
	const tests = blank.accepted
		.filter((one) => one.credit >= 1)
		.map((one) => (blank.form === 'number' ? numberTest(one as never, name) : textTest(one as never, name)));
	return tests.length > 1 ? `<or>${tests.join('')}</or>` : (tests[0] ?? '');
}

/** The parts of an item with blanks: text entries, lists and long answers in its body, or words laid into gaps. */
export function blanksParts(question: FillBlanksQuestion, writing: Writing): Parts {
	if (question.blanks.some((blank) => blank.form === 'word')) return gapParts(question, writing);
	const { scale, blocks } = writing;
	const blanks = question.blanks as Exclude<Blank, { form: 'word' }>[];
	const names = responseNames(blanks);
	const entries = entryNames(blanks);
	const place = new Map(blanks.map((blank, at) => [blank.identifier, at]));
	const held: string[] = [];
	// the interactions are put in after the markup is brought into the form of the standard
	const body = replaceBlanks(blocks(question.stem), (identifier, block) => {
		const at = place.get(identifier);
		if (at === undefined) return '';
		held.push(interactionOf(blanks[at]!, names[at]!, block, entries, writing));
		return held.at(-1)!;
	});
	const tests = blanks.map((blank, at) => rightTest(blank, names[at]!)).filter(Boolean);
	const rules =
		question.combination === 'all'
			? tests.length
				? `<responseCondition><responseIf>${tests.length > 1 ? `<and>${tests.join('')}</and>` : tests[0]!}${setScore(scale)}</responseIf></responseCondition>`
				: ''
			: blanks.map((blank, at) => ruleOf(blank, names[at]!, scale)).join('');
	return {
		declaration: blanks.map((blank, at) => declarationOf(blank, names[at]!, entries)).join('\n'),
		interaction: '',
		body,
		...(rules ? { rules } : {})
	};
}

function gapParts(question: FillBlanksQuestion, { scale, blocks }: Writing): Parts {
	const words = identifiersFor(question.bank, 'W');
	const gaps = responseNames(question.blanks);
	const place = new Map(question.blanks.map((blank, at) => [blank.identifier, at]));
	const wordAt = new Map(question.bank.map((word, at) => [word.identifier, words[at]!]));
	const entries: string[] = [];
	const keys: string[] = [];
	question.blanks.forEach((blank, at) => {
		if (blank.form !== 'word') return;
		for (const { word, credit } of blank.words) {
			const name = wordAt.get(word);
			if (name === undefined || credit === 0) continue;
			entries.push(`<mapEntry mapKey="${name} ${gaps[at]}" mappedValue="${number(credit * blank.share * scale)}"/>`);
		}
		const [best] = byCredit(blank.words.filter((one) => one.credit > 0));
		if (best && wordAt.has(best.word)) keys.push(`${wordAt.get(best.word)} ${gaps[at]}`);
	});
	const all = question.combination === 'all' && keys.length > 0;
	const texts = question.bank
		.map(
			(word, at) =>
				`<gapText identifier="${words[at]}" matchMax="${word.uses ?? 0}">${escapeText(plainText(word.text))}</gapText>`
		)
		.join('');
	const body = replaceBlanks(blocks(question.stem), (identifier, block) => {
		const at = place.get(identifier);
		if (at === undefined) return '';
		const gap = `<gap identifier="${gaps[at]}"/>`;
		return block ? `<p>${gap}</p>` : gap;
	});
	const mapping = entries.length && !all ? `<mapping defaultValue="0">${entries.join('')}</mapping>` : '';
	const interaction = `<gapMatchInteraction responseIdentifier="RESPONSE"${shuffleText(question.shuffle)}>${texts}${body}</gapMatchInteraction>`;
	const declaration = declare('multiple', 'directedPair', `${correct(keys)}${mapping}`);
	if (!all) return { declaration, interaction: '', body: interaction, template: 'map_response' };
	if (scale === 1) return { declaration, interaction: '', body: interaction, template: 'match_correct' };
	const rules = `<responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match>${setScore(scale)}</responseIf></responseCondition>`;
	return { declaration, interaction: '', body: interaction, rules };
}
