import { beginning, plainText } from '../markup/text';
import type { Question } from '../model/question';

const mostCompared = 2000;
const least = 0.6;

const wordsOf = (question: Question) =>
	new Set(
		plainText(question.stem)
			.toLowerCase()
			.replace(/[^\p{L}\p{N}\s]/gu, ' ')
			.split(/\s+/)
			.filter(Boolean)
	);

function likeness(a: Set<string>, b: Set<string>): number {
	let both = 0;
	for (const word of a) if (b.has(word)) both += 1;
	return both / (a.size + b.size - both);
}

/**
 * Questions of one file whose stems are almost the same, by the place of the later one, with a sentence for people.
 * Likeness is that of Jaccard over words; stems of fewer than four words are passed over, and so are the same ones.
 */
export function nearDuplicates(questions: Question[]): Map<number, string> {
	const found = new Map<number, string>();
	if (questions.length > mostCompared) return found;
	const words = questions.map(wordsOf);
	for (let at = 1; at < questions.length; at += 1)
		for (let other = 0; other < at; other += 1) {
			if (words[at]!.size < 4 || words[other]!.size < 4) continue;
			const value = likeness(words[at]!, words[other]!);
			if (value < least || value === 1) continue;
			found.set(
				at,
				`It reads almost like “${beginning(plainText(questions[other]!.stem), 60)}” (${Math.round(value * 100)} percent of the words). Look whether both are wanted.`
			);
			break;
		}
	return found;
}
