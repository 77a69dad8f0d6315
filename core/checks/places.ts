import type { CheckedCategory, CheckedQuiz, Finding, FindingInTree, QuizCheck, TreeCheck } from './check';
import { quizChecks, treeChecks } from '.';

/** What all checks over the tree find among the categories of a bank. */
export function* findInTree(categories: readonly CheckedCategory[]): Generator<FindingInTree & { check: TreeCheck }> {
	for (const check of treeChecks) for (const finding of check.find(categories)) yield { check, ...finding };
}

/** What all checks over a quiz find in one. */
export function* findInQuiz(quiz: CheckedQuiz): Generator<Finding & { check: QuizCheck }> {
	for (const check of quizChecks) for (const finding of check.find(quiz)) yield { check, ...finding };
}
