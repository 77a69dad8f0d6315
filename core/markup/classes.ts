/** The classes that rich text may have: what it means, and none by which a question could take the looks of the application. */
const ours = new Set(['underlined', 'struck', 'marked', 'unit', 'variable', 'blank']);

/** Those of the classes of an element that rich text may have, with blanks between; empty where it has none. */
export function ownClasses(value: string): string {
	return value
		.split(/\s+/)
		.filter((name) => ours.has(name))
		.join(' ');
}
