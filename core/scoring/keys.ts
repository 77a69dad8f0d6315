import { isChoice, kindOf, type Question } from '../kinds';

/** Whether there is a key that a person can look at and verify: some answer earns points by the program's marking. */
export function hasKey(question: Question): boolean {
	return kindOf(question).hasKey(question);
}

/** What of a question says which answers are right, whatever its words are, to be compared. */
function keyOf(question: Question): string {
	const wordless = kindOf(question).rich(question, () => '');
	return isChoice(wordless)
		? wordless.options.map((option) => `${option.identifier} ${option.credit}`).join()
		: JSON.stringify(kindOf(wordless).content({ ...wordless, stem: '' }, ({ name }) => ({ name })));
}

/** A question as a person has edited it: once the key is marked, what the source named in vain is no key any more. */
export function withKeyMarked(before: Question, after: Question): Question {
	if (!after.lostKeys?.length || !hasKey(after)) return after;
	return keyOf(before) === keyOf(after) ? after : { ...after, lostKeys: [] };
}
