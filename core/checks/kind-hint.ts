import { plainText } from '../markup/text';
import { isChoice, kindName, type ChoiceQuestion, type Question } from '../kinds';
import type { OneCheck } from './check';
import { asksForOne, asksForSeveral } from './phrases/several';

/** “Which two …”, where a thing may be asked for that has two parts. */
const howMany = /^(?:which|welche|quel|qué|cuáles|quais|quali|welke)/iu;
const joined = /\s(?:and|und|et|y|e|en|&|\+)\s|[,/]/iu;
/** Whether most options name several things each, so that one of them is all that is asked for. */
const areJoined = ({ options }: ChoiceQuestion) =>
	options.filter(({ text }) => joined.test(plainText(text))).length * 3 >= options.length * 2;

/** The words by which the stem asks for another kind of choice than the question is, and that kind; null where they agree. */
function hintIn(question: Question): { words: string; kind: ChoiceQuestion['kind'] } | null {
	if (!isChoice(question)) return null;
	const stem = plainText(question.stem);
	const words = question.kind === 'multiple-response' ? asksForOne(stem) : asksForSeveral(stem);
	if (!words || (question.kind !== 'multiple-response' && howMany.test(words) && areJoined(question))) return null;
	return { words, kind: question.kind === 'multiple-response' ? 'multiple-choice' : 'multiple-response' };
}

const keysOf = ({ options }: ChoiceQuestion) => options.filter(({ credit }) => credit > 0);

/** The stem asks for one answer and several may be chosen, or the other way round. */
export const kindHint: OneCheck = {
	id: 'kind-hint',
	version: 3,
	scope: 'one',
	title: 'Words that ask for another kind of choice',
	short: 'kind',
	severity: 'doubtful',
	why: 'Students are told to choose several and can choose one, or are told to choose one and can choose several: they cannot do what they are asked.',
	find(question) {
		const hint = hintIn(question);
		if (!hint) return [];
		return [
			{
				message:
					hint.kind === 'multiple-response'
						? `The stem says “${hint.words}”, and one option may be chosen. Make it a multiple response, or take the words out.`
						: `The stem says “${hint.words}”, and several options may be chosen. Make it a multiple choice, or take the words out.`,
				words: [hint.words]
			}
		];
	},
	mend: {
		title: 'Change the kind as the words say, with the credit shared equally among the keys',
		// several keys of which one may be chosen would be doubtful again
		fits(question) {
			const hint = hintIn(question);
			return (
				hint !== null && isChoice(question) && (hint.kind === 'multiple-response' || keysOf(question).length === 1)
			);
		},
		apply(question) {
			const hint = hintIn(question);
			if (!hint || !isChoice(question)) return question;
			const keys = keysOf(question);
			if (hint.kind === 'multiple-choice' && keys.length !== 1) return question;
			return withKind(question, hint.kind);
		}
	}
};

/** A choice as another kind of choice, its credit shared equally among its keys. */
export function withKind(question: ChoiceQuestion, kind: ChoiceQuestion['kind']): ChoiceQuestion {
	const keys = keysOf(question).length;
	return {
		...question,
		kind,
		combination: 'sum',
		options: question.options.map((option) => (option.credit > 0 ? { ...option, credit: 1 / keys } : option)),
		bounds: kind === 'multiple-response' ? { ...question.bounds, lower: question.bounds.lower ?? 0 } : question.bounds
	};
}

/** The name of the kind that a stem asks for, for messages of other checks; null where it asks for none. */
export const hintedKind = (question: Question): string | null => {
	const hint = hintIn(question);
	return hint && kindName(hint.kind);
};
