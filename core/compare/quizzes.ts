import type { FittedQuiz, FoundPart, FoundQuiz, PartToWrite, QuizToWrite } from '../model/quiz';
import { renamedPart, renamedRules } from '../model/sheet';

/** How the questions of quizzes are known again in a file that was read back; places count from 1. */
export interface Known {
	/** The places in the file of what was written for a question, by its place among those that were sent, from 0. */
	sent: (at: number) => number[];
	/** The place in the file of a question that a part refers to. */
	found: (question: FoundPart['questions'][number]) => number | undefined;
}

/** Where in a file stands what was written for each question, by how many were written for each and the order of the file. */
export function placesOfFitted(counts: number[], order = counts.map((_, at) => at)): Known['sent'] {
	const starts: number[] = [];
	let next = 1;
	for (const at of order) {
		starts[at] = next;
		next += counts[at]!;
	}
	return (at) => Array.from({ length: counts[at] ?? 0 }, (_, which) => starts[at]! + which);
}

const asText = (value: unknown) => JSON.stringify(value ?? null);
const firstOf = (known: Known) => (at: number) => known.sent(at)[0];

/** What is other in the pool, the quotas and the orders of a part. */
function sheetDifferences(part: PartToWrite, back: FoundPart, known: Known): string[] {
	if (!part.sheet) return [];
	const sent = renamedPart(part.sheet, firstOf(known));
	const found = back.sheet && renamedPart(back.sheet, known.found);
	return (['order', 'shuffleOptions', 'pool', 'quotas'] as const)
		.filter((name) => asText(sorted(sent[name])) !== asText(sorted(found?.[name])))
		.map((name) => `Part “${part.title}” has ${named[name]}.`);
}

/** What is other around a quiz, and in the rules that hold for all of its parts. */
function aroundDifferences(quiz: QuizToWrite, back: FoundQuiz, known: Known): string[] {
	const { settings = {}, rules } = quiz;
	const around = Object.entries(settings)
		.filter(([name, value]) => asText(value) !== asText(back.settings?.[name as keyof typeof settings]))
		.map(
			([name, value]) =>
				`What is around it changed: ${name} was ${asText(value)} and is ${asText(back.settings?.[name as keyof typeof settings])}.`
		);
	if (!rules) return around;
	const [sent, found] = [renamedRules(rules, firstOf(known)), back.rules && renamedRules(back.rules, known.found)];
	return [
		...around,
		...(asText(sorted(sent)) === asText(sorted(found))
			? []
			: ['Its pairs, groups or orders are other than those that were sent.'])
	];
}

const named = {
	order: 'its questions in another order',
	shuffleOptions: 'its options in another order',
	pool: 'another pool',
	quotas: 'other quotas'
};

/** A value with the names in it in one order. */
function sorted(value: unknown): unknown {
	if (Array.isArray(value)) return value.map(sorted);
	if (typeof value !== 'object' || value === null) return value;
	const entries = Object.entries(value).filter(([, inner]) => inner !== undefined);
	return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, inner]) => [name, sorted(inner)]));
}

/** What became of quizzes that were written and read back, in sentences for people; none where they are what they were. */
export function quizDifferences(sent: QuizToWrite[], found: FoundQuiz[], known: Known): string[] {
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
			const wanted = part.questions.flatMap(known.sent);
			const places = other.questions.map(known.found);
			if (other.questions.length !== wanted.length)
				words.push(`Part “${part.title}” has ${other.questions.length} questions instead of ${wanted.length}.`);
			else if (!wanted.every((place) => places.includes(place)))
				words.push(`Part “${part.title}” has other questions than those that were sent.`);
			else if (!part.shuffle && wanted.some((place, n) => place !== places[n]))
				words.push(`Part “${part.title}” has its questions in another order.`);
			if ((other.shuffle ?? false) !== part.shuffle)
				words.push(
					`Part “${part.title}” ${part.shuffle ? 'keeps the order of the file instead of a random one' : 'comes in a random order'}.`
				);
			words.push(...sheetDifferences(part, other, known));
			if (part.pointsEach !== null && other.pointsEach !== part.pointsEach)
				words.push(
					`Part “${part.title}” gives ${other.pointsEach ?? 'each question its own'} points instead of ${part.pointsEach}.`
				);
		});
		words.push(...aroundDifferences(quiz, back, known));
		return sent.length > 1 ? words.map((one) => `“${quiz.title}”: ${one}`) : words;
	});
}

/** What a proof says of quizzes: what was foretold of them, what differs otherwise, and how many stay behind. */
export interface QuizProof {
	foretold: string[];
	otherwise: string[];
	sent: number;
	leftBehind: number;
}

/** Holds quizzes that were read back against what was to be written of them. */
export function proveQuizzes(fitted: FittedQuiz[], found: FoundQuiz[], known: Known): QuizProof {
	const written = fitted.flatMap((one) => one.quiz ?? []);
	// what is lost of all of them alike is said once
	const alike = new Set((fitted[0]?.what ?? []).filter((words) => fitted.every(({ what }) => what.includes(words))));
	return {
		foretold: [
			...alike,
			...fitted.flatMap(({ quiz, what }) =>
				what
					.filter((words) => !alike.has(words))
					.map((words) => (fitted.length > 1 && quiz ? `“${quiz.title}”: ${words}` : words))
			)
		],
		otherwise: [
			...quizDifferences(written, found, known),
			...found.slice(written.length).map((one) => `The file holds a quiz “${one.title}” that was not sent.`)
		],
		sent: written.length,
		leftBehind: fitted.length - written.length
	};
}
