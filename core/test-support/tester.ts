import { describe, expect, it } from 'vitest';
import { markupOf, type Question } from '../kinds';
import { mendTools } from '../formats/mend-tools';
import type { Check, CheckContext } from '../checks/check';

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

const nothingElse: CheckContext = { duplicateOf: () => null };

/** Tries a check on examples that it has to pass over, and on examples that it has to find and mend. */
export function tryCheck(check: Check, valid: Valid[], invalid: Invalid[], context: CheckContext = nothingElse): void {
	describe(check.id, () => {
		it('says what it is and why it matters', () => {
			expect(check.title.length).toBeGreaterThan(3);
			expect(check.why).toMatch(/\.$/);
		});
		it.each(valid.map((one) => [one.name, one] as const))('passes over %s', (_, { question }) => {
			expect(check.find(question, context)).toEqual([]);
		});
		it.each(invalid.map((one) => [one.name, one] as const))('finds %s', (_, { question, says, words, mended }) => {
			const before = structuredClone(question);
			const findings = check.find(question, context);
			expect(findings.map((finding) => finding.message).join(' ')).toContain(says);
			if (words) expect(findings.flatMap((finding) => finding.words ?? [])).toEqual(words);
			if (check.mend && mended !== undefined) {
				const after = check.mend.apply(question, mendTools);
				if (mended === null) expect(after).toEqual(before);
				else {
					mended(after);
					expect(check.find(after, context)).toEqual([]);
					expect(check.mend.apply(after, mendTools)).toEqual(after);
					expect(markupOf(after).length).toBeGreaterThan(0);
				}
			}
			// neither finding nor mending touches the question that was given
			expect(question).toEqual(before);
		});
	});
}
