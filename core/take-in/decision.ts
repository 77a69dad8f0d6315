import { array, lazy, number, object, string, type InferType } from 'yup';

const rule = ['skip', 'beside', 'replace'] as const;

/** What becomes of a question that has a counterpart in the course: left there, taken in beside it, or put in its place. */
export type MatchRule = (typeof rule)[number];

const rules = {
	/** Keep the package's categories, or put all in one. */
	categories: string()
		.oneOf(['keep', 'one'] as const)
		.required(),
	/** The name of that one; empty for the bank itself. */
	oneCategory: string().defined().max(255),
	/** Take nothing where a question is in error, take the good and set the rest aside, or decide on each. */
	errors: string()
		.oneOf(['nothing', 'aside', 'each'] as const)
		.required(),
	/** What questions are held against: all of the course, the bank that they go to, or nothing. */
	against: string()
		.oneOf(['course', 'bank', 'nothing'] as const)
		.required()
		.default('course'),
	/** What becomes of questions that are there already, by how they are. */
	same: string().oneOf(rule).required(),
	changed: string().oneOf(rule).required(),
	near: string().oneOf(rule).required(),
	/** The shares that the course allows, in percent; empty for any. */
	creditSteps: array(number().min(-100).max(100).required()).defined().max(60),
	/** What becomes of a credit that is none of them. */
	creditOtherwise: string()
		.oneOf(['keep', 'nearest', 'aside'] as const)
		.required(),
	/** The points of each question, or null for its own. */
	points: number().min(0).max(1e6).nullable().defined(),
	/** Are options shuffled: as each question says, on except for pinned ones, or off. */
	shuffle: string()
		.oneOf(['keep', 'on', 'off'] as const)
		.required(),
	/** Whether a language model wrote them, so that each key is looked at. */
	writtenBy: string()
		.oneOf(['unsaid', 'machine'] as const)
		.required()
		.default('unsaid'),
	/** Tags that every question gets. */
	tags: array(string().trim().min(1).max(120).required()).defined().max(40)
};
const rulesShape = object(rules);

const byKey = lazy((value: unknown) =>
	object(Object.fromEntries(Object.keys(value ?? {}).map((key) => [key, string().defined().max(2000)]))).required()
) as never;

const decisionShape = object({
	...rules,
	/** An existing bank, or null for a new one. */
	bankId: number().integer().positive().nullable().defined(),
	/** The name of the new bank. */
	bankName: string().defined().max(190, 'The name of a bank has 190 characters at the most.'),
	/** Where questions go that stand only in a quiz: an existing bank, or a new one by its name; null where they go with the others. */
	quizBank: object({
		bankId: number().integer().positive().nullable().defined(),
		bankName: string().defined().max(190, 'The name of a bank has 190 characters at the most.')
	})
		.nullable()
		.default(null),
	/** The paths of categories to be left out, each as `pathKey` gives it. */
	leftOut: array(string().defined()).defined(),
	/** Where a person has put categories, by the path in the package: both as `pathKey` gives them. */
	landings: byKey
});

/** The rules of a decision: what a course remembers, and what can be saved by name. */
export type Rules = InferType<typeof rulesShape>;

/** What a person decides about a load. */
export type Decision = Omit<InferType<typeof decisionShape>, 'landings'> & { landings: Record<string, string> };

/** The rules where nobody has said anything. */
export const plainRules: Rules = {
	categories: 'keep',
	oneCategory: '',
	errors: 'aside',
	against: 'course',
	same: 'skip',
	changed: 'beside',
	near: 'beside',
	creditSteps: [],
	creditOtherwise: 'keep',
	points: null,
	shuffle: 'keep',
	writtenBy: 'unsaid',
	tags: []
};

/** What a review begins with where nobody has decided anything: the rules of the course, and a bank. */
export function startingDecision(rules: Rules, bank: Pick<Decision, 'bankId' | 'bankName'>): Decision {
	return { ...plainRules, ...rules, ...bank, quizBank: null, leftOut: [], landings: {} };
}

/**
 * The rules that a course begins with the next time: how categories are kept, what becomes of broken questions, the credit
 * that is allowed, and what is done with what is there already. What changes questions is never inherited.
 */
export function inherited(rules: Rules): Rules {
	const { categories, oneCategory, errors, against, same, changed, near, creditSteps, creditOtherwise } = rules;
	return {
		...plainRules,
		categories,
		oneCategory,
		errors,
		against,
		same,
		changed,
		near,
		creditSteps,
		creditOtherwise: creditOtherwise === 'nearest' ? 'keep' : creditOtherwise
	};
}

/** A decision out of a value of unknown shape. Throws Yup's ValidationError. */
export function parseDecision(value: unknown): Decision {
	return decisionShape.validateSync(value) as unknown as Decision;
}

/** Rules out of a value of unknown shape. Throws Yup's ValidationError. */
export function parseRules(value: unknown): Rules {
	return rulesShape.validateSync(value, { stripUnknown: true });
}
