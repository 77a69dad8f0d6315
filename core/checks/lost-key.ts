import { fold, plainText } from '../markup/text';
import { isChoice, type ChoiceQuestion, type Question } from '../kinds';
import type { Option } from '../model/pieces';
import type { OneCheck } from './check';
import { quoted } from './saying';

const folded = (text: string) => fold(text).toLowerCase();

/** The one option that a lost key means: by its letter or number, or by its words; null where none or several may be meant. */
function meantBy(key: string, options: readonly Option[]): Option | null {
	const wanted = folded(key).replace(/^[([]|[)\].:]+$/g, '');
	const byWords = options.filter(
		({ text }) => folded(plainText(text)) === folded(key) || folded(plainText(text)) === wanted
	);
	const place = /^[a-z]$/.test(wanted) ? wanted.charCodeAt(0) - 97 : /^\d{1,2}$/.test(wanted) ? Number(wanted) - 1 : -1;
	const byPlace = options[place] ? [options[place]] : [];
	const meant = byWords.length ? byWords : byPlace;
	return meant.length === 1 ? meant[0]! : null;
}

/** The options that all lost keys of a choice mean; null where one of them means none, or several. */
function allMeant({ lostKeys, options }: ChoiceQuestion): Option[] | null {
	const meant = lostKeys.map((key) => meantBy(key, options));
	return meant.every((option) => option !== null) ? meant : null;
}

/** The names in the key of pairs and of word banks that name nothing. */
function lostNames(question: Question): string[] {
	const missing = (names: readonly string[], there: readonly { identifier: string }[]) => {
		const known = new Set(there.map(({ identifier }) => identifier));
		return names.filter((name) => !known.has(name));
	};
	if (question.kind === 'matching' || question.kind === 'label-image') {
		const earning = question.pairs.filter(({ credit }) => credit > 0);
		const [left, right] =
			question.kind === 'matching' ? [question.left, question.right] : [question.labels, question.targets];
		return [
			...missing(
				earning.map((pair) => pair.left),
				left
			),
			...missing(
				earning.map((pair) => pair.right),
				right
			)
		];
	}
	if (question.kind !== 'fill-blanks') return [];
	const words = question.blanks.flatMap((blank) =>
		blank.form === 'word' ? blank.words.filter(({ credit }) => credit > 0).map(({ word }) => word) : []
	);
	return missing(words, question.bank);
}

/** The key names something that is not there. */
export const lostKey: OneCheck = {
	id: 'lost-key',
	version: 3,
	scope: 'one',
	title: 'Key that points at nothing',
	short: 'lost key',
	severity: 'broken',
	why: 'The key names an option that is not there, or that is there twice, so what was meant to be right is lost.',
	find(question) {
		if (!isChoice(question)) {
			const names = [...new Set([...(question.lostKeys ?? []), ...lostNames(question)])];
			return names.length
				? [
						{
							message: `The key names ${quoted(names)}, which ${names.length > 1 ? 'are' : 'is'} not in this question. Say what is right.`,
							words: names
						}
					]
				: [];
		}
		if (!question.lostKeys.length) return [];
		const names = question.lostKeys.map((key) => `“${key}”`).join(', ');
		return [
			{
				message: `The key reads ${names}, and ${question.lostKeys.length > 1 ? 'those are not options' : 'that is not one option'} of this question, which has ${question.options.length}. Mark the right option.`
			}
		];
	},
	mend: {
		title: 'Take the option that is meant by its letter or its words',
		fits: (question) => isChoice(question) && question.lostKeys.length > 0 && allMeant(question) !== null,
		apply(question) {
			const meant = isChoice(question) && question.lostKeys.length ? allMeant(question) : null;
			if (!meant || !isChoice(question)) return question;
			const keys = new Set([...meant, ...question.options.filter(({ credit }) => credit > 0)]);
			const share = question.kind === 'multiple-response' ? 1 / keys.size : 1;
			return {
				...question,
				lostKeys: [],
				options: question.options.map((option) => (keys.has(option) ? { ...option, credit: share } : option))
			};
		}
	}
};
