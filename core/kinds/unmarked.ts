import type { QuestionCommon } from '../model/question';
import type { KindOf } from './kind';

/** What a kind has of which the program marks nothing: `reason` says why, for people. */
export function unmarked<Of extends QuestionCommon>(
	marks: 'person' | 'nobody',
	reason: string
): Omit<KindOf<Of>, 'name' | 'fields'> {
	return {
		marks,
		rich: (question) => question,
		wording: () => [],
		content: () => ({}),
		parts: () => [],
		plain: () => ({}),
		counts: () => [],
		mark: () => ({ credit: null, reason }),
		right: () => null,
		wrong: () => null,
		best: () => null,
		keyless: () => null,
		scaled: (question) => question,
		dealt: (question) => question,
		hasKey: () => false
	};
}
