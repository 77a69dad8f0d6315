import { beginning } from '../../markup/text';
import { truthOf } from '../drafts/words';
import { type Draft } from '../drafts/draft';
import { listOf } from '../table/cells';
import { note, type Block } from './block';
import type { Line } from './lines';
import { cut } from './marks';

/** Puts what a field says of a question into its draft: points, tags and the like, by the field's name. */
export function applyField(draft: Partial<Draft>, name: string, value: Line): void {
	if (name === 'points') draft.points = value.text;
	else if (name === 'tags') draft.tags = listOf(value.text);
	else if (name === 'difficulty') draft.difficulty = value.text;
	else if (name === 'kind') draft.kind = value.text;
	else if (name === 'language') draft.language = value.text;
	else if (name === 'shuffle') draft.shuffle = truthOf(value.text, true);
}

/** Keeps a field that is not known here, under others that are, beside the question; false where the line is no field. */
export function unknownField(block: Block, line: Line): boolean {
	const field = /^([A-Z][\w'’ /-]{1,30}?)\s*:\s+(\S.*)$/.exec(line.text);
	if (!field) return false;
	(block.draft.metadata ??= []).push({ name: field[1]!.toLowerCase(), value: field[2]! });
	note(
		block,
		'unknown-field',
		`The line “${line.text}” says something that has no place here; it was kept beside the question.`
	);
	return true;
}

/** Takes a line right under the answer that is no field for the reason. */
export function reasonUnderAnswer(block: Block, line: Line): void {
	block.draft.feedback.general = `${block.draft.feedback.general ?? ''} ${line.markup}`.trim();
	block.last = 'feedback';
	note(block, 'reason-as-feedback', `The words after the key, “${beginning(line.text, 80)}”, were read as feedback.`);
}

const ofOption =
	/^(?:feedback|explanation|rationale)\s*(?:for|of|on)?\s*(?:option|answer|choice)?\s*\(?([A-Za-z]|\d{1,2})\)?\s*[:–—-]\s*/i;

/** Takes a line that speaks of one option by its letter, "Feedback for A: …"; false where it speaks of none. */
export function feedbackOfOption(block: Block, line: Line): boolean {
	const found = ofOption.exec(line.text);
	const option =
		found && block.options.find((one) => one.label.toLowerCase() === found[1]!.toLowerCase() && one.label !== '');
	if (!option) return false;
	option.feedback.push(cut(line, found[0].length).markup);
	block.last = 'field';
	block.to = line.number;
	return true;
}
