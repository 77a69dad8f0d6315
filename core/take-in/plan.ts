/** One category of a load with its questions, as it was found. */
export interface FoundCategory {
	/** The path, outermost first; empty for questions without a category. */
	path: string[];
	questions: number;
	/** How many of them have a snag that is broken. */
	broken: number;
}

/** What a person decides about a load. */
export interface Decision {
	/** An existing bank, or null for a new one. */
	bankId: number | null;
	/** The name of the new bank. */
	bankName: string;
	/** Keep the package's categories, or put all in one. */
	categories: 'keep' | 'one';
	/** The name of that one; empty for the bank itself. */
	oneCategory: string;
	/** Take nothing where a question is in error, or take the good and set the rest aside. */
	errors: 'nothing' | 'aside';
	/** The paths of categories to be left out, each as `pathKey` gives it. */
	leftOut: string[];
}

/** What a decision comes to. The numbers add up: found = taken + aside + left. */
export interface Plan {
	found: number;
	taken: number;
	aside: number;
	left: number;
	/** The categories that questions land in, and those of them that are new. */
	categories: number;
	newCategories: number;
	/** Why it cannot be done, or null where it can. */
	refusal: string | null;
}

/** A path as one string: its steps with line feeds between, which no name has. */
export function pathKey(path: string[]): string {
	return path.map((step) => step.replace(/\s*\n\s*/g, ' ')).join('\n');
}

/** A path out of its string. */
export function pathOfKey(key: string): string[] {
	return key ? key.split('\n') : [];
}

/** Where the questions of a found category land. */
export function landing(path: string[], decision: Decision): string[] {
	if (decision.categories === 'keep') return path;
	return decision.oneCategory.trim() ? [decision.oneCategory.trim()] : [];
}

/** Every path that has to be there so that questions can land in `paths`: those and all above them. */
export function withAbove(paths: string[][]): string[][] {
	const found = new Map<string, string[]>();
	for (const path of paths)
		for (let depth = 1; depth <= path.length; depth += 1)
			found.set(pathKey(path.slice(0, depth)), path.slice(0, depth));
	return [...found.values()].sort((a, b) => a.length - b.length);
}

/** Works out what taking in would do. `existing` are the paths of the chosen bank, as `pathKey` gives them. */
export function planTakeIn(found: FoundCategory[], decision: Decision, existing: string[]): Plan {
	const out = new Set(decision.leftOut);
	const plan: Plan = { found: 0, taken: 0, aside: 0, left: 0, categories: 0, newCategories: 0, refusal: null };
	const landings: string[][] = [];
	for (const category of found) {
		plan.found += category.questions;
		if (out.has(pathKey(category.path))) {
			plan.left += category.questions;
			continue;
		}
		plan.aside += category.broken;
		plan.taken += category.questions - category.broken;
		if (category.questions > category.broken) landings.push(landing(category.path, decision));
	}
	const known = new Set(existing);
	const needed = withAbove(landings);
	plan.categories = needed.length;
	plan.newCategories = needed.filter((path) => !known.has(pathKey(path))).length;
	if (decision.bankId === null && !decision.bankName.trim()) plan.refusal = 'Give the new bank a name.';
	else if (decision.errors === 'nothing' && plan.aside > 0)
		plan.refusal = `${plan.aside} ${plan.aside === 1 ? 'question is' : 'questions are'} broken, and the rule is to take nothing then. Leave ${plan.aside === 1 ? 'it' : 'them'} out, or set ${plan.aside === 1 ? 'it' : 'them'} aside.`;
	else if (!plan.taken)
		plan.refusal = plan.found
			? 'Nothing would be taken in: everything is left out or set aside.'
			: 'There is nothing to take in.';
	if (decision.errors === 'nothing' && plan.refusal && plan.aside) plan.taken = 0;
	return plan;
}
