import type { ReaderRule } from '../../reports/rules';
import { ownValue } from '../../model/lookup';
import { plainText, fold } from '../../markup/text';
import { withCommon, emptyCommon, type QuestionCommon } from '../../model/question';
import { type Kind, type Question } from '../../kinds';
import type { AcceptedText } from '../../model/pieces';
import type { Report } from '../../reports/report';
import { parseNumber } from '../../numbers/numbers';

import { type Draft } from './draft';
import { kindOfWord, truthOf } from './words';
import { numberAnswer } from './number-answer';

import type { Assembling } from './assembling';
import { blanksOf } from './blanks';
import { choiceOf } from './choice';
import { matchingOf } from './matching';
import type { Say } from './say';

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

function build(draft: Draft, kind: Kind | null, common: QuestionCommon, how: Assembling, report: Say): Question {
	const { keys } = draft;
	if (kind === 'information') return withCommon(common, { kind: 'information' });
	if (kind === 'file-upload') return withCommon(common, { kind: 'file-upload', accepts: null });
	if (draft.essay || kind === 'essay') {
		if (keys?.length) common.metadata.push({ name: 'model answer', value: keys.join('; ') });
		return withCommon(common, { kind: 'essay' });
	}
	if (draft.blanks?.length) return blanksOf(draft, draft.blanks, common);
	if (draft.pairs.length && (kind === 'matching' || kind === null)) return matchingOf(draft, common);
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
	if (draft.options.length && !written.length) return choiceOf(draft, kind, common, how, report);
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
		return choiceOf(draft, kind, common, how, report);
	return withCommon(common, { kind: 'essay' });
}

/** What is accepted, where a file lists right answers alone as the options of a question to be answered in writing. */
function writtenAnswers({ options, keys }: Draft, kind: Kind | null): string[] {
	if ((kind !== 'short-answer' && kind !== 'numeric') || keys?.length) return [];
	const right = options.every((option) => option.right === true && (option.credit ?? 1) === 1);
	return right ? options.map((option) => plainText(option.text)) : [];
}
