/** What a thread is asked to do. */
export interface Question {
	name: string;
	/** What the task takes behind the pool of connections. */
	values: unknown[];
}

/** What a thread answers: what the task gives, or what went wrong. */
export type Answer =
	| { value: unknown }
	| { failure: { kind: 'refused' | 'invalid' | 'other'; message: string; code: string; stack: string } };
