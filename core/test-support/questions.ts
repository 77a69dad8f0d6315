import { emptyCommon } from '../model/question';
import type { AcceptedNumber, AcceptedText, Option } from '../model/pieces';
import type { ChoiceQuestion, EssayQuestion, NumericQuestion, ShortAnswerQuestion } from '../kinds';

/** An option of a question in a test. */
export function option(identifier: string, text: string, credit: number, more: Partial<Option> = {}): Option {
	return { identifier, text, credit, pinned: false, ...more };
}

/** A multiple choice whose key is the first option. */
export function choice(more: Partial<ChoiceQuestion> = {}): ChoiceQuestion {
	return {
		...emptyCommon('GH-1', 'Cloud of a warm front'),
		stem: 'Which cloud comes first as a warm front draws near?',
		points: 1,
		kind: 'multiple-choice',
		options: [option('A', 'Cirrus', 1), option('B', 'Stratus', 0), option('C', 'Cumulus', 0)],
		shuffle: true,
		combination: 'sum',
		bounds: { lower: null, upper: null },
		lostKeys: [],
		...more
	};
}

/** A short answer. */
export function short(accepted: AcceptedText[], more: Partial<ShortAnswerQuestion> = {}): ShortAnswerQuestion {
	return {
		...emptyCommon('GH-2', 'Lines of equal pressure'),
		stem: 'What is a line of equal pressure on a weather map called?',
		points: 1,
		kind: 'short-answer',
		accepted,
		...more
	};
}

/** A numeric question. */
export function numeric(accepted: AcceptedNumber[], more: Partial<NumericQuestion> = {}): NumericQuestion {
	return {
		...emptyCommon('GH-3', 'Distress channel'),
		stem: 'Which VHF channel is kept for distress calls by voice?',
		points: 1,
		kind: 'numeric',
		whole: false,
		accepted,
		...more
	};
}

/** An essay. */
export function essay(more: Partial<EssayQuestion> = {}): EssayQuestion {
	return {
		...emptyCommon('GH-4', 'Reefing'),
		stem: 'Describe how you reef a mainsail.',
		points: 5,
		kind: 'essay',
		...more
	};
}
