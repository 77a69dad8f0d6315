import { workedOut } from '../calculated/datasets';
import { ExpressionError } from '../calculated/expression';
import type { Question } from '../model/question';
import { Generator } from './generator';
import { optionOrder } from './sitting';

/** A question as one student gets it. */
export interface Presented {
	question: Question;
	/** The order of its options by their places, where they are shuffled. */
	order: number[] | undefined;
}

/**
 * A question as a sitting shows it: options, words, what is matched and what is put in order are shuffled by the seed,
 * unless the question forbids it or, for options, the part keeps their order; what is put in order never stands in the
 * right one, and a calculated question has numbers of its own. `key` tells questions of one sitting apart.
 */
export function presented(question: Question, seed: string, key: number, shuffleOptions: boolean): Presented {
	const generator = new Generator(`${seed}/${key}/shown`);
	const shuffled = <T>(list: T[]): T[] => generator.shuffle(list);
	if ('options' in question) {
		const pinned = question.options.map((option) => option.pinned);
		const shuffles = shuffleOptions && question.shuffle !== false;
		return { question, order: shuffles ? optionOrder(pinned, seed, key) : undefined };
	}
	if (question.kind === 'calculated') {
		try {
			return { question: workedOut(question, `${seed}/${key}`), order: undefined };
		} catch (error) {
			if (!(error instanceof ExpressionError)) throw error;
			return { question, order: undefined };
		}
	}
	if (question.kind === 'matching' && question.shuffle !== false)
		return { question: { ...question, right: shuffled(question.right) }, order: undefined };
	if (question.kind === 'ordering' && question.shuffle !== false) {
		const right = question.items.map((item) => item.identifier);
		let order = shuffled(right);
		if (right.length > 1 && String(order) === String(right)) order = [...order.slice(1), order[0]!];
		return { question: { ...question, presented: order }, order: undefined };
	}
	if (question.kind === 'fill-blanks')
		return {
			question: {
				...question,
				bank: question.shuffle === false ? question.bank : shuffled(question.bank),
				blanks: question.blanks.map((blank) =>
					blank.form === 'list' && shuffleOptions && blank.shuffle !== false
						? { ...blank, entries: shuffled(blank.entries) }
						: blank
				)
			},
			order: undefined
		};
	return { question, order: undefined };
}
