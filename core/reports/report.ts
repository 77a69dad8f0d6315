import type { CheckRule, ReaderRule } from './rules';

/** How bad a finding is: cannot be delivered or scored, probably wrong, or only untidy. */
export const severities = ['broken', 'doubtful', 'untidy'] as const;

/** One severity. */
export type Severity = (typeof severities)[number];

/** A place in a package: the file, and the line and column counted from 1 where they are known. */
export interface Place {
	file: string;
	line?: number;
	column?: number;
}

/** One finding, of a reader, a check or a writer alike. */
export interface Report {
	/** The rule that speaks: one of a reader's, or the id of a check. */
	rule: ReaderRule | CheckRule;
	severity: Severity;
	/** What is wrong, where and what to do, in a sentence or two for people. */
	message: string;
	/** The words concerned, as they stand in the question, to be lit. */
	words?: string[];
	place?: Place;
}
