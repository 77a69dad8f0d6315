import { describe, expect, it } from 'vitest';
import { markupOf, type Question } from '../kinds';
import { mendTools } from '../formats/mend-tools';
import { Gathering, type Standing } from '../checks/many';
import type {
	CheckedCategory,
	CheckedQuiz,
	ManyCheck,
	OneCheck,
	PairCheck,
	QuizCheck,
	TreeCheck
} from '../checks/check';
import { languagesOf } from '../language/detect';

const tools = { languagesOf };

interface Valid {
	name: string;
	question: Question;
}
interface Invalid extends Valid {
	/** Words that the finding has to say. */
	says: string;
	/** The words that are lit. */
	words?: string[];
	/** What the mend makes of it; null where it leaves the question as it is. */
	mended?: ((question: Question) => void) | null;
}

/** Tries a check on examples that it has to pass over, and on examples that it has to find and mend. */
export function tryCheck(check: OneCheck, valid: Valid[], invalid: Invalid[]): void {
	describe(check.id, () => {
		it('says what it is and why it matters', () => {
			expect(check.title.length).toBeGreaterThan(3);
			expect(check.why).toMatch(/\.$/);
		});
		it.each(valid.map((one) => [one.name, one] as const))('passes over %s', (_, { question }) => {
			expect(check.find(question)).toEqual([]);
		});
		it.each(invalid.map((one) => [one.name, one] as const))('finds %s', (_, { question, says, words, mended }) => {
			const before = structuredClone(question);
			const findings = check.find(question);
			expect(findings.map((finding) => finding.message).join(' ')).toContain(says);
			if (words) expect(findings.flatMap((finding) => finding.words ?? [])).toEqual(words);
			if (check.mend && mended !== undefined) {
				const after = check.mend.apply(question, mendTools);
				if (mended === null) expect(after).toEqual(before);
				else {
					mended(after);
					expect(check.find(after)).toEqual([]);
					expect(check.mend.apply(after, mendTools)).toEqual(after);
					expect(markupOf(after).length).toBeGreaterThan(0);
				}
			}
			// neither finding nor mending touches the question that was given
			expect(question).toEqual(before);
		});
	});
}

/** Several questions that a check over many is tried on, each with where it stands where that is not the same for all. */
interface Among {
	name: string;
	questions: (Question | { question: Question; standing: Standing })[];
}
interface FoundAmong extends Among {
	/** Which of them it speaks of, by their places, with words that the finding has to say. */
	says: Record<number, string>;
	/** What the mend of all that are found makes of them; looked at once the check finds nothing more. */
	mended?: (questions: Question[]) => void;
}

/** Tries a check over many on examples that it has to pass over, and on examples that it has to find and mend. */
export function tryManyCheck(check: ManyCheck | PairCheck, valid: Among[], invalid: FoundAmong[]): void {
	const entries = (given: Among['questions']) =>
		given.map((entry) =>
			'standing' in entry ? entry : { question: entry, standing: { bank: 'Tides', category: ['Springs'] } }
		);
	const found = (given: Among['questions']) => {
		const gathering = new Gathering(tools, [check]);
		entries(given).forEach(({ question, standing }, at) => gathering.add(at, question, standing));
		return [...gathering.findings()];
	};
	describe(check.id, () => {
		it('says what it is and why it matters', () => {
			expect(check.title.length).toBeGreaterThan(3);
			expect(check.why).toMatch(/\.$/);
		});
		it('notes what JSON can hold, and no more than it needs', () => {
			for (const { questions } of [...valid, ...invalid])
				for (const { question } of entries(questions)) {
					const note = check.note(question, tools);
					const kept: unknown = JSON.parse(JSON.stringify(note));
					expect(kept).toEqual(note);
					expect(JSON.stringify(note).length).toBeLessThan(2000);
				}
		});
		it.each(valid.map((one) => [one.name, one] as const))('passes over %s', (_, { questions }) => {
			expect(found(questions)).toEqual([]);
		});
		it.each(invalid.map((one) => [one.name, one] as const))('finds %s', (_, { questions, says, mended }) => {
			const findings = found(questions);
			expect(Object.fromEntries(findings.map(({ id, message }) => [id, message]))).toEqual(
				Object.fromEntries(Object.entries(says).map(([at, words]) => [at, expect.stringContaining(words)]))
			);
			// of one question it speaks once
			expect(new Set(findings.map(({ id }) => id)).size).toBe(findings.length);
			// in whatever order they are met
			const numbers = entries(questions).map((entry, id) => ({ ...entry, id }));
			const backwards = new Gathering(tools, [check]);
			for (const { id, question, standing } of numbers.reverse()) backwards.add(id, question, standing);
			expect(new Set([...backwards.findings()].map(({ id }) => id))).toEqual(new Set(findings.map(({ id }) => id)));
			if (!mended) return;
			const after = mendAll(
				check,
				entries(questions),
				findings.map(({ id }) => id)
			);
			expect(found(after)).toEqual([]);
			mended(after.map(({ question }) => question));
		});
	});
}

function mendAll(
	check: ManyCheck | PairCheck,
	entries: { question: Question; standing: Standing }[],
	ids: number[]
): { question: Question; standing: Standing }[] {
	if (check.scope !== 'many') return entries;
	const noted = entries.flatMap(({ question, standing }, id) => {
		const note = check.note(question, tools);
		return note === null ? [] : [{ id, name: question.title, category: standing.category, note }];
	});
	const keyOf = (note: unknown) => check.key?.(note) ?? '';
	return entries.map((entry, id) => {
		const own = ids.includes(id) ? noted.find((other) => other.id === id) : undefined;
		const group = noted.filter(({ note }) => own && keyOf(note) === keyOf(own.note));
		return own ? { ...entry, question: check.mend!.apply(entry.question, own, group) } : entry;
	});
}

/** Tries a check over the tree on trees that it has to pass over, and on those in which it has to find something, by subject and words. */
export function tryTreeCheck(
	check: TreeCheck,
	valid: { name: string; tree: CheckedCategory[] }[],
	invalid: { name: string; tree: CheckedCategory[]; says: [subject: string, words: string][] }[]
): void {
	describe(check.id, () => {
		it.each(valid.map((one) => [one.name, one] as const))('passes over %s', (_, { tree }) => {
			expect(check.find(tree)).toEqual([]);
		});
		it.each(invalid.map((one) => [one.name, one] as const))('finds %s', (_, { tree, says }) => {
			expect(check.find(tree).map(({ subject, message }) => [subject.join('/'), message])).toEqual(
				says.map(([subject, words]) => [subject, expect.stringContaining(words) as string])
			);
		});
	});
}

/** Tries a check over a quiz on quizzes that it has to pass over, and on those in which it has to find something. */
export function tryQuizCheck(
	check: QuizCheck,
	valid: { name: string; quiz: CheckedQuiz }[],
	invalid: { name: string; quiz: CheckedQuiz; says: string }[]
): void {
	describe(check.id, () => {
		it.each(valid.map((one) => [one.name, one] as const))('passes over %s', (_, { quiz }) => {
			expect(check.find(quiz)).toEqual([]);
		});
		it.each(invalid.map((one) => [one.name, one] as const))('finds %s', (_, { quiz, says }) => {
			const messages = check.find(quiz).map(({ message }) => message);
			expect(messages.join(' ')).toContain(says);
		});
	});
}
