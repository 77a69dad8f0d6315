import type { Decision } from './decision';
import { creditsFit, Effects, type Effect } from './effects';
import { landings, pathKey, pathOfKey, withAbove } from './paths';
import type { Outcome, PlannedQuestion, PlannedQuestions } from './planned-question';

/** The questions that go to the bank for those that stand only in a quiz, with the categories that they land in. */
export interface QuizBankPlan {
	taken: number;
	categories: string[];
	newCategories: string[];
}

/** What a decision comes to. The numbers add up: found = taken + replaced + aside + left + skipped. */
export interface Plan extends Record<Outcome, number> {
	found: number;
	/** What becomes of each question, in their order. */
	outcomes: Outcome[];
	/** The question of the course that each was held against, or null where there is none. */
	targets: (number | null)[];
	/** The categories that questions land in or that are made above them, and those of them that are new. */
	categories: string[];
	newCategories: string[];
	/** What of it goes to the bank for quizzes; null where none does. */
	quizBank: QuizBankPlan | null;
	/** What the rules that are not the plain ones do, each with the number of questions that it changes. */
	effects: Effect[];
	/** Broken questions on which nobody has decided, where each has to be. */
	undecided: number;
	/** Why it cannot be done, or null where it can. */
	refusal: string | null;
}

/** What a decision comes to, without what becomes of each question. */
export type PlanSummary = Omit<Plan, 'outcomes' | 'targets'>;

/** The question of the course that a question is held against, by the choice of what it is held against. */
function targetOf(question: PlannedQuestion, decision: Decision): number | null {
	if (decision.against === 'nothing') return null;
	if (decision.against === 'course') return question.twins[0]?.id ?? null;
	const bankId = goesToQuizBank(question, decision) ? decision.quizBank!.bankId : decision.bankId;
	return question.twins.find((twin) => twin.bankId === bankId)?.id ?? null;
}

/** What a decision does with a question; `target` is the one that it is held against. */
function outcomeOf(
	question: PlannedQuestion,
	target: number | null,
	decision: Decision,
	leftOut: ReadonlySet<string>
): Outcome {
	if (question.choice === 'leave' || leftOut.has(question.category)) return 'left';
	if (question.choice === 'aside' || question.broken) return 'aside';
	if (decision.creditOtherwise === 'aside' && !creditsFit(question.credits, decision.creditSteps)) return 'aside';
	const rule =
		question.match === 'new' || target === null ? 'beside' : (question.matchRule ?? decision[question.match]);
	return rule === 'skip' ? 'skipped' : rule === 'replace' ? 'replaced' : 'taken';
}

/**
 * What a decision does with one question by itself: of several that would take the place of one question of the course,
 * all are said to, though only the first does.
 */
export function outcomeByItself(question: PlannedQuestion, decision: Decision): Outcome {
	return outcomeOf(question, targetOf(question, decision), decision, new Set(decision.leftOut));
}

/** Whether a question goes to the bank for those that stand only in a quiz. */
export function goesToQuizBank(question: Pick<PlannedQuestion, 'quizOnly'>, decision: Decision): boolean {
	return question.quizOnly && decision.quizBank !== null;
}

/**
 * Whether a plan by a decision needs every question by itself: which of several takes the place of one of the course, or
 * which bank the others stand in, is not told by how many there are.
 */
export function needsEach(decision: Decision): boolean {
	return decision.against === 'bank' || [decision.same, decision.changed, decision.near].includes('replace');
}

/**
 * Works out what taking in would do; questions that are alike may be given together, with how many they are, where the
 * decision does not need each. `existing` are the paths of the chosen bank, as `pathKey` gives them, and
 * `existingInQuizBank` those of the bank for questions that stand only in a quiz; `quizzes` is how many quizzes come in. `listed` are
 * categories that the package has though nothing stands in them: they come in with what is taken, where categories are kept.
 */
