import { type Fields, list, maybeTruth, text } from '../model/fields';
import { bounds, combination, option } from '../model/pieces';
import type { QuestionCommon } from '../model/question';
import { bounds as most } from '../model/bounds';
import { plainText } from '../markup/text';
import { bestOf, bounded, rounded, scaledCredit } from './answers';
import type { KindOf, Marked } from './kind';
import { creditPart, percent, rich, yesOrNo, type Part } from './part';

/** The fields of a choice; `shuffle` is null where the source is silent. */
const fields = {
	options: list(option),
	shuffle: maybeTruth(),
	combination: combination(),
	bounds,
	lostKeys: list(text())
};

/** A question whose answer is one or several of its options. */
export type ChoiceQuestion = { kind: 'true-false' | 'multiple-choice' | 'multiple-response' } & QuestionCommon &
	Fields<typeof fields>;

/** The share of the points that the ticked options earn. */
function creditOf(question: ChoiceQuestion, ticked: Set<string>): number {
	if (question.combination === 'all') {
		const right = question.options.filter((option) => option.credit > 0);
		return right.length > 0 && right.length === ticked.size && right.every((option) => ticked.has(option.identifier))
			? Math.min(1, rounded(right.reduce((sum, option) => sum + option.credit, 0)))
			: 0;
	}
	const sum = question.options
		.filter((option) => ticked.has(option.identifier))
		.reduce((total, option) => total + option.credit, 0);
	return bounded(sum, question.bounds);
}

function marked(question: ChoiceQuestion, chosenIdentifiers: string[], several: boolean): Marked {
	const ticked = new Set(chosenIdentifiers);
	if (!ticked.size) return { credit: 0, reason: 'Nothing is chosen.' };
	const credit = creditOf(question, several ? ticked : new Set([...ticked].slice(0, 1)));
	const chosen = question.options.filter((option) => ticked.has(option.identifier));
	const right = chosen.filter((option) => option.credit > 0).length;
	const all = question.options.filter((option) => option.credit > 0).length;
	const ofOne =
		credit >= 1 ? 'That is the key.' : credit > 0 ? 'That earns a part of the points.' : 'That is not the key.';
	return {
		credit,
		reason: several ? `${right} of ${all} right options chosen, ${chosen.length - right} wrong.` : ofOne,
		feedback: chosen.flatMap((option) => option.feedback ?? [])
	};
}

function bestCredit({ options, bounds }: ChoiceQuestion, several: boolean): number {
	const credits = options.map((option) => option.credit);
	if (!several) return rounded(Math.max(0, ...credits));
	const sum = credits.filter((credit) => credit > 0).reduce((total, credit) => total + credit, 0);
	return rounded(Math.min(1, bounds.upper ?? Infinity, sum));
}

function parts({ options, shuffle, combination, bounds }: ChoiceQuestion): Part[] {
	return [
		...options.flatMap((option, at) => [
			rich(
				`option ${at + 1}`,
				option.text,
				`${option.credit ? ` (${percent(option.credit)})` : ''}${option.pinned ? ', pinned' : ''}`
			),
			...(option.feedback ? [rich(`feedback to option ${at + 1}`, option.feedback)] : [])
		]),
		{ name: 'options are shuffled', text: yesOrNo(shuffle) },
		creditPart({ combination, bounds })
	];
}

/** A kind of choice: `several` where more than one option may be chosen. */
export function choiceKind(name: string, several: boolean): KindOf<ChoiceQuestion> {
	return {
		name,
		fields,
		marks: 'program',
		rich: (question, change) => ({
			...question,
			options: question.options.map((option, at) => ({
				...option,
				text: change(option.text, `option ${at + 1}`),
				...(option.feedback === undefined ? {} : { feedback: change(option.feedback, `feedback of option ${at + 1}`) })
			}))
		}),
		wording: ({ options }) => options.map((option) => option.text),
		content({ options, shuffle, combination, bounds }) {
			const settled = options.map(({ text, credit, feedback, pinned }) => ({
				text,
				credit,
				feedback: feedback ?? '',
				pinned
			}));
			if (!several) return { options: settled, shuffle };
			// of a single option, all of them is that one
			const single = options.length === 1 && bounds.lower === null && bounds.upper === null;
			return { options: settled, shuffle, combination: single ? 'sum' : combination, bounds };
		},
		parts,
		plain: ({ options, shuffle }) => ({
			options: options.map(({ text, credit, feedback }) => ({
				text: plainText(text),
				credit,
				...(feedback ? { feedback: plainText(feedback) } : {})
			})),
			shuffle
		}),
		counts: ({ options }) => [[options.length, most.options, 'options']],
		mark: (question, response) => marked(question, response.options ?? [], several),
		right({ options }) {
			const right = options.filter((option) => option.credit > 0).sort((a, b) => b.credit - a.credit);
			return right.length
				? { options: (several ? right : right.slice(0, 1)).map((option) => option.identifier) }
				: null;
		},
		wrong({ options }) {
			const worst = [...options].sort((a, b) => a.credit - b.credit)[0];
			return worst && worst.credit < 1 ? { options: [worst.identifier] } : null;
		},
		best: (question) => bestCredit(question, several),
		// where the key names no option, that is said of it
		keyless: ({ options, lostKeys }) =>
			lostKeys.length || bestOf(options) ? null : 'No option is marked as right. Mark the key.',
		scaled: (question, by) => ({
			...question,
			options: question.options.map((option) => scaledCredit(option, by)),
			bounds: { ...question.bounds, upper: null }
		}),
		dealt: (question) => question,
		hasKey: ({ options }) => options.some((option) => option.credit > 0)
	};
}
