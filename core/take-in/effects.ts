import { takesPoints } from './adjust';
import type { Decision } from './decision';
import type { Outcome, PlannedQuestion } from './planned-question';

/** A rule that is not the plain one, and what it comes to. */
export interface Effect {
	rule:
		'categories' | 'errors' | 'against' | 'same' | 'changed' | 'near' | 'creditSteps' | 'points' | 'shuffle' | 'tags';
	/** What it does, for people, to be read behind a number of questions or by itself. */
	what: string;
	/** How many questions it changes, or does something with. */
	questions: number;
}

const nearly = (a: number, b: number) => Math.abs(a - b) < 5e-5;

/** Whether all credits are among the steps that a course allows, in percent; an empty list allows any. */
export function creditsFit(credits: number[], steps: number[]): boolean {
	return !steps.length || credits.every((credit) => steps.some((step) => nearly(credit, step / 100)));
}

const matchWords = {
	same: 'the same as one that is there',
	changed: 'a change of one',
	near: 'nearly the same as one'
};
const ruleWords = { skip: 'skipped', beside: 'taken in beside it', replace: 'put in its place' };
const plainMatch = { same: 'skip', changed: 'beside', near: 'beside' } as const;

/** Counts what the rules that are not the plain ones do to the questions of a load, one question after the other. */
export class Effects {
	readonly #decision: Decision;
	readonly #counts = new Map<Effect['rule'], number>();
	/** Questions that are shuffled though their options name one another by letter or place. */
	#bound = 0;
	/** How many questions are noted at this moment. */
	#many = 1;

	constructor(decision: Decision) {
		this.#decision = decision;
	}

	#count(rule: Effect['rule'], does: boolean): void {
		if (does) this.#counts.set(rule, (this.#counts.get(rule) ?? 0) + this.#many);
	}

	/**
	 * Notes questions that are alike, `many` of them, with what becomes of them; `target` is the one of the course that they
	 * are held against.
	 */
	add(question: PlannedQuestion, target: number | null, outcome: Outcome, many = 1): void {
		this.#many = many;
		const { against, errors, creditSteps, creditOtherwise } = this.#decision;
		this.#count(
			'against',
			against !== 'course' && question.twins.length > 0 && target !== (question.twins[0]?.id ?? null)
		);
		this.#count('errors', errors !== 'aside' && question.broken);
		if (question.match !== 'new' && target !== null && question.matchRule === null && outcome !== 'left')
			this.#count(question.match, !question.broken);
		const fits = creditsFit(question.credits, creditSteps);
		if (creditOtherwise === 'aside') this.#count('creditSteps', !fits && outcome === 'aside' && !question.broken);
		if (outcome === 'taken' || outcome === 'replaced') this.#changed(question, fits);
	}

	/** Notes what is changed in a question that is taken in. */
	#changed(question: PlannedQuestion, fits: boolean): void {
		const { points, shuffle, tags, categories, oneCategory, creditOtherwise } = this.#decision;
		const { alone } = question;
		this.#count('categories', categories === 'one' && question.category !== oneCategory.trim());
		this.#count(
			'points',
			points !== null && takesPoints(question.kind) && question.points !== points && !alone.includes('points')
		);
		const turns = shuffle !== 'keep' && canShuffle(question) && question.shuffle !== (shuffle === 'on');
		this.#count('shuffle', turns && !alone.includes('shuffle'));
		if (turns && shuffle === 'on' && !alone.includes('shuffle') && question.orderBound) this.#bound += this.#many;
		this.#count('tags', !alone.includes('tags') && tags.some((tag) => !question.tags.includes(tag)));
		if (creditOtherwise === 'nearest') this.#count('creditSteps', !fits && !alone.includes('credit'));
	}

	/** What was found, in the order in which it is read back. */
	list(): Effect[] {
		const found: Effect[] = [];
		const say = (rule: Effect['rule'], what: string) =>
			found.push({ rule, what, questions: this.#counts.get(rule) ?? 0 });
		const { categories, oneCategory, errors, against, creditSteps, creditOtherwise, points, shuffle, tags, ...rules } =
			this.#decision;
		if (categories === 'one')
			say('categories', oneCategory.trim() ? `all put into “${oneCategory.trim()}”` : 'all put into the bank itself');
		if (errors !== 'aside')
			say(
				'errors',
				errors === 'nothing' ? 'nothing taken in unless all are good' : 'broken ones decided on one by one'
			);
		if (against !== 'course')
			say('against', against === 'bank' ? 'held against the bank alone' : 'not held against the course');
		if (against !== 'nothing')
			for (const match of ['same', 'changed', 'near'] as const)
				if (rules[match] !== plainMatch[match]) say(match, `${matchWords[match]}: ${ruleWords[rules[match]]}`);
		if (creditSteps.length && creditOtherwise !== 'keep')
			say(
				'creditSteps',
				creditOtherwise === 'nearest' ? 'credit moved to the nearest that is allowed' : 'credit not allowed: set aside'
			);
		if (points !== null) say('points', `points set to ${points}`);
		if (shuffle !== 'keep')
			say(
				'shuffle',
				shuffle === 'off'
					? 'option shuffle turned off'
					: `option shuffle turned on${this.#bound ? ` (${this.#bound} of them name options by letter or place and get a snag)` : ''}`
			);
		if (tags.length) say('tags', `tagged ${tags.map((tag) => `“${tag}”`).join(', ')}`);
		return found;
	}
}

const shuffles = new Set(['true-false', 'multiple-choice', 'multiple-response', 'fill-blanks', 'matching', 'ordering']);
const canShuffle = ({ kind }: PlannedQuestion) => shuffles.has(kind);
