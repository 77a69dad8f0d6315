import type { Kind } from '../kinds';
import type { Setting } from './adjust';
import type { MatchRule } from './decision';

/** How a question stands to those of the course. */
export type Match = 'new' | 'same' | 'changed' | 'near';

/** What taking in does with a question. */
export type Outcome = 'taken' | 'replaced' | 'aside' | 'left' | 'skipped';

/** Questions of a load that are alike in everything that a plan needs to know of them. */
export interface PlannedQuestions extends PlannedQuestion {
	/** How many they are. */
	many: number;
}

/** One question of a load, as far as a plan needs to know it. */
export interface PlannedQuestion {
	/** The path of the category that it is in, as `pathKey` gives it. */
	category: string;
	/** Whether it has a snag that is broken. */
	broken: boolean;
	/** What a person has decided for it alone. */
	choice: 'leave' | 'aside' | null;
	match: Match;
	/** The questions of the course that it is like in that way, each with its bank; the one that is held against it first. */
	twins: { id: number; bankId: number }[];
	/** The rule that a person has chosen for it alone. */
	matchRule: MatchRule | null;
	/** The credits in it that are neither nothing nor all, each a share. */
	credits: number[];
	/** It stands in a quiz, and in no bank or category of its own. */
	quizOnly: boolean;
	/** What the rules for many may change in it, and what was set for it alone. */
	kind: Kind;
	points: number | null;
	shuffle: boolean | null;
	tags: string[];
	alone: Setting[];
	/** Its options name one another by letter or place, which is a snag once they are shuffled. */
	orderBound: boolean;
}
