import type { QuizToWrite } from '../formats/format';
import type { FoundQuiz } from '../model/quiz';

/** What became of quizzes that were written and read back, in sentences for people; none where they are what they were. */
export function quizDifferences(sent: QuizToWrite[], found: FoundQuiz[]): string[] {
	return sent.flatMap((quiz, at) => {
		const back = found[at];
		if (!back) return [`The quiz “${quiz.title}” was not found in the file.`];
		const words: string[] = back.title === quiz.title ? [] : [`Its title became “${back.title}”.`];
		if (back.parts.length !== quiz.parts.length)
			words.push(
				`It has ${back.parts.length} ${back.parts.length === 1 ? 'part' : 'parts'} instead of ${quiz.parts.length}.`
			);
		quiz.parts.forEach((part, n) => {
			const other = back.parts[n];
			if (!other) return;
			if (other.draw !== part.draw)
				words.push(`Part “${part.title}” draws ${other.draw ?? 'all'} instead of ${part.draw ?? 'all'}.`);
			if (other.questions.length !== part.questions.length)
				words.push(`Part “${part.title}” has ${other.questions.length} questions instead of ${part.questions.length}.`);
			if ((other.shuffle ?? false) !== part.shuffle)
				words.push(
					`Part “${part.title}” ${part.shuffle ? 'keeps the order of the file instead of a random one' : 'comes in a random order'}.`
				);
			if (part.pointsEach !== null && other.pointsEach !== part.pointsEach)
				words.push(
					`Part “${part.title}” gives ${other.pointsEach ?? 'each question its own'} points instead of ${part.pointsEach}.`
				);
		});
		return sent.length > 1 ? words.map((one) => `“${quiz.title}”: ${one}`) : words;
	});
}
