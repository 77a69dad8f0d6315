/** A value in a record: what it reads as text, and whether it is rich. */
export interface Value {
	text: string;
	/** The markup of its content, where it has elements. */
	html: string | null;
	/** A number, a truth, or nothing, where the file tells them from text. */
	plain: unknown;
}

/** A record of a file of no standard shape: gives what stands at a path, and parts of it as records. */
export interface RecordAccess {
	values: (path: string) => Value[];
	parts: (path: string) => RecordAccess[];
	/** What stands directly in it: each name once (that of an attribute with an @), with its text, where it has any. */
	fields: () => [string, string][];
	/** The labels of what stands around it, outermost first. */
	ancestors: (label: string) => string[];
}
