/** A number, or a letter with a mark, that stands before a name: “3. ”, “12) ”, “Chapter” stays. */
const numbered = /^\s*\d+(?:\.\d+)*\s*[.):–-]?\s+/;

/**
 * Names of one level with numbers before them in their order, all of one length, so that sorting by letters keeps the
 * order: of ten names “01 Theory” to “10 Pilotage”. A number that was there before goes.
 */
export function paddedNames(names: readonly string[]): string[] {
	const digits = String(names.length).length;
	return names.map((name, at) => `${String(at + 1).padStart(digits, '0')} ${name.replace(numbered, '')}`.slice(0, 255));
}
