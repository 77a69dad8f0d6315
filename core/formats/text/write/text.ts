import { plainText } from '../../../markup/text';
import { isChoice, type Question } from '../../../kinds';
import type { AcceptedNumber } from '../../../model/pieces';
import { features } from '../../fit/features';
import { fit, type Limits } from '../../fit/fit';
import type { ToWrite } from '../../format';
import { tidy } from '../../../numbers/numbers';
import { byTrial } from '../../trial';
import { readMarkedText } from '../grammar';
import { linesOf } from '../lines';

const encoder = new TextEncoder();
const letterOf = (at: number) => String.fromCharCode(97 + (at % 26));

/** An accepted number as people write it. */
export function numberText(accepted: AcceptedNumber): string {
	if ('value' in accepted)
		return accepted.tolerance
			? `${tidy(accepted.value)} +/- ${tidy(accepted.tolerance)}`
			: String(tidy(accepted.value));
	return `${tidy(accepted.min ?? accepted.max ?? 0)} to ${tidy(accepted.max ?? accepted.min ?? 0)}`;
}

/** One question in the strict form of marked text, without its category; the form is in docs/formats.md. */
export function textOfQuestion(question: Question, number: number): string {
	const lines: string[] = [`${number}. ${plainText(question.stem)}`];
	const say = (name: string, value: string | null | undefined) => {
		if (value) lines.push(`${name}: ${value}`);
	};
	say('Title', question.title);
	say('Type', question.kind);
	say('Points', question.points === null ? null : String(tidy(question.points)));
	say('Tags', question.tags.join(', '));
	say('Difficulty', question.difficulty);
	say('Language', question.language);
	if ('shuffle' in question && question.shuffle !== null) say('Shuffle', question.shuffle ? 'yes' : 'no');
	for (const hint of question.hints) say('Hint', plainText(hint));
	if (isChoice(question)) {
		question.options.forEach((option, at) => {
			lines.push(`${letterOf(at)}) ${plainText(option.text)}`);
			if (option.feedback) lines.push(`   Feedback: ${plainText(option.feedback)}`);
		});
		const right = question.options.flatMap((option, at) => (option.credit > 0 ? [letterOf(at).toUpperCase()] : []));
		say('Answer', right.join(', '));
	} else if (question.kind === 'short-answer') say('Answer', question.accepted.map((one) => one.text).join(' / '));
	else if (question.kind === 'numeric') say('Answer', question.accepted.map(numberText).join(' / '));
	else if (question.kind === 'matching') {
		const text = (list: { identifier: string; text: string }[], identifier: string) =>
			plainText(list.find((one) => one.identifier === identifier)?.text ?? '');
		for (const pair of question.pairs.filter((one) => one.credit > 0))
			lines.push(`${text(question.left, pair.left)} = ${text(question.right, pair.right)}`);
	} else if (question.kind === 'ordering')
		question.items.forEach((item, at) => lines.push(`${letterOf(at)}) ${plainText(item.text)}`));
	const { general, correct, incorrect } = question.feedback;
	say('Correct feedback', correct && plainText(correct));
	say('Incorrect feedback', incorrect && plainText(incorrect));
	say('Feedback', general && plainText(general));
	return `${lines.join('\n')}\n`;
}

const categoryLine = (category: string[]) => `Category: ${category.join(' / ')}\n`;
const again = (question: Question) =>
	readMarkedText(
		linesOf(`${categoryLine(question.category)}\n${textOfQuestion(question, 1)}`),
		'',
		'text'
	).questions.map((one) => one.question);

/** What marked text holds: words, without pictures, and with all or nothing where several are right. */
export const textLimits: Limits = {
	holds: {
		'true-false': true,
		'multiple-choice': true,
		'multiple-response': true,
		'short-answer': true,
		numeric: true,
		'fill-blanks': false,
		matching: true,
		ordering: true,
		essay: true,
		'file-upload': true,
		hotspot: false,
		'label-image': false,
		calculated: false,
		information: true,
		unreadable: false
	},
	features: features
		.map((one) => one.name)
		.filter(
			(name) =>
				![
					'stimulus',
					'metadata',
					'partly-feedback',
					'lost-keys',
					'odd-truth',
					'pinned',
					'negative-credit',
					'partial-credit',
					'one-key',
					'credit-by-option',
					'keyless-all',
					'unequal-all',
					'bounds',
					'capitals',
					'contains',
					'patterns',
					'text-credit',
					'number-credit',
					'open-ranges',
					'whole',
					'slider',
					'unit',
					'uses',
					'distractors',
					'pictures',
					'rich-text',
					'line-breaks'
				].includes(name)
		),
	carries: () => false,
	settle: (question) =>
		byTrial(question, again) ?? {
			question: { ...question, kind: 'unreadable', reason: '', fragment: '' },
			what: []
		},
	refuses: 'its words read like marks of the form, so that it would not come back as one question'
};

/** Writes marked text in its strict form. */
export async function* writeText(
	{ count, question: ask, options }: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	let category = '';
	let number = 0;
	for (let at = 0; at < count; at += 1) {
		for (const question of fit(await ask(at), textLimits, options).fitted) {
			number += 1;
			const line = categoryLine(question.category);
			const lead = line === category || (!category && !question.category.length) ? '' : `${line}\n`;
			category = lead ? line : category;
			yield encoder.encode(`${number > 1 ? '\n' : ''}${lead}${textOfQuestion(question, number)}`);
		}
		written(at + 1);
	}
}