export function planTakeIn(
	questions: Iterable<PlannedQuestion | PlannedQuestions>,
	decision: Decision,
	existing: string[],
	existingInQuizBank: string[] = [],
	quizzes = 0,
	listed: readonly string[] = []
): Plan {
	const out = new Set(decision.leftOut);
	const plan: Plan = {
		found: 0,
		outcomes: [],
		targets: [],
		taken: 0,
		replaced: 0,
		aside: 0,
		left: 0,
		skipped: 0,
		categories: [],
		newCategories: [],
		quizBank: null,
		effects: [],
		undecided: 0,
		refusal: null
	};
	const used = new Set<string>();
	const usedInQuizBank = new Set<string>();
	let inQuizBank = 0;
	const replaced = new Set<number>();
	const effects = new Effects(decision);
	let broken = 0;
	for (const question of questions) {
		const many = 'many' in question ? question.many : 1;
		const target = targetOf(question, decision);
		let outcome = outcomeOf(question, target, decision, out);
		// of several that would take the place of one question, the first does
		if (outcome === 'replaced' && replaced.has(target!)) outcome = 'taken';
		if (outcome === 'replaced') replaced.add(target!);
		plan.outcomes.push(outcome);
		plan.targets.push(target);
		effects.add(question, target, outcome, many);
		plan.found += many;
		plan[outcome] += many;
		if (outcome === 'aside' && question.broken) {
			broken += many;
			if (question.choice === null) plan.undecided += many;
		}
		if (outcome === 'taken' || outcome === 'replaced') {
			// what is put in the place of another stays where that one is
			if (outcome === 'taken') {
				if (goesToQuizBank(question, decision)) {
					inQuizBank += many;
					usedInQuizBank.add(question.category);
				} else used.add(question.category);
			}
		}
	}
	if (plan.taken > inQuizBank && decision.categories === 'keep')
		for (const key of listed) if (!out.has(key)) used.add(key);
	Object.assign(plan, categoriesOf(used, decision, existing));
	if (inQuizBank) plan.quizBank = { taken: inQuizBank, ...categoriesOf(usedInQuizBank, decision, existingInQuizBank) };
	plan.effects = effects.list();
	plan.refusal = refusalOf(plan, decision, broken, quizzes);
	return plan;
}

/** The categories of a bank that questions land in or that are made above them, and those that are new to it. */
function categoriesOf(
	used: ReadonlySet<string>,
	decision: Decision,
	existing: string[]
): Pick<Plan, 'categories' | 'newCategories'> {
	const land = landings(decision, existing);
	const known = new Set(existing);
	const landed = [...used].map((key) => land(pathOfKey(key)));
	const direct = new Set(landed.map(pathKey));
	// one that is there already, and only stands above others, gets nothing
	const categories = withAbove(landed)
		.map(pathKey)
		.filter((key) => direct.has(key) || !known.has(key));
	return { categories, newCategories: categories.filter((key) => !known.has(key)) };
}

function refusalOf(plan: Plan, decision: Decision, broken: number, quizzes: number): string | null {
	const them = (number: number, one: string, many: string) => (number === 1 ? one : many);
	// a bank into which nothing goes is not made
	const intoMain = plan.taken - (plan.quizBank?.taken ?? 0);
	if (
		(intoMain || (plan.taken + plan.skipped === 0 && !plan.quizBank)) &&
		decision.bankId === null &&
		!decision.bankName.trim()
	)
		return 'Give the new bank a name.';
	if (plan.quizBank && decision.quizBank?.bankId === null && !decision.quizBank.bankName.trim())
		return 'Give the new bank for the questions of quizzes a name.';
	if (decision.errors === 'nothing' && broken)
		return `${broken} ${them(broken, 'question is', 'questions are')} broken, and the rule is to take nothing then. Mend ${them(broken, 'it, or leave it', 'them, or leave them')} out.`;
	if (decision.errors === 'each' && plan.undecided)
		return `${plan.undecided} broken ${them(plan.undecided, 'question waits', 'questions wait')} for a decision: mend ${them(plan.undecided, 'it', 'each')}, set ${them(plan.undecided, 'it', 'it')} aside or leave it out.`;
	// a quiz comes in alone where its questions are there already
	if (plan.taken + plan.replaced || (quizzes && plan.skipped)) return null;
	return plan.found
		? 'Nothing would be taken in: everything is left out, skipped or set aside.'
		: 'There is nothing to take in.';
}
