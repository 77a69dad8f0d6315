import { isChoice, kindOf, type Question } from '../kinds';
import { Generator } from '../numbers/generator';
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
	if (isChoice(question)) {
		const pinned = question.options.map((option) => option.pinned);
		const shuffles = shuffleOptions && question.shuffle !== false;
		return { question, order: shuffles ? optionOrder(pinned, seed, key) : undefined };
	}
	const shuffled = <T>(list: T[]): T[] => generator.shuffle(list);
	const dealt = kindOf(question).dealt(question, { seed: `${seed}/${key}`, shuffled, shuffleOptions });
	return { question: dealt, order: undefined };
}
