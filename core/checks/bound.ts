import type { Question } from '../kinds';
import { isChoice } from '../kinds';
import { calledAmong } from './many';
import { optionLetters } from './option-letters';
import { optionPlace } from './option-place';

/** What a question is called whose options name one another by place or letter, and must not be shuffled; undefined where they may be. */
export function boundName(question: Question): string | undefined {
	if (!isChoice(question)) return undefined;
	const shuffled = { ...question, shuffle: true };
	return optionPlace.find(shuffled).length || optionLetters.find(shuffled).length ? calledAmong(question) : undefined;
}
