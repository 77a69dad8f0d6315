import type { QuestionCommon } from '../model/question';
import type { ChangeMarkup } from './kind';

/**
 * The same question with the rich texts that every kind has put through a function, those of its own kind by `own`
 * between them: in the order in which a student meets them.
 */
export function mapCommon<Of extends QuestionCommon>(
	question: Of,
	change: ChangeMarkup,
	own: (question: Of) => Of = (same) => same
): Of {
	let copy: Of = { ...question };
	if (copy.stimulus)
		copy.stimulus = { ...copy.stimulus, content: change(copy.stimulus.content, 'what several questions share') };
	copy.stem = change(question.stem, 'stem');
	copy = { ...own(copy) };
	copy.feedback = { ...copy.feedback };
	for (const part of ['general', 'correct', 'incorrect', 'partly'] as const)
		if (copy.feedback[part] !== undefined) copy.feedback[part] = change(copy.feedback[part], `${part} feedback`);
	copy.hints = copy.hints.map((hint, at) => change(hint, `hint ${at + 1}`));
	return copy;
}
